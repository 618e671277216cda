"""Steps on pieces: relief, tone and number of each."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ...colour import hex_to_linear
from ...kernels.bands import over_rows
from ...kernels.pieces import relief_rows
from ...lattice import units_many
from ...operation import Colour, Field, Fraction, Length, Paint, Pieces, Seed, operation
from ...sheet import Grid, Raster
from .rims import painted, rimmed


def _of_each(pieces: Pieces, salt: int, seed: int) -> Raster:
    """A random number in [−1, 1] for each piece, one more (0) for the joint; (count + 1,)."""
    spread = units_many(np.arange(pieces.count), np.full(pieces.count, salt), seed) * 2 - 1
    return np.append(spread, np.float32(0))


@operation("piece.relief", label="Relief of pieces", version=2, rehashed=True)
def relief(
    grid: Grid,
    pieces: Pieces,
    *,
    depth: Annotated[float, Length(0, 30, least=-100, most=500, help="How far the joint lies below the faces.")] = 2.0,
    edge_round: Annotated[float, Length(0, 15, least=0, most=200, help="Width of the rounded edge.")] = 1.2,
    height_spread: Annotated[
        float, Length(0, 5, least=0, most=100, help="Pieces stand proud or back by up to this much.")
    ] = 0.3,
    tilt: Annotated[
        float, Length(0, 3, least=0, most=50, help="Pieces lean by up to this much from edge to edge.")
    ] = 0.15,
    cushion: Annotated[
        float, Length(0, 3, least=-20, most=50, help="Faces swell by this much toward their middle.")
    ] = 0.1,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Height in mm: faces about 0, joints at −depth, quarter-round edges."""
    pitch = max(grid.mm_per_px)
    stand = _of_each(pieces, 11, seed) * np.float32(height_spread)
    lean_x, lean_y = (_of_each(pieces, salt, seed) * np.float32(0.5 * tilt) for salt in (12, 13))
    out = np.empty(grid.shape, np.float32)
    over_rows(
        relief_rows,
        grid.height_px,
        pieces.number,
        pieces.edge,
        pieces.across,
        pieces.up,
        stand,
        lean_x,
        lean_y,
        out,
        np.float32(depth),
        np.float32(max(edge_round, 0.75 * pitch)),
        edge_round >= 1.5 * pitch,
        np.float32(cushion),
        np.float32(grid.pitch_mm),
    )
    return out


@rimmed("piece.tone", label="Tone of pieces")
def tone(
    grid: Grid,
    pieces: Pieces,
    *,
    colour: Annotated[str, Paint(help="Mean colour of the pieces.")] = "#1F4D3A",
    spread: Annotated[float, Fraction(help="How much lighter or darker single pieces are.")] = 0.25,
    drift: Annotated[float, Fraction(help="How much the hue of single pieces strays.")] = 0.1,
    joint_colour: Annotated[str, Paint(help="Colour of the joint.")] = "#B9B2A3",
    seed: Annotated[int, Seed()] = 1,
) -> Colour:
    """Colour of each piece about a mean, and of the joint; linear light."""
    gain = np.exp2(_of_each(pieces, 21, seed) * np.float32(spread))
    warm = _of_each(pieces, 22, seed) * np.float32(0.35 * drift)
    paint = np.array(hex_to_linear(colour), np.float32)
    palette = paint * np.stack([gain * (1 + warm), gain, gain * (1 - warm)], 1)
    palette[-1] = hex_to_linear(joint_colour)
    return painted(grid, pieces, palette)


@rimmed("piece.pick", label="Value of pieces")
def pick(
    grid: Grid,
    pieces: Pieces,
    *,
    on_pieces: Annotated[float, Fraction(help="Value on the pieces.")] = 0.15,
    spread: Annotated[float, Fraction(0, 0.5, most=1, help="How far single pieces stray.")] = 0.05,
    in_joints: Annotated[float, Fraction(help="Value in the joints.")] = 0.85,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """One value on pieces, another in joints, in [0, 1]; for roughness and metalness."""
    values = np.clip(np.float32(on_pieces) + _of_each(pieces, 31, seed) * np.float32(spread), 0, 1)
    values[-1] = in_joints
    return painted(grid, pieces, values[:, None])[..., 0]
