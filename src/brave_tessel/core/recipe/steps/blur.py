"""Blurring and sharpening, all wrapped, widths in mm."""

from __future__ import annotations

import math
from typing import Annotated

import cv2
import numpy as np
from scipy import ndimage

from ...kernels.relief import wrap_padded
from ...kernels.wrapped import sample_moved
from ...operation import Angle, Field, Fraction, Length, Pieces, operation
from ...relief.wrapped_blur import wrapped_gaussian
from ...sheet import Grid, Raster

Radius = Annotated[float, Length(0.1, 100, log=True, least=0.01, help="How far it reaches.")]
_MOST_TAPS = 48


@operation("blur.gaussian", label="Blur")
def gaussian(grid: Grid, field: Field, *, radius: Radius = 4.0) -> Field:
    """Gaussian blur whose standard deviation is half the radius."""
    return wrapped_gaussian(field, 0.5 * radius, grid)


@operation("blur.box", label="Box blur")
def box(grid: Grid, field: Field, *, radius: Radius = 4.0) -> Field:
    """Mean of a square of twice the radius, its rim weighed by how much of a pixel lies in it."""
    across, down = grid.mm_per_px

    def one(values: Raster, axis: int, reach: float) -> Raster:
        whole = int(reach)
        width = 2 * whole + 1
        inner = ndimage.uniform_filter1d(values, width, axis=axis, mode="wrap") * width
        rim = np.roll(values, whole + 1, axis) + np.roll(values, -whole - 1, axis)
        part = reach - whole
        return np.asarray((inner + part * rim) / (width + 2 * part), np.float32)

    return one(one(field, 1, max(radius / across - 0.5, 0)), 0, max(radius / down - 0.5, 0))


@operation("blur.directional", label="Directional blur")
def directional(
    grid: Grid,
    field: Field,
    *,
    length: Annotated[float, Length(0.2, 300, log=True, least=0.02, help="How far it is smeared.")] = 30.0,
    angle: Annotated[float, Angle(-90, 90, help="Which way, anticlockwise from the right.")] = 0.0,
) -> Field:
    """Mean along a line."""
    taps = int(min(_MOST_TAPS, max(3, math.ceil(length / grid.pitch_mm))))
    right, up = math.cos(math.radians(angle)), math.sin(math.radians(angle))
    total = np.zeros_like(field)
    for tap in range(taps):
        away = length * ((tap + 0.5) / taps - 0.5)
        total += _shifted(field, right * away, up * away, grid)
    return np.asarray(total / np.float32(taps), np.float32)


def _shifted(field: Raster, right_mm: float, up_mm: float, grid: Grid) -> Raster:
    """A field moved as a whole, bilinear."""
    across, down = grid.mm_per_px
    x, y = right_mm / across, -up_mm / down
    fx, fy = math.floor(x), math.floor(y)
    tx, ty = np.float32(x - fx), np.float32(y - fy)
    base = np.roll(field, (-fy, -fx), (0, 1))
    rows = base + tx * (np.roll(base, -1, 1) - base)
    return np.asarray(rows + ty * (np.roll(rows, -1, 0) - rows), np.float32)


@operation("blur.within", label="Blur within pieces")
def within(grid: Grid, field: Field, pieces: Pieces, *, radius: Radius = 6.0) -> Field:
    """Blur that does not pass from one piece into another: nearer the edge it reaches less far."""
    soft = wrapped_gaussian(field, 0.5 * radius, grid)
    softer = wrapped_gaussian(field, 0.25 * radius, grid)
    depth = np.clip(pieces.edge / np.float32(radius), 0, 1)
    low = field + np.clip(2 * depth, 0, 1) * (softer - field)
    return np.asarray(low + np.clip(2 * depth - 1, 0, 1) * (soft - low), np.float32)


@operation("blur.bilateral", label="Smooth, edges kept")
def bilateral(
    grid: Grid,
    field: Field,
    *,
    radius: Radius = 6.0,
    edge: Annotated[float, Fraction(0.01, 1, least=0.001, most=10, help="Steps larger than this stay.")] = 0.15,
) -> Field:
    """Bilateral filter (Tomasi and Manduchi 1998), at a reduced size where the radius is many pixels."""
    reach = radius / grid.pitch_mm
    factor = max(1, round(reach / 6))
    small = (
        field
        if factor == 1
        else cv2.resize(
            field, (max(8, grid.width_px // factor), max(8, grid.height_px // factor)), interpolation=cv2.INTER_AREA
        )
    )
    margin = min(math.ceil(2 * reach / factor) + 2, min(small.shape) - 1)
    padded = wrap_padded(np.ascontiguousarray(small), margin)
    sigma = max(0.5 * reach / factor, 0.3)
    done = cv2.bilateralFilter(np.ascontiguousarray(padded, np.float32), 2 * max(1, round(2 * sigma)) + 1, edge, sigma)[
        margin:-margin, margin:-margin
    ]
    if factor == 1:
        return np.ascontiguousarray(done, np.float32)
    back = cv2.resize(
        wrap_padded(np.ascontiguousarray(done), 2), None, fx=factor, fy=factor, interpolation=cv2.INTER_LINEAR
    )
    return np.ascontiguousarray(
        cv2.resize(back[2 * factor : -2 * factor, 2 * factor : -2 * factor], grid.shape[::-1]), np.float32
    )


@operation("blur.median", label="Median")
def median(
    grid: Grid,
    field: Field,
    *,
    radius: Annotated[float, Length(0.1, 20, log=True, least=0.01, help="How far it reaches.")] = 2.0,
) -> Field:
    """The middle value of a neighbourhood: specks go, edges stay. At a reduced size where the radius is many pixels."""
    reach = radius / grid.pitch_mm
    if reach < 0.5:
        return field
    factor = max(1, round(reach / 2))
    small = (
        field
        if factor == 1
        else np.asarray(
            cv2.resize(
                field, (max(8, grid.width_px // factor), max(8, grid.height_px // factor)), interpolation=cv2.INTER_AREA
            ),
            np.float32,
        )
    )
    padded = wrap_padded(np.ascontiguousarray(small), 4)
    done = np.ascontiguousarray(cv2.medianBlur(padded, 5 if reach / factor >= 1.5 else 3)[4:-4, 4:-4])
    return (
        np.asarray(done, np.float32)
        if factor == 1
        else np.asarray(cv2.resize(done, grid.shape[::-1], interpolation=cv2.INTER_LINEAR), np.float32)
    )


@operation("blur.unsharp", label="Sharpen")
def unsharp(
    grid: Grid,
    field: Field,
    *,
    radius: Radius = 2.0,
    amount: Annotated[float, Fraction(0, 3, least=-1, most=10, help="How far detail is raised.")] = 1.0,
) -> Field:
    """The field plus its difference from a blurred one."""
    return np.asarray(field + np.float32(amount) * (field - wrapped_gaussian(field, 0.5 * radius, grid)), np.float32)


@operation("blur.high_pass", label="Fine part")
def high_pass(grid: Grid, field: Field, *, radius: Radius = 20.0) -> Field:
    """What is finer than a radius, about a half."""
    return np.asarray(field - wrapped_gaussian(field, 0.5 * radius, grid) + np.float32(0.5), np.float32)


@operation("move.shove", label="Shove")
def shove(
    grid: Grid,
    field: Field,
    by: Field,
    *,
    reach: Annotated[
        float,
        Length(
            0, 100, least=-1000, most=1000, help="How far places move where the second field is 1; at a half they stay."
        ),
    ] = 10.0,
    angle: Annotated[float, Angle(-180, 180, help="Which way, anticlockwise from the right.")] = 0.0,
) -> Field:
    """Move places one way, as far as another field says."""
    away = (by - np.float32(0.5)) * np.float32(-2 * reach)
    return sample_moved(
        field, away * np.float32(math.cos(math.radians(angle))), away * np.float32(math.sin(math.radians(angle))), grid
    )
