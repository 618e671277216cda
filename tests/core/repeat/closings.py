"""Sheets closed by best cut whose truth is known: regular patterns in and out of step, and natural grounds."""

import cv2
import numpy as np

from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.recipe.steps.noise import clouds, pebbles
from brave_tessel.core.repeat.cut import paths_on_cell
from brave_tessel.core.repeat.judge import judge_joins, tone_of
from brave_tessel.core.repeat.methods.best_cut import BestCut
from brave_tessel.core.sheet import Grid

KINDS = ("natural", "in step", "out across", "out up", "out both")


def smooth(rng, shape, size):
    coarse = rng.normal(size=(int(shape[0] / size) + 4, int(shape[1] / size) + 4)).astype(np.float32)
    return cv2.resize(coarse, shape[::-1], interpolation=cv2.INTER_CUBIC)


def masonry(rng, size, unit, shift, px):
    """Units of a bond in many colours, joints that waver, grain: (H, W, 3) of a sheet of a size in mm."""
    (width, height), (length, course) = size, unit
    shape = int(height * px), int(width * px)
    y, x = np.mgrid[0 : shape[0], 0 : shape[1]] / px
    wobble, joint, spread = rng.uniform(0, 1.2), rng.uniform(3, 9), rng.uniform(0.03, 0.3)
    x = x + wobble * smooth(rng, shape, 60 * px) + rng.uniform(0, length)
    y = y + wobble * smooth(rng, shape, 60 * px) + rng.uniform(0, course)
    row = np.floor(y / course)
    along = x + row * shift * length
    column = np.floor(along / length)
    u, v = along - column * length, y - row * course
    edge = np.minimum(np.minimum(u, length - u), np.minimum(v, course - v))
    mortar = np.clip((joint / 2 + 0.6 - edge) / 1.2, 0, 1)[..., None]
    own = rng.normal(size=(4096, 3)).astype(np.float32)[(row * 7919 + column * 104729).astype(np.int64) % 4096]
    grain = lambda size, broad, fine: np.exp(  # noqa: E731
        broad * smooth(rng, shape, size * px)[..., None] + fine * rng.normal(size=(*shape, 1))
    )
    units = rng.uniform(0.08, 0.5, 3) * np.exp(spread * own[..., :1] + 0.3 * spread * own) * grain(6, 0.12, 0.08)
    made = units * (1 - mortar) + rng.uniform(0.15, 0.6) * grain(5, 0.08, 0.08) * mortar
    return np.ascontiguousarray(np.clip(made, 0, 1), np.float32)


def natural(rng, size, px):
    """Clouds, pebbles or veins in two colours, with grain."""
    (width, height), seed = size, int(rng.integers(1, 1 << 20))
    columns, rows = int(width * px), int(height * px)
    grid = Grid(2 * columns, 2 * rows, 2 * width, 2 * height)
    kind = rng.integers(0, 4)
    tone = clouds(grid, size=float(rng.uniform(20, 90)), octaves=6, seed=seed)
    if kind == 1:
        tone = pebbles(grid, size=float(rng.uniform(18, 60)), seed=seed)
    elif kind == 2:
        tone = 0.5 * pebbles(grid, size=float(rng.uniform(12, 30)), seed=seed) + 0.5 * tone
    elif kind == 3:
        tone = np.abs(tone - 0.5) * 2
    tone = tone[:rows, :columns, None]
    one, other = rng.uniform(0.03, 0.6, 3), rng.uniform(0.03, 0.6, 3)
    grain = np.exp(0.06 * rng.normal(size=tone.shape))
    return np.ascontiguousarray(np.clip((one + (other - one) * tone) * grain, 0, 1), np.float32)


def sheet(seed):
    """Kind, flat sheet, way of closing it, and whether it is in step across and up."""
    rng = np.random.default_rng(seed)
    px, kind = rng.uniform(0.9, 1.3), rng.choice(KINDS, p=(0.3, 0.3, 0.15, 0.15, 0.1))
    if kind == "natural":
        size = tuple(rng.uniform(350, 550, 2))
        colour, off, overlap = natural(rng, size, px), (0.0, 0.0), 0.15 * min(size)
    else:
        unit, overlap = (rng.uniform(50, 130), rng.uniform(25, 70)), rng.uniform(40, 85)
        shift = float(rng.choice((0, 0.5, 0.5, 0.25, 1 / 3)))
        period = unit[0], unit[1] * (round(1 / shift) if shift else 1)
        off = (
            rng.uniform(0.25, 0.75) * unit[0] if kind in {"out across", "out both"} else 0.0,
            rng.uniform(0.3, 0.7) * unit[1] if kind in {"out up", "out both"} else 0.0,
        )
        size = tuple(
            max(least, round(rng.uniform(280, 420) / one)) * one + more + overlap
            for one, more, least in zip(period, off, (2, 1), strict=True)
        )
        colour = masonry(rng, size, unit, shift, px)
    grid = Grid(colour.shape[1], colour.shape[0], *size)
    return (
        str(kind),
        MapSet(grid, {MapKind.BASE_COLOUR: colour}),
        BestCut(overlap=float(overlap)),
        [not by for by in off],
    )


def judged(seed):
    """Kind, whether it is in step, and what is thought of it: across, then up."""
    kind, flat, method, in_step = sheet(seed)
    cuts = method.find(flat, ())
    closed = method.apply(flat, cuts)
    before, after = (tone_of(one[MapKind.BASE_COLOUR]) for one in (flat, closed))
    size = closed.grid.width_mm, closed.grid.height_mm
    return kind, in_step, judge_joins(before, flat.grid, after, size, joins=paths_on_cell(cuts, *closed.grid.shape))
