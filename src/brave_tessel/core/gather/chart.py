"""A chart of 24 patches on a photo tells its exposure and its colours."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import product

import cv2
import numpy as np
import numpy.typing as npt

from ..colour import colour_difference, display_codes, lab_of
from ..errors import MissingError, OutOfRangeError
from ..sheet import Raster
from .straighten import Corners, homography

COLUMNS, ROWS = 6, 4
_LAB_D50 = """
37.986 13.555 14.059   65.711 18.130 17.810   49.927 -4.880 -21.925   43.139 -13.095 21.905   55.112 8.844 -25.399
70.719 -33.397 -0.199  62.661 36.067 57.096   40.020 10.410 -45.964   51.124 48.239 16.248    30.325 22.976 -21.587
72.532 -23.709 57.255  71.941 19.363 67.857   28.778 14.179 -50.297   55.261 -38.342 31.370   42.101 53.378 28.190
81.733 4.039 79.819    51.935 49.986 -14.574  51.038 -28.631 -28.638  96.539 -0.425 1.186     81.257 -0.638 -0.335
66.766 -0.734 -0.504   50.867 -0.153 -0.270   35.656 -0.421 -1.231    20.461 -0.079 -0.973
"""
"""The 24 patches under D50, row by row from the brown one: the published CIE L*a*b* of the chart, 2° observer."""
_WHITE_D50 = np.array([0.96422, 1.0, 0.82521])
_D65_FROM_D50 = np.array(
    [[0.9555766, -0.0230393, 0.0631636], [-0.0282895, 1.0099416, 0.0210077], [0.0122982, -0.0204830, 1.3299098]]
)
"""Bradford; ICC.1, annex E, the other way round."""
_RGB_FROM_XYZ = np.array(
    [[3.2404542, -1.5371385, -0.4985314], [-0.9692660, 1.8760108, 0.0415560], [0.0556434, -0.2040259, 1.0572252]]
)
_CLIPPED, _INNER, _FOUND_PX = 0.985, 0.5, 1400
_LEAST_PATCHES = 12
Matrix = tuple[float, ...]
Floats = npt.NDArray[np.float64]


def _reference() -> Floats:
    lab = np.array(_LAB_D50.split(), np.float64).reshape(-1, 3)
    fy = (lab[:, 0] + 16) / 116
    f = np.stack([fy + lab[:, 1] / 500, fy, fy - lab[:, 2] / 200], 1)
    xyz = np.where(f > 6 / 29, f**3, 3 * (6 / 29) ** 2 * (f - 4 / 29)) * _WHITE_D50
    return np.asarray(xyz @ _D65_FROM_D50.T @ _RGB_FROM_XYZ.T)


REFERENCE = _reference()
"""(24, 3) linear sRGB, D65; one patch lies outside of sRGB and is kept so."""


@dataclass(frozen=True)
class ChartReading:
    """What a chart told: ``matrix`` (nine numbers, row by row) makes linear colours true.

    ``before``, ``mean`` and ``worst`` are CIEDE2000 over the patches that were not clipped: as the photo was once
    its exposure is right, and what remains; ``patch`` is the worst one, counted from 1; ``clipped`` how many were.
    """

    matrix: Matrix
    before: float
    mean: float
    worst: float
    patch: int
    clipped: int


def find_chart(pixels: Raster) -> Corners:
    """The outer corners of the chart's patches on a photo, in pixels.

    Raises
    ------
    MissingError
        when none is seen.
    """
    fit = min(1.0, _FOUND_PX / max(pixels.shape[:2]))
    size = max(1, round(pixels.shape[1] * fit)), max(1, round(pixels.shape[0] * fit))
    small = cv2.resize(pixels, size, interpolation=cv2.INTER_AREA)
    # The detector wants a picture of usual brightness.
    level = max(float(np.quantile(small, 0.98)), 1e-4)
    codes = display_codes(np.ascontiguousarray(np.clip(small / level, 0, 1), np.float32))[..., ::-1]
    detector = cv2.mcc.CCheckerDetector.create()
    detector.setColorChartType(cv2.mcc.MCC24)
    if not detector.process(np.ascontiguousarray(codes), 1):
        raise MissingError(
            "colour chart",
            allowed="a chart of 24 patches, whole and in focus",
            remedy="Put the frame on its patches and take that.",
        )
    box = np.asarray(detector.getBestColorChecker().getBox(), np.float64).reshape(4, 2) / fit
    return tuple((float(x), float(y)) for x, y in _clockwise(box))  # type: ignore[return-value]


def _clockwise(points: Floats) -> Floats:
    away = points - points.mean(0)
    return points[np.argsort(np.arctan2(away[:, 1], away[:, 0]))]


def read_patches(pixels: Raster, corners: Corners) -> Floats:
    """The mean linear colour of each patch's inner half, (24, 3), for corners round the patches."""
    cell = 24
    matrix = homography(corners, COLUMNS * cell, ROWS * cell)
    flat = cv2.warpPerspective(pixels, matrix, (COLUMNS * cell, ROWS * cell), flags=cv2.INTER_LINEAR)
    cells = flat.reshape(ROWS, cell, COLUMNS, cell, 3).transpose(0, 2, 1, 3, 4)
    rim = round(cell * (1 - _INNER) / 2)
    return np.asarray(np.median(cells[:, :, rim:-rim, rim:-rim].reshape(ROWS * COLUMNS, -1, 3), 1), np.float64)


def read_chart(pixels: Raster, corners: Corners) -> ChartReading:
    """What the chart within ``corners`` tells, whichever way up it lies.

    The matrix is found by least squares in linear light, then refined for the least CIEDE2000 (Sharma, Wu and
    Dalal 2005). Exposure is part of it: white becomes what the chart's white is.

    Raises
    ------
    OutOfRangeError
        when too many patches are clipped, or the colours are no chart's.
    """
    fits = []
    for turn, step in product(range(4), (1, -1)):
        turned: Corners = tuple(map(tuple, np.roll(np.asarray(corners), turn, 0)))  # type: ignore[assignment]
        patches = read_patches(pixels, turned).reshape(ROWS, COLUMNS, 3)[:, ::step].reshape(-1, 3)
        fit = _fit(patches)
        if fit is not None:
            fits.append(fit)
    if not fits:
        raise OutOfRangeError("colour chart", value="clipped patches", allowed="12 patches that are not too bright")
    best = min(fits, key=lambda one: one.mean)
    if best.mean > 8:
        raise OutOfRangeError(
            "colour chart",
            value=f"ΔE {best.mean:.0f}",
            allowed="24 known patches within the corners",
            remedy="Put the frame on the outer corners of the patches.",
        )
    return best


def _fit(patches: Floats) -> ChartReading | None:
    """The matrix for patches in the chart's order; None where too many of them are clipped."""
    usable = (patches.max(1) < _CLIPPED) & (patches.min(1) > 1e-5)
    if usable.sum() < _LEAST_PATCHES:
        return None
    seen, wanted = patches[usable], REFERENCE[usable]
    lab = lab_of(wanted)
    weight = 1 / (wanted.mean(1, keepdims=True) + 0.05)
    start = np.linalg.lstsq(seen * weight, wanted * weight, rcond=None)[0].T

    def left(numbers: Floats) -> Floats:
        return colour_difference(lab_of(seen @ numbers.reshape(3, 3).T), lab)

    # Brought in here alone: it takes a tenth of a second, and charts are seldom.
    from scipy.optimize import least_squares

    matrix = start
    if float(left(start.ravel()).mean()) < 12:
        matrix = least_squares(left, start.ravel(), loss="soft_l1", max_nfev=60).x.reshape(3, 3)
    remaining = left(matrix.ravel())
    exposed = seen * (float((wanted * seen).sum()) / max(float((seen * seen).sum()), 1e-12))
    worst = int(np.argmax(remaining))
    return ChartReading(
        tuple(float(v) for v in matrix.ravel()),
        float(colour_difference(lab_of(exposed), lab).mean()),
        float(remaining.mean()),
        float(remaining[worst]),
        int(np.flatnonzero(usable)[worst]) + 1,
        int((~usable).sum()),
    )


def calibrated(colour: Raster, matrix: Matrix) -> Raster:
    """Linear colours (H, W, 3) made true by a chart's matrix, never below 0."""
    return np.asarray(np.maximum(colour @ np.array(matrix, np.float32).reshape(3, 3).T, 0), np.float32)
