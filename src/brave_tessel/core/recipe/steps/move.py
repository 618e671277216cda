"""Moving: whole sheets on themselves, places by guides, and what runs or slides downhill."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Annotated

import cv2
import numpy as np

from ...kernels.compiled import compiled
from ...kernels.wrapped import drift_along, sample_moved
from ...lattice import units_many
from ...operation import Angle, Choice, Field, Fraction, Length, Pieces, Seed, Whole, called, operation
from ...relief.wrapped_blur import wrapped_gaussian
from ...repeat.resample import resample_wrapped
from ...sheet import Grid, Raster


def slopes(field: Raster, grid: Grid) -> tuple[Raster, Raster]:
    """∂/∂x and ∂/∂y a mm, y up, by central differences on the torus."""
    across, down = grid.mm_per_px
    gx = (np.roll(field, -1, 1) - np.roll(field, 1, 1)) * np.float32(0.5 / across)
    gy = (np.roll(field, 1, 0) - np.roll(field, -1, 0)) * np.float32(0.5 / down)
    return np.asarray(gx, np.float32), np.asarray(gy, np.float32)


@operation("move.offset", label="Offset")
def offset(
    grid: Grid,
    field: Field,
    *,
    right: Annotated[float, Length(0, 500, least=-1e5, most=1e5, help="How far to the right.")] = 50.0,
    up: Annotated[float, Length(0, 500, least=-1e5, most=1e5, help="How far up.")] = 0.0,
) -> Field:
    """The sheet moved on itself."""
    full = np.ones(grid.shape, np.float32)
    return sample_moved(field, full * np.float32(-right), full * np.float32(-up), grid)


TURNS = ("0", "90", "180", "270")


@operation("move.turn", label="Turn and repeat")
def turn(
    grid: Grid,
    field: Field,
    *,
    turn: Annotated[str, Choice(*TURNS, help="Anticlockwise, in degrees; other turns would not close.")] = "90",
    across: Annotated[int, Whole(1, 8, most=64, help="How many times it is repeated across.")] = 1,
    up: Annotated[int, Whole(1, 8, most=64, help="How many times it is repeated up.")] = 1,
    mirrored: Annotated[
        str, Choice("no", "across", "up", "both", help="Whether every other repeat is mirrored.")
    ] = "no",
) -> Field:
    """The sheet turned by quarters, repeated in whole numbers, mirrored: what closes by itself."""
    x = (grid.x_mm() / grid.width_mm)[None, :] * across
    y = (grid.y_mm() / grid.height_mm)[:, None] * up
    if mirrored in {"across", "both"}:
        x = np.where(np.floor(x) % 2 == 1, -x, x)
    if mirrored in {"up", "both"}:
        y = np.where(np.floor(y) % 2 == 1, -y, y)
    x, y = np.broadcast_arrays(x % 1, y % 1)
    u, v = {"0": (x, y), "90": (y, 1 - x), "180": (1 - x, 1 - y), "270": (1 - y, x)}[turn]
    right = (u * grid.width_mm - grid.x_mm()[None, :]).astype(np.float32)
    higher = (v * grid.height_mm - grid.y_mm()[:, None]).astype(np.float32)
    shrunk = max(across, up)
    smooth = wrapped_gaussian(field, 0.35 * shrunk * grid.pitch_mm, grid) if shrunk > 1 else field
    return sample_moved(smooth, right, higher, grid)


@operation("move.warp", label="Warp by a guide")
def warp(
    grid: Grid,
    field: Field,
    guide: Field,
    *,
    reach: Annotated[
        float, Length(0, 60, least=-1000, most=1000, help="How far places move where the guide is steepest.")
    ] = 6.0,
    soft: Annotated[float, Length(0.2, 60, log=True, least=0.05, help="How far the guide is softened first.")] = 3.0,
) -> Field:
    """Move places down the slope of a guide."""
    gx, gy = slopes(wrapped_gaussian(guide, soft, grid), grid)
    steep = np.float32(max(float(np.sqrt((gx * gx + gy * gy).mean())) * 2, 1e-9))
    return sample_moved(field, gx / steep * np.float32(reach), gy / steep * np.float32(reach), grid)


@operation("move.swirl", label="Swirl each piece", version=2, rehashed=True)
def swirl(
    grid: Grid,
    field: Field,
    pieces: Pieces,
    *,
    angle: Annotated[float, Angle(-360, 360, help="How far each piece's picture is turned at its middle.")] = 90.0,
    spread: Annotated[float, Fraction(help="How far pieces differ.")] = 1.0,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Turn what lies within each piece about its middle, less and less toward the edge."""
    own = units_many(np.arange(pieces.count + 1), np.full(pieces.count + 1, 41), seed) * 2 - 1
    turned = np.radians(angle) * ((1 - spread) + spread * own)
    size = _sizes(grid, pieces)
    a = (
        turned[pieces.number].astype(np.float32)
        * np.clip(1 - np.hypot(pieces.across, pieces.up), 0, 1)
        * (pieces.number >= 0)
    )
    half = size[pieces.number] / 2
    x, y = pieces.across * half, pieces.up * half
    c, s = np.cos(a), np.sin(a)
    return sample_moved(field, (x * c - y * s - x).astype(np.float32), (x * s + y * c - y).astype(np.float32), grid)


def _sizes(grid: Grid, pieces: Pieces) -> Raster:
    """The side of a square as large as each piece, mm; one more for the joint."""
    counts = np.bincount(pieces.number[pieces.number >= 0].ravel(), minlength=pieces.count + 1)
    return np.sqrt(np.maximum(counts, 1) * grid.mm_per_px[0] * grid.mm_per_px[1]).astype(np.float32)


TAKES = ("mean", "lowest", "highest")


def _places(reach: float) -> int:
    """How many places are read on a way of so many mm: four a mm on short ways, at most 128."""
    return round(min(max(4 * reach, 8), 128))


@operation("move.drift", label="Drift downhill", version=2)
def drift(
    grid: Grid,
    field: Field,
    guide: Field,
    *,
    reach: Annotated[
        float, Length(0.1, 100, log=True, least=0.01, help="How far down the guide's slope it looks.")
    ] = 6.0,
    soft: Annotated[float, Length(0.1, 40, log=True, least=0.02, help="How far the guide is softened first.")] = 1.0,
    takes: Annotated[str, called("Result", Choice(*TAKES, help="What is made of the places read."))] = "mean",
) -> Field:
    """Walk down the slope of a guide from every place and take the mean, lowest or highest of the field on the way."""
    gx, gy = slopes(wrapped_gaussian(guide, soft, grid), grid)
    return drift_along(field, -gx, gy, grid, reach_mm=reach, samples=_places(reach), how=TAKES.index(takes))


@operation("move.drift", label="Drift downhill", superseded=True)
def drift_1(
    grid: Grid,
    field: Field,
    guide: Field,
    *,
    reach: Annotated[
        float, Length(0.1, 100, log=True, least=0.01, help="How far down the guide's slope it looks.")
    ] = 6.0,
    samples: Annotated[int, Whole(4, 64, most=256, help="How many places on the way are read.")] = 24,
    soft: Annotated[float, Length(0.1, 40, log=True, least=0.02, help="How far the guide is softened first.")] = 1.0,
    takes: Annotated[str, Choice(*TAKES, help="What is made of the places read.")] = "mean",
) -> Field:
    """Version 1 left the number of places to the person."""
    gx, gy = slopes(wrapped_gaussian(guide, soft, grid), grid)
    return drift_along(field, -gx, gy, grid, reach_mm=reach, samples=samples, how=TAKES.index(takes))


@compiled
def _slide(height: Raster, out: Raster, most: float, parity: int) -> None:
    """One pass between neighbours across and down: what is steeper than ``most`` a pixel slides, half of it."""
    rows, columns = height.shape
    for r in range(rows):
        for c in range(columns):
            out[r, c] = height[r, c]
    for r in range(rows):
        for c in range(columns):
            if parity == 0:
                rr, cc = r, (c + 1) % columns
            else:
                rr, cc = (r + 1) % rows, c
            step = height[r, c] - height[rr, cc]
            over = abs(step) - most
            if over > 0:
                moved = np.float32(0.25 * over) if step > 0 else np.float32(-0.25 * over)
                out[r, c] -= moved
                out[rr, cc] += moved


@operation("move.slump", label="Slump")
def slump(
    grid: Grid,
    field: Field,
    *,
    angle: Annotated[float, Angle(5, 80, help="What is steeper slides down.")] = 35.0,
    rise: Annotated[float, Length(0.5, 100, log=True, least=0.01, help="Height of the field from 0 to 1.")] = 20.0,
    passes: Annotated[int, Whole(1, 120, most=600, help="How long it slides.")] = 40,
) -> Field:
    """Loose stuff slides until nothing is steeper than its angle of rest (thermal erosion after Musgrave et al. 1989).
    What leaves one place arrives at its neighbour: nothing is lost.
    """
    # At a fixed working size, so that it goes as far at every size; what it changed is laid on the field.
    return _at_working_size(
        grid,
        field,
        lambda work: _slumped(work, Grid.for_repeat(grid.width_mm, grid.height_mm, _WORK_PX), angle, rise, passes),
    )


def _slumped(work: Raster, grid: Grid, angle: float, rise: float, passes: int) -> Raster:
    """Broad slopes slide first, at a quarter of the size; then what is finer."""
    if min(work.shape) >= 96:
        half = (work.shape[0] // 2, work.shape[1] // 2)
        small = resample_wrapped(work, half)
        slid = _slumped(small, Grid(half[1], half[0], grid.width_mm, grid.height_mm), angle, rise, passes)
        work = np.asarray(work + _enlarged(slid - small, work.shape), np.float32)
    limit = math.tan(math.radians(angle)) / rise
    here, there = work.copy(), np.empty_like(work)
    for _ in range(passes):
        for parity, pitch in enumerate(grid.mm_per_px):
            _slide(here, there, limit * pitch, parity)
            here, there = there, here
    return here


_WORK_PX = 512


def _at_working_size(grid: Grid, field: Raster, run: Callable[[Raster], Raster]) -> Raster:
    """Run something that depends on the size of a pixel always at the same size; its change is laid on the field."""
    small = Grid.for_repeat(grid.width_mm, grid.height_mm, _WORK_PX)
    if small.shape == grid.shape:
        return run(field)
    if max(grid.shape) < _WORK_PX:
        return resample_wrapped(run(_enlarged(field, small.shape)), grid.shape)
    work = resample_wrapped(field, small.shape)
    return np.asarray(field + _enlarged(run(work) - work, grid.shape), np.float32)


def _enlarged(field: Raster, shape: tuple[int, int]) -> Raster:
    """A wrapped field at a larger size, bilinear, centres kept."""
    across, down = shape[1] / field.shape[1], shape[0] / field.shape[0]
    matrix = np.array([[across, 0, (across - 1) / 2 - 2 * across], [0, down, (down - 1) / 2 - 2 * down]])
    return np.asarray(
        cv2.warpAffine(np.pad(field, 2, mode="wrap"), matrix, shape[::-1], flags=cv2.INTER_LINEAR), np.float32
    )


@compiled
def _rain(height: Raster, drops: np.ndarray, steps: int, carry: float, take: float, settle: float) -> None:
    rows, columns = height.shape
    for n in range(drops.shape[0]):
        x, y, vx, vy, load, water = drops[n, 0] * columns, drops[n, 1] * rows, 0.0, 0.0, 0.0, 1.0
        for _ in range(steps):
            c, r = int(x) % columns, int(y) % rows
            c1, r1 = (c + 1) % columns, (r + 1) % rows
            tx, ty = x - math.floor(x), y - math.floor(y)
            h00, h01, h10, h11 = height[r, c], height[r, c1], height[r1, c], height[r1, c1]
            gx = (h01 - h00) * (1 - ty) + (h11 - h10) * ty
            gy = (h10 - h00) * (1 - tx) + (h11 - h01) * tx
            here = (h00 * (1 - tx) + h01 * tx) * (1 - ty) + (h10 * (1 - tx) + h11 * tx) * ty
            vx, vy = 0.6 * vx - gx, 0.6 * vy - gy
            speed = math.sqrt(vx * vx + vy * vy)
            if speed < 1e-9:
                break
            nx, ny = x + vx / speed, y + vy / speed
            d, q = math.floor(nx) % columns, math.floor(ny) % rows
            d1, q1 = (d + 1) % columns, (q + 1) % rows
            sx, sy = nx - math.floor(nx), ny - math.floor(ny)
            there = (height[q, d] * (1 - sx) + height[q, d1] * sx) * (1 - sy) + (
                height[q1, d] * (1 - sx) + height[q1, d1] * sx
            ) * sy
            fall = here - there
            may = max(fall, 0.0) * carry * water
            if fall < 0 or load > may:
                drop = min(load, -fall) if fall < 0 else (load - may) * settle
                load -= drop
            else:
                drop = -min((may - load) * take, fall)
                load -= drop
            height[r, c] += np.float32(drop * (1 - tx) * (1 - ty))
            height[r, c1] += np.float32(drop * tx * (1 - ty))
            height[r1, c] += np.float32(drop * (1 - tx) * ty)
            height[r1, c1] += np.float32(drop * tx * ty)
            water *= 0.98
            x, y = nx, ny
        c, r = math.floor(x) % columns, math.floor(y) % rows
        # What is still carried is set down where the drop ends.
        height[r, c] += np.float32(load)


@operation("move.erode", label="Wash down", version=2, rehashed=True)
def erode(
    grid: Grid,
    field: Field,
    *,
    rain: Annotated[
        float, Fraction(0, 2, least=0, most=20, help="How much rain falls, in drops per working pixel.")
    ] = 0.6,
    carry: Annotated[float, Fraction(0.5, 8, least=0, most=40, help="How much a drop can carry.")] = 3.0,
    take: Annotated[float, Fraction(help="How fast it takes up.")] = 0.35,
    settle: Annotated[float, Fraction(help="How fast it sets down.")] = 0.25,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Drops run downhill on the wrapped sheet, take stuff up where it is steep and set it down where it is flat.
    Nothing is lost: what a drop still carries at its end is set down there (particle erosion after Beyer 2015).
    """

    def run(work: Raster) -> Raster:
        done = work.copy()
        count = int(rain * work.size)
        drops = np.column_stack([units_many(np.arange(count), np.full(count, k), seed) for k in (1, 2)]).astype(
            np.float64
        )
        _rain(done, drops, 60, carry, take, settle)
        return done

    return _at_working_size(grid, field, run)
