"""Stairs of a picture's edges made smooth, found in the picture alone."""

from __future__ import annotations

import numpy as np

from ..sheet import AnyArray
from .bands import over_rows
from .compiled import compiled, still

_LONGEST = 12
"""Pixels along an edge in which its end is looked for, each way."""


@compiled
def _luma_rows(first: int, last: int, codes: AnyArray, out: AnyArray) -> None:
    for r in range(first, last):
        for c in range(codes.shape[1]):
            mean = np.float32(0.299) * codes[r, c, 0] + np.float32(0.587) * codes[r, c, 1]
            out[r, c] = mean + np.float32(0.114) * codes[r, c, 2]


@compiled
def _run(luma: AnyArray, r: int, c: int, step: tuple[int, int], across: tuple[int, int], most: int) -> tuple[int, int]:
    """How many pixels from here along ``step`` the edge to the neighbour ``across`` goes on, and whether it ends
    because it crosses over to this side (1), to the other (−1), or not at all (0).
    """
    rows, columns = luma.shape
    here, there = luma[r, c], luma[r + across[0], c + across[1]]
    mean, reach = (here + there) * np.float32(0.5), abs(here - there) * np.float32(0.25)
    for k in range(1, most + 1):
        y, x = r + k * step[0], c + k * step[1]
        y2, x2 = y + across[0], x + across[1]
        if y < 0 or x < 0 or y >= rows or x >= columns or y2 < 0 or x2 < 0 or y2 >= rows or x2 >= columns:
            return k, 0
        off = (luma[y, x] + luma[y2, x2]) * np.float32(0.5) - mean
        if abs(off) >= reach:
            return k, 1 if (off > 0) == (here > there) else -1
    return most, 0


@compiled
def _softened_rows(first: int, last: int, codes: AnyArray, luma: AnyArray, out: AnyArray) -> None:
    rows, columns = luma.shape
    for r in range(first, last):
        for c in range(columns):
            for k in range(3):
                out[r, c, k] = codes[r, c, k]
            if r == 0 or c == 0 or r == rows - 1 or c == columns - 1:
                continue
            m, n, s, w, e = luma[r, c], luma[r - 1, c], luma[r + 1, c], luma[r, c - 1], luma[r, c + 1]
            most = max(max(max(n, s), max(w, e)), m)
            least = min(min(min(n, s), min(w, e)), m)
            if most - least < max(np.float32(8.0), np.float32(0.09) * most):
                continue
            nw, ne, sw, se = luma[r - 1, c - 1], luma[r - 1, c + 1], luma[r + 1, c - 1], luma[r + 1, c + 1]
            level = abs(nw + sw - 2 * w) + 2 * abs(n + s - 2 * m) + abs(ne + se - 2 * e)
            upright = abs(nw + ne - 2 * n) + 2 * abs(w + e - 2 * m) + abs(sw + se - 2 * s)
            if level >= upright:
                across = (-1, 0) if abs(n - m) >= abs(s - m) else (1, 0)
                back, on = _run(luma, r, c, (0, -1), across, _LONGEST), _run(luma, r, c, (0, 1), across, _LONGEST)
            else:
                across = (0, -1) if abs(w - m) >= abs(e - m) else (0, 1)
                back, on = _run(luma, r, c, (-1, 0), across, _LONGEST), _run(luma, r, c, (1, 0), across, _LONGEST)
            near, end = (back[0], back[1]) if back[0] <= on[0] else (on[0], on[1])
            # Where the nearer end crosses to the other side, the slanting edge passes through this pixel.
            if end >= 0:
                continue
            share = np.float32(0.5) - np.float32(near - 0.5) / np.float32(back[0] + on[0] - 1)
            if share <= np.float32(0.0):
                continue
            for k in range(3):
                other = codes[r + across[0], c + across[1], k]
                mixed = (np.float32(1) - share) * codes[r, c, k] + share * other
                out[r, c, k] = np.uint8(mixed + np.float32(0.5))


def softened(codes: AnyArray) -> AnyArray:
    """Codes (H, W, 3) uint8 with the stairs of slanting edges evened out along them (after Lottes 2009, "FXAA", and
    Reshetov 2009, "Morphological antialiasing"): a pixel beside the end of a step takes as much of its neighbour
    across the edge as the slanting edge would cut off it. What lies level, upright or has little contrast stays.
    """
    luma, out = np.empty(codes.shape[:2], np.float32), np.empty_like(codes)
    over_rows(_luma_rows, len(out), still(codes), luma)
    over_rows(_softened_rows, len(out), still(codes), still(luma), out)
    return out
