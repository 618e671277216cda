"""Recipe steps beside the plain numpy, scipy, scikit-image or OpenCV way, and whole recipes."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Iterator
from typing import Any

import cv2
import numpy as np
from scipy import ndimage
from scipy.spatial import cKDTree

import brave_tessel.core.registered  # noqa: F401
from brave_tessel.core.buildup.kinds.recipe import RecipeWhat
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, Surface
from brave_tessel.core.kernels.wrapped import sample_moved
from brave_tessel.core.recipe import edit
from brave_tessel.core.recipe.materials import MATERIALS, stock_named
from brave_tessel.core.recipe.steps.cellular import cobbles, strewn
from brave_tessel.core.recipe.steps.colours import ramp_table, stops
from brave_tessel.core.recipe.steps.form import distance_to
from brave_tessel.core.recipe.steps.layouts import hexagons
from brave_tessel.core.recipe.steps.marks import draws, scratches
from brave_tessel.core.recipe.steps.move import drift, slopes
from brave_tessel.core.recipe.steps.noise import clouds
from brave_tessel.core.sheet import Grid
from brave_tessel.engine.cache import Cache
from brave_tessel.engine.intents.recipes import set_recipe
from brave_tessel.engine.session import Session
from brave_tessel.formats.job_file import OpenedJob

Case = tuple[str, Callable[[], Any], Callable[[], Any], str]
PX = 1024
GRID = Grid(PX, PX, 600, 600)


def plain_cells() -> Any:
    x, y = strewn(GRID, 30, 0.9, 1, 4)
    points = np.stack([x.ravel(), y.ravel()], 1) % 600
    where = np.stack(np.meshgrid(GRID.x_mm(), GRID.y_mm()), 2).reshape(-1, 2)
    return cKDTree(points, boxsize=600).query(where, k=2)


def plain_scratches() -> np.ndarray:
    out = np.zeros((PX, PX), np.float32)
    count = round(600 * 0.36)
    x, y, a = (draws(count, k, 1) for k in (1, 2, 3))
    for k in range(count):
        start = (int(x[k] * PX), int(y[k] * PX))
        end = (int(start[0] + 100 * np.cos(6.28 * a[k])), int(start[1] + 100 * np.sin(6.28 * a[k])))
        cv2.line(out, start, end, 1.0, 1, cv2.LINE_AA)
    return out


def plain_hexagons() -> np.ndarray:
    """The nearer of two rectangular lattices' middles."""
    x, y = np.meshgrid(GRID.x_mm(), GRID.y_mm())
    w, h = 120.0, 120.0 * np.sqrt(3)
    best = None
    for ox, oy in ((0, 0), (w / 2, h / 2)):
        dx, dy = (x - ox + w / 2) % w - w / 2, (y - oy + h / 2) % h - h / 2
        d = np.maximum(np.abs(dx), 0.5 * np.abs(dx) + 0.8660254 * np.abs(dy))
        best = d if best is None else np.minimum(best, d)
    return best


def plain_drift(field: np.ndarray) -> np.ndarray:
    gx, gy = slopes(field, GRID)
    size = np.maximum(np.hypot(gx, gy), 1e-9)
    y, x = np.mgrid[0:PX, 0:PX].astype(np.float32)
    total = field.copy()
    for _ in range(24):
        iy, ix = np.rint(y).astype(int) % PX, np.rint(x).astype(int) % PX
        x -= (gx / size)[iy, ix] * 0.43
        y += (gy / size)[iy, ix] * 0.43
        total += field[np.rint(y).astype(int) % PX, np.rint(x).astype(int) % PX]
    return total / 25


def cases() -> Iterator[Case]:
    field = clouds(GRID, size=60, seed=2)
    moved = (field - 0.5) * 40
    inside = field > 0.72
    rows, columns = np.mgrid[0:PX, 0:PX]
    shift = moved / GRID.pitch_mm
    table = ramp_table("#102030,#A0B0C0,#FFEECC", "even")
    yield (
        "cells of points, with true border distance",
        lambda: cobbles(GRID, size=30),
        plain_cells,
        "scipy cKDTree, F1 and F2 only",
    )
    yield "hexagons with distance to edge", lambda: hexagons(GRID), plain_hexagons, "numpy, distance only"
    yield "216 scratches", lambda: scratches(GRID, curl=0.0), plain_scratches, "OpenCV lines, one width"
    yield (
        "shove by a field",
        lambda: sample_moved(field, moved, moved, GRID),
        lambda: ndimage.map_coordinates(field, [rows - shift, columns + shift], order=1, mode="grid-wrap"),
        "scipy",
    )
    yield (
        "wrapped distance, 20 mm",
        lambda: distance_to(inside, GRID, 20),
        lambda: ndimage.distance_transform_edt(np.tile(~inside, (3, 3))),
        "scipy on nine tiles",
    )
    yield (
        "drift downhill, 24 samples",
        lambda: drift(GRID, field, field, reach=6.0, samples=24),
        lambda: plain_drift(field),
        "numpy",
    )
    yield (
        "ramp of colours",
        lambda: stops(GRID, field, colours="#102030,#A0B0C0,#FFEECC"),
        lambda: np.stack([np.interp(field, np.linspace(0, 1, 1024), table[:, k]) for k in range(3)], 2),
        "numpy",
    )


def _session(name: str) -> Session:
    stock = stock_named(name)
    assert stock is not None
    layer = Layer(id="l", name=name, what=RecipeWhat(recipe=stock.make()))
    surface = Surface(id="s", name=name, width_mm=stock.repeat_mm[0], height_mm=stock.repeat_mm[1], layers=(layer,))
    return Session(OpenedJob(Job(surfaces=(surface,))), cache=Cache(6 << 30))


def _maps(session: Session, px: int) -> None:
    surface = session.job.surfaces[0]
    layer = surface.layers[0]
    session.snapshot().evaluation().value(
        session.snapshot()
        .planner()
        .recipe(layer.what.recipe, Grid.for_repeat(surface.width_mm, surface.height_mm, px), "l")
    )  # type: ignore[union-attr]


def _whole(name: str, px: int) -> Callable[[Any], float]:
    def run(timer: Any) -> float:
        def once() -> None:
            _maps(_session(name), px)

        return float(timer(once, least=1, seconds=0.5))

    return run


def _change(timer: Any) -> float:
    session = _session("Oyster terrazzo")
    shares = itertools.count()
    _maps(session, PX)

    def once() -> None:
        surface = session.job.surfaces[0]
        layer = surface.layers[0]
        recipe = edit.set_dial(layer.what.recipe, "worn", "rise", 0.05 + 0.0001 * next(shares))  # type: ignore[union-attr]
        session.store.dispatch(set_recipe(surface, layer, recipe, "x"))
        _maps(session, PX)

    return float(timer(once))


def actions() -> Iterator[tuple[str, Callable[[Any], float], str]]:
    yield "one dial of the terrazzo recipe, 1024²", _change, "100"
    for stock in MATERIALS:
        yield f"whole recipe, {stock.name.lower()}, 1024²", _whole(stock.name, PX), "400"
    yield "whole recipe, oyster terrazzo, 4096²", _whole("Oyster terrazzo", 4096), "10000"
