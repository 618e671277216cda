"""Where a pattern breaks off: edges at which two faces meet that wear one surface but do not carry it on."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import numpy.typing as npt

Floats = npt.NDArray[np.floating]
_SAME = 1e4
"""Places closer than a ten-thousandth of a metre are one."""
_CARRIES = 4e-3
"""Shares of a repeat by which places may differ and still carry the pattern on."""


def seam_lines(faces: Sequence[tuple[str, Floats, Floats]]) -> npt.NDArray[np.float32]:
    """Both ends of every seam, (N, 2, 3) float32 in metres.

    ``faces`` holds for each thing laid the name of its surface, its corners (3 M, 3) in metres and its places (3 M, 3)
    in repeats times w, and w. Pieces of one surface are one where their corners meet; a whole number of repeats between
    them is no seam, and where two surfaces meet there is a joint, not a seam.
    """
    lines = [_of_surface([one for one in faces if one[0] == name]) for name in dict.fromkeys(n for n, *_ in faces)]
    return np.concatenate([np.zeros((0, 2, 3), np.float32), *lines])


def _of_surface(faces: Sequence[tuple[str, Floats, Floats]]) -> npt.NDArray[np.float32]:
    places = np.concatenate([np.asarray(p, np.float64) for _, p, _ in faces])
    held = np.concatenate([np.asarray(uv, np.float64) for *_, uv in faces])
    uv = held[:, :2] / np.where(np.abs(held[:, 2:]) > 1e-6, held[:, 2:], 1)
    _, point = np.unique(np.rint(places * _SAME).astype(np.int64), axis=0, return_inverse=True)
    corner = np.arange(len(places)).reshape(-1, 3)
    first, last = corner.ravel(), np.roll(corner, -1, 1).ravel()
    # Each edge from the lower to the higher of its points, so that both of its faces tell it alike.
    swapped = point[first] > point[last]
    first, last = np.where(swapped, last, first), np.where(swapped, first, last)
    told = point[first].astype(np.int64) * (int(point.max(initial=0)) + 1) + point[last]
    order = np.argsort(told, kind="stable")
    first, last, told = first[order], last[order], told[order]
    # Edges of nothing (thin faces) are none.
    pair = np.flatnonzero((told[1:] == told[:-1]) & (point[first[1:]] != point[last[1:]]))
    near, far = uv[first[pair]] - uv[first[pair + 1]], uv[last[pair]] - uv[last[pair + 1]]
    whole = np.rint(near)
    carries = (np.abs(near - whole) < _CARRIES).all(1) & (np.abs(far - whole) < _CARRIES).all(1)
    broken = pair[~carries]
    return np.stack([places[first[broken]], places[last[broken]]], 1).astype(np.float32)
