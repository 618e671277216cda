"""Files and folders grouped into map sets, each file's role and conventions found and explained."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from pathlib import Path

import cv2
import msgspec
import numpy as np

from ...core.errors import TesselError
from ...core.gather.conventions import agreement, green_direction
from ...core.gather.names import UNKNOWN, Reading, words_of
from ...core.gather.pictures import as_map
from ...core.gather.roles import Looks, decide, read_pixels
from ...core.gather.sets import Member, sets_of_names
from ...core.gather.several import SAME_PATCH
from ...core.job.document import Picture, Source
from ...core.job.nodes import new_id
from ...core.maps import MapKind
from ...core.sheet import Grid, Raster
from ...formats.images import decode_codes, read_file, read_header
from ...formats.real_size import real_size
from ..evaluate import always
from ..wording import sentence
from .intake import Intake, dressed
from .rig import measure, read_frames
from .scanned import is_scan, scanned_source
from .scans import scan_source
from .trees import Proposed, skipped_sentence, walk

LOOK_PX = 512
_AGREES = 0.15


@dataclass(frozen=True, slots=True)
class FoundMap:
    """One map of a set: which channel of which file, what it is, and why."""

    path: Path
    channel: str
    role: str
    green: str
    confidence: float
    reason: str
    turned_over: bool = False
    curved: bool = False


@dataclass(frozen=True, slots=True)
class FoundSet:
    """Files that belong together, and their real size in mm if a file says it; ``copies`` are smaller ones or other
    formats of the same maps, which are left out.
    """

    name: str
    maps: tuple[FoundMap, ...]
    size_mm: tuple[float, float] | None
    copies: tuple[Path, ...] = ()

    @property
    def missing(self) -> tuple[str, ...]:
        """Roles a full set would have and this one lacks."""
        wanted = (MapKind.BASE_COLOUR, MapKind.NORMAL, MapKind.ROUGHNESS, MapKind.HEIGHT)
        held = {found.role for found in self.maps} | ({MapKind.ROUGHNESS.value} if self._glossy else set())
        return tuple(kind.value for kind in wanted if kind not in held)

    @property
    def _glossy(self) -> bool:
        return any(found.role == "glossiness" for found in self.maps)


def gather_sets(files: Iterable[Path], *, refused: Callable[[TesselError], None] | None = None) -> list[FoundSet]:
    """Group files by their names, folder by folder, and find out what each is.

    Files that cannot be read are handed to ``refused`` and leave the rest alone.
    """
    folders: dict[Path, list[Path]] = {}
    for path in files:
        folders.setdefault(path.parent, []).append(path)
    found = (
        look_at(Proposed(folder, named), refused=refused)
        for folder, own in folders.items()
        for named in sets_of_names([path.name for path in own])
    )
    return [one for one in found if one.maps]


def look_at(proposed: Proposed, *, refused: Callable[[TesselError], None] | None = None) -> FoundSet:
    """What the files of a set are, by their names and their pixels, and by what was chosen by hand."""
    folder, named = proposed.folder, proposed.named
    found: list[FoundMap] = []
    size = None
    pixels: dict[str, tuple[Raster, FoundMap]] = {}
    coloured = any(member.reading.role == MapKind.BASE_COLOUR for member in named.members)
    for member in named.members:
        path = folder / member.name
        try:
            data = read_file(path)
            codes, depth = _look(data, path.name)
        except TesselError as error:
            if refused is None:
                raise
            refused(error)
            continue
        size = size or real_size(data)
        chosen = proposed.by_hand.get(member.name, "")
        for one in _maps_of(path, member, codes, depth, alone=len(named.members) == 1, coloured=coloured):
            if chosen and one.channel == "rgb":
                one = replace(one, role=chosen, reason="chosen by hand")
            found.append(one)
            pixels.setdefault(one.role, (codes, one))
    copies = tuple(folder / name for member in named.members for name in member.copies)
    # A word that was no role after all belongs to the name.
    whole = len(named.members) == 1 and found and found[0].role in {MapKind.BASE_COLOUR, UNKNOWN}
    name = proposed.name
    if whole and not proposed.title and named.members[0].reading.role not in {MapKind.BASE_COLOUR, UNKNOWN}:
        name = " ".join(words_of(Path(named.members[0].name).stem)).capitalize()
    return FoundSet(name, tuple(_agreed(found, pixels)), proposed.size_mm or size, copies)


def _look(data: bytes, name: str) -> tuple[Raster, int]:
    """Codes of a middle crop at full density, so that fine detail is judged as it is."""
    depth = read_header(data, name).depth
    codes = decode_codes(data, name)
    top, left = (max(0, (side - LOOK_PX) // 2) for side in codes.shape[:2])
    return np.ascontiguousarray(codes[top : top + LOOK_PX, left : left + LOOK_PX]), depth


def _maps_of(path: Path, member: Member, codes: Raster, depth: int, *, alone: bool, coloured: bool) -> list[FoundMap]:
    named = member.reading
    looks = read_pixels(codes[..., :3])
    if len(named.channels) > 1:
        return [
            FoundMap(path, c, role, UNKNOWN, 0.9, f"channel {c} by the letters of its name")
            for c, role in named.channels
        ]
    told = decide(named, looks, codes[..., :3], alone=alone)
    if named.role == UNKNOWN and told.role == MapKind.BASE_COLOUR and coloured:
        told = Looks(UNKNOWN, 0.5, "a picture of the whole, or a variant: its set has a colour already")
    found = [_one(path, named, told, codes, depth)]
    alpha = codes[..., 3]
    if float(alpha.std()) > 0.02:
        found.append(FoundMap(path, "a", MapKind.OPACITY, UNKNOWN, 0.6, "its alpha varies"))
    return found


def _one(path: Path, named: Reading, told: Looks, codes: Raster, depth: int) -> FoundMap:
    if told.role != MapKind.NORMAL:
        return FoundMap(path, "rgb", told.role, UNKNOWN, round(told.confidence, 3), told.reason)
    vectors = as_map(codes, Picture(id="look", role=MapKind.NORMAL, green="up", curved=told.curved))
    green = green_direction(vectors, depth=min(depth, 16))
    direction, reason = green.direction, f"{told.reason}; {green.reason}"
    if direction == UNKNOWN and named.green != UNKNOWN:
        direction, reason = named.green, f"{told.reason}; its name says green {named.green}"
    elif named.green not in {UNKNOWN, direction}:
        reason += f", though its name says {named.green}"
    return FoundMap(
        path,
        "rgb",
        told.role,
        direction,
        round(told.confidence * max(0.5, green.confidence), 3),
        reason,
        curved=told.curved,
    )


def _agreed(found: list[FoundMap], pixels: dict[str, tuple[Raster, FoundMap]]) -> list[FoundMap]:
    """Normal and height held against each other: does the relief come out in both?"""
    if MapKind.NORMAL not in pixels or MapKind.HEIGHT not in pixels:
        return found
    (codes, one), (height, other) = pixels[MapKind.NORMAL], pixels[MapKind.HEIGHT]
    normal = as_map(codes, Picture(id="look", role=MapKind.NORMAL, green=one.green, curved=one.curved))
    grey = np.asarray(cv2.resize(height[..., 0], normal.shape[1::-1], interpolation=cv2.INTER_AREA), np.float32)
    match = agreement(
        normal, grey, Grid(normal.shape[1], normal.shape[0], 100.0, 100.0 * normal.shape[0] / normal.shape[1])
    )
    if abs(match) < _AGREES:
        return found
    words = "agrees with the height map" if match > 0 else "goes in where the height map comes out"
    changed = FoundMap(
        one.path,
        one.channel,
        one.role,
        one.green,
        one.confidence,
        f"{one.reason}; it {words} ({match:+.2f})",
        match < 0,
        one.curved,
    )
    assert other.role == MapKind.HEIGHT
    return [changed if entry is one else entry for entry in found]


def make_source(intake: Intake, found: FoundSet) -> Source:
    """A source of a found set: its base colour is the main picture, the rest its further maps."""
    main = next((entry for entry in found.maps if entry.role == MapKind.BASE_COLOUR), found.maps[0])
    source = intake.read_source(main.path)
    pictures = []
    for number, entry in enumerate(found.maps):
        if entry is main and entry.role in {MapKind.BASE_COLOUR, UNKNOWN}:
            continue
        blob = intake.keep_file(entry.path)
        pictures.append(
            Picture(
                id=f"map-{number}",
                role=str(entry.role),
                blob=blob,
                file_name=entry.path.name,
                channel=entry.channel,
                green=entry.green,
                turned_over=entry.turned_over,
                reason=entry.reason,
                curved=entry.curved,
                path=str(entry.path.absolute()),
            )
        )
    return dressed(source, found.name, tuple(pictures), str(main.role), found.size_mm)


def missing_roles(source: Source) -> tuple[str, ...]:
    """Maps that a full set would have and this source lacks; they are estimated or plain."""
    wanted = (MapKind.BASE_COLOUR.value, MapKind.NORMAL.value, MapKind.ROUGHNESS.value, MapKind.HEIGHT.value)
    held = {source.role, *(picture.role for picture in source.pictures)}
    return tuple(
        role for role in wanted if role not in held and not (role == MapKind.ROUGHNESS and "glossiness" in held)
    )


def read_maps(intake: Intake, paths: Iterable[Path], *, same_patch: bool = False) -> tuple[list[Picture], list[str]]:
    """Further maps for a source, each recognised by name and content, or all further pictures of the same patch;
    and a sentence for each that could not be read.
    """
    troubles: list[str] = []
    made: list[Picture] = []
    for path in paths:
        try:
            told = gather_sets([path])[0].maps[0]
            blob = intake.keep_file(path)
        except TesselError as error:
            troubles.append(sentence(error))
            continue
        role, reason = (
            (SAME_PATCH, "another picture of the same patch") if same_patch else (str(told.role), told.reason)
        )
        made.append(
            Picture(
                id=new_id("map"),
                role=role,
                blob=blob,
                file_name=path.name,
                channel="rgb" if same_patch else told.channel,
                green=told.green,
                turned_over=told.turned_over,
                curved=told.curved and not same_patch,
                reason=reason,
                path=str(path.absolute()),
            )
        )
    return made, troubles


def read_sources(
    intake: Intake, paths: Iterable[Path], *, current: Callable[[], bool] = always
) -> tuple[list[Source], list[str]]:
    """Files and folders as sources, and a sentence for each that could not be read."""
    tree = walk(paths, current=current)
    troubles = [skipped_sentence(tree.skipped)] if tree.skipped else []
    made = []
    for proposed in tree.proposed:
        if not current():
            break
        source, told = take_set(intake, proposed)
        made += [source] if source else []
        troubles += told
    return made, troubles


def _measured(intake: Intake, path: Path) -> tuple[Source, list[str]]:
    """A source of a scanned mesh or of frames of the light rig, and what there is to tell of it."""
    if is_scan(path):
        source, told = scanned_source(intake, path)
        return source, [told]
    capture = read_frames(path)
    return scan_source(intake, capture, measure(capture)).source, []


def take_set(intake: Intake, proposed: Proposed) -> tuple[Source | None, list[str]]:
    """A set of a list as a source, and a sentence for each file that could not be read; no source where none could."""
    troubles: list[str] = []
    try:
        if proposed.measured is not None:
            return _measured(intake, proposed.measured)
        found = look_at(proposed, refused=lambda error: troubles.append(sentence(error)))
        source = make_source(intake, found) if found.maps else None
        if source is not None and proposed.size_mm is not None:
            # It was typed, whatever the files say.
            frame = msgspec.structs.replace(source.straightening, size_note="")
            source = msgspec.structs.replace(source, straightening=frame)
        return source, troubles
    except TesselError as error:
        return None, [*troubles, sentence(error)]
