"""Names of files that are handed over: made from a pattern that may come from anywhere, and safe whatever it says."""

from __future__ import annotations

import string
from collections.abc import Iterable

from ..errors import NotUnderstoodError
from ..phrases import say

PLACEHOLDERS = ("surface", "part", "file", "map")
"""``map`` is another word for ``file``: what the file holds."""
_SEPARATORS = set('/\\:*?"<>|')
_MOST_BYTES = 80
_ALLOWED = "letters with {surface} or {part}, and {file}, as in {surface}_{file}"


def file_stem(name: str) -> str:
    """A name as part of a file name: lower case, words joined by hyphens, no longer than a file system likes."""
    words = "".join(letter if letter.isalnum() else " " for letter in name.lower()).split()
    return "-".join(words).encode()[:_MOST_BYTES].decode("utf-8", "ignore").strip("-") or "surface"


def check_pattern(pattern: str) -> None:
    """Refuse a pattern that does not tell files apart, or says where they go.

    Raises
    ------
    NotUnderstoodError
        when it has other than plain placeholders, lacks one that is needed, or has a separator or a hidden name in it.
    """
    try:
        parts = list(string.Formatter().parse(pattern))
    except ValueError:
        parts = []
    literal = "".join(text for text, *_ in parts)
    names = {name for _, name, _, _ in parts if name is not None}
    plain = all(not spec and not conversion for _, name, spec, conversion in parts if name is not None)
    told_apart = names & {"surface", "part"} and names & {"file", "map"}
    odd = any(letter in _SEPARATORS or not letter.isprintable() for letter in literal)
    hidden = pattern.startswith((".", " ", "-", "~")) or pattern != pattern.strip()
    if not (plain and told_apart) or names - set(PLACEHOLDERS) or odd or hidden or len(literal.encode()) > _MOST_BYTES:
        raise NotUnderstoodError(
            say("name pattern"), value=pattern[:80], allowed=say(_ALLOWED), remedy="Type another pattern."
        )


def name_from(pattern: str, *, surface: str = "", part: str = "", file: str = "") -> str:
    """A file's name without its suffix. What is not given counts as the other: a surface's files, or a part's.

    Raises
    ------
    NotUnderstoodError
        see :func:`check_pattern`.
    """
    check_pattern(pattern)
    whose, held = surface or part, file
    return pattern.format(surface=whose, part=part or whose, file=held, map=held)


def distinct_stems(names: Iterable[tuple[str, str]]) -> dict[str, str]:
    """A stem for each of some things, by their ids; those whose names come to the same are numbered.

    Parameters
    ----------
    names : ids and names, in their order
    """
    stems: dict[str, str] = {}
    taken: set[str] = set()
    for id, name in names:
        stem, number = file_stem(name), 2
        made = stem
        while made.casefold() in taken:
            made, number = f"{stem}-{number}", number + 1
        taken.add(made.casefold())
        stems[id] = made
    return stems
