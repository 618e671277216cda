"""The meters of how well a sheet closes: its joins, its cut, spacing across them, and its echo."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np
import numpy.typing as npt

from ..sheet import AnyArray, Raster

SEAM_RANGE = (0.6, 1.3)
SECOND_LIMIT = 1.3
EDGE_LIMIT = 1.05
BAND_LIMIT = 6.0
GOOD_CUT = 1.6
"""A cut up to so much rougher than its surroundings is not found by the eye."""


@dataclass(frozen=True, slots=True)
class SeamReading:
    """How the join of one axis compares with the inside of the sheet.

    ``ratio`` mean step across the join over the median inner step (1 is perfect); ``second`` the same
    for second differences; ``to_largest`` the join's step over the largest inner step; ``rank`` share
    of inner steps below it; ``band`` step of broad brightness over the median inner one.
    """

    ratio: float
    second: float
    to_largest: float
    second_to_largest: float
    rank: float
    band: float

    structured: bool = False

    @property
    def closes(self) -> bool:
        """Whether the eye would not find the join.

        A plain texture must lie in the range on both sides of 1 (a mirrored edge gives 0). On a sheet
        that is known to repeat (``structured``) the join may fall on a rough joint or gap, if there are
        places as rough inside.
        """
        on_a_joint = self.structured and self.to_largest <= EDGE_LIMIT and self.second_to_largest <= EDGE_LIMIT
        return self.band <= BAND_LIMIT and (self._plain or on_a_joint)

    @property
    def _plain(self) -> bool:
        return SEAM_RANGE[0] <= self.ratio <= SEAM_RANGE[1] and self.second <= SECOND_LIMIT

    @property
    def score(self) -> float:
        """The number shown: 1 is no rougher than inside."""
        if self._plain:
            return self.ratio
        return max(1.0, self.to_largest) if self.closes else max(self.ratio, self.second)


def read_seam(pixels: Raster, *, axis: int, structured: bool = False) -> SeamReading:
    """Seam of the join across x (``axis`` 1) or y (``axis`` 0); (H, W) or (H, W, C), encoded or data."""
    lines = np.moveaxis(np.asarray(pixels, np.float32), axis, 0)
    lines = lines.reshape(lines.shape[0], -1)
    steps = np.abs(np.diff(lines, axis=0)).mean(1)
    join = float(np.abs(lines[0] - lines[-1]).mean())
    bends = np.abs(lines[:-2] - 2 * lines[1:-1] + lines[2:]).mean(1)
    at_join = max(
        float(np.abs(lines[-1] - 2 * lines[0] + lines[1]).mean()),
        float(np.abs(lines[-2] - 2 * lines[-1] + lines[0]).mean()),
    )
    return SeamReading(
        join / _floor(float(np.median(steps))),
        at_join / _floor(float(np.median(bends))),
        join / _floor(float(steps.max())),
        at_join / _floor(float(bends.max())),
        float(np.mean(steps < join)),
        _band_step(lines),
        structured,
    )


def worst_of_join(pixels: Raster, *, axis: int) -> float:
    """Where along the join of an axis the step is largest beside the steps just inside it, as a fraction."""
    lines = np.moveaxis(np.asarray(pixels, np.float32), axis, 0)
    lines = lines.reshape(lines.shape[0], lines.shape[1], -1)
    step = np.abs(lines[0] - lines[-1]).mean(1)
    own = 0.25 * (
        np.abs(lines[0] - lines[1])
        + np.abs(lines[-1] - lines[-2])
        + np.abs(lines[1] - lines[2])
        + np.abs(lines[-2] - lines[-3])
    ).mean(1)
    excess = cv2.blur((step - own).astype(np.float32)[:, None], (1, max(3, len(step) // 24)))
    return float((int(excess.argmax()) + 0.5) / len(step))


@dataclass(frozen=True, slots=True)
class SpacingReading:
    """How far apart things lie across the join of one axis, against inside: 1 is alike; ``low`` and ``high`` are
    what bands inside the sheet have themselves.
    """

    ratio: float
    low: float
    high: float

    @property
    def fits(self) -> bool:
        """Whether a band as this is found inside the sheet too."""
        return self.low * 0.97 <= self.ratio <= self.high * 1.03


_BANDS = 10


def read_spacing(pixels: Raster, *, axis: int) -> SpacingReading:
    """Spacing across the join: how often lightness crosses its local mean in a band over the join, against
    bands of the same width inside; pixels (H, W) or (H, W, C).
    """
    tone = np.asarray(pixels, np.float32) if pixels.ndim == 2 else np.asarray(pixels, np.float32).mean(2)
    lines = np.ascontiguousarray(np.moveaxis(tone, axis, 1))
    length = lines.shape[1]
    radius = max(2, length // 40)
    padded = cv2.copyMakeBorder(lines, 0, 0, 4 * radius, 4 * radius, cv2.BORDER_WRAP)
    away = padded - cv2.GaussianBlur(padded, (0, 0), float(radius))
    above = cv2.GaussianBlur(away, (0, 0), max(0.8, length / 500))[:, 4 * radius : 4 * radius + length] > 0
    crossings = (above != np.roll(above, 1, 1)).sum(0).astype(np.float64)
    band = max(4, length // _BANDS)
    rolled = np.roll(crossings, band // 2)
    counts = np.array([rolled[k * band : (k + 1) * band].mean() for k in range(length // band)])
    spacing = 1 / np.maximum(counts, 1e-6)
    middle = float(np.median(spacing[1:]))
    return SpacingReading(
        float(spacing[0] / middle), float(spacing[1:].min() / middle), float(spacing[1:].max() / middle)
    )


def _floor(value: float) -> float:
    return max(value, 1e-6)


def _band_step(lines: Raster) -> float:
    """Step of band means across the join over the largest usual inner one: finds slow drift."""
    width = max(2, min(8, lines.shape[0] // 16))
    count = lines.shape[0] // width
    means = lines[: count * width].reshape(count, -1).mean(1)
    inner = np.abs(np.diff(means))
    tail = float(lines[-width:].mean())
    return float(abs(float(means[0]) - tail) / _floor(float(np.percentile(inner, 75))))


@dataclass(frozen=True, slots=True)
class CutReading:
    """How a cut compares with the sheet it runs through. ``ratio`` 1 is no rougher than either side's own
    steps at the same places; ``worst`` where along the cut it is roughest, as a fraction.
    """

    ratio: float
    worst: float


def read_cut(pixels: Raster, path: npt.NDArray[np.float32], overlap: float) -> CutReading:
    """Steps across an upright cut against the steps both sides have there themselves.

    ``pixels`` is the flat sheet before it closes; ``path`` as in :class:`~.cut.Cuts`. A cut that runs
    along a rough joint is thus not blamed for the joint. Normalisation after Kwatra et al. 2003, 3.1.
    """
    rows, width = pixels.shape[:2]
    lap = max(2, round(width * overlap))
    along = np.interp((np.arange(rows) + 0.5) / rows * path.size - 0.5, np.arange(path.size), path)
    at = np.clip(np.round(along * lap).astype(int), 1, lap - 1)
    index = np.arange(rows)
    before, after = pixels[index, width - lap + at - 1], pixels[index, at]
    step = _size(before - after)
    own = 0.5 * (_size(before - pixels[index, width - lap + at]) + _size(pixels[index, at - 1] - after))
    excess = cv2.blur(np.maximum(step - own, 0).astype(np.float32)[:, None], (1, max(3, rows // 24)))
    return CutReading(float(step.mean() / _floor(float(own.mean()))), float((int(excess.argmax()) + 0.5) / rows))


def _size(steps: Raster) -> Raster:
    return np.asarray(np.abs(steps) if steps.ndim == 1 else np.abs(steps).mean(1), np.float32)


def correlation(planes: AnyArray) -> npt.NDArray[np.float64]:
    """Normalised wrapped autocorrelation of planes (H, W, C), as they are: 1 at no shift."""
    power = (np.abs(np.fft.rfft2(planes, axes=(0, 1))) ** 2).sum(2)
    found = np.fft.irfft2(power, s=planes.shape[:2])
    return np.asarray(found / max(float(found[0, 0]), 1e-12))


def echo(pixels: Raster) -> npt.NDArray[np.float64]:
    """That of a one-channel picture about its mean."""
    return correlation((pixels.astype(np.float64) - float(pixels.mean()))[..., None])


def largest_echo(pixels: Raster, *, radius_px: float) -> float:
    """The largest echo at shifts further than ``radius_px``."""
    found = echo(pixels)
    rows, columns = found.shape
    y = np.minimum(np.arange(rows), rows - np.arange(rows))[:, None]
    x = np.minimum(np.arange(columns), columns - np.arange(columns))[None, :]
    return float(found[np.hypot(x, y) > radius_px].max())
