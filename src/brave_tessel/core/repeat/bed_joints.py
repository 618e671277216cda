"""Where a coursed wall is joint and where unit, learnt from the joints between its rows.

Rows of random units have no beat along themselves: a sheet of them closes where a cut goes from joint to joint, up the
upright ones and along those between the rows.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np
import numpy.typing as npt

from ..sheet import Grid, Raster

_WHOLE = 0.75
"""Share of an upright joint's width that is left whole beside a cut."""
_LEAST_PIECE, _SLIVER = 0.7, 0.8
"""Shortest piece of a unit, in courses, and how much of a joint's worth one takes that would leave less."""
_SIDE = 0.5
"""Share of a course, about the middle of a joint, over which an upright joint is looked for at once."""


@dataclass(frozen=True, slots=True)
class Beds:
    """The joints between level courses: which rows of a sheet lie in them, (H,), and their share of a course."""

    rows: npt.NDArray[np.bool_]
    share: float


def find_beds(tone: Raster, grid: Grid, course: float) -> Beds:
    """Those of a sheet (H, W) with level courses (mm).

    The row profile is folded on the course; what lies on the narrower side of its middle value is joint.
    """
    pitch = grid.mm_per_px[1]
    profile = tone.mean(1)
    profile = profile - cv2.GaussianBlur(profile[:, None], (0, 0), 2 * course / pitch)[:, 0]
    bins = max(16, round(course / pitch * 2))
    phase = ((np.arange(profile.size) + 0.5) * pitch / course % 1 * bins).astype(int)
    folded = np.bincount(phase, profile, bins) / np.maximum(np.bincount(phase, minlength=bins), 1)
    low, high = np.percentile(folded, (3, 97))
    middle = (low + high) / 2
    pale = float((folded > middle).mean())
    # Rows are taken as they lie, since courses laid by hand drift from any one phase.
    return Beds(np.asarray(profile > middle if pale < 0.5 else profile <= middle), min(pale, 1 - pale))


@dataclass(frozen=True, slots=True)
class Joints:
    """How much each pixel of a sheet looks like a joint, 0 to 1, (H, W), how wide an upright joint is, and the shortest
    piece of a unit that should be left, pixels.
    """

    share: Raster
    width: int
    least: int

    def passed(self, far: slice, near: slice) -> Raster:
        """How well a cut between two strips of columns keeps a joint whole, for a cut just before each pixel: a whole
        joint lies before it in the far strip, or after it in the near one. What would leave a sliver of a unit on the
        other side counts for little.
        """
        width = max(2, round(_WHOLE * self.width))
        one, other = self.share[:, far], self.share[:, near]
        before = np.roll(_worst(one, width, ahead=False), 1, 1)
        before[:, 0] = 0
        sliver = _best(other, self.least, ahead=True) * (1 - other)
        after = _worst(other, width, ahead=True)
        behind = np.roll(_best(one, self.least, ahead=False) * (1 - one), 1, 1)
        return np.asarray(np.maximum(before * (1 - _SLIVER * sliver), after * (1 - _SLIVER * behind)), np.float32)


def _worst(share: Raster, length: int, *, ahead: bool) -> Raster:
    """The least share over so many pixels of a row, from each on (or up to it)."""
    kernel, anchor = np.ones((1, length), np.uint8), (0 if ahead else length - 1, 0)
    return np.asarray(cv2.erode(share, kernel, anchor=anchor, borderType=cv2.BORDER_REPLICATE), np.float32)


def _best(share: Raster, length: int, *, ahead: bool) -> Raster:
    kernel, anchor = np.ones((1, length), np.uint8), (0 if ahead else length - 1, 0)
    return np.asarray(cv2.dilate(share, kernel, anchor=anchor, borderType=cv2.BORDER_REPLICATE), np.float32)


def find_joints(colour: Raster, grid: Grid, course: float) -> Joints:
    """The joints of a sheet (H, W, C) with level courses (mm), learnt from those between the courses.

    Joints and units are told apart along the direction in which they differ most for their spread (Fisher 1936).
    """
    found = find_beds(np.asarray(colour.mean(2), np.float32), grid, course)
    beds = found.rows
    joint, unit = (colour[rows].reshape(-1, colour.shape[2]).astype(np.float64) for rows in (beds, ~beds))
    within = np.cov(joint.T) + np.cov(unit.T) + 1e-6 * np.eye(colour.shape[2])
    way = np.linalg.solve(within, joint.mean(0) - np.median(unit, 0))
    told = colour.astype(np.float64) @ way
    low, high = float(np.median(unit @ way)), float(np.median(joint @ way))
    share = np.clip((told - low) / max(high - low, 1e-9), 0, 1).astype(np.float32)
    # An upright joint is as high as its unit: what is joint for a moment only is a fleck.
    side = max(1, round(_SIDE * course / grid.mm_per_px[1]))
    upright = cv2.blur(share, (1, side), borderType=cv2.BORDER_REFLECT)
    share = np.asarray(np.where(beds[:, None], share, np.minimum(share, upright)), np.float32)
    across = course / grid.mm_per_px[0]
    return Joints(share, round(found.share * across), max(2, round(_LEAST_PIECE * across)))
