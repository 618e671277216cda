"""A layer's colour laid on the ground's by a mode of the compositing standard, where it lies at all."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from ..sheet import Raster
from .bands import over_rows
from .compiled import compiled, still
from .curve import to_code, to_light

PRODUCTS: Mapping[str, tuple[float, float]] = {"multiply": (0.0, 1.0), "screen": (1.0, -1.0), "exclusion": (1.0, -2.0)}
"""Modes whose B(b, s) is a share of b + s and one of b · s."""


@compiled
def _product_rows(
    first: int, last: int, below: Raster, own: Raster, cover: Raster, out: Raster, shares: tuple[np.float32, np.float32]
) -> None:
    of_sum, of_product = shares
    for r in range(first, last):
        most = np.float32(0)
        for c in range(cover.shape[1]):
            most = max(most, cover[r, c])
        if most <= np.float32(0):
            # It does not lie here.
            out[r] = below[r]
            continue
        for i in range(below.shape[1]):
            b, s = to_code(below[r, i]), to_code(own[r, i])
            out[r, i] = to_light(of_sum * (b + s) + of_product * b * s)


def product_of_light(mode: str, below: Raster, own: Raster, cover: Raster) -> Raster:
    """Linear colours (H, W, 3): B(below, own) of W3C Compositing and Blending Level 1 on their sRGB codes, for a mode
    of :data:`PRODUCTS`. Rows on which the coverage (H, W) is nothing stay as they are below.
    """
    rows = below.shape[0]
    flat = [np.ascontiguousarray(one, np.float32).reshape(rows, -1) for one in (below, own)]
    out = np.empty(flat[0].shape, np.float32)
    shares = np.float32(PRODUCTS[mode][0]), np.float32(PRODUCTS[mode][1])
    given = (*(still(one) for one in flat), still(np.ascontiguousarray(cover, np.float32)))
    over_rows(_product_rows, rows, *given, out, shares)
    return out.reshape(below.shape)
