"""A solid as it is looked at: on a grey stand, alone or four together, and where the eye is then."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from ..core.sheet import Grid, Raster
from .camera import Camera
from .drawn import DrawPart
from .solids import CENTRE, SIZE_M, SOLIDS, backing, solid_part

BOARD, STAND = "Board", "stand"
SAMPLES = (*SOLIDS, BOARD)
FOUR = (("Drum", -0.62, 0.0), ("Ball", 0.62, 0.0), ("Cloth", -0.62, 1.15), ("Block", 0.62, 1.15))
"""What stands on a sample board: which solid, and where, aside and behind, in widths of a repeat."""
_BEHIND = 0.72
"""How much higher what stands behind is, in widths of a repeat."""
_BOARD_M = (1.5, 1.32)
GREY = (0.18, 0.18, 0.18)
"""Of a stand, linear: a grey card, which tells how bright the light is."""
_RIM, _AROUND, _THICK, _RAISED = 0.02, 1.1, 0.07, 0.03
_VIEWS = {
    "Plane": (-16.0, 6.0, 3.4), "Block": (-31.0, 20.0, 3.5), "Ball": (-24.0, 12.0, 3.35), "Drum": (-24.0, 17.0, 3.45),
    "Vault": (-13.0, 1.0, 3.0), "Cloth": (-12.0, 5.0, 3.5), "Corner": (-8.0, 12.0, 3.6), "Stairs": (-22.0, 17.0, 3.1),
    BOARD: (-12.0, 13.0, 3.5),
}  # fmt: skip
"""Azimuth and pitch, degrees, and distance, m: what a solid is for is seen from there."""


def solid_camera(azimuth: float = -24.0, pitch: float = 12.0, distance: float = 3.3) -> Camera:
    """A camera that sees a whole solid."""
    x, y, z = (float(v) for v in CENTRE)
    return Camera((x, y, z), distance, azimuth, pitch, field_of_view=38.0)


def camera_of(name: str) -> Camera:
    """Where a solid is looked at from before anyone has turned it."""
    seen = solid_camera(*_VIEWS[name])
    # Between the bars above and below; the stand is seen too.
    x, y, z = seen.target
    return replace(seen, target=(x, y, z + _RAISED))


def sample(
    name: str, height: Raster, grid: Grid, surface: str, *, displaced: bool = True, cells: int = 220
) -> list[DrawPart]:
    """A solid with the surface, its relief displaced to scale, and what it stands on; :data:`BOARD` is four of them.
    All in m about :data:`.solids.CENTRE`.
    """
    if name == BOARD:
        return _four(height, grid, surface, displaced=displaced, cells=cells)
    part = solid_part(name, height, grid, surface, displaced=displaced, cells=cells)
    slab = backing(name, height, grid, displaced=displaced)
    return [part, _merged([_stand(part, _THICK * SIZE_M), *([slab] if slab is not None else [])])]


def _four(height: Raster, grid: Grid, surface: str, *, displaced: bool, cells: int) -> list[DrawPart]:
    """Four solids, the repeat as large on all of them, in widths of a repeat; then as large as a single one is."""
    shown, stands = [], []
    for name, aside, behind in FOUR:
        made = solid_part(name, height, grid, surface, displaced=displaced, cells=round(0.6 * cells))
        foot = _BEHIND if behind else 0.0
        around = (made.positions - CENTRE) / made.repeat_m[0] * (0.56 if name == "Cloth" else 1.0)
        place = np.array([aside * 1.05, behind, foot - float(around[:, 2].min())])
        part = replace(made, positions=around + place)
        shown.append(part)
        stands.append(_stand(part, foot + _THICK))
    positions, normals, uv = (
        np.concatenate([getattr(part, name) for part in shown]) for name in ("positions", "normals", "uv")
    )
    low, high = positions.min(0), positions.max(0)
    wide = min(_BOARD_M[0] / (high[0] - low[0]), _BOARD_M[1] / (high[2] - low[2]))

    def set_up(places: np.ndarray) -> np.ndarray:  # type: ignore[type-arg]
        return np.asarray((places - (low + high) / 2) * wide + CENTRE, np.float32)

    size = (wide, wide * grid.height_mm / grid.width_mm)
    board = DrawPart("solid", set_up(positions), normals, uv, surface, (0.5, 0.5, 0.5), size)
    return [board, _merged([(set_up(places), ways) for places, ways in stands])]


def _stand(part: DrawPart, thick: float) -> tuple[np.ndarray, np.ndarray]:  # type: ignore[type-arg]
    """Corners and normals (N, 3) of a round stand below a part, ``thick`` m, its upper rim rounded off."""
    low = float(part.positions[:, 2].min())
    flat = part.positions[:, :2].astype(np.float64)
    middle = (flat.min(0) + flat.max(0)) / 2
    radius = float(np.linalg.norm(flat - middle, axis=1).max()) * _AROUND
    rim = min(_RIM * SIZE_M, 0.05 * radius)
    bend = np.linspace(0, math.pi / 2, 5)
    # A line from the middle over the rim and down; each with the normal it has there.
    out = [0.0, *(radius - rim + rim * np.sin(bend)), radius]
    up = [low, *(low - rim + rim * np.cos(bend)), low - thick]
    lean = [0.0, *bend, math.pi / 2]
    turns = np.linspace(0, 2 * math.pi, 97)
    around = np.stack([np.cos(turns), np.sin(turns)], -1)
    places = np.stack([np.stack([*(middle + r * a), z]) for r, z in zip(out, up, strict=True) for a in around])
    normals = np.stack([np.stack([*(math.sin(t) * a), math.cos(t)]) for t in lean for a in around])
    rows, columns = len(out), len(turns)
    at = np.arange(rows * columns).reshape(rows, columns)
    a, b, c, d = at[:-1, :-1], at[1:, :-1], at[1:, 1:], at[:-1, 1:]
    faces = np.concatenate([np.stack([a, b, c], -1).reshape(-1), np.stack([a, c, d], -1).reshape(-1)])
    return places[faces], normals[faces]


def _merged(stands: list[tuple[np.ndarray, np.ndarray]]) -> DrawPart:  # type: ignore[type-arg]
    places, normals = (np.concatenate(arrays).astype(np.float32) for arrays in zip(*stands, strict=True))
    return DrawPart(STAND, places, normals, np.zeros_like(places), "", GREY)
