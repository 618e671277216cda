"""Made pieces, each a small map set on its own rectangle: cover, height in mm, colour, roughness."""

from __future__ import annotations

import math
from typing import Annotated

import numpy as np
import numpy.typing as npt

from ..colour import hex_to_linear
from ..lattice import units_many
from ..maps import MapKind, MapSet
from ..operation import Fraction, Length, Paint, Seed, Whole, operation
from ..recipe.steps.noise import clouds
from ..sheet import Grid, Raster

Thickness = Annotated[float, Length(0.2, 60, log=True, least=0.01, help="How high the piece rises.")]
Colour_ = Annotated[str, Paint(help="Colour of the piece.")]
Rough = Annotated[float, Fraction(help="Roughness of the piece.")]
_F = npt.NDArray[np.float64]


def _places(grid: Grid) -> tuple[_F, _F]:
    """Across and up within the rectangle, −1 to 1."""
    return (grid.x_mm() / grid.width_mm * 2 - 1)[None, :], (grid.y_mm() / grid.height_mm * 2 - 1)[:, None]


def _edge(inside_mm: _F, grid: Grid) -> Raster:
    """Cover of a shape by the distance inside its edge, one pixel soft."""
    return np.asarray(np.clip(inside_mm / grid.pitch_mm + 0.5, 0, 1), np.float32)


def _made(
    grid: Grid, cover: Raster, height: _F | Raster, colour: str, mottle: Raster, spread: float, roughness: float
) -> MapSet:
    tone = (1 + np.float32(spread) * (mottle - np.float32(0.5)))[..., None]
    painted = np.asarray(hex_to_linear(colour), np.float32) * tone
    return MapSet(
        grid,
        {
            MapKind.OPACITY: cover,
            MapKind.HEIGHT: np.asarray(np.maximum(height, 0) * (cover > 0), np.float32),
            MapKind.BASE_COLOUR: np.asarray(np.clip(painted, 0, 1), np.float32),
            MapKind.ROUGHNESS: np.asarray(np.clip(roughness + 0.2 * (mottle - 0.5), 0.02, 1), np.float32),
        },
    )


def _wobble(turn: _F, amount: float, seed: int, waves: int = 5) -> _F:
    """A closed outline's departure from round, by a few waves, −amount to amount."""
    draws = units_many(np.arange(2 * waves), np.zeros(2 * waves, np.int64), seed)
    total = np.zeros_like(turn)
    for k in range(waves):
        total += np.cos((k + 2) * turn + 2 * math.pi * draws[2 * k]) * (0.4 + draws[2 * k + 1]) / (k + 2)
    return np.asarray(amount * total)


@operation("shape.pebble", version=2, rehashed=True)
def pebble(
    grid: Grid,
    *,
    thickness: Thickness = 14.0,
    irregular: Annotated[float, Fraction(help="How far the outline leaves an ellipse.")] = 0.35,
    flat: Annotated[float, Fraction(help="0 a full round back, 1 a flat one.")] = 0.35,
    colour: Colour_ = "#8A857A",
    mottling: Annotated[float, Fraction(help="How far its tone varies.")] = 0.35,
    roughness: Rough = 0.55,
    seed: Annotated[int, Seed()] = 1,
) -> MapSet:
    """A rounded stone."""
    x, y = _places(grid)
    turn = np.arctan2(y, x + 0 * y)
    radius = np.hypot(x, y) / (0.9 + _wobble(turn, 0.22 * irregular, seed))
    cover = _edge((1 - radius) * min(grid.width_mm, grid.height_mm) / 2, grid)
    mottle = clouds(grid, size=max(2.0, grid.width_mm / 3), octaves=5, seed=seed)
    height = thickness * np.maximum(1 - radius ** (2 + 6 * flat), 0) ** 0.5 * (0.94 + 0.06 * mottle)
    return _made(grid, cover, height, colour, mottle, mottling, roughness)


@operation("shape.tile", version=2, rehashed=True)
def tile(
    grid: Grid,
    *,
    thickness: Thickness = 6.0,
    edge_round: Annotated[float, Length(0, 10, least=0, most=100, help="Width over which the edge is rounded.")] = 1.2,
    cushion: Annotated[float, Fraction(help="How far the middle rises over the edge.")] = 0.06,
    colour: Colour_ = "#2E6B62",
    mottling: Annotated[float, Fraction(help="How far its tone varies.")] = 0.2,
    roughness: Rough = 0.2,
    seed: Annotated[int, Seed()] = 1,
) -> MapSet:
    """A flat rectangular piece with rounded edges."""
    x, y = _places(grid)
    inside = np.minimum((1 - np.abs(x)) * grid.width_mm, (1 - np.abs(y)) * grid.height_mm) / 2 - grid.pitch_mm
    lift = (
        np.sqrt(np.clip(1 - (1 - np.clip(inside / max(edge_round, 1e-3), 0, 1)) ** 2, 0, 1)) if edge_round > 0 else 1.0
    )
    height = thickness * ((0.75 + 0.25 * lift) + cushion * (1 - x * x) * (1 - y * y))
    mottle = clouds(grid, size=max(2.0, grid.width_mm / 2), octaves=4, seed=seed)
    return _made(grid, _edge(inside, grid), height, colour, mottle, mottling, roughness)


@operation("shape.leaf", version=2, rehashed=True)
def leaf(
    grid: Grid,
    *,
    thickness: Thickness = 1.0,
    pointed: Annotated[float, Fraction(help="0 a round tip, 1 a long one.")] = 0.6,
    curl: Annotated[float, Length(0, 30, least=0, most=200, help="How high the rim curls up.")] = 5.0,
    veins: Annotated[int, Whole(0, 14, most=40, help="Veins on each side of the middle.")] = 7,
    colour: Colour_ = "#7A5A2C",
    rim: Annotated[str, Paint(help="Colour towards the rim.")] = "#4E6B2B",
    roughness: Rough = 0.7,
    seed: Annotated[int, Seed()] = 1,
) -> MapSet:
    """A leaf along the rectangle's width, tip to the right."""
    x, y = _places(grid)
    along = np.clip((x + 1) / 2, 0, 1)
    half = np.sin(math.pi * along ** (0.7 + 0.3 * (1 - pointed))) ** (1 + 0.5 * pointed) * (
        0.92 + _wobble(math.pi * along, 0.08, seed)
    )
    half = np.maximum(half, 1e-3)
    inside = (half - np.abs(y)) * grid.height_mm / 2
    across = np.clip(np.abs(y) / half, 0, 1)
    midrib = np.exp(-((np.abs(y) * grid.height_mm / (0.02 * grid.width_mm)) ** 2))
    line = np.abs((along * (veins + 1) - 0.6 * across) % 1 - 0.5) if veins else np.zeros_like(across + along)
    veined = np.exp(-(((0.5 - line) * 14) ** 2)) * (1 - across) if veins else 0 * across
    mottle = clouds(grid, size=max(2.0, grid.width_mm / 4), octaves=4, seed=seed)
    height = thickness * (1 + 0.5 * midrib + 0.35 * veined) + curl * across**2 * (0.6 + 0.8 * (mottle - 0.5))
    made = _made(grid, _edge(inside, grid), height, colour, mottle, 0.5, roughness)
    share = (across**2 * (0.3 + 0.7 * mottle)).astype(np.float32)[..., None]
    painted = made[MapKind.BASE_COLOUR] * (1 - share) + np.asarray(hex_to_linear(rim), np.float32) * share
    return made.with_maps(
        base_colour=np.asarray(painted * (1 - 0.25 * np.asarray(veined, np.float32)[..., None]), np.float32)
    )


@operation("shape.brick", version=2, rehashed=True)
def brick(
    grid: Grid,
    *,
    thickness: Thickness = 30.0,
    worn: Annotated[float, Length(0, 20, least=0, most=100, help="How far corners and edges are chipped away.")] = 5.0,
    grain: Annotated[float, Length(0, 4, least=0, most=50, help="Height of the grain on its face.")] = 0.8,
    colour: Colour_ = "#8C4A34",
    mottling: Annotated[float, Fraction(help="How far its tone varies.")] = 0.4,
    roughness: Rough = 0.85,
    seed: Annotated[int, Seed()] = 1,
) -> MapSet:
    """A block with worn edges."""
    x, y = _places(grid)
    chips = clouds(grid, size=max(1.0, grid.width_mm / 4), octaves=3, gain=0.35, seed=seed + 7)
    inside = np.minimum((1 - np.abs(x)) * grid.width_mm, (1 - np.abs(y)) * grid.height_mm) / 2 - grid.pitch_mm
    inside = inside - worn * np.maximum(chips - 0.5, 0) * 2.2
    mottle = clouds(grid, size=max(1.0, grid.width_mm / 12), octaves=5, seed=seed)
    lift = np.sqrt(np.clip(1 - (1 - np.clip(inside / max(0.6 * worn, 0.3), 0, 1)) ** 2, 0, 1))
    height = thickness * (0.55 + 0.45 * lift) + grain * (mottle - 0.5)
    return _made(grid, _edge(inside, grid), height, colour, mottle, mottling, roughness)


@operation("shape.chip", version=2, rehashed=True)
def chip(
    grid: Grid,
    *,
    thickness: Thickness = 8.0,
    corners: Annotated[int, Whole(3, 9, most=16, help="Corners of its outline.")] = 5,
    facets: Annotated[float, Fraction(help="How steeply the sides fall to the edge.")] = 0.5,
    colour: Colour_ = "#B9B3A6",
    mottling: Annotated[float, Fraction(help="How far its tone varies.")] = 0.3,
    roughness: Rough = 0.6,
    seed: Annotated[int, Seed()] = 1,
) -> MapSet:
    """A broken flake with straight sides."""
    x, y = _places(grid)
    draws = units_many(np.arange(3 * corners), np.zeros(3 * corners, np.int64), seed)
    radius = np.full((grid.height_px, grid.width_px), -1e9)
    slope = np.zeros_like(radius)
    for k in range(corners):
        turn = 2 * math.pi * (k + 0.7 * (draws[3 * k] - 0.5)) / corners
        side = (x * math.cos(turn) + y * math.sin(turn)) / (0.62 + 0.3 * draws[3 * k + 1])
        slope = np.where(side > radius, 0.35 + 0.65 * draws[3 * k + 2], slope)
        radius = np.maximum(radius, side)
    # Its corners stay within the rectangle.
    radius = np.maximum(radius, np.maximum(np.abs(x), np.abs(y)) / 0.97)
    inside = (1 - radius) * min(grid.width_mm, grid.height_mm) / 2
    mottle = clouds(grid, size=max(2.0, grid.width_mm / 2), octaves=5, seed=seed)
    fall = np.clip((1 - radius) / (0.08 + 0.6 * facets * slope), 0, 1)
    tilt = 0.18 * (x * (draws[0] - 0.5) + y * (draws[1] - 0.5))
    height = thickness * (0.15 + 0.85 * fall) * (1 + tilt)
    return _made(grid, _edge(np.asarray(inside), grid), height, colour, mottle, mottling, roughness)
