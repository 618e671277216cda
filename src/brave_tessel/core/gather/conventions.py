"""Conventions found, not guessed: which way green points, and whether relief goes in or out."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np
import numpy.typing as npt

from ..relief.integrate import height_of_slopes
from ..sheet import Grid, Raster

COMMIT = 0.3
"""Evidence below this is too thin to say."""
_CLEAR_OF_NOISE = 3.0


@dataclass(frozen=True, slots=True)
class Green:
    """``direction`` up, down or unknown; ``evidence`` in [−1, 1], positive for up; ``confidence`` in
    [0, 1]; ``reason`` in a few words.
    """

    direction: str
    evidence: float
    confidence: float
    reason: str


def slopes_of(normal: Raster) -> tuple[Raster, Raster]:
    """∂h/∂x (right) and ∂h/∂y (up) of unit normals (H, W, 3) whose green is up."""
    z = np.maximum(normal[..., 2], 0.05)
    return np.asarray(-normal[..., 0] / z, np.float32), np.asarray(-normal[..., 1] / z, np.float32)


def green_direction(normal: Raster, *, depth: int = 8) -> Green:
    """Whether green points up, by integrability: a height field's gradient has no curl.

    Both signs are tried; the wrong one leaves a curl of twice the mixed second derivative. Where the
    relief is flat, runs along one axis, or drowns in the coarseness of ``depth`` bits, nothing is said.
    """
    p, q = (cv2.GaussianBlur(part, (0, 0), 1.2) for part in slopes_of(normal))
    across = (q[1:-1, 2:] - q[1:-1, :-2]) / 2
    # Rows count down, y counts up.
    up = (p[:-2, 1:-1] - p[2:, 1:-1]) / 2
    right = float(np.mean((up - across) ** 2))
    wrong = float(np.mean((up + across) ** 2))
    step = 2 / (2**depth - 1)
    # Two differences of two blurred, rounded values each.
    noise = 4 * step**2 / 12 / 4 * 0.06
    evidence = (wrong - right) / max(wrong + right, 1e-12)
    loud = max(wrong, right) / max(noise, 1e-12)
    if loud < _CLEAR_OF_NOISE:
        return Green("unknown", evidence, 0.0, "too flat to tell which way green points")
    if abs(evidence) < COMMIT:
        return Green("unknown", evidence, abs(evidence), "either way leaves as much curl, so green cannot be told")
    sure = min(1.0, abs(evidence) * min(1.0, loud / 10))
    ratio = max(wrong, right) / max(min(wrong, right), 1e-12)
    direction = "up" if evidence > 0 else "down"
    return Green(direction, evidence, sure, f"green {direction} leaves {ratio:.1f} times less curl")


def agreement(normal: Raster, height: Raster, grid: Grid) -> float:
    """Correlation in [−1, 1] of a height map with the relief its normal map integrates to; below 0 one
    of them goes in where the other comes out.
    """
    p, q = slopes_of(normal)
    relief = height_of_slopes(p, q, grid)
    a, b = (_fine(field) for field in (relief, height))
    return float((a * b).mean() / max(float(a.std() * b.std()), 1e-12))


def _fine(field: Raster) -> npt.NDArray[np.float64]:
    values = field.astype(np.float64) - cv2.GaussianBlur(field.astype(np.float32), (0, 0), max(field.shape) / 16)
    return np.asarray(values - values.mean())
