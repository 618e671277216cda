"""Cells with edges of several kinds: any two whose edges are of one kind meet, so neither edges nor insides come again
in rows.

Cohen, Shade, Hiller and Deussen 2003, "Wang Tiles for Image and Texture Generation": a cell is put together of four
diamonds, one for each of its edges, cut in along the line of least difference. Here the first kind of an edge is the
closed sheet's own, the second is a diamond of the sheet laid over that edge.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

import numpy as np
import numpy.typing as npt

from ..lattice import units_many
from ..maps import MapKind, MapSet
from ..operation import Choice, Length, Seed, Whole, operation
from ..sheet import Grid, Raster
from .patches import Outline, Patch, apply_patches, best_place, cut_out
from .variants import judged_small

COUNTS = ("8", "16")
_TRIES = 48
_DIAMOND = 0.47
"""Of a cell's sides: a diamond over an edge reaches so far, just short of those of the other edges."""
_ROUND = ((0, 0), (0, 1), (1, 1), (1, 0))
"""Kinds of two opposite edges in the order in which cells lie in an atlas: each meets the next, the last the first
(Wei 2004, "Tile-Based Texture Mapping on Graphics Hardware").
"""


@dataclass(frozen=True, slots=True)
class Cell:
    """The kinds of a cell's edges, 0 or 1, and which of the insides it has."""

    left: int
    right: int
    top: int
    bottom: int
    inside: int


def cells_in_order(count: int) -> list[list[Cell]]:
    """The cells of a set by rows, as they lie in its atlas: each meets its neighbours, and the atlas itself."""
    if count == 8:
        # Level edges of one kind, and two insides of each.
        return [[Cell(left, right, 0, 0, inside) for left, right in _ROUND] for inside in (0, 1)]
    return [[Cell(left, right, top, bottom, 0) for left, right in _ROUND] for top, bottom in _ROUND]


def make_cells(maps: MapSet, *, count: int, soften: float, seed: int) -> dict[Cell, MapSet]:
    """The cells of a set, all maps together; ``maps`` close on themselves."""
    pictures, weights, small = judged_small(maps)
    w, h = small.width_mm, small.height_mm
    diamond = Outline(_DIAMOND * w, _DIAMOND * h, 0.5, 1.0)
    draws = units_many(np.arange(64), np.zeros(64, np.int64), seed)

    def over(spot: tuple[float, float], number: int) -> Patch:
        draw = max(1e-6, float(draws[number]))
        place = best_place(pictures, weights, small, spot, diamond, apart=0.6, draw=draw)
        return cut_out(pictures, weights, small, spot, place, diamond)

    upright, level = over((0.0, h / 2), 0), over((w / 2, 0.0), 1)
    on_side = apply_patches(maps, [upright], feather_mm=soften)
    on_end = apply_patches(maps, [level], feather_mm=soften)
    inner, made = Outline(0.46 * w, 0.46 * h, 0.55, 2.0), {}
    for number, cell in enumerate(cell for row in cells_in_order(count) for cell in row):
        edged = _edged(maps, on_side, on_end, cell)
        # Each has an inside of its own: what is alike in two is the edge they share.
        here, _, _ = judged_small(edged)
        spot, draw = (w / 2, h / 2), max(1e-6, float(draws[2 + number]))
        place = best_place(here, weights, small, spot, inner, apart=0.45, draw=draw, source=pictures)
        patch = cut_out(here, weights, small, spot, place, inner, source=pictures)
        made[cell] = edged if number == 0 else apply_patches(edged, [patch], feather_mm=soften, source=maps)
    return made


def _edged(maps: MapSet, on_side: MapSet, on_end: MapSet, cell: Cell) -> MapSet:
    """The sheet with the edges of a cell: each diamond belongs to the edge it lies over."""
    rows, columns = maps.grid.shape
    done = {}
    for kind, pixels in maps.maps.items():
        out = pixels.copy()
        for wanted, source, part in (
            (cell.left, on_side, np.s_[:, : columns // 2]),
            (cell.right, on_side, np.s_[:, columns // 2 :]),
            (cell.top, on_end, np.s_[: rows // 2]),
            (cell.bottom, on_end, np.s_[rows // 2 :]),
        ):
            if wanted:
                # Only what the diamond changed: diamonds of other edges lie beside it.
                other = source[kind][part]
                changed = other != pixels[part]
                out[part] = np.where(changed, other, out[part])
        done[kind] = out
    return MapSet(maps.grid, done)


def laid_cells(across: int, up: int, count: int, seed: int) -> list[list[Cell]]:
    """Which cell lies where, by rows from the top: edges are drawn by the seed, and the whole closes on itself. Of some
    fields so drawn it is the one in which a cell comes again beside itself least.
    """
    return min((_drawn(across, up, count, seed + 101 * k) for k in range(_TRIES)), key=_again)


def _again(rows: list[list[Cell]]) -> float:
    """How often a cell comes again one or two cells on."""
    whole = np.array([[_number(cell) for cell in row] for row in rows])
    return sum(
        weight * float((whole == np.roll(whole, shift, (0, 1))).mean())
        for shift, weight in (((0, 1), 1), ((1, 0), 1), ((1, 1), 1), ((1, -1), 1), ((0, 2), 0.5), ((2, 0), 0.5))
        if shift[0] % whole.shape[0] or shift[1] % whole.shape[1]
    )


def _number(cell: Cell) -> int:
    """A number of its own for every cell."""
    return cell.left + 2 * cell.right + 4 * cell.top + 8 * cell.bottom + 16 * cell.inside


def _drawn(across: int, up: int, count: int, seed: int) -> list[list[Cell]]:
    c, r = np.meshgrid(np.arange(across), np.arange(up))

    def drawn(number: int) -> npt.NDArray[np.int64]:
        bits = units_many(c.ravel(), r.ravel(), seed + number).reshape(up, across) < 0.5
        return np.asarray(bits, np.int64)

    left, top, inside = drawn(11), drawn(12), drawn(13)
    right, bottom = np.roll(left, -1, 1), np.roll(top, -1, 0)
    if count == 8:
        top = bottom = np.zeros_like(left)
    else:
        inside = np.zeros_like(left)
    return [
        [Cell(*(int(part[y, x]) for part in (left, right, top, bottom, inside))) for x in range(across)]
        for y in range(up)
    ]


def together(cells: dict[Cell, MapSet], rows: list[list[Cell]]) -> MapSet:
    """Cells side by side as one sheet."""
    grid = next(iter(cells.values())).grid
    across, up = len(rows[0]), len(rows)
    wide = Grid(grid.width_px * across, grid.height_px * up, grid.width_mm * across, grid.height_mm * up)
    kinds: list[MapKind] = list(next(iter(cells.values())).maps)

    def whole(kind: MapKind) -> Raster:
        return np.ascontiguousarray(
            np.concatenate([np.concatenate([cells[cell][kind] for cell in row], axis=1) for row in rows], axis=0)
        )

    return MapSet(wide, {kind: whole(kind) for kind in kinds})


@operation("breakup.edges", label="Edge kinds")
def edge_kinds(
    grid: Grid,
    maps: MapSet,
    *,
    across: Annotated[int, Whole(1, 8, most=32, unit="×", help="How many cells wide the new repeat is.")] = 1,
    up: Annotated[int, Whole(1, 8, most=32, unit="×", help="How many cells high the new repeat is.")] = 1,
    count: Annotated[
        str, Choice(*COUNTS, help="8: upright edges of two kinds and two insides. 16: all edges of two kinds.")
    ] = "16",
    soften: Annotated[
        float, Length(0, 20, least=0, most=200, help="Width over which edges and insides are mixed in.")
    ] = 1.5,
    seed: Annotated[int, Seed()] = 1,
) -> MapSet:
    """Cells whose edges are of two kinds, laid where edges of one kind meet: neither edges nor insides come in rows.

    For what has no regular pattern; handed over as one atlas with its index.
    """
    if across == 1 and up == 1:
        return maps
    made = make_cells(maps, count=int(count), soften=soften, seed=seed)
    return together(made, laid_cells(across, up, int(count), seed))
