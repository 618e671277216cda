"""Whole courses: the beat of a regular pattern is found, and the sheet is cut to whole units of it."""

from __future__ import annotations

import math
from dataclasses import dataclass

import cv2
import numpy as np
import numpy.typing as npt
import scipy.fft
from scipy.ndimage import map_coordinates

from ..errors import DoesNotCloseError
from ..gather.even_light import slow_part
from ..phrases import say
from ..sheet import Grid, Raster
from .bed_joints import find_beds

_LOOKED_PX = 900
_STRONG = 0.1
_NEAR_BEST = 0.8
_CLEAR = 0.08
_LEAN = 0.045
_AGREE = 0.6
"""Degrees by which rows and uprights may differ and still be turned alike."""
_SLANT = 0.12
"""Steepest lean of a row that is still taken for a row: about seven degrees."""


@dataclass(frozen=True, slots=True)
class Lattice:
    """The beat of a regular pattern, mm. ``across`` and ``up`` are the shortest (x, y) shifts along x and
    along y after which the pattern is itself again, y up; (0, 0) where it has no beat that way, as along
    rows of random units. ``course`` is the spacing of rows; ``strength`` the weaker echo, 1 for a
    perfect pattern.
    """

    across: tuple[float, float]
    up: tuple[float, float]
    course: float
    strength: float

    @property
    def beats(self) -> tuple[bool, bool]:
        """Whether there is a beat along x and along y."""
        return self.across != (0.0, 0.0), self.up != (0.0, 0.0)

    @property
    def turn(self) -> float:
        """How far the rows are turned, degrees anticlockwise."""
        if not self.beats[0]:
            return math.degrees(math.atan2(-self.up[0], self.up[1]))
        return math.degrees(math.atan2(self.across[1], self.across[0]))

    @property
    def tilts(self) -> tuple[float, float]:
        """Turn and lean in degrees as far as two independent beats bear them out: rows and uprights turned alike. A
        bond that steps aside from row to row looks like rows that rise, and is no turn.
        """
        if not all(self.beats):
            return 0.0, 0.0
        return (self.turn, self.lean) if abs(self.lean) <= _AGREE else (0.0, 0.0)

    @property
    def level(self) -> tuple[bool, bool]:
        """Which of the beats hold along x and along y once the tilts are taken out."""
        turn, _ = self.tilts
        slants = []
        for (x, y), upright in ((self.across, False), (self.up, True)):
            aside, ahead = (-x, y) if upright else (y, x)
            slants.append(abs(math.degrees(math.atan2(aside, ahead)) - turn) if ahead else 0.0)
        # What has a beat one way only says nothing of how far it is aside: rows of random units are alike at any shift.
        most = 2 * _AGREE if all(self.beats) else math.degrees(_SLANT)
        across, up = (beats and slant <= most for beats, slant in zip(self.beats, slants, strict=True))
        return across, up

    @property
    def periods(self) -> tuple[float, float]:
        """The beats along x and along y, mm; 0 where there is none."""
        if all(self.beats):
            return math.hypot(*self.across), math.hypot(*self.up)
        return self.across[0], self.up[1]

    @property
    def lean(self) -> float:
        """How far the uprights lean from the rows' normal, degrees; positive to the left."""
        if not all(self.beats):
            return 0.0
        return math.degrees(math.atan2(-self.up[0], self.up[1])) - self.turn


@dataclass(frozen=True, slots=True)
class Echo:
    """Normalised autocorrelation at shifts up to half the picture, the middle element being no shift."""

    values: npt.NDArray[np.float64]

    @property
    def middle(self) -> tuple[int, int]:
        """Row and column of no shift at all."""
        return self.values.shape[0] // 2, self.values.shape[1] // 2

    def at(self, shift: npt.NDArray[np.float64]) -> npt.NDArray[np.float64]:
        """Interpolated values at (N, 2) shifts (down, right)."""
        place = shift + np.array(self.middle)
        return np.asarray(map_coordinates(self.values, place.T, order=1, mode="nearest"))

    def peaks(self) -> npt.NDArray[np.float64]:
        """(N, 2) shifts of local maxima over a 5 × 5 neighbourhood, sub-pixel by parabolas."""
        values = self.values.astype(np.float32)
        found = np.argwhere((values >= cv2.dilate(values, np.ones((5, 5), np.uint8))) & (values > _STRONG))
        rows, columns = values.shape
        inner = (found > 1).all(1) & (found[:, 0] < rows - 2) & (found[:, 1] < columns - 2)
        return np.array([self.refined(r, c) for r, c in found[inner]]).reshape(-1, 2)

    def refined(self, row: int, column: int) -> tuple[float, float]:
        """Shift (down, right) of the maximum near an element."""

        def vertex(values: npt.NDArray[np.float64]) -> float:
            bend = values[0] - 2 * values[1] + values[2]
            return 0.0 if abs(bend) < 1e-12 else float(np.clip(0.5 * (values[0] - values[2]) / bend, -0.5, 0.5))

        down = vertex(self.values[row - 1 : row + 2, column])
        right = vertex(self.values[row, column - 1 : column + 2])
        return row + down - self.middle[0], column + right - self.middle[1]

    def prominence(self, shifts: npt.NDArray[np.float64]) -> npt.NDArray[np.float64]:
        """How far each shift's echo stands above those on the way to it.

        Straight joints echo at every shift along themselves; only what stands out on the way is a beat.
        """
        on_the_way = np.mean([self.at(share * shifts) for share in (0.22, 0.36, 0.64, 0.78)], axis=0)
        return np.asarray(self.at(shifts) - on_the_way)


def echo_unwrapped(pixels: Raster) -> Echo:
    """Normalised autocorrelation of a flat picture; not wrapped.

    Each value is the correlation of the overlapping parts, divided by the parts' own energy, so far
    shifts are not weakened.
    """
    rows, columns = pixels.shape
    half = rows // 2, columns // 2
    # Shifts of up to half the picture wrap only into what is longer by that.
    shape = (scipy.fft.next_fast_len(rows + half[0] + 1), scipy.fft.next_fast_len(columns + half[1] + 1, real=True))
    centred = pixels.astype(np.float64) - float(pixels.mean())
    power = np.abs(scipy.fft.rfft2(centred, shape, workers=2)) ** 2
    both = np.roll(scipy.fft.irfft2(power, shape, workers=2), half, (0, 1))[: 2 * half[0] + 1, : 2 * half[1] + 1]
    energy = _overlapping(centred**2, half)
    return Echo(both / np.sqrt(np.maximum(energy, 1e-9) * np.maximum(energy[::-1, ::-1], 1e-9)))


def _overlapping(squares: npt.NDArray[np.float64], half: tuple[int, int]) -> npt.NDArray[np.float64]:
    """Sum of a picture where it overlaps itself shifted by up to ``half`` both ways, from sums up to each corner."""
    total = np.zeros((squares.shape[0] + 1, squares.shape[1] + 1))
    np.cumsum(np.cumsum(squares, 0), 1, out=total[1:, 1:])
    (top, bottom), (left, right) = (
        (np.maximum(0, shift), length + np.minimum(0, shift))
        for shift, length in ((np.arange(-far, far + 1), side) for far, side in zip(half, squares.shape, strict=True))
    )
    part = total[bottom] - total[top]
    return np.asarray(part[:, right] - part[:, left])


def _follow(echo: Echo, first: npt.NDArray[np.float64]) -> npt.NDArray[np.float64]:
    """A shift measured at its farthest clear multiple, which divides the reading error."""
    best = first
    rows, columns = echo.values.shape
    for times in range(2, 40):
        row, column = (round(float(v)) for v in best * times + np.array(echo.middle))
        if not (4 <= row < rows - 4 and 4 <= column < columns - 4):
            break
        near = echo.values[row - 2 : row + 3, column - 2 : column + 3]
        if near.max() < _STRONG:
            break
        at = np.unravel_index(int(near.argmax()), near.shape)
        best = np.array(echo.refined(row - 2 + int(at[0]), column - 2 + int(at[1]))) / times
    return best


def without_broad(picture: Raster, longest: int) -> Raster:
    """A one-channel picture at so many pixels at most, without what is broader than a tenth of it."""
    scale = min(1.0, longest / max(picture.shape))
    small = np.asarray(picture, np.float32)
    if scale < 1:
        small = np.asarray(cv2.resize(small, None, fx=scale, fy=scale, interpolation=cv2.INTER_AREA), np.float32)
    return np.asarray(small - slow_part(small, max(small.shape) / 10), np.float32)


def find_lattice(picture: Raster, grid: Grid) -> Lattice:
    """The beat of a flat one-channel picture.

    Raises
    ------
    DoesNotCloseError
        when no shift repeats the pattern clearly, neither along x nor along y.
    """
    small = without_broad(picture, _LOOKED_PX)
    echo = echo_unwrapped(small)
    peaks = echo.peaks()
    down, right = peaks.T if len(peaks) else np.zeros((2, 0))
    stands = echo.prominence(peaks) if len(peaks) else np.zeros(0)
    level = echo.at(peaks) if len(peaks) else np.zeros(0)
    along = _shortest(right, stands, (np.abs(down) <= _SLANT * right) & (right > 6), level)
    # Uprights are looked for near the rows' normal first: a motif that shifts sideways is no lean.
    slope = float(down[along] / right[along]) if along is not None else 0.0
    lean = np.abs(right - slope * -down)
    up = _shortest(-down, stands, (lean <= _LEAN * -down) & (down < -6), level)
    if up is None:
        up = _shortest(-down, stands, (np.abs(right) <= _SLANT * -down) & (down < -6), level)
    if along is None and up is None:
        raise DoesNotCloseError(
            "Whole courses",
            value="this picture",
            allowed="a pattern with at least two courses or units in view",
            remedy="Use best cut or regrow for a picture without a beat.",
        )
    per_px = np.array([grid.height_mm / small.shape[0], grid.width_mm / small.shape[1]])
    vectors = []
    for index in (along, up):
        shift = _follow(echo, peaks[index]) * per_px if index is not None else np.zeros(2)
        vectors.append((float(shift[1]), float(-shift[0])))
    strength = min(float(echo.at(peaks[[index]])[0]) for index in (along, up) if index is not None)
    # Rows lie level, or stand upright where nothing beats upward.
    across_rows, sideways = (-down, right) if up is not None else (right, down)
    step = per_px[0] if up is not None else per_px[1]
    beat = math.hypot(*(vectors[1] if up is not None else vectors[0]))
    row = _shortest(across_rows, level, across_rows > 6 + 0.2 * np.abs(sideways), level, near=0.6)
    gap = float(across_rows[row] * step) if row is not None else beat
    return Lattice(vectors[0], vectors[1], beat / max(1, round(beat / gap)), strength)


def _shortest(
    length: npt.NDArray[np.float64],
    stands: npt.NDArray[np.float64],
    fits: npt.NDArray[np.bool_],
    level: npt.NDArray[np.float64],
    *,
    near: float = _NEAR_BEST,
) -> int | None:
    """Index of the shortest shift that stands out and echoes nearly as much as any; None if none is clear."""
    if not fits.any() or stands[fits].max() < _CLEAR:
        return None
    strong = fits & (stands >= near * stands[fits].max()) & (level >= near * level[fits].max())
    if not strong.any():
        # What stands out most and what echoes most are not the same: trust what stands out.
        strong = fits & (stands >= near * stands[fits].max())
    candidates = np.flatnonzero(strong)
    return int(candidates[np.argmin(length[candidates])])


def joint_width(picture: Raster, grid: Grid, course: float) -> float:
    """Width of the joint between rows, mm: how much of a course lies beyond the middle of its tones.

    See :func:`.bed_joints.find_beds`.
    """
    return find_beds(picture, grid, course).share * course


def straightened(pixels: Raster, grid: Grid, *, turn: float, lean: float) -> Raster:
    """Rows brought level and uprights plumb, about the sheet's middle; edges are held."""
    if abs(turn) < 1e-4 and abs(lean) < 1e-4:
        return pixels
    rows, columns = pixels.shape[:2]
    pitch_x, pitch_y = grid.mm_per_px
    t, upright = math.radians(turn), math.radians(turn + lean)
    # Where a level and a plumb millimetre of the result lie in the picture; picture rows count down.
    along = np.array([math.cos(t), -math.sin(t)])
    down = np.array([math.sin(upright), math.cos(upright)])
    mm = np.stack([along, down], 1)
    to_px = np.diag([1 / pitch_x, 1 / pitch_y]) @ mm @ np.diag([pitch_x, pitch_y])
    middle = np.array([(columns - 1) / 2, (rows - 1) / 2])
    back = np.column_stack([to_px, middle - to_px @ middle])
    out = cv2.warpAffine(
        pixels, back, (columns, rows), flags=cv2.INTER_CUBIC | cv2.WARP_INVERSE_MAP, borderMode=cv2.BORDER_REPLICATE
    )
    return np.asarray(out, np.float32)


def whole_count(length_mm: float, period_mm: float, least_overlap_mm: float) -> int:
    """How many whole periods fit beside the overlap that a cut needs.

    Raises
    ------
    DoesNotCloseError
        when not even one does.
    """
    count = math.floor((length_mm - least_overlap_mm) / period_mm + 1e-6)
    if count < 1:
        raise DoesNotCloseError(
            "Whole courses",
            value=say("{period_mm:.1f} mm", period_mm=period_mm),
            allowed=say(
                "at least one unit and {least_overlap_mm:.0f} mm of overlap", least_overlap_mm=least_overlap_mm
            ),
            remedy="Frame a larger part of the photo.",
        )
    return count
