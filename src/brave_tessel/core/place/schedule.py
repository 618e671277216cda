"""The schedule of a part: how many whole units it takes, how many cut ones of which size, and what is wasted."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
import shapely

from ..job.scene import Place
from ..kernels.mosaic import Mosaic
from .regions import Region, Shape
from .site import Site

WITHIN_MM = 0.5
THIRD = 1 / 3
MOST_UNITS = 400_000
_Floats = npt.NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Sliver:
    """A piece under a third of its unit: where it is in the pattern and in the scene, and its sizes, mm."""

    x: float
    y: float
    place: Place
    wide: float
    tall: float

    @property
    def mm(self) -> float:
        """Its smaller side."""
        return min(self.wide, self.tall)


@dataclass(frozen=True, slots=True)
class Schedule:
    """Units of something laid. ``by_size`` counts them by along × up in whole mm, whole ones first. ``waste`` is what
    is cut off, as a share of all units used.
    """

    whole: int = 0
    cut: int = 0
    by_size: tuple[tuple[str, int], ...] = ()
    slivers: tuple[Sliver, ...] = ()
    area_mm2: float = 0.0
    waste: float = 0.0

    def __add__(self, other: Schedule) -> Schedule:
        sizes = Counter(dict(self.by_size))
        sizes.update(dict(other.by_size))
        area = self.area_mm2 + other.area_mm2
        used = self.used_mm2 + other.used_mm2
        return Schedule(
            self.whole + other.whole, self.cut + other.cut, tuple(sizes.most_common()), self.slivers + other.slivers,
            area, 1 - area / used if used > 0 else 0.0,
        )  # fmt: skip

    @property
    def used_mm2(self) -> float:
        """The faces of all units used, before they are cut."""
        return self.area_mm2 / max(1e-9, 1 - self.waste)


@dataclass(frozen=True, eq=False)
class Pieces:
    """Units as they are cut, in the pattern's mm: their shapes, their sizes along their own directions (N, 2) and those
    of the whole unit, their areas, and which are whole and which are slivers.
    """

    shapes: npt.NDArray[np.object_]
    sizes: _Floats
    units: _Floats
    areas: _Floats
    full: _Floats
    whole: npt.NDArray[np.bool_]
    small: npt.NDArray[np.bool_]


def cut_out(shape: Shape, outlines: Mosaic, repeat: tuple[float, float]) -> Pieces | None:
    """The units of a pattern that lie in a shape, cut where they leave it; None where there are too many.

    A unit is whole if no more than half a millimetre of it is missing; a piece smaller than that is none.
    """
    made = _tiled(outlines, repeat, shape.bounds)
    if made is None:
        return None
    units, kind = made
    # Threads look at the same regions: what is prepared for a quick answer is this one's own.
    shape = shapely.transform(shape, np.copy)
    shapely.prepare(shape)
    meets = shapely.intersects(shape, units)
    units, kind = units[meets], kind[meets]
    inside = shapely.contains(shape, units)
    pieces = units.copy()
    pieces[~inside] = shapely.intersection(units[~inside], shape)
    areas, full = shapely.area(pieces), shapely.area(units)
    sizes, own = _boxes(pieces, kind, outlines), _boxes(units, kind, outlines)
    whole = full - areas <= WITHIN_MM * own.max(1)
    if outlines.endless:
        # A board is whole if it keeps its width, however long it is.
        long = 0 if outlines.endless == "across" else 1
        own[:, long] = sizes[:, long]
        whole = np.abs(own - sizes).max(1) <= WITHIN_MM
        full = areas * own[:, 1 - long] / np.maximum(sizes[:, 1 - long], 1e-9)
    there = (areas > 1e-9) & (sizes.min(1) > WITHIN_MM)
    short = sizes < own * THIRD
    small = ~whole & (short[:, 1] if outlines.any_length else short.any(1))
    return Pieces(*(each[there] for each in (pieces, sizes, own, areas, full, whole, small)))


def pieces_of(site: Site, region: Region) -> Pieces | None:
    """The units of what lies in a region; None where it has none that can be told apart. Worked out once."""
    standing, row = region.standing, region.row
    laid = standing.part.laid[row]
    surface, outlines = site.surface(laid), site.outlines(laid)
    if surface is None or outlines is None or not laid.laying.known:
        return None
    repeat = (surface.width_mm, surface.height_mm)
    key = standing.laid_key(row, "pieces", int(region.faces[0]), id(region), surface.id, repeat)
    if key not in standing.by_laid:
        standing.by_laid[key] = (region, cut_out(region.shape, outlines, repeat))
    found: Pieces | None = standing.by_laid[key][1]
    return found


def schedule_of(site: Site, regions: Sequence[Region]) -> Schedule | None:
    """The schedule of some regions; None where the surface has no units that can be told apart, or too many."""
    total, any_units = Schedule(), False
    for region in regions:
        laid = region.standing.part.laid[region.row]
        found = pieces_of(site, region)
        if found is None:
            continue
        factor = laid.laying.number("factor")
        size = (factor * laid.laying.number("wider"), factor * laid.laying.number("taller"))
        total, any_units = total + counted(found, size=size, region=region), True
    return total if any_units else None


def count_units(shape: Shape, outlines: Mosaic, repeat: tuple[float, float]) -> Schedule | None:
    """Whole and cut units in a shape of the pattern, mm; None where there are too many."""
    found = cut_out(shape, outlines, repeat)
    return counted(found) if found is not None else None


def counted(found: Pieces, *, size: tuple[float, float] = (1.0, 1.0), region: Region | None = None) -> Schedule:
    """Units counted; ``size`` is how much larger they are laid, ``region`` where they lie in the scene."""
    used, kept = float(found.full.sum()), float(found.areas.sum())
    return Schedule(
        int(found.whole.sum()),
        int((~found.whole).sum()),
        _by_size(found, size),
        tuple(_slivers(found.shapes[found.small], found.sizes[found.small], size, region)),
        kept * size[0] * size[1],
        1 - kept / used if used > 0 else 0.0,
    )


def _tiled(
    outlines: Mosaic, repeat: tuple[float, float], bounds: tuple[float, float, float, float]
) -> tuple[npt.NDArray[np.object_], npt.NDArray[np.int64]] | None:
    """Every unit that may lie within bounds, without its joint, and which of the outlines it is."""
    faces = [_face(outline, outlines) for outline in outlines.outlines]
    left, low, right, high = bounds
    if outlines.endless:
        axis = 0 if outlines.endless == "across" else 1
        for face in faces:
            ends = face[:, axis] > face[:, axis].mean()
            face[:, axis] = np.where(ends, bounds[axis + 2] + 1.0, bounds[axis] - 1.0)
    sides = np.array([[*face.min(0), *face.max(0)] for face in faces])
    columns = _steps(left, right, sides[:, 0].min(), sides[:, 2].max(), repeat[0])
    rows = _steps(low, high, sides[:, 1].min(), sides[:, 3].max(), repeat[1])
    columns = range(0, 1) if outlines.endless == "across" else columns
    rows = range(0, 1) if outlines.endless == "up" else rows
    if len(columns) * len(rows) * len(faces) > MOST_UNITS:
        return None
    shifts = np.array([(i * repeat[0], j * repeat[1]) for j in rows for i in columns], float).reshape(-1, 2)
    lengths = np.array([len(face) for face in faces])
    # Only those that reach into the bounds are made.
    number = np.repeat(np.arange(len(shifts)), len(faces))
    which = np.tile(np.arange(len(faces)), len(shifts))
    box = sides[which] + np.tile(shifts[number], 2)
    near = (box[:, 0] < right) & (box[:, 2] > left) & (box[:, 1] < high) & (box[:, 3] > low)
    number, which = number[near], which[near]
    starts = np.concatenate([[0], np.cumsum(lengths)])
    counts = lengths[which]
    index = np.repeat(np.arange(len(which)), counts)
    inner = np.arange(int(counts.sum())) - np.repeat(np.concatenate([[0], np.cumsum(counts)[:-1]]), counts)
    points = np.concatenate(faces)[starts[which[index]] + inner] + shifts[number[index]]
    return shapely.polygons(shapely.linearrings(points, indices=index)), which


def _steps(start: float, end: float, least: float, most: float, repeat: float) -> range:
    """Whole repeats that reach from one place to another."""
    return range(math.floor((start - most) / repeat), math.ceil((end - least) / repeat) + 1)


def _face(outline: _Floats, outlines: Mosaic) -> _Floats:
    """A unit without its joint."""
    across, up = outlines.joint, outlines.joint if outlines.beds is None else outlines.beds
    if len(outline) == 4 and np.allclose(outline[0, 1], outline[1, 1]) and np.allclose(outline[0, 0], outline[3, 0]):
        middle = outline.mean(0)
        half = np.maximum(np.abs(outline - middle) - (across / 2, up / 2), 1e-6)
        return np.asarray(middle + np.sign(outline - middle) * half)
    smaller = shapely.buffer(shapely.Polygon(outline), -across / 2, join_style="mitre", mitre_limit=20.0)
    return (
        np.array(smaller.exterior.coords)[:-1] if smaller.geom_type == "Polygon" and not smaller.is_empty else outline
    )


def _boxes(pieces: npt.NDArray[np.object_], kind: npt.NDArray[np.int64], outlines: Mosaic) -> _Floats:
    """(N, 2) mm: sizes along and up a unit's own directions."""
    turns = np.radians(np.broadcast_to(np.asarray(outlines.turns, float), len(outlines.outlines)))[kind]
    points, index = shapely.get_coordinates(pieces, return_index=True)
    c, s = np.cos(turns[index]), np.sin(turns[index])
    turned = np.stack([points[:, 0] * c + points[:, 1] * s, -points[:, 0] * s + points[:, 1] * c], 1)
    low, high = np.full((len(pieces), 2), np.inf), np.full((len(pieces), 2), -np.inf)
    np.minimum.at(low, index, turned)
    np.maximum.at(high, index, turned)
    return np.where(np.isfinite(low), high - low, 0.0)


def _by_size(found: Pieces, size: tuple[float, float]) -> tuple[tuple[str, int], ...]:
    names = [f"{wide}x{tall}" for wide, tall in np.round(found.sizes * size).astype(int)]
    fill = np.minimum(1.0, found.full / np.maximum(found.units.prod(1), 1e-9))
    # A piece that does not fill its box as its unit does is notched or slanted.
    shaped = ~found.whole & (found.areas < 0.97 * found.sizes.prod(1) * fill)
    whole = Counter(name for name, kept in zip(names, found.whole, strict=True) if kept)
    units = set(whole)
    others = Counter(
        f"{name} shaped" if odd or name in units else name
        for name, kept, odd in zip(names, found.whole, shaped, strict=True)
        if not kept
    )
    return (*whole.most_common(), *others.most_common())


def _slivers(
    pieces: Iterable[Shape], boxes: _Floats, size: tuple[float, float], region: Region | None
) -> Iterable[Sliver]:
    for piece, (wide, tall) in zip(pieces, boxes, strict=True):
        middle = piece.representative_point()
        point = region.point_at(middle.x, middle.y) if region is not None else None
        x, y, z = (float(v) for v in point) if point is not None else (0.0, 0.0, 0.0)
        yield Sliver(float(middle.x), float(middle.y), (x, y, z), float(wide) * size[0], float(tall) * size[1])
