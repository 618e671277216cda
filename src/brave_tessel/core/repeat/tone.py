"""Tone levelled in the gradient domain: the broad step along a cut is taken out, detail stays.

Poisson's equation for a correction whose gradient is minus the step where the cut is crossed and 0
elsewhere (Pérez, Gangnet and Blake 2003, "Poisson image editing"), solved on the wrapped sheet by FFT.
The correction is smooth on both sides of the cut, so it is found at a reduced size.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np
import numpy.typing as npt
import scipy.fft

from ..sheet import Raster

SOLVE_PX = 384
_ALONG, _ACROSS = 1 / 24, 1 / 4
"""How far the step is averaged, as shares of the cut's length and of the overlap."""
_Path = npt.NDArray[np.float32]


@dataclass(frozen=True, slots=True)
class Levelling:
    """What is added to a sheet closed across: ``inside`` where the sides lie over each other, before the
    step is taken off by the feather's ramp, ``outside`` elsewhere; ``step`` (rows, C) of the far to the near side.
    """

    inside: Raster
    outside: Raster
    step: Raster


def small_size(length: int, breadth: int) -> tuple[int, int]:
    """Rows and columns of a small picture with the same proportion."""
    scale = min(1.0, SOLVE_PX / max(length, breadth))
    return max(8, round(length * scale)), max(8, round(breadth * scale))


def levelling(pixels: Raster, path: _Path, overlap: float, amount: float, *, wraps: bool, axis: int = 1) -> Levelling:
    """The correction for a sheet (H, W, …) that closes along ``axis`` at a path; as if the path ran down.

    ``path`` as in :class:`~.cut.Cuts`; ``wraps`` tells whether the path's ends meet already.
    """
    columns, rows = small_size(*pixels.shape[:2]) if axis == 0 else small_size(pixels.shape[1], pixels.shape[0])
    lap = max(3, round(columns * overlap))
    width = columns - lap
    size = (rows, columns) if axis == 0 else (columns, rows)
    small = np.asarray(cv2.resize(pixels, size, interpolation=cv2.INTER_AREA), np.float32).reshape(size[1], size[0], -1)
    small = np.ascontiguousarray(small.swapaxes(0, 1)) if axis == 0 else small
    at = np.interp((np.arange(rows) + 0.5) / rows * path.size - 0.5, np.arange(path.size), path) * lap
    step = _broad_step(small, at, lap, wraps) * np.float32(amount)
    near = (np.arange(lap)[None, :] + 0.5) > at[:, None]
    correction = _solve(near.astype(np.float32), step, (rows, width), wraps)
    inside = correction[:, :lap] + step[:, None, :] * near[..., None]
    return Levelling(np.ascontiguousarray(inside), correction, step)


def _broad_step(small: Raster, at: npt.NDArray[np.float64], lap: int, wraps: bool) -> Raster:
    """Near side less far side around the cut, averaged broadly; (rows, C)."""
    difference = np.ascontiguousarray(small[:, :lap] - small[:, small.shape[1] - lap :])
    rows = difference.shape[0]
    border = cv2.BORDER_WRAP if wraps else cv2.BORDER_REFLECT
    pad = rows // 2
    wide = cv2.copyMakeBorder(difference, pad, pad, 0, 0, border)
    blurred = cv2.GaussianBlur(wide, (0, 0), _ACROSS * lap, sigmaY=_ALONG * rows, borderType=cv2.BORDER_REFLECT)
    blurred = blurred.reshape(blurred.shape[0], lap, -1)[pad : pad + rows]
    column = np.clip(at, 0, lap - 1).astype(int)
    return np.asarray(blurred[np.arange(rows), column], np.float32)


def _solve(near: Raster, step: Raster, shape: tuple[int, int], wraps: bool) -> Raster:
    rows, width = shape
    lap = near.shape[1]
    gx = np.zeros((rows, width, step.shape[1]), np.float32)
    gy = np.zeros_like(gx)
    gx[:, 1:lap] = -np.diff(near, axis=1)[..., None] * step[:, None, :]
    upper = np.diff(near, axis=0)[..., None] * (0.5 * (step[1:] + step[:-1]))[:, None, :]
    gy[1:, :lap] = -upper
    if wraps:
        gy[0, :lap] = -(near[0] - near[-1])[:, None] * (0.5 * (step[0] + step[-1]))[None, :]
    source = np.roll(gx, -1, 1) - gx + np.roll(gy, -1, 0) - gy
    wx = 2 * np.cos(2 * np.pi * scipy.fft.rfftfreq(width))[None, :, None]
    turn = np.arange(rows) / rows * (2 * np.pi if wraps else np.pi)
    bend = (2 * np.cos(turn)[:, None, None] + wx - 4).astype(np.float32)
    bend[0, 0] = 1
    if wraps:
        spectrum = scipy.fft.rfft2(source, axes=(0, 1)) / bend
        spectrum[0, 0] = 0
        return np.asarray(scipy.fft.irfft2(spectrum, s=(rows, width), axes=(0, 1)), np.float32)
    spectrum = scipy.fft.rfft(scipy.fft.dct(source, axis=0, norm="ortho"), axis=1) / bend
    spectrum[0, 0] = 0
    return np.asarray(scipy.fft.idct(scipy.fft.irfft(spectrum, n=width, axis=1), axis=0, norm="ortho"), np.float32)


def add_levelling(closed: Raster, made: Levelling, ramp: Raster, *, axis: int = 1) -> None:
    """Add the correction to a closed sheet (H, W) or (H, W, C), in place.

    ``ramp`` (along the path, across it) is 0 on the far side, 1 on the near.
    """
    along, width = closed.shape[1 - axis], closed.shape[axis]
    lap = ramp.shape[1]
    flat = closed.reshape(*closed.shape[:2], -1)
    outside = _enlarged(made.outside, along, width, axis).reshape(flat.shape)
    flat += outside
    shared = ramp.T[..., None] if axis == 0 else ramp[..., None]
    # In the overlap the correction is another one: it makes a step where the ramp does.
    inside = _enlarged(made.inside, along, lap, axis).reshape(*shared.shape[:2], -1)
    step = _enlarged(made.step[:, None, :], along, 1, axis).reshape(*((1, along) if axis == 0 else (along, 1)), -1)
    strip = flat[:lap] if axis == 0 else flat[:, :lap]
    strip += inside - shared * step - (outside[:lap] if axis == 0 else outside[:, :lap])


def _enlarged(small: Raster, along: int, across: int, axis: int) -> Raster:
    """A small picture (along, across, C) at full size, laid as the sheet lies in memory."""
    if axis == 0:
        small = np.ascontiguousarray(small.swapaxes(0, 1))
        return np.asarray(cv2.resize(small, (along, across), interpolation=cv2.INTER_LINEAR), np.float32)
    return np.asarray(cv2.resize(small, (across, along), interpolation=cv2.INTER_LINEAR), np.float32)
