"""Pieces painted from polygons, and from the cells about points."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ..operation import Pieces
from ..sheet import Grid, Raster
from .bands import over_rows
from .compiled import compiled

_F = npt.NDArray[np.float64]
_I = npt.NDArray[np.int64]


@compiled
def _paint(
    first: int,
    last: int,
    number: npt.NDArray[np.int32],
    edge: Raster,
    across: Raster,
    up: Raster,
    starts: _I,
    points: _F,
    frames: _F,
    width_mm: float,
    height_mm: float,
    joint: float,
) -> None:
    rows, columns = edge.shape
    pitch_x, pitch_y = width_mm / columns, height_mm / rows
    for n in range(starts.size - 1):
        low_x, high_x, low_y, high_y = 1e18, -1e18, 1e18, -1e18
        for k in range(starts[n], starts[n + 1]):
            low_x, high_x = min(low_x, points[k, 0]), max(high_x, points[k, 0])
            low_y, high_y = min(low_y, points[k, 1]), max(high_y, points[k, 1])
        first_c, last_c = math.floor((low_x - joint) / pitch_x), math.ceil((high_x + joint) / pitch_x)
        first_r, last_r = (
            math.floor((height_mm - high_y - joint) / pitch_y),
            math.ceil((height_mm - low_y + joint) / pitch_y),
        )
        mx, my, ux, uy, half_u, half_v = frames[n]
        for r in range(first_r, last_r + 1):
            rr = r % rows
            if rr < first or rr >= last:
                continue
            y = height_mm - (r + 0.5) * pitch_y
            for c in range(first_c, last_c + 1):
                x = (c + 0.5) * pitch_x
                inside = 1e18
                for k in range(starts[n], starts[n + 1]):
                    m = k + 1 if k + 1 < starts[n + 1] else starts[n]
                    ex, ey = points[m, 0] - points[k, 0], points[m, 1] - points[k, 1]
                    away = (ex * (y - points[k, 1]) - ey * (x - points[k, 0])) / math.sqrt(ex * ex + ey * ey)
                    inside = min(inside, away)
                inside -= 0.5 * joint
                cc = c % columns
                if inside > edge[rr, cc]:
                    edge[rr, cc] = np.float32(inside)
                    number[rr, cc] = n if inside >= 0 else -1
                    across[rr, cc] = np.float32(((x - mx) * ux + (y - my) * uy) / half_u)
                    up[rr, cc] = np.float32((-(x - mx) * uy + (y - my) * ux) / half_v)


@dataclass(frozen=True, slots=True)
class Mosaic:
    """Convex outlines (k, 2) in mm, anticlockwise, that fill a wrapped sheet up to the middles of their joints.

    ``endless`` is across or up where units have no ends that way; ``beds`` the joint above and below them, where that
    is another; ``any_length`` whether their lengths are as they come, as of boards.
    """

    outlines: list[_F]
    joint: float
    turns: npt.ArrayLike = 0.0
    endless: str = ""
    beds: float | None = None
    any_length: bool = False

    def painted(self, grid: Grid) -> Pieces:
        """Its units on a sheet."""
        return paint_polygons(grid, self.outlines, joint_mm=self.joint, turns=self.turns)


def paint_polygons(grid: Grid, polygons: list[_F], *, joint_mm: float, turns: npt.ArrayLike = 0.0) -> Pieces:
    """Convex polygons (k, 2) in mm, anticlockwise, that fill the wrapped sheet; half a joint is taken off each side.

    ``turns`` (n,) or one for all, in degrees: which way a piece's own across points.
    """
    starts = np.cumsum([0, *(len(polygon) for polygon in polygons)]).astype(np.int64)
    angle = np.radians(np.broadcast_to(np.asarray(turns, np.float64), len(polygons)))
    frames = np.empty((len(polygons), 6))
    for n, polygon in enumerate(polygons):
        ux, uy = math.cos(angle[n]), math.sin(angle[n])
        u, v = polygon[:, 0] * ux + polygon[:, 1] * uy, -polygon[:, 0] * uy + polygon[:, 1] * ux
        mu, mv = 0.5 * (u.min() + u.max()), 0.5 * (v.min() + v.max())
        frames[n] = (
            mu * ux - mv * uy,
            mu * uy + mv * ux,
            ux,
            uy,
            max(0.5 * np.ptp(u) - joint_mm / 2, 1e-6),
            max(0.5 * np.ptp(v) - joint_mm / 2, 1e-6),
        )
    number = np.full(grid.shape, -1, np.int32)
    edge = np.full(grid.shape, -1e9, np.float32)
    across, up = np.zeros(grid.shape, np.float32), np.zeros(grid.shape, np.float32)
    over_rows(
        _paint,
        grid.height_px,
        number,
        edge,
        across,
        up,
        starts,
        np.ascontiguousarray(np.concatenate(polygons), np.float64),
        frames,
        grid.width_mm,
        grid.height_mm,
        float(joint_mm),
    )
    np.maximum(edge, np.float32(-joint_mm - 2 * grid.pitch_mm), out=edge)
    np.clip(across, -1.5, 1.5, out=across)
    np.clip(up, -1.5, 1.5, out=up)
    return Pieces(number, edge, across, up, len(polygons))


@compiled
def _sort_near(k: int, qx: _F, qy: _F, away: _F, order: _I) -> None:
    """All points by their distance from the ``k``-th, itself first."""
    for n in range(qx.size):
        here = math.sqrt((qx[n] - qx[k]) ** 2 + (qy[n] - qy[k]) ** 2)
        at = n
        while at > 0 and away[at - 1] > here:
            away[at], order[at] = away[at - 1], order[at - 1]
            at -= 1
        away[at], order[at] = here, n


@compiled
def _around(ix: int, iy: int, px: _F, py: _F, cell_x: float, cell_y: float, qx: _F, qy: _F, qn: _I) -> None:
    """Places and numbers of the points of the boxes around one."""
    ny, nx = px.shape
    side = int(math.sqrt(qx.size))
    reach = side // 2
    for k in range(side * side):
        ox, oy = k % side - reach, k // side - reach
        cx, cy = (ix + ox) % nx, (iy + oy) % ny
        qx[k] = px[cy, cx] + (ix + ox - cx) * cell_x
        qy[k] = py[cy, cx] + (iy + oy - cy) * cell_y
        qn[k] = cy * nx + cx


@compiled
def _cells(  # noqa: C901 - in parts it takes three times as long
    first: int,
    last: int,
    number: npt.NDArray[np.int32],
    edge: Raster,
    across: Raster,
    up: Raster,
    px: _F,
    py: _F,
    width_mm: float,
    height_mm: float,
    reach: int,
    only_edge: bool,
) -> None:
    rows, columns = edge.shape
    ny, nx = px.shape
    cell_x, cell_y = width_mm / nx, height_mm / ny
    half = 0.5 * math.sqrt(cell_x * cell_y)
    count = (2 * reach + 1) ** 2
    qx, qy, qn = np.empty(count), np.empty(count), np.empty(count, np.int64)
    away, order = np.empty(count), np.empty(count, np.int64)
    # Who is near whom is the same in all rows of a row of boxes.
    all_away, all_order = np.empty((nx, count, count)), np.empty((nx, count, count), np.int64)
    known, of_row = np.zeros((nx, count), np.bool_), -1
    for r in range(first, last):
        y = height_mm - (r + 0.5) * height_mm / rows
        iy = int(y / cell_y)
        if iy != of_row:
            of_row = iy
            known[:] = False
        before, winner, sorted_for = -1, 0, -1
        for c in range(columns):
            x = (c + 0.5) * width_mm / columns
            ix = int(x / cell_x)
            if ix != before:
                before, winner, sorted_for = ix, count // 2, -1
                _around(ix, iy, px, py, cell_x, cell_y, qx, qy, qn)
            best = (x - qx[winner]) ** 2 + (y - qy[winner]) ** 2
            while True:
                if winner != sorted_for:
                    sorted_for = winner
                    if not known[ix, winner]:
                        known[ix, winner] = True
                        _sort_near(winner, qx, qy, all_away[ix, winner], all_order[ix, winner])
                    for n in range(count):
                        away[n], order[n] = all_away[ix, winner, n], all_order[ix, winner, n]
                root = math.sqrt(best)
                # What lies further from the nearest so far than twice its own way from here cannot be nearer.
                for n in range(1, count):
                    if away[n] > 2 * root:
                        break
                    k = order[n]
                    d = (x - qx[k]) ** 2 + (y - qy[k]) ** 2
                    if d < best:
                        best, winner = d, k
                if winner == sorted_for:
                    break
            border = 1e30
            for n in range(1, count):
                if 0.5 * away[n] - root > border:
                    break
                if away[n] > 1e-9:
                    k = order[n]
                    # Half over the distance of both points makes of the difference of squares the way to their border.
                    border = min(border, ((x - qx[k]) ** 2 + (y - qy[k]) ** 2 - best) * (0.5 / away[n]))
            edge[r, c] = np.float32(border)
            if not only_edge:
                number[r, c] = qn[winner]
                across[r, c] = np.float32((x - qx[winner]) / half)
                up[r, c] = np.float32((y - qy[winner]) / half)


def _painted_cells(grid: Grid, x_mm: _F, y_mm: _F, *, only_edge: bool) -> tuple[npt.NDArray[np.int32], list[Raster]]:
    shape = (1, 1) if only_edge else grid.shape
    number, edge = np.empty(shape, np.int32), np.empty(grid.shape, np.float32)
    across, up = (np.empty(shape, np.float32) for _ in range(2))
    points = np.ascontiguousarray(x_mm), np.ascontiguousarray(y_mm)
    over_rows(_cells, grid.height_px, number, edge, across, up, *points, grid.width_mm, grid.height_mm, 2, only_edge)
    return number, [edge, across, up]


def cell_borders(grid: Grid, x_mm: _F, y_mm: _F) -> Raster:
    """The true distance (H, W) in mm to the border of the cells nearest to points, one in each box of a wrapped lattice
    (ny, nx).
    """
    return _painted_cells(grid, x_mm, y_mm, only_edge=True)[1][0]


def paint_cells(grid: Grid, x_mm: _F, y_mm: _F, *, joint_mm: float) -> Pieces:
    """The cells nearest to points, one in each box of a wrapped lattice (ny, nx); edge is the true distance to the
    border.
    """
    number, (edge, across, up) = _painted_cells(grid, x_mm, y_mm, only_edge=False)
    edge -= np.float32(0.5 * joint_mm)
    number[edge < 0] = -1
    return Pieces(number, edge, np.clip(across, -1.5, 1.5), np.clip(up, -1.5, 1.5), x_mm.size)
