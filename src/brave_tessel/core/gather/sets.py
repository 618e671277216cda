"""Files of a folder as sets of maps, by their names alone: each name is read in the way that gives it company."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace

from ..maps import MapKind
from .names import UNKNOWN, Reading, readings_of

_ROUNDS = 4
_COMPANY, _CLASH = 1.2, 1.6
"""What another map of the same set is worth, and what one of the same role costs."""
_FRONT = frozenset(["t", "tx", "tex", "texture", "mat", "m", "mi"])
"""Words in front of names that say only that this is a picture of a material."""


@dataclass(frozen=True, slots=True)
class Member:
    """A file of a set as its name reads; ``copies`` are other files of the same map: smaller ones, other formats, the
    same normals with green the other way.
    """

    name: str
    reading: Reading
    copies: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class NamedSet:
    """Files that belong together; ``shared`` are names that belong to several sets, such as one height of two colours.
    Without a stem the folder's name is theirs.
    """

    stem: tuple[str, ...]
    members: tuple[Member, ...]
    shared: frozenset[str] = frozenset()

    @property
    def title(self) -> str:
        """Its words as people read them; empty where only the folder names it."""
        words = list(self.stem)
        while len(words) > 1 and words[0] in _FRONT:
            words.pop(0)
        return " ".join(words).capitalize()


@dataclass(slots=True)
class _File:
    name: str
    ways: list[Reading]
    chosen: Reading = field(init=False)

    def __post_init__(self) -> None:
        self.chosen = self.ways[0]


def sets_of_names(names: Iterable[str]) -> list[NamedSet]:
    """The sets of one folder's files, in the order of their first files."""
    files = [_File(name, readings_of(name)) for name in names]
    _choose(files, [way for file in files for way in file.ways])
    for _ in range(_ROUNDS):
        before = [file.chosen for file in files]
        _choose(files, before)
        if [file.chosen for file in files] == before:
            break
    _own_ways(files)
    _join_strangers(files)
    groups: dict[tuple[str, ...], list[_File]] = {}
    for file in files:
        groups.setdefault(file.chosen.stem, []).append(file)
    made = {stem: NamedSet(stem, _members(own)) for stem, own in groups.items()}
    return _with_shared(made)


def _choose(files: Sequence[_File], counted: Sequence[Reading]) -> None:
    """Each file takes its likeliest reading, given the roles that others have under the same stem."""
    roles: dict[tuple[str, ...], dict[str, int]] = defaultdict(lambda: defaultdict(int))
    for way in counted:
        roles[way.stem][way.role] += 1
    for file in files:
        file.chosen = min(file.ways, key=lambda way: _price(way, roles[way.stem], _beside(way, roles)))


def _beside(way: Reading, roles: Mapping[tuple[str, ...], dict[str, int]]) -> int:
    """How many roles a set has that a colour's own words go beyond: those of plain wood beside red wood."""
    if way.role != MapKind.BASE_COLOUR:
        return 0
    shorter = (way.stem[:-1], way.stem[:-2], way.stem[1:])
    return max(sum(role not in _COLOURS for role in roles.get(stem, {})) if stem else 0 for stem in shorter)


_COLOURS = frozenset({UNKNOWN, str(MapKind.BASE_COLOUR)})


def _price(way: Reading, there: dict[str, int], beside: int) -> float:
    others = sum(1 for role in there if role not in {way.role, UNKNOWN})
    bare = there.get(UNKNOWN, 0) > 0 and way.role != UNKNOWN
    clash = there.get(way.role, 0) > 1 and way.role != UNKNOWN
    company = max(min(others, 3) + (0.7 if bare else 0), 0.7 * min(beside, 3))
    price = way.cost - _COMPANY * company + (_CLASH if clash and not way.size else 0)
    return price + (2.0 if way.weak and company == 0 and way.channels else 0)


def _own_ways(files: Sequence[_File]) -> None:
    """What counts only in company and has none is a name without a role."""
    roles: dict[tuple[str, ...], dict[str, int]] = defaultdict(lambda: defaultdict(int))
    for file in files:
        roles[file.chosen.stem][file.chosen.role] += 1
    for file in files:
        alone = sum(roles[file.chosen.stem].values()) < 2 and not _beside(file.chosen, roles)
        if file.chosen.weak and file.chosen.channels and alone:
            file.chosen = next((way for way in file.ways if not way.weak), file.ways[-1])


def _join_strangers(files: Sequence[_File]) -> None:
    """A name with one more word than a set's stem, that no role is known by, belongs to the set all the same."""
    roles: dict[tuple[str, ...], set[str]] = defaultdict(set)
    for file in files:
        roles[file.chosen.stem].add(file.chosen.role)
    for file in files:
        stem = file.chosen.stem
        stranger = not file.chosen.channels and len(stem) > 1 and roles[stem] == {UNKNOWN} and not stem[-1].isdigit()
        if stranger and len(roles.get(stem[:-1], set()) - {UNKNOWN}) > 1:
            file.chosen = replace(file.chosen, stem=stem[:-1])


def _members(files: Sequence[_File]) -> tuple[Member, ...]:
    """One file for each role, the largest; copies go with it. A bare name is the base colour where there is none."""
    by_role: dict[tuple[object, ...], list[_File]] = {}
    has_colour = any(file.chosen.role == MapKind.BASE_COLOUR for file in files)
    for file in files:
        bare = file.chosen.role == UNKNOWN and file.ways[-1].stem == file.chosen.stem
        if bare and len(files) > 1 and not has_colour:
            file.chosen = replace(file.chosen, channels=(("rgb", str(MapKind.BASE_COLOUR)),))
        key: tuple[object, ...] = file.chosen.channels or (file.name,)
        if file.chosen.space:
            key = (*key, file.chosen.space)
        by_role.setdefault(key, []).append(file)
    made = []
    for same in by_role.values():
        best = max(same, key=lambda file: (file.chosen.size, file.chosen.green == "up", -_plainness(file.name)))
        copies = tuple(file.name for file in same if file is not best)
        made.append(Member(best.name, best.chosen, copies))
    return tuple(made)


def _plainness(name: str) -> int:
    """How much a format leaves out, 0 the least."""
    order = ("exr", "tif", "tiff", "hdr", "png", "psd", "tga", "bmp", "webp", "jpg", "jpeg")
    suffix = name.rsplit(".", 1)[-1].lower()
    return order.index(suffix) if suffix in order else len(order)


def _with_shared(made: dict[tuple[str, ...], NamedSet]) -> list[NamedSet]:
    """Colours that lean on the maps of a set without a colour become sets of their own, each with those maps."""
    gone: set[tuple[str, ...]] = set()
    for stem, own in made.items():
        if any(member.reading.role == MapKind.BASE_COLOUR for member in own.members) or not stem:
            continue
        variants = [
            other for other in made.values()
            if other is not own and _extends(other.stem, stem) and _only_colour(other)
        ]  # fmt: skip
        for variant in variants:
            made[variant.stem] = NamedSet(
                variant.stem, (*variant.members, *own.members), frozenset(member.name for member in own.members)
            )
        if variants and any(member.reading.channels for member in own.members):
            gone.add(stem)
    return [one for stem, one in made.items() if stem not in gone]


def _extends(longer: tuple[str, ...], stem: tuple[str, ...]) -> bool:
    """Whether a stem is another with one or two words more, at its end or at its front."""
    more = len(longer) - len(stem)
    return 1 <= more <= 2 and (longer[: len(stem)] == stem or longer[-len(stem) :] == stem)


def _only_colour(one: NamedSet) -> bool:
    kinds = {str(MapKind.BASE_COLOUR), str(MapKind.OPACITY)}
    return bool(one.members) and all(
        member.reading.channels and {role for _, role in member.reading.channels} <= kinds for member in one.members
    )
