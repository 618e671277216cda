"""Small helpers of the renderer: what programs are told, the box of a scene, even samples."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import numpy.typing as npt

from .drawn import DrawPart, Triple


def write_values(program: Any, values: dict[str, Any]) -> None:
    """Set what a program reads; the driver drops what it does not."""
    for name, value in values.items():
        if name in program:
            program[name] = value


def box_of(parts: list[DrawPart]) -> tuple[npt.NDArray[np.float64], npt.NDArray[np.float64]]:
    """Lowest and highest corner of all that is drawn, m."""
    boxes = [
        part.box or (part.positions.min(0), part.positions.max(0)) for part in parts if len(part.positions)
    ]  # fmt: skip
    if not boxes:
        return np.full(3, -2.0), np.full(3, 2.0)
    low, high = np.min([b[0] for b in boxes], 0), np.max([b[1] for b in boxes], 0)
    return np.asarray(low, np.float64), np.asarray(high, np.float64)


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


def columns(matrix: npt.NDArray[np.float64]) -> bytes:
    return np.ascontiguousarray(matrix.T, np.float32).tobytes()
