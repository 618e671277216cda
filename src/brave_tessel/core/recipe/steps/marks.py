"""Marks: what is drawn on a surface stroke by stroke, crack by crack, spot by spot."""

from __future__ import annotations

import math
from typing import Annotated

import numpy as np

from ...kernels.bands import by_strips
from ...kernels.marks import paint_marks, poisson_points
from ...kernels.mosaic import cell_borders
from ...kernels.wrapped import sample_moved
from ...lattice import is_earlier, units_many
from ...operation import Angle, Choice, Field, Fraction, Length, Seed, Whole, operation
from ...sheet import AnyArray, Grid, Raster
from .cellular import strewn
from .noise import clouds

MOST = 60_000
_F = np.typing.NDArray[np.float64]


def draws(count: int, salt: int, seed: int) -> _F:
    """Random numbers in [0, 1), one each."""
    return units_many(np.arange(count), np.full(count, salt), seed).astype(np.float64)


def how_many(grid: Grid, a_square_metre: float) -> int:
    """The number of marks on a sheet from that on a square metre, at least one."""
    return min(MOST, max(0, round(a_square_metre * grid.width_mm * grid.height_mm / 1e6)))


def strokes(
    grid: Grid,
    count: int,
    *,
    length: float,
    length_spread: float,
    width: float,
    width_spread: float,
    angle: float,
    spread: float,
    curl: float,
    soft: float,
    seed: int,
    parts: int = 8,
) -> Raster:
    """Bent strokes at random: each a run of straight parts that turns by ``curl`` degrees in all; tapered ends."""
    if count == 0:
        return np.zeros(grid.shape, np.float32)
    x, y = draws(count, 1, seed) * grid.width_mm, draws(count, 2, seed) * grid.height_mm
    way = np.radians(angle + spread * (2 * draws(count, 3, seed) - 1))
    long = length * np.exp2((2 * draws(count, 4, seed) - 1) * 2 * length_spread)
    wide = width * np.exp2((2 * draws(count, 5, seed) - 1) * 2 * width_spread)
    turn = np.radians(curl * (2 * draws(count, 6, seed) - 1)) / parts
    value = 0.35 + 0.65 * draws(count, 7, seed)
    parts = 1 if curl == 0 else parts
    marks = np.empty((parts, count, 8))
    for part in range(parts):
        nx, ny = x + np.cos(way) * long / parts, y + np.sin(way) * long / parts
        taper = [
            1.0 if parts == 1 else math.sin(math.pi * min(max((part + e + 0.35) / (parts + 0.7), 0), 1)) ** 0.5
            for e in (0, 1)
        ]
        marks[part] = np.column_stack([x, y, nx, ny, wide * taper[0], wide * taper[1], np.full(count, soft), value])
        x, y, way = nx, ny, way + turn
    return paint_marks(grid, marks.reshape(-1, 8))


Density = Annotated[float, Fraction(0, 3000, least=0, most=200_000, unit="/m²", help="How many there are.")]


@operation("marks.scratches", label="Scratches", version=2, rehashed=True)
def scratches(
    grid: Grid,
    *,
    density: Density = 600.0,
    length: Annotated[float, Length(2, 400, log=True, least=0.1, help="Mean length of a scratch.")] = 60.0,
    width: Annotated[float, Length(0.05, 5, log=True, least=0.01, help="Width of a scratch.")] = 0.5,
    angle: Annotated[float, Angle(-90, 90, help="Which way most run, anticlockwise from the right.")] = 20.0,
    spread: Annotated[float, Angle(0, 90, help="How far they stray from it.")] = 90.0,
    curl: Annotated[float, Angle(0, 180, help="How far a scratch bends from end to end.")] = 15.0,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Fine scratches of different depth, in [0, 1]; 0 between them."""
    return strokes(
        grid,
        how_many(grid, density),
        length=length,
        length_spread=0.6,
        width=width,
        width_spread=0.4,
        angle=angle,
        spread=spread,
        curl=curl,
        soft=0.5 * width,
        seed=seed,
    )


@operation("marks.fibres", label="Fibres", version=2, rehashed=True)
def fibres(
    grid: Grid,
    *,
    density: Density = 2500.0,
    length: Annotated[float, Length(2, 200, log=True, least=0.1, help="Mean length of a fibre.")] = 30.0,
    width: Annotated[float, Length(0.05, 5, log=True, least=0.01, help="Thickness of a fibre.")] = 0.6,
    angle: Annotated[float, Angle(-90, 90, help="Which way most run, anticlockwise from the right.")] = 0.0,
    spread: Annotated[float, Angle(0, 90, help="How far they stray from it.")] = 90.0,
    curl: Annotated[float, Angle(0, 720, help="How far a fibre curls from end to end.")] = 200.0,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Curled fibres lying over each other, in [0, 1]; their value is how high they lie."""
    return strokes(
        grid,
        how_many(grid, density),
        length=length,
        length_spread=0.4,
        width=width,
        width_spread=0.3,
        angle=angle,
        spread=spread,
        curl=curl,
        soft=width,
        seed=seed,
        parts=14,
    )


@operation("marks.hatching", label="Hatching", version=2, rehashed=True)
def hatching(
    grid: Grid,
    *,
    spacing: Annotated[float, Length(0.5, 60, log=True, least=0.1, help="Distance of the strokes.")] = 6.0,
    length: Annotated[float, Length(2, 300, log=True, least=0.1, help="Mean length of a stroke.")] = 60.0,
    width: Annotated[float, Length(0.1, 20, log=True, least=0.02, help="Width of a stroke.")] = 1.6,
    angle: Annotated[float, Angle(-90, 90, help="Which way they run, anticlockwise from the right.")] = 45.0,
    wander: Annotated[float, Angle(0, 45, help="How far single strokes stray from it.")] = 4.0,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Even strokes side by side, as of a comb or a trowel, in [0, 1]."""
    count = min(MOST, round(grid.width_mm * grid.height_mm / (spacing * length)))
    return strokes(
        grid,
        count,
        length=length,
        length_spread=0.3,
        width=width,
        width_spread=0.15,
        angle=angle,
        spread=wander,
        curl=wander,
        soft=0.6 * width,
        seed=seed,
    )


def _spots(grid: Grid, points: _F, size: float, size_spread: float, soft: float, seed: int) -> Raster:
    count = len(points)
    if count == 0:
        return np.zeros(grid.shape, np.float32)
    wide = size * np.exp2((2 * draws(count, 5, seed) - 1) * 2 * size_spread)
    value = 0.4 + 0.6 * draws(count, 7, seed)
    marks = np.column_stack([points, points, wide, wide, np.maximum(soft * wide, 0), value])
    return paint_marks(grid, marks)


@operation("marks.dots", label="Even dots", version=2, rehashed=True)
def dots(
    grid: Grid,
    *,
    spacing: Annotated[float, Length(1, 200, log=True, least=0.2, help="Least distance of two dots.")] = 12.0,
    size: Annotated[float, Length(0.2, 100, log=True, least=0.02, help="Width of a dot.")] = 4.0,
    size_spread: Annotated[float, Fraction(help="How far sizes vary.")] = 0.2,
    soft: Annotated[float, Fraction(help="How soft their rims are.")] = 0.2,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Dots strewn evenly, none nearer to another than the spacing, in [0, 1] (blue noise; dart throwing, Cook 1986)."""
    count = min(MOST, max(8, round(14 * grid.width_mm * grid.height_mm / spacing**2)))
    darts = np.column_stack([draws(count, 1, seed), draws(count, 2, seed)]).astype(np.float32)
    return _spots(grid, poisson_points(grid.width_mm, grid.height_mm, spacing, darts), size, size_spread, soft, seed)


@operation("marks.speckle", label="Speckle", version=2, rehashed=True)
def speckle(
    grid: Grid,
    *,
    density: Annotated[float, Fraction(0, 20_000, most=500_000, unit="/m²", help="How many there are.")] = 6000.0,
    size: Annotated[float, Length(0.1, 60, log=True, least=0.02, help="Mean width of a spot.")] = 2.0,
    size_spread: Annotated[float, Fraction(help="How far sizes vary.")] = 0.7,
    soft: Annotated[float, Fraction(help="How soft their rims are.")] = 0.3,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Spots at random, in [0, 1]; 0 between them."""
    count = how_many(grid, density)
    points = np.column_stack([draws(count, 1, seed) * grid.width_mm, draws(count, 2, seed) * grid.height_mm])
    return _spots(grid, points, size, size_spread, soft, seed)


@operation("marks.smudges", label="Smudges", version=2, rehashed=True)
def smudges(
    grid: Grid,
    *,
    density: Annotated[float, Fraction(0, 200, least=0, most=20_000, unit="/m²", help="How many there are.")] = 40.0,
    size: Annotated[float, Length(5, 300, log=True, least=1, help="Mean length of a smudge.")] = 90.0,
    angle: Annotated[float, Angle(-90, 90, help="Which way they are wiped, anticlockwise from the right.")] = 10.0,
    spread: Annotated[float, Angle(0, 90, help="How far they stray from it.")] = 50.0,
    broken: Annotated[float, Fraction(help="How far they are broken up inside.")] = 0.6,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Wiped smears, soft and streaky, in [0, 1]."""
    shape = strokes(
        grid,
        how_many(grid, density),
        length=size,
        length_spread=0.5,
        width=0.4 * size,
        width_spread=0.5,
        angle=angle,
        spread=spread,
        curl=50,
        soft=0.4 * size,
        seed=seed,
    )
    inside = clouds(grid, size=max(2.0, 0.25 * size), octaves=5, gain=0.6, seed=seed + 31)
    return np.asarray(shape * (1 - np.float32(broken) * np.clip(inside * 2 - np.float32(0.5), 0, 1)), np.float32)


@operation("marks.drips", label="Drips", version=2, rehashed=True)
def drips(
    grid: Grid,
    *,
    density: Annotated[float, Fraction(0, 300, least=0, most=20_000, unit="/m²", help="How many there are.")] = 60.0,
    length: Annotated[float, Length(10, 600, log=True, least=1, help="Mean length of a run.")] = 140.0,
    width: Annotated[float, Length(0.5, 40, log=True, least=0.1, help="Width of a run.")] = 5.0,
    wander: Annotated[float, Fraction(help="How far a run strays from straight down.")] = 0.3,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Runs downward that end in a drop, in [0, 1]; strongest at the drop."""
    count, parts = how_many(grid, density), 10
    if count == 0:
        return np.zeros(grid.shape, np.float32)
    x, y = draws(count, 1, seed) * grid.width_mm, draws(count, 2, seed) * grid.height_mm
    long = length * np.exp2(2 * draws(count, 3, seed) - 1)
    wide = width * np.exp2(draws(count, 4, seed) - 0.5)
    marks = []
    for part in range(parts):
        nx = x + (draws(count, 100 + part, seed) - 0.5) * wander * long / parts
        ny = y - long / parts
        share = [(part + e) / parts for e in (0, 1)]
        thick = [wide * (0.45 + 0.25 * s + (0.5 if s == 1 else 0)) for s in share]
        marks.append(
            np.column_stack([x, y, nx, ny, thick[0], thick[1], 0.5 * wide, np.full(count, 0.35 + 0.65 * share[1])])
        )
        x, y = nx, ny
    return paint_marks(grid, np.concatenate(marks))


@operation("marks.cracks", label="Cracks", version=2, rehashed=True)
def cracks(
    grid: Grid,
    *,
    size: Annotated[float, Length(5, 800, log=True, least=1, help="Mean distance of the cracks.")] = 120.0,
    width: Annotated[float, Length(0.1, 20, log=True, least=0.02, help="Width of a crack at its widest.")] = 1.5,
    vary: Annotated[float, Fraction(help="How far the width varies along a crack; at 1 parts close altogether.")] = 0.6,
    ragged: Annotated[float, Fraction(help="How far cracks leave a straight line.")] = 0.5,
    branches: Annotated[float, Fraction(help="How many finer cracks run between the broad ones.")] = 0.4,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """A net of cracks, in [0, 1], 1 in the crack: the borders of strewn cells, bent, of changing width, with finer
    ones between.
    """
    bent = (
        tuple(
            clouds(grid, size=0.5 * size, octaves=7, gain=0.62, seed=seed + salt) - np.float32(0.5) for salt in (5, 6)
        )
        if ragged > 0
        else ()
    )
    made = _net(grid, size, width, vary, ragged, seed, bent)
    if branches > 0:
        fine = _net(grid, size / 2.6, 0.5 * width, 1.0 - 0.35 * branches, ragged, seed + 77, bent)
        weight = np.float32(min(1.0, 0.4 + branches))
        made = by_strips(lambda made, fine: np.maximum(made, fine * weight), made, fine)
    return made


def _net(
    grid: Grid, size: float, width: float, vary: float, ragged: float, seed: int, bent: tuple[Raster, ...]
) -> Raster:
    x, y = strewn(grid, size, 0.95, seed)
    border = cell_borders(grid, x, y)
    if bent:
        right, up = (by_strips(lambda way: way * np.float32(0.5 * ragged * size), one) for one in bent)
        border = sample_moved(border, right, up, grid)
    soft = max(0.3 * width, grid.pitch_mm) if is_earlier() else max(0.3 * width, 1.25 * grid.pitch_mm)
    narrow = _earlier_narrow if is_earlier() else _narrow

    def shown(border: Raster, noise: Raster | None = None) -> Raster:
        open_ = np.ones_like(border) if noise is None else np.clip(1 - vary * 2.2 * (1 - noise), 0, 1)
        half = np.asarray(0.5 * width * open_, np.float32)
        return np.asarray(np.clip((half - border) / soft + 0.5, 0, 1) * narrow(half, soft, grid), np.float32)

    if vary <= 0:
        return by_strips(shown, border)
    return by_strips(shown, border, clouds(grid, size=1.6 * size, octaves=4, gain=0.5, seed=seed + 9))


def _narrow(half: Raster, soft: float, _grid: Grid) -> AnyArray:
    """What is narrower than its soft rim is fainter by as much as it is shown too wide, so that it covers the same."""
    return np.where(2 * half < soft, 8 * half * soft / (2 * half + soft) ** 2, 1)


def _earlier_narrow(half: Raster, _soft: float, grid: Grid) -> AnyArray:
    return np.asarray(np.minimum(2 * half / grid.pitch_mm, 1))


@operation("marks.walks", label="Wandering cracks", version=2, rehashed=True)
def walks(
    grid: Grid,
    *,
    count: Annotated[int, Whole(1, 40, most=2000, help="How many cracks run over the sheet.")] = 6,
    length: Annotated[float, Length(20, 2000, log=True, least=1, help="Mean length of a crack.")] = 400.0,
    width: Annotated[float, Length(0.1, 20, log=True, least=0.02, help="Width where a crack begins.")] = 2.0,
    wander: Annotated[float, Angle(2, 60, help="How far a crack turns at every step.")] = 22.0,
    branches: Annotated[int, Whole(0, 8, most=20, help="How many branches leave each crack.")] = 3,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Single cracks that wander over the wrapped sheet and branch, in [0, 1], 1 in the crack."""
    steps = 48
    lines = []
    for crack in range(count):
        at = draws(2, crack, seed) * (grid.width_mm, grid.height_mm)
        way = 2 * math.pi * float(draws(1, crack, seed + 1)[0])
        trunk = _walk(at, way, length, width, wander, steps, seed + 13 * crack)
        lines.append(trunk)
        for branch in range(branches):
            start = int(steps * (0.15 + 0.7 * float(draws(1, branch, seed + 3 + crack)[0])))
            side = 1 if branch % 2 else -1
            heading = math.atan2(trunk[start, 3] - trunk[start, 1], trunk[start, 2] - trunk[start, 0]) + side * 0.7
            lines.append(
                _walk(
                    trunk[start, :2],
                    heading,
                    0.4 * length,
                    float(trunk[start, 4]) * 0.7,
                    wander,
                    steps // 2,
                    seed + 997 * branch + 31 * crack,
                )
            )
    return paint_marks(grid, np.concatenate(lines))


def _walk(at: _F, way: float, length: float, width: float, wander: float, steps: int, seed: int) -> _F:
    turns = np.radians(wander) * (2 * draws(steps, 1, seed) - 1) * 1.7
    heading = way + np.cumsum(turns - turns.mean() * 0.5)
    ways = np.column_stack([np.cos(heading), np.sin(heading)]) * length / steps
    ends = np.asarray(at) + np.cumsum(ways, 0)
    begins = ends - ways
    share = np.arange(steps + 1) / steps
    wide = width * (1 - share) ** 0.7
    return np.column_stack([begins, ends, wide[:-1], wide[1:], np.full(steps, 0.25 * width), np.ones(steps)])


@operation("marks.flakes", label="Flakes", version=2, rehashed=True)
def flakes(
    grid: Grid,
    *,
    density: Density = 1200.0,
    size: Annotated[float, Length(0.5, 80, log=True, least=0.1, help="Mean width of a flake.")] = 12.0,
    size_spread: Annotated[float, Fraction(help="How far sizes vary.")] = 0.5,
    shape: Annotated[str, Choice("shell", "splinter", help="Broad flakes or long ones.")] = "shell",
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Flat flakes lying over each other, in [0, 1]; their value is how high they lie, 0 between them."""
    count = how_many(grid, density)
    if count == 0:
        return np.zeros(grid.shape, np.float32)
    long = 0.25 if shape == "shell" else 1.8
    x, y = draws(count, 1, seed) * grid.width_mm, draws(count, 2, seed) * grid.height_mm
    way, wide = (
        2 * math.pi * draws(count, 3, seed),
        size * np.exp2((2 * draws(count, 5, seed) - 1) * 2 * size_spread) / (1 + 0.5 * long),
    )
    reach = 0.5 * long * wide
    ends = np.column_stack(
        [x - np.cos(way) * reach, y - np.sin(way) * reach, x + np.cos(way) * reach, y + np.sin(way) * reach]
    )
    taper = 0.35 + 0.6 * draws(count, 8, seed)
    marks = np.column_stack([ends, wide, wide * taper, np.full(count, 0.02 * size), 0.2 + 0.8 * draws(count, 7, seed)])
    return paint_marks(grid, marks)
