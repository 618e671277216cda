"""Does what straddles a join look like anything else in the source?

Coherence of Simakov, Caspi, Shechtman and Irani 2008, "Summarizing visual data using bidirectional similarity": each
patch of the result should have a near neighbour among the patches of the source. How near is near is learnt from the
source itself: from how far its own patches lie from their nearest, not overlapping, neighbours.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np
import numpy.typing as npt

from ..sheet import Raster

SIZES = (48, 96)
"""Pixels of the longer side at which patches are looked at: a patch is a sixth and a twelfth of the sheet."""
_PATCH = 8
_BROAD = 6.0
_PAD = 24
_TAUGHT, _DIMENSIONS, _ASKED = 1500, 24, 400
_ACROSS = (-6, -4, -2)
"""Where patches begin before the join: each straddles it."""
Ints = npt.NDArray[np.int64]


@dataclass(frozen=True, slots=True)
class Coherence:
    """How patches over a join compare with those inside: ``ratio`` of the usual distances to the nearest neighbour, 1
    is alike; ``strange`` the share of the join that lies further off than 97 % of what is inside, at each size;
    ``worst`` where along the join it is strangest, as a share.
    """

    ratio: float
    strange: tuple[float, ...]
    worst: float

    @property
    def broken(self) -> bool:
        """Strange at several sizes, or along half of it at one."""
        return sum(share >= _MUCH for share in self.strange) >= 2 or max(self.strange) >= _MOST

    @property
    def doubtful(self) -> bool:
        """Strange here and there."""
        return max(self.strange) >= _SOME


_SOME, _MUCH, _MOST = 0.18, 0.3, 0.5


def read_coherence(
    source: Raster, closed: Raster, *, axis: int, join: npt.NDArray[np.floating] | None = None
) -> Coherence:
    """The join of a closed sheet across x (``axis`` 1) or y (0) against the sheet it was made of; both (H, W).

    ``join`` says where it lies, as shares of the closed sheet's width (height), for each of its rows (columns); at the
    edge without it.
    """
    if axis == 0:
        source, closed = (np.ascontiguousarray(one.T) for one in (source, closed))
    ratios, strange, excess = [], [], []
    for size in SIZES:
        inside, over = _distances(source, closed, size, join)
        usual, far = np.quantile(inside, (0.5, 0.97))
        ratios.append(float(np.median(over)) / max(float(usual), 1e-6))
        strange.append(float((over > far).mean()))
        excess.append(cv2.resize((over / max(float(far), 1e-6))[:, None], (1, 64))[:, 0])
    along = cv2.blur(np.max(excess, 0)[:, None], (1, 5), borderType=cv2.BORDER_REFLECT)
    worst = (int(along[:, 0].argmax()) + 0.5) / 64
    return Coherence(max(ratios), tuple(strange), float(worst))


def _distances(
    source: Raster, closed: Raster, size: int, join: npt.NDArray[np.floating] | None
) -> tuple[Raster, Raster]:
    """Distances to the nearest patch of the source: of its own patches to others, and of those over the join."""
    scale = size / max(source.shape)
    small, over = (_channels(_shrunk(one, scale), wraps=wraps) for one, wraps in ((source, False), (closed, True)))
    rows, columns = (side - _PATCH + 1 for side in small.shape[:2])
    down, right = (place.ravel() for place in np.mgrid[0:rows, 0:columns])
    known = _patches(small, down, right)
    rng = np.random.default_rng(7)
    taught = known[rng.permutation(len(known))[:_TAUGHT]]
    mean = taught.mean(0)
    away = (taught - mean).astype(np.float64)
    _, ways = np.linalg.eigh(away.T @ away)
    basis = np.ascontiguousarray(ways[:, ::-1][:, :_DIMENSIONS], np.float32)
    flat = (known - mean) @ basis
    asked = rng.permutation(len(known))[:_ASKED]
    inside = _nearest(flat[asked], flat, (down[asked], right[asked]), (down, right))
    height, width = over.shape[:2]
    line = np.zeros(height) if join is None else np.interp(
        (np.arange(height) + 0.5) / height * len(join) - 0.5, np.arange(len(join)), join
    ) * width  # fmt: skip
    each = [
        _nearest((_patches(over, np.arange(height), np.rint(line + step).astype(np.int64)) - mean) @ basis, flat)
        for step in _ACROSS
    ]
    return inside, np.asarray(np.median(each, 0), np.float32)


def _shrunk(pixels: Raster, scale: float) -> Raster:
    size = (max(_PATCH + 4, round(side * scale)) for side in pixels.shape[1::-1])
    return np.asarray(cv2.resize(pixels, tuple(size), interpolation=cv2.INTER_AREA), np.float32)


def _channels(small: Raster, *, wraps: bool) -> Raster:
    """Tone without its broad part, and how strong edges are, (H, W, 2)."""
    border = cv2.BORDER_WRAP if wraps else cv2.BORDER_REFLECT_101
    pad = min(_PAD, min(small.shape) - 1)
    padded = cv2.copyMakeBorder(small, pad, pad, pad, pad, border)
    across, down = (cv2.Sobel(padded, cv2.CV_32F, *order, ksize=3) / 8 for order in ((1, 0), (0, 1)))
    edges = np.sqrt(across * across + down * down)
    planes = [one - cv2.GaussianBlur(one, (0, 0), _BROAD) for one in (padded, 2 * edges)]
    return np.asarray(np.stack(planes, -1)[pad:-pad, pad:-pad], np.float32)


def _patches(planes: Raster, rows: Ints, columns: Ints) -> Raster:
    """Patches that begin at places, wrapped, (N, patch values)."""
    height, width = planes.shape[:2]
    within = np.arange(_PATCH)
    down, right = (rows[:, None] + within) % height, (columns[:, None] + within) % width
    return np.asarray(planes[down[:, :, None], right[:, None, :]].reshape(len(rows), -1), np.float32)


def _nearest(
    asked: Raster, known: Raster, at: tuple[Ints, Ints] | None = None, places: tuple[Ints, Ints] | None = None
) -> Raster:
    """Distance of each patch to its nearest known one; with places, to the nearest that it does not overlap."""
    squares, out = (known * known).sum(1), np.empty(len(asked), np.float32)
    for first in range(0, len(asked), 256):
        part = slice(first, min(first + 256, len(asked)))
        apart = (asked[part] ** 2).sum(1)[:, None] + squares[None] - 2 * asked[part] @ known.T
        if at is not None and places is not None:
            over = [np.abs(mine[part, None] - all_[None]) < _PATCH - 2 for mine, all_ in zip(at, places, strict=True)]
            apart[over[0] & over[1]] = np.inf
        out[part] = apart.min(1)
    return np.asarray(np.sqrt(np.maximum(out, 0)), np.float32)
