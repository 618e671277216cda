"""Each kernel at 1024² beside the plain numpy, scipy, scikit-image or OpenCV way."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any

import cv2
import numpy as np
from scipy import ndimage
from skimage.graph import route_through_array

import brave_tessel.core.registered  # noqa: F401
from brave_tessel.core.kernels.join import Meeting, join_by_height
from brave_tessel.core.kernels.noise import add_gradient, cells
from brave_tessel.core.kernels.relief import normal_of_height, occlusion
from brave_tessel.core.kernels.strokes import paint_path
from brave_tessel.core.lattice import units_many
from brave_tessel.core.recipe.steps.pattern import units
from brave_tessel.core.relief.wrapped_blur import wrapped_gaussian
from brave_tessel.core.repeat.cut import least_path
from brave_tessel.core.sheet import Grid

Case = tuple[str, Callable[[], Any], Callable[[], Any], str]
PX = 1024
GRID = Grid(PX, PX, 600, 600)


def plain_noise(nx: int) -> np.ndarray:
    x = (np.arange(PX) + 0.5)[None, :] * nx / PX
    y = (np.arange(PX) + 0.5)[:, None] * nx / PX
    ix, iy = x.astype(int), y.astype(int)
    fx, fy = x - ix, y - iy
    angle = 2 * np.pi * units_many(*np.meshgrid(np.arange(nx), np.arange(nx)), 1)

    def corner(dx: int, dy: int) -> np.ndarray:
        a = angle[(iy + dy) % nx, (ix + dx) % nx]
        return np.cos(a) * (fx - dx) + np.sin(a) * (fy - dy)

    wx, wy = (t**3 * (t * (t * 6 - 15) + 10) for t in (fx, fy))
    low = corner(0, 0) + wx * (corner(1, 0) - corner(0, 0))
    return low + wy * (corner(0, 1) + wx * (corner(1, 1) - corner(0, 1)) - low)


def plain_cells(n: int) -> np.ndarray:
    from scipy.spatial import cKDTree

    columns, rows = np.meshgrid(np.arange(n), np.arange(n))
    points = np.stack([columns + units_many(columns, rows, 1), rows + units_many(columns, rows, 2)], 2).reshape(-1, 2)
    tree = cKDTree(points % n, boxsize=n)
    where = np.stack(np.meshgrid(*(2 * [(np.arange(PX) + 0.5) * n / PX])), 2).reshape(-1, 2)
    return tree.query(where, k=2)[0]


def plain_normal(height: np.ndarray) -> np.ndarray:
    dx = (np.roll(height, -1, 1) - np.roll(height, 1, 1)) * 0.85
    dy = (np.roll(height, 1, 0) - np.roll(height, -1, 0)) * 0.85
    normal = np.stack([-dx, -dy, np.ones_like(dx)], 2)
    return normal / np.linalg.norm(normal, axis=2, keepdims=True)


def plain_occlusion(height: np.ndarray) -> np.ndarray:
    total = np.zeros_like(height)
    for angle in np.linspace(0, 2 * np.pi, 8, endpoint=False):
        horizon = np.zeros_like(height)
        for radius in np.unique(np.geomspace(1, 20, 16).round()):
            shift = (round(radius * np.sin(angle)), round(radius * np.cos(angle)))
            horizon = np.maximum(horizon, (np.roll(height, shift, (0, 1)) - height) / (radius * 0.586))
        total += 1 / (1 + horizon**2)
    return total / 8


def plain_join(ground: Any, layer: Any, cover: np.ndarray) -> list[np.ndarray]:
    top = 0.5 + layer[1] + 0.7 * ground[1]
    share = cover * np.clip(0.5 + (top - ground[1]) / 0.4, 0, 1)
    mixed = [a + (share[..., None] if a.ndim == 3 else share) * (b - a) for a, b in zip(ground, layer, strict=True)]
    mixed[1] = ground[1] + share * (top - ground[1])
    return mixed


def plain_units() -> np.ndarray:
    x, y = np.meshgrid(GRID.x_mm(), GRID.y_mm())
    course = np.floor(y / 75)
    along = x + 75 * (course % 2)
    u, v = np.abs(along % 150 - 75) - 73.5, np.abs(y % 75 - 37.5) - 36
    outside = np.hypot(np.maximum(u, 0), np.maximum(v, 0))
    return -np.where((u > 0) & (v > 0), outside, np.maximum(u, v))


def plain_stroke() -> np.ndarray:
    out = np.zeros((PX, PX), np.float32)
    y, x = np.mgrid[0:PX, 0:PX]
    for step in np.linspace(0, 1, 30):
        away = np.hypot(x - (200 + 300 * step), y - (300 + 200 * step))
        out = np.maximum(out, np.clip((60 - away) / 30, 0, 1))
    return out


def cases() -> Iterator[Case]:
    rng = np.random.default_rng(1)
    height = ndimage.gaussian_filter(rng.normal(size=(PX, PX)), 3, mode="wrap").astype(np.float32) * 8
    colour = rng.random((PX, PX, 3), np.float32)
    cover = rng.random((PX, PX), np.float32)
    planes = (colour, height, cover, cover)
    other = (colour[::-1].copy(), height.T.copy(), cover, cover)
    upper = (np.ones((PX, PX), np.uint8), cover)
    out = np.zeros((PX, PX), np.float32)
    cost = rng.random((PX, 160))
    yield (
        "gradient noise, one octave of 24 cells",
        lambda: add_gradient(out, 24, 24, 1, 1e-9),
        lambda: plain_noise(24),
        "numpy",
    )
    yield (
        "gradient noise, one octave of 384 cells",
        lambda: add_gradient(out, 384, 384, 1, 1e-9),
        lambda: plain_noise(384),
        "numpy",
    )
    yield (
        "cells F1 and F2, 48 across",
        lambda: cells(GRID, 48, 48, jitter=0.9, seed=1),
        lambda: plain_cells(48),
        "scipy cKDTree",
    )
    yield "rectangular units with distance to edge", lambda: units(GRID, length=147, height=72), plain_units, "numpy"
    yield "normal of height", lambda: normal_of_height(height, GRID), lambda: plain_normal(height), "numpy"
    yield (
        "occlusion, 8 directions, 20 px",
        lambda: occlusion(height, GRID, reach_mm=12),
        lambda: plain_occlusion(height),
        "numpy",
    )
    yield (
        "join of a layer by height",
        lambda: join_by_height(
            planes, other, cover, upper, Meeting(number=2, level=0.5, feather=0.4, drape=0.7, on=(1.0,) * 4)
        ),
        lambda: plain_join(planes, other, cover),
        "numpy",
    )
    yield (
        "wrapped Gaussian, sigma 20 px",
        lambda: wrapped_gaussian(height, 20 * 600 / PX, GRID),
        lambda: ndimage.gaussian_filter(height, 20, mode="wrap"),
        "scipy",
    )
    yield (
        "least path, 1024 × 160",
        lambda: least_path(cost),
        lambda: route_through_array(cost, (0, 80), (PX - 1, 80)),
        "scikit-image",
    )
    path = [(120.0, 420.0), (290.0, 300.0)]
    yield (
        "brush stroke of 60 px radius",
        lambda: paint_path(out, path, size_mm=70, hardness=0.5, width_mm=600, height_mm=600),
        plain_stroke,
        "numpy dabs",
    )
    dab = [(300.0, 300.0)]
    yield (
        "one dab of 300 px",
        lambda: paint_path(out, dab, size_mm=176, hardness=0.5, width_mm=600, height_mm=600),
        lambda: cv2.circle(out.copy(), (512, 512), 150, 1.0, -1, cv2.LINE_AA),
        "OpenCV disc with a copy",
    )
