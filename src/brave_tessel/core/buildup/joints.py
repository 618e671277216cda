"""A run's path laid along the joints of what lies beneath: the cheapest way from point to point through its grooves.

Grooves are found by the closing of the relief less the relief (the black top-hat; Serra 1982, "Image Analysis and
Mathematical Morphology"), the way by Dijkstra 1959.
"""

from __future__ import annotations

import itertools

import numpy as np
import numpy.typing as npt
import scipy.ndimage as ndi
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import dijkstra

from ..lines import thinned
from ..sheet import Grid, Raster
from .run import Path

_F = npt.NDArray[np.float64]
WIDEST_MM = 32.0
"""Width of the widest groove that counts as a joint."""
LEAST_MM = 0.05
"""Depth under which a relief has no joints to follow."""
SNAP_MM = 80.0
"""How far a point of the run is drawn to a joint."""
_CELLS, _WINDOW = 384, 420
"""Cells along the longer side of a sheet in which joints are looked for, and of the part in which one way is found."""
_LEAST = 0.02
_STEPS = ((0, 1), (1, 0), (1, 1), (1, -1), (1, 2), (2, 1), (2, -1), (1, -2))
"""To half of the neighbours, a knight's move away too: ways in 16 directions are no longer than they are."""


def grooves(height: Raster, grid: Grid) -> Raster | None:
    """How much each place (H, W) is a groove of the relief, 0 to 1, most in its middle; None where there are none to
    speak of.
    """
    across, down = grid.mm_per_px
    size = (max(3, round(WIDEST_MM / down) | 1), max(3, round(WIDEST_MM / across) | 1))
    deep = ndi.grey_closing(height, size=size, mode="wrap") - height
    # As deep as joints are: the deepest tenth of what is a groove at all.
    found = deep[deep > max(LEAST_MM, 0.25 * float(deep.max()))]
    if not found.size:
        return None
    share = np.clip(deep / np.quantile(found, 0.6), 0, 1)
    room = [(n, n) for n in size]
    within = ndi.distance_transform_edt(np.pad(share > 0.5, room, mode="wrap"))
    within = within[size[0] : -size[0], size[1] : -size[1]]
    middle = within / np.maximum(ndi.maximum_filter(within, size=size, mode="wrap"), 1)
    return np.asarray(share * (0.5 + 0.5 * middle), np.float32)


def along_joints(path: Path, height: Raster, grid: Grid, round_mm: float = 0.0) -> Path:
    """A path led from each of its corners to the next along the joints beneath; its ends and corners are drawn into the
    nearest joint. Corners are rounded by ``round_mm``. It stays as it is where the relief has no joints.
    """
    small = _coarser(height, grid)
    cells = Grid(small.shape[1], small.shape[0], grid.width_mm, grid.height_mm)
    groove = grooves(small, cells)
    if groove is None:
        return path
    lap = path.points[-1] - path.points[0] if path.closed else None
    corners = _drawn_in(path.points, groove, cells)
    if lap is not None:
        corners[-1] = corners[0] + lap
    legs = [_way(a, b, groove, cells) for a, b in itertools.pairwise(corners)]
    points = thinned(np.vstack([legs[0][:1], *(leg[1:] for leg in legs)]), 0.8 * max(cells.mm_per_px))
    if round_mm > 0:
        points = _rounded(points, round_mm)
    length = float(np.hypot(*np.diff(points, axis=0).T).sum())
    return Path(points, length, path.closed) if length > 0 else path


def _coarser(height: Raster, grid: Grid) -> Raster:
    """The relief at about ``_CELLS``: the same joints are followed at every size."""
    by = max(1, round(max(height.shape) / _CELLS))
    rows, columns = (n // by * by for n in height.shape)
    if by == 1 or (rows, columns) != height.shape:
        zoom = min(1.0, _CELLS / max(height.shape))
        return np.asarray(ndi.zoom(height, zoom, order=1, mode="grid-wrap", grid_mode=True), np.float32)
    # A thin joint is not averaged away.
    blocks = height.reshape(rows // by, by, columns // by, by)
    return np.asarray(0.5 * (blocks.mean((1, 3)) + blocks.min((1, 3))), np.float32)


def _drawn_in(points: _F, groove: Raster, grid: Grid) -> _F:
    """Points moved to the nearest place that is clearly in a joint."""
    _, (rows, columns) = ndi.distance_transform_edt(
        np.pad(groove < 0.6, [(n // 2, n // 2) for n in groove.shape], mode="wrap"), return_indices=True
    )
    across, down = grid.mm_per_px
    out = points.copy()
    for k, (x, y) in enumerate(points):
        r, c = (grid.height_mm - y) / down - 0.5, x / across - 0.5
        half = np.array(groove.shape) // 2
        at = (round(r) % groove.shape[0] + half[0], round(c) % groove.shape[1] + half[1])
        off = np.array([columns[at] - at[1], at[0] - rows[at]]) * (across, down)
        if np.hypot(*off) <= SNAP_MM:
            base = np.array([(round(c) + 0.5) * across, grid.height_mm - (round(r) + 0.5) * down])
            out[k] = base + off
    return out


def _way(start: _F, end: _F, groove: Raster, grid: Grid) -> _F:
    """The cheapest way (N, 2) mm between two places, on the endless sheet."""
    across, down = grid.mm_per_px
    room = 0.35 * max(float(np.hypot(*(end - start))), 60.0)
    low, high = np.minimum(start, end) - room, np.maximum(start, end) + room
    by = max(1, int(np.ceil(max((high - low) / (across, down)) / _WINDOW)))
    cell = np.array([across * by, down * by])
    size = np.maximum(np.ceil((high - low) / cell).astype(int), 2)
    x = low[0] + (np.arange(size[0]) + 0.5) * cell[0]
    y = low[1] + (np.arange(size[1]) + 0.5) * cell[1]
    wide = ndi.maximum_filter(groove, size=by, mode="wrap") if by > 1 else groove
    rows = np.floor((grid.height_mm - y) / down).astype(int) % groove.shape[0]
    columns = np.floor(x / across).astype(int) % groove.shape[1]
    price = 1 / (_LEAST + wide[np.ix_(rows, columns)].astype(np.float64) ** 2)
    number = np.arange(price.size).reshape(price.shape)
    edges = []
    for up, right in _STEPS:
        a, b = _beside(number, up, right)
        pa, pb = _beside(price, up, right)
        long = float(np.hypot(right * cell[0], up * cell[1]))
        edges.append((a.ravel(), b.ravel(), (long * np.maximum(pa, pb)).ravel()))
    i, j, cost = (np.concatenate(part) for part in zip(*edges, strict=True))
    graph = coo_matrix((cost, (i, j)), shape=(price.size, price.size)).tocsr()
    nodes = [
        int(number[tuple(np.clip(((p - low) / cell).astype(int)[::-1], 0, np.array(price.shape) - 1))])
        for p in (start, end)
    ]
    _, before = dijkstra(graph, directed=False, indices=nodes[0], return_predecessors=True)
    chain = [nodes[1]]
    while chain[-1] != nodes[0] and before[chain[-1]] >= 0:
        chain.append(int(before[chain[-1]]))
    r, c = np.divmod(np.array(chain[::-1]), price.shape[1])
    way = np.column_stack([x[c], y[r]])
    return np.vstack([start[None], way[1:-1], end[None]])


def _beside(values: npt.NDArray[np.generic], up: int, right: int) -> tuple[npt.NDArray[np.generic], ...]:
    """Two views of a raster, one shifted by so many rows and columns against the other."""
    rows, columns = values.shape
    first = values[: rows - up, max(0, -right) : columns - max(0, right)]
    return first, values[up:, max(0, right) : columns + min(0, right)]


def _rounded(points: _F, radius: float) -> _F:
    """Corners bent within ``radius`` of them, by a parabola."""
    before, after = points[:-2], points[2:]
    made = [points[:1]]
    for a, p, b in zip(before, points[1:-1], after, strict=True):
        start, end = (
            p + (q - p) * min(0.45, radius / max(float(np.hypot(*(q - p))), 1e-9)) for q in (a, b)
        )  # fmt: skip
        t = np.linspace(0, 1, 7)[:, None]
        made.append((1 - t) ** 2 * start + 2 * t * (1 - t) * p + t**2 * end)
    return np.vstack([*made, points[-1:]])
