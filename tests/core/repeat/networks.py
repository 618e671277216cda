"""Sheets with nets of thin lines (joints of stones, cracks, veins), closed by best cut, whose truth is known: the net
comes again after what is left of the sheet, or it does not.
"""

import cv2
import numpy as np
from scipy.spatial import cKDTree

from brave_tessel.core.kernels.relief import normal_of_height
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.repeat.methods.best_cut import BestCut
from brave_tessel.core.sheet import Grid

KINDS = ("relief", "colour", "crack", "vein")


class Wrapped:
    """Noise that comes again after a period in mm, over a sheet of a size in mm."""

    def __init__(self, rng, size, period, px):
        self.rng, self.px = rng, px
        self.shape = int(size[1] * px), int(size[0] * px)
        self.period = period[1] * px, period[0] * px

    def smooth(self, size):
        knots = [max(3, round(side / (size * self.px))) for side in self.period]
        coarse = np.tile(self.rng.normal(size=knots).astype(np.float32), (3, 3))
        whole = tuple(3 * round(side) for side in self.period)
        broad = cv2.resize(coarse, whole[::-1], interpolation=cv2.INTER_CUBIC)
        return broad[whole[0] // 3 :, whole[1] // 3 :][: self.shape[0], : self.shape[1]]

    def grain(self, size, broad, fine):
        made = np.exp(broad * self.smooth(size) + fine * self.rng.normal(size=self.shape))
        return made[..., None].astype(np.float32)


class Stones:
    """Voronoi cells around jittered points: which one a place lies in, how far its edge is (mm), where its middle."""

    def __init__(self, rng, noise, period, cell):
        y, x = np.mgrid[0 : noise.shape[0], 0 : noise.shape[1]] / noise.px
        wavering = rng.choice((0, 0, 0.8, 2.5))
        x, y = (one + wavering * noise.smooth(25) for one in (x, y))
        count = np.maximum(2, np.round(period / cell)).astype(int)
        count[0] = max(2, round(count[0] / rng.choice((1, 1, 1, 1.7))))
        ways = [(np.arange(many) + 0.5) / many * side for many, side in zip(count, period, strict=True)]
        middles = np.stack(np.meshgrid(*ways), -1)
        away = rng.uniform(0.3, 0.9) * (rng.random(middles.shape) - 0.5) * period / count
        middles = (middles + away).reshape(-1, 2) % period
        around = np.concatenate([middles + np.array([i, j]) * period for i in (-1, 0, 1) for j in (-1, 0, 1)])
        place = np.stack([x % period[0], y % period[1]], -1).reshape(-1, 2)
        _, nearest = cKDTree(around).query(place, k=2)
        first, second = around[nearest[:, 0]], around[nearest[:, 1]]
        apart = np.maximum(np.linalg.norm(second - first, axis=1), 1e-6)
        edge = (((first + second) / 2 - place) * (second - first)).sum(1) / apart
        self.count = len(middles)
        self.edge = edge.reshape(noise.shape).astype(np.float32)
        self.own = (nearest[:, 0] % self.count).reshape(noise.shape)
        self.off = (place - first).reshape(*noise.shape, 2)


def relief(rng, noise, stones, base, size):
    joint = rng.uniform(0.6, 3)
    height = np.minimum(stones.edge / joint, 1) * joint * rng.uniform(0.3, 1)
    height = height + sum(noise.smooth(one) * one * rng.uniform(0.01, 0.06) for one in (50, 20, 8, 3))
    tilt = rng.normal(size=(stones.count, 2)) * rng.uniform(0, 0.06)
    height = height + (tilt[stones.own] * stones.off).sum(-1)
    bearing, up = rng.uniform(0, 2 * np.pi), np.radians(rng.uniform(20, 50))
    light = np.float32([np.cos(bearing) * np.cos(up), np.sin(bearing) * np.cos(up), np.sin(up)])
    normal = normal_of_height(height.astype(np.float32), Grid(*noise.shape[::-1], *size))
    return base * (0.7 * np.maximum(normal @ light, 0) / light[2] + 0.3)[..., None] * noise.grain(5, 0.03, 0.04)


def colour(rng, noise, stones, base, _size):
    own = rng.normal(size=(stones.count, 3)).astype(np.float32)[stones.own]
    mortar = np.clip((rng.uniform(1.5, 7) / 2 - stones.edge) / 0.8 + 0.5, 0, 1)[..., None]
    units = base * np.exp(rng.uniform(0, 0.25) * own[..., :1] + rng.uniform(0, 0.06) * own) * noise.grain(8, 0.1, 0.06)
    return units * (1 - mortar) + rng.uniform(0.08, 0.6) * noise.grain(4, 0.06, 0.06) * mortar


def crack(rng, noise, stones, base, _size):
    line = np.clip((rng.uniform(0.5, 1.6) / 2 - stones.edge) / 0.6 + 0.5, 0, 1)[..., None]
    return base * noise.grain(40, 0.12, 0) * noise.grain(6, 0.08, 0.05) * (1 - rng.uniform(0.3, 0.9) * line)


def vein(rng, noise, stones, base, _size):
    cell = np.sqrt(np.prod(noise.period) / stones.count) / noise.px
    field = noise.smooth(cell) + 0.4 * noise.smooth(0.4 * cell)
    away = np.abs(field) / np.maximum(np.hypot(*np.gradient(field)), 1e-4) / noise.px
    line = 0.75 * np.clip((rng.uniform(1, 4) / 2 - away) / 0.8 + 0.5, 0, 1)[..., None]
    return base * noise.grain(50, 0.15, 0) * noise.grain(6, 0.06, 0.05) * (1 - line) + rng.uniform(0.05, 0.7) * line


def network(seed):
    """Kind, flat sheet, way of closing it, and whether it meets itself across and up."""
    rng = np.random.default_rng(seed)
    px, size = rng.uniform(1.0, 2.2), rng.uniform(300, 520, 2)
    overlap, kind, off = rng.uniform(0.1, 0.16) * size.min(), rng.integers(0, len(KINDS)), rng.random(2) < 0.5
    period = np.where(off, 2.1 * size, size - overlap)
    noise = Wrapped(rng, size, period, px)
    stones = Stones(rng, noise, period, rng.uniform(18, 85))
    base = rng.uniform(0.08, 0.55, 3).astype(np.float32)
    made = (relief, colour, crack, vein)[kind](rng, noise, stones, base, tuple(size))
    grid = Grid(*noise.shape[::-1], float(size[0]), float(size[1]))
    flat = MapSet(grid, {MapKind.BASE_COLOUR: np.ascontiguousarray(np.clip(made, 0, 1), np.float32)})
    return KINDS[kind], flat, BestCut(overlap=float(overlap)), [not one for one in off]
