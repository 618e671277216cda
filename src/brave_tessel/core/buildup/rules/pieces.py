"""Covered on random pieces."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...lattice import units_many
from ...operation import BelowLayer, Field, Fraction, Pieces, Seed, operation
from ...sheet import Grid


@operation("where.pieces", label="Random pieces", version=2, rehashed=True)
def by_pieces(
    grid: Grid,
    pieces: Pieces,
    *,
    layer: Annotated[str, BelowLayer(help="A layer beneath this one whose recipe has pieces.")] = "",
    share: Annotated[float, Fraction(help="Share of the pieces that are covered.")] = 0.3,
    vary: Annotated[float, Fraction(help="How far the cover of single pieces varies.")] = 0.0,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Some of the pieces of a layer beneath, each covered whole."""
    count = max(pieces.count, 1)
    chosen = units_many(np.arange(count), np.full(count, 71), seed) < share
    cover = chosen * (1 - np.float32(vary) * units_many(np.arange(count), np.full(count, 72), seed))
    face = np.clip(pieces.edge / np.float32(grid.pitch_mm) + np.float32(0.5), 0, 1)
    return np.asarray(
        np.where(pieces.number >= 0, cover.astype(np.float32)[np.maximum(pieces.number, 0)], 0) * face, np.float32
    )
