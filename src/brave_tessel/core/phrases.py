"""What is said to people, kept as a pattern and the values in it, so that any language can say it.

The core says things in plain English; the pattern is the key under which a catalogue holds the same in another
language. Nothing here translates: :mod:`brave_tessel.ui.words` does.
"""

from __future__ import annotations


class Phrase(str):
    """Plain English that remembers its pattern and what was put into it.

    Attributes
    ----------
    pattern : the words with ``{names}`` for the values
    values : what stands in their places; phrases among them are said in the same language
    """

    __slots__ = ("pattern", "values")

    pattern: str
    values: dict[str, object]


def say(pattern: str, /, **values: object) -> Phrase:
    """A phrase of a pattern. Without values the pattern is taken as it is, braces and all."""
    phrase = Phrase(pattern.format(**values) if values else pattern)
    phrase.pattern, phrase.values = (
        (pattern.pattern, pattern.values) if isinstance(pattern, Phrase) and not values else (str(pattern), values)
    )
    return phrase


def say_count(count: int, one: str, many: str, /, **values: object) -> Phrase:
    """A phrase of a number of things: ``one`` for exactly one, ``many`` for none or more; both may show ``{n}``."""
    return say(one if count == 1 else many, n=count, **values)
