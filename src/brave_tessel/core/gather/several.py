"""Several pictures of the same patch: what only one of them shows, a highlight or a shadow, is lessened."""

from __future__ import annotations

from collections.abc import Sequence

import cv2
import numpy as np

from ..colour import luminance
from ..sheet import AnyArray, Raster
from .even_light import slow_part

SAME_PATCH = "same_patch"
ALIGN_PX = 384


def aligned(reference: Raster, other: Raster) -> Raster:
    """``other`` moved onto ``reference``, both (H, W, 3) of one size.

    Enhanced correlation maximisation with a projective map (Evangelidis and Psarakis 2008, PAMI 30(10)).
    Where that finds nothing, the picture is taken as it lies.
    """
    height, width = reference.shape[:2]
    scale = min(1.0, ALIGN_PX / max(height, width))
    size = (max(16, round(width * scale)), max(16, round(height * scale)))
    first, second = (_flattened(cv2.resize(p, size, interpolation=cv2.INTER_AREA)) for p in (reference, other))
    steps = (cv2.TERM_CRITERIA_EPS | cv2.TERM_CRITERIA_COUNT, 60, 1e-5)
    try:
        _, matrix = cv2.findTransformECC(
            first, second, np.eye(3, dtype=np.float32), cv2.MOTION_HOMOGRAPHY, steps, np.ones(first.shape, np.uint8), 5
        )
    except cv2.error:
        return other
    sx, sy = width / size[0], height / size[1]
    up = np.diag([sx, sy, 1.0])
    whole = up @ matrix.astype(np.float64) @ np.linalg.inv(up)
    moved = cv2.warpPerspective(
        other, whole, (width, height), flags=cv2.INTER_LINEAR | cv2.WARP_INVERSE_MAP, borderMode=cv2.BORDER_REPLICATE
    )
    return np.asarray(moved, np.float32)


def _flattened(pixels: AnyArray) -> Raster:
    """Local contrast only, so that other light does not matter to the match."""
    tone = np.log(luminance(np.asarray(pixels, np.float32)) + np.float32(0.02))
    return np.asarray(tone - slow_part(tone, 0.06 * max(tone.shape)), np.float32)


def lessened(pictures: Sequence[Raster]) -> Raster:
    """One picture of what several agree on, (H, W, 3) linear; they must be aligned.

    Broad light is matched to the first. Of three or more the per-pixel median of luminance decides; of
    two the one nearer to the broad mean of both. Near-equal pictures are averaged, which takes noise out.
    """
    if len(pictures) == 1:
        return pictures[0]
    matched = np.stack([pictures[0], *(p * _broad_gain(pictures[0], p) for p in pictures[1:])])
    tones = np.stack([luminance(p) for p in matched])
    if len(pictures) == 2:
        middle = slow_part(np.sqrt(np.maximum(tones[0] * tones[1], 1e-8)), 0.04 * max(tones.shape[1:]))
    else:
        middle = np.median(tones, axis=0)
    away = np.abs(np.log(np.maximum(tones, 1e-4)) - np.log(np.maximum(middle, 1e-4)))
    weight = np.exp(-((away / 0.12) ** 2)) if len(pictures) > 2 else np.exp(-((away - away.min(0)) / 0.1))
    weight = weight + np.float32(1e-6)
    mixed = (matched * weight[..., None]).sum(0) / weight.sum(0)[..., None]
    return np.asarray(mixed, np.float32)


_FIT_PX = 48


def _broad_gain(reference: Raster, other: Raster) -> Raster:
    """What ``other`` is multiplied with to have the broad light and colour of the first, (H, W, 3).

    A second-order surface in the logarithm of their ratio, by iteratively reweighted least squares: what
    only one of them shows does not pull it.
    """
    height, width = reference.shape[:2]
    first, second = (
        np.maximum(cv2.resize(p, (_FIT_PX, _FIT_PX), interpolation=cv2.INTER_AREA), 1e-4) for p in (reference, other)
    )
    ratio = np.log(first / second).reshape(-1, 3)
    y, x = np.mgrid[0:_FIT_PX, 0:_FIT_PX].reshape(2, -1) / _FIT_PX - 0.5
    terms = np.stack([np.ones_like(x), x, y, x * x, x * y, y * y], 1)
    weight = np.ones(len(ratio))
    for _ in range(12):
        root = np.sqrt(weight)[:, None]
        factors = np.linalg.lstsq(terms * root, ratio * root, rcond=None)[0]
        off = np.abs(ratio - terms @ factors).max(1)
        weight = 1 / (1 + (off / max(1.5 * float(np.median(off)), 1e-4)) ** 2) ** 2
    surface = np.exp(terms @ factors).reshape(_FIT_PX, _FIT_PX, 3).astype(np.float32)
    return np.asarray(cv2.resize(surface, (width, height), interpolation=cv2.INTER_LINEAR), np.float32)
