"""Height from slopes on the torus."""

from __future__ import annotations

import cv2
import numpy as np
import scipy.fft

from ..kernels.relief import normal_of_height
from ..sheet import Grid, Raster


def height_of_slopes(p: Raster, q: Raster, grid: Grid) -> Raster:
    """The wrapped height in mm, mean 0, whose slopes are nearest to ``p`` = ∂h/∂x and ``q`` = ∂h/∂y (y up).

    Frankot and Chellappa 1988 (PAMI 10(4)), with sin ω for ω so that it inverts central differences
    exactly. A mean slope is dropped: it cannot wrap.
    """
    across, down = grid.mm_per_px
    wx = np.sin(2 * np.pi * scipy.fft.rfftfreq(p.shape[1]))[None, :] / across
    # Rows count down, y counts up.
    wy = -np.sin(2 * np.pi * scipy.fft.fftfreq(p.shape[0]))[:, None] / down
    power = wx * wx + wy * wy
    power[power < 1e-9 / (across * down)] = np.inf
    spectrum = (-1j * wx * scipy.fft.rfft2(p, workers=2) - 1j * wy * scipy.fft.rfft2(q, workers=2)) / power
    return np.asarray(scipy.fft.irfft2(spectrum, s=p.shape, workers=2), np.float32)


_BROAD_PX = 2.0
"""Blur under which a height's own steps (8 bits) and what normals show of finer grain do not count."""
_UNLIKE = 0.25
"""Correlation of slopes from which on a height and normals are of one relief."""


def rise_of(height: Raster, normal: Raster, grid: Grid) -> float | None:
    """How many mm one unit of a height (H, W) is, so that its slopes are nearest to those of normals (H, W, 3) that
    were made with it; None where the two are not of one relief.
    """
    told = np.asarray(-normal[..., :2] / np.maximum(normal[..., 2:], np.float32(0.05)), np.float32)
    own = normal_of_height(np.ascontiguousarray(height, np.float32), grid)
    mine = np.asarray(-own[..., :2] / np.maximum(own[..., 2:], np.float32(1e-4)), np.float32)
    theirs, ours = (cv2.GaussianBlur(one, (0, 0), _BROAD_PX, borderType=cv2.BORDER_REFLECT) for one in (told, mine))
    theirs, ours = theirs - theirs.mean((0, 1)), ours - ours.mean((0, 1))
    pairs = ((theirs, ours), (ours, ours), (theirs, theirs))
    both, power, other = (float((a * b).sum(dtype=np.float64)) for a, b in pairs)
    if both <= _UNLIKE * np.sqrt(power * other) or power <= 0:
        return None
    return both / power
