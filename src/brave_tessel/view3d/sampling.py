"""Small helpers of the renderer: what programs are told, the box of a scene, even samples."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import numpy.typing as npt

from .camera import Camera
from .drawn import DrawPart, Triple


def write_values(program: Any, values: dict[str, Any]) -> None:
    """Set what a program reads; the driver drops what it does not."""
    for name, value in values.items():
        if name in program:
            program[name] = value


def box_of(parts: list[DrawPart]) -> tuple[npt.NDArray[np.float64], npt.NDArray[np.float64]]:
    """Lowest and highest corner of all that is drawn, m."""
    boxes = [_box(part) for part in parts if len(part.positions)]
    if not boxes:
        return np.full(3, -2.0), np.full(3, 2.0)
    low, high = np.min([b[0] for b in boxes], 0), np.max([b[1] for b in boxes], 0)
    return np.asarray(low, np.float64), np.asarray(high, np.float64)


def _box(part: DrawPart) -> npt.NDArray[np.float64]:
    """Lowest and highest corner of one part, (2, 3) m."""
    return np.array(part.box or (part.positions.min(0), part.positions.max(0)), np.float64)


def built_box(parts: list[DrawPart]) -> tuple[npt.NDArray[np.float64], npt.NDArray[np.float64]]:
    """As :func:`box_of`, without the flat ground that goes on beyond all that stands on it."""
    low, high = box_of(parts)
    sizes = [(part, np.ptp(_box(part), axis=0)) for part in parts if len(part.positions)]
    flat = [(part, size) for part, size in sizes if size[2] < _FLAT * (high - low).min()]
    for ground, _ in sorted(flat, key=lambda one: -float(one[1][0] * one[1][1])):
        rest = [part for part in parts if part.part != ground.part]
        inner = box_of(rest) if any(len(part.positions) for part in rest) else (low, high)
        if np.prod(inner[1][:2] - inner[0][:2]) > _WIDER * np.prod(high[:2] - low[:2]):
            break
        parts, (low, high) = rest, inner
    return low, high


_FLAT, _WIDER = 0.1, 0.8
"""Height of a ground as a share of the least side of the scene, and the share of the plan that the rest takes without
it, over which it stays.
"""


def radical(index: int, base: int) -> float:
    """The radical inverse (Halton 1960)."""
    out, share = 0.0, 1.0
    while index:
        share /= base
        out += share * (index % base)
        index //= base
    return out


def within_disc(direction: Triple, radius: float, u: float, v: float) -> Triple:
    """A direction within a disc about another; u and v in [0, 1)."""
    d = np.array(direction)
    side = np.cross(d, [0.0, 0.0, 1.0] if abs(d[2]) < 0.95 else [1.0, 0.0, 0.0])
    side /= np.linalg.norm(side)
    r, a = radius * math.sqrt(u), 2 * math.pi * v
    moved = d + r * (math.cos(a) * side + math.sin(a) * np.cross(d, side))
    x, y, z = moved / np.linalg.norm(moved)
    return float(x), float(y), float(z)


def places_seen(
    camera: Camera, size: tuple[int, int], guide: npt.NDArray[np.float32]
) -> tuple[npt.NDArray[np.float64], npt.NDArray[np.float64]]:
    """Where what is seen lies, (N, 3) m, at some pixels, and its normals; ``guide`` holds these and distances, the
    lower row first.
    """
    rows, columns_ = (np.arange(_EVERY // 2, side, _EVERY) for side in (size[1], size[0]))
    some = guide[np.ix_(rows, columns_)]
    x, y = np.meshgrid(2 * (columns_ + 0.5) / size[0] - 1, 2 * (rows + 0.5) / size[1] - 1)
    right, up, forward = camera.axes()
    half = math.tan(math.radians(camera.field_of_view) / 2)
    rays = forward + x[..., None] * right * half * size[0] / size[1] + y[..., None] * up * half
    rays /= np.linalg.norm(rays, axis=-1, keepdims=True)
    there = np.linalg.norm(some[..., :3], axis=-1) > 0.5
    return np.asarray((camera.eye + rays * some[..., 3:])[there], np.float64), some[..., :3][there].astype(np.float64)


def rays(camera: Camera, size: tuple[int, int], jitter: tuple[float, float]) -> npt.NDArray[np.float64]:
    """The eye's rays as columns (3, 3): a pixel's is x of the first, y of the second, each in [-1, 1], and the last.
    The middle moves with the jitter in pixels, so that the edges of what lies behind are smoothed too.
    """
    right, up, forward = camera.axes()
    half = math.tan(math.radians(camera.field_of_view) / 2)
    aspect = size[0] / size[1]
    forward = forward - right * (2 * jitter[0] / size[0] * half * aspect) - up * (2 * jitter[1] / size[1] * half)
    return np.stack([right * half * aspect, up * half, forward], 1)


_EVERY = 2
"""Pixels between two that are looked at."""


def columns(matrix: npt.NDArray[np.float64]) -> bytes:
    return np.ascontiguousarray(matrix.T, np.float32).tobytes()
