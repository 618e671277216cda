"""Photometric stereo: colour, normal and height from frames under single, known lights."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import cv2
import numpy as np
import numpy.typing as npt

from ..colour import LUMINANCE
from ..errors import DegenerateViewError, OutOfRangeError
from ..kernels.stereo import fit_pixels
from ..phrases import say
from ..relief.integrate import height_of_slopes
from ..sheet import Grid, Raster

LEAST_FRAMES = 4
_DARK, _BRIGHT = 0.2, 0.15
"""Shares of the frames, by rank, that are taken for shadow and for highlight and left out."""


@dataclass(frozen=True, slots=True)
class Shape:
    """What a stack of frames tells: albedo (H, W, 3) linear, normal (H, W, 3), and how well the frames agree,
    0 (not at all) to 1, (H, W).
    """

    albedo: Raster
    normal: Raster
    agreement: Raster

    @property
    def nbytes(self) -> int:
        """Bytes of all its rasters, for the cache."""
        return self.albedo.nbytes + self.normal.nbytes + self.agreement.nbytes


def check_lights(lights: npt.ArrayLike, frames: int) -> npt.NDArray[np.float64]:
    """Unit directions (n, 3), x right, y up, z out; refused where they tell no shape."""
    directions = np.asarray(lights, np.float64)
    if directions.ndim != 2 or directions.shape[1] != 3 or not np.isfinite(directions).all():
        raise OutOfRangeError("light directions", value=str(directions.shape), allowed="three numbers per frame")
    if len(directions) != frames or frames < LEAST_FRAMES:
        raise OutOfRangeError(
            "frames",
            value=say("{frames} with {count} lights", frames=frames, count=len(directions)),
            allowed=say("{least_frames} or more, each with its light", least_frames=LEAST_FRAMES),
            remedy="Take more frames, or mend the light file.",
        )
    length = np.linalg.norm(directions, axis=1)
    if (length < 1e-9).any() or np.linalg.svd(directions / length[:, None], compute_uv=False)[2] < 0.05 * np.sqrt(
        frames
    ):
        raise DegenerateViewError("relief", allowed="lights from several sides", remedy="Set the lights further apart.")
    return np.asarray(directions / length[:, None])


def solve(frames: Sequence[Raster], lights: npt.ArrayLike) -> Shape:
    """Albedo and normal of every pixel from linear frames (H, W, 3) of even lamps.

    Woodham 1980 ("Photometric method for determining surface orientation from multiple images", Optical
    Engineering 19(1)) by least squares over the frames that are left when a pixel's darkest and brightest
    are dropped as shadow and highlight by rank, and then twice more with weights by how well each frame
    agrees (iteratively reweighted).
    """
    directions = check_lights(lights, len(frames))
    stack = np.stack([np.asarray(frame @ LUMINANCE, np.float32) for frame in frames])
    rows = stack.reshape(len(frames), -1)
    scaled, agreement = _fit(np.ascontiguousarray(rows.T), directions)
    length = np.linalg.norm(scaled, axis=1)
    normal = scaled / np.maximum(length, 1e-6)[:, None]
    normal[length < 1e-6] = (0, 0, 1)
    albedo = _colours(frames, directions, normal)
    shape = frames[0].shape[:2]
    return Shape(albedo, normal.reshape(*shape, 3).astype(np.float32), agreement.reshape(shape).astype(np.float32))


def _fit(values: Raster, lights: npt.NDArray[np.float64]) -> tuple[npt.NDArray[np.float64], npt.NDArray[np.float64]]:
    frames = values.shape[1]
    spare = frames - 4
    low, high = min(spare, round(_DARK * frames)), 0
    high = min(spare - low, round(_BRIGHT * frames))
    out, agreement = np.zeros((len(values), 3)), np.zeros(len(values))
    fit_pixels(values, lights, low, high, out, agreement)
    return out, agreement


def _colours(frames: Sequence[Raster], lights: npt.NDArray[np.float64], normal: npt.NDArray[np.float64]) -> Raster:
    """Albedo of each channel: its frames over the cosine that lit them, the robust mean of those well lit."""
    facing = np.maximum(normal @ lights.T, 0).astype(np.float32)
    shape = frames[0].shape
    tones = np.stack([(f @ LUMINANCE).reshape(-1) for f in frames], 1) / np.maximum(facing, 1e-3)
    lit = facing > 0.25
    # The middle of the well lit ones: the others are sorted to the end and not counted.
    ranked = np.sort(np.where(lit, tones, np.inf), axis=1)
    count = lit.sum(1)
    middle = ranked[np.arange(len(ranked)), np.maximum(count - 1, 0) // 2]
    middle = np.where(count > 0, middle, tones.max(1))
    weight = np.where(lit, facing / (1 + ((tones - middle[:, None]) / (0.08 * middle[:, None] + 1e-4)) ** 2) ** 2, 0)
    weight = (weight + 1e-9).astype(np.float32)
    total = np.zeros((len(normal), 3), np.float32)
    for index, frame in enumerate(frames):
        total += (weight[:, index] / np.maximum(facing[:, index], 1e-3))[:, None] * frame.reshape(-1, 3)
    albedo = total / weight.sum(1)[:, None]
    return np.asarray(np.clip(albedo, 0, 1).reshape(shape), np.float32)


def height_of(normal: Raster, grid: Grid, *, wraps: bool) -> Raster:
    """Height in mm, mean 0, of a normal map by Frankot and Chellappa 1988; a sheet that does not wrap is mirrored."""
    z = np.maximum(normal[..., 2], 0.25)
    p, q = -normal[..., 0] / z, -normal[..., 1] / z
    if wraps:
        return height_of_slopes(np.asarray(p, np.float32), np.asarray(q, np.float32), grid)
    # Mirrored, a slope along the mirrored axis changes its sign.
    p = np.block([[p, -p[:, ::-1]], [p[::-1], -p[::-1, ::-1]]])
    q = np.block([[q, q[:, ::-1]], [-q[::-1], -q[::-1, ::-1]]])
    rows, columns = grid.shape
    double = Grid(2 * columns, 2 * rows, 2 * grid.width_mm, 2 * grid.height_mm)
    whole = height_of_slopes(np.asarray(p, np.float32), np.asarray(q, np.float32), double)
    return np.asarray(whole[:rows, :columns] - whole[:rows, :columns].mean(), np.float32)


def angular_error(normal: Raster, truth: Raster) -> float:
    """Mean angle between two fields of unit vectors, degrees."""
    cosine = np.clip((normal * truth).sum(-1), -1, 1)
    return float(np.degrees(np.arccos(cosine)).mean())


def albedo_error(albedo: Raster, truth: Raster) -> float:
    """Mean relative difference of albedo, by luminance of the truth."""
    return float(np.abs(albedo - truth).mean() / max(float(truth.mean()), 1e-6))


def quick_look(frames: Sequence[Raster], px: int = 320) -> list[Raster]:
    """The frames made small, for a look while they come in."""
    scale = px / max(frames[0].shape[:2])
    return [
        np.asarray(cv2.resize(f, None, fx=scale, fy=scale, interpolation=cv2.INTER_AREA), np.float32) for f in frames
    ]
