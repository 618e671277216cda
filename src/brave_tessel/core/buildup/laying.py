"""How a layer's maps are laid in the sheet: whole repeats, turned so that it closes, moved, mirrored."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

import numpy as np
import numpy.typing as npt

from ..kernels.normals import turned_normals
from ..kernels.wrapped import sample_moved
from ..maps import TRAITS, MapKind, MapSet
from ..operation import Angle, Choice, Length, operation
from ..sheet import Grid, Raster

REACH = 24
"""Turns are looked for among steps of up to so many repeats of the layer along either side."""


@dataclass(frozen=True, slots=True)
class Turn:
    """A turn that closes: the matrix from places on the sheet to places on the layer's own sheet, and how far it is
    from what was asked: its angle in degrees, how many times finer it is laid, and its stretch as a share.
    """

    matrix: npt.NDArray[np.float64]
    angle: float
    finer: float
    stretch: float


@operation("lay.sheet", label="Laid in the sheet")
def laid(
    grid: Grid,
    maps: MapSet,
    *,
    turn: Annotated[float, Angle(-180, 180, help="Turned anticlockwise by the nearest turn that closes.")] = 0.0,
    right: Annotated[float, Length(0, 500, least=-1e5, most=1e5, help="Moved to the right.")] = 0.0,
    up: Annotated[float, Length(0, 500, least=-1e5, most=1e5, help="Moved up.")] = 0.0,
    mirrored: Annotated[str, Choice("no", "across", "up", "both", help="Turned over like a page.")] = "no",
) -> MapSet:
    """The maps of a wrapped sheet turned, moved and mirrored on it; normals turn with it."""
    return lay_in_sheet(maps, (grid.width_mm, grid.height_mm), turn=turn, right=right, up=up, mirrored=mirrored)


def lay_in_sheet(
    maps: MapSet, cell_mm: tuple[float, float], *, turn: float, right: float, up: float, mirrored: str
) -> MapSet:
    """As :func:`laid`, for maps that repeat on a cell smaller than the sheet."""
    grid = maps.grid
    matrix = closing_turn(turn, (grid.width_mm, grid.height_mm), cell_mm).matrix
    if mirrored in {"across", "both"}:
        matrix = np.diag([-1.0, 1.0]) @ matrix
    if mirrored in {"up", "both"}:
        matrix = np.diag([1.0, -1.0]) @ matrix
    if np.array_equal(matrix, np.eye(2)):
        return maps if right == 0 and up == 0 else _moved(maps, right, up)
    return _mapped(maps, matrix, (right, up))


def closing_turn(wanted: float, sheet_mm: tuple[float, float], cell_mm: tuple[float, float]) -> Turn:
    """The nearest turn that closes.

    A turned layer closes where each side of the sheet lands on whole repeats of the layer. Of all steps of whole
    repeats the two are taken that together come nearest to a plain turn: a degree off counts as much as 3 % of scale or
    2 % of stretch.
    """
    if wanted % 360 == 0:
        return Turn(np.eye(2), 0.0, 1.0, 0.0)
    cell, sheet = np.array(cell_mm), np.array(sheet_mm)
    i, j = (grid.ravel() for grid in np.meshgrid(np.arange(-REACH, REACH + 1), np.arange(-REACH, REACH + 1)))
    steps = np.column_stack([i, j]) * cell
    length = np.hypot(steps[:, 0], steps[:, 1])
    steps = steps[(length > 0.6 * sheet[0]) & (length < 2.6 * sheet[0])]
    firsts = steps / sheet[0]
    # The second side is the nearest step to the first one turned by a right angle.
    ideal = np.column_stack([-firsts[:, 1], firsts[:, 0]]) * sheet[1]
    seconds = np.rint(ideal / cell) * cell / sheet[1]
    matrices = np.stack([firsts, seconds], axis=2)
    area = np.linalg.det(matrices)
    matrices = matrices[area > 0.1]
    big, small = np.linalg.svd(matrices, compute_uv=False).T
    angle = np.degrees(np.arctan2(-matrices[:, 1, 0], matrices[:, 0, 0]))
    off = np.abs((angle - wanted + 180) % 360 - 180)
    finer = np.sqrt(big * small)
    best = int(np.argmin(off + 33 * np.abs(np.log(finer)) + 50 * np.log(big / small)))
    return Turn(matrices[best], float(angle[best]), float(finer[best]), float(big[best] / small[best] - 1))


def _moved(maps: MapSet, right: float, up: float) -> MapSet:
    grid = maps.grid
    across, down = right / grid.mm_per_px[0], up / grid.mm_per_px[1]
    if abs(across - round(across)) < 1e-4 and abs(down - round(down)) < 1e-4:
        shift = (-round(down), round(across))
        return MapSet(grid, {kind: np.roll(pixels, shift, (0, 1)) for kind, pixels in maps.maps.items()})
    return _mapped(maps, np.eye(2), (right, up))


def _mapped(maps: MapSet, matrix: np.ndarray, offset: tuple[float, float]) -> MapSet:
    """Maps read at ``matrix @ (place − offset)``."""
    grid = maps.grid
    x, y = grid.x_mm() - offset[0], grid.y_mm() - offset[1]
    right, higher = (
        np.add.outer((down * y - dy).astype(np.float32), (across * x - dx).astype(np.float32))
        for across, down, dx, dy in ((*matrix[0], grid.x_mm(), 0.0), (*matrix[1], 0.0, grid.y_mm()))
    )
    made: dict[MapKind, Raster] = {}
    for kind, pixels in maps.maps.items():
        read = (
            _nearest(pixels, right, higher, grid)
            if not TRAITS[kind].mixes
            else sample_moved(np.ascontiguousarray(pixels), right, higher, grid)
        )
        made[kind] = turned_normals(read, matrix) if kind is MapKind.NORMAL else read
    return MapSet(grid, made)


def _nearest(pixels: Raster, right: Raster, up: Raster, grid: Grid) -> Raster:
    rows, columns = np.indices(grid.shape)
    across, down = grid.mm_per_px
    there = (
        np.rint(rows - up / down).astype(int) % grid.height_px,
        np.rint(columns + right / across).astype(int) % grid.width_px,
    )
    return np.ascontiguousarray(pixels[there])
