"""A run along the joints of what lies beneath: on masonry and cobbles whose joints are known."""

import numpy as np
import pytest
from scipy.ndimage import map_coordinates

from brave_tessel.core.buildup.joints import along_joints, grooves
from brave_tessel.core.buildup.run import Path
from brave_tessel.core.sheet import Grid

WIDE, TALL, JOINT = 675.0, 450.0, 10.0
"""Three bricks and six courses of 215 × 65 mm in running bond (BS EN 771-1, from memory)."""


def masonry(px):
    """Heights (H, W) mm, and where a joint is."""
    grid = Grid(px, round(px * TALL / WIDE), WIDE, TALL)
    x, y = np.meshgrid(grid.x_mm(), grid.y_mm())
    course = np.floor(y / 75)
    along = (x + 112.5 * (course % 2)) % 225
    joint = (along < JOINT) | (y % 75 < JOINT)
    rough = np.random.default_rng(3).normal(0, 0.15, grid.shape)
    return grid, np.where(joint, -6.0, rough).astype(np.float32), joint


def inside(path, grid, joint):
    """How much of a path's length lies in joints."""
    steps = np.diff(path.points, axis=0)
    long = np.hypot(*steps.T)
    total = 0.0
    for start, step, length in zip(path.points, steps, long, strict=False):
        at = start + step * np.linspace(0, 1, 40)[:, None]
        rows = (grid.height_mm - at[:, 1]) / grid.mm_per_px[1] - 0.5
        columns = at[:, 0] / grid.mm_per_px[0] - 0.5
        total += length * map_coordinates(joint.astype(float), [rows, columns], order=0, mode="grid-wrap").mean()
    return total / long.sum()


def straight(*points, closed=False):
    points = np.array(points, np.float64)
    return Path(points, float(np.hypot(*np.diff(points, axis=0).T).sum()), closed)


@pytest.mark.parametrize("px", [384, 512, 1024, 2048])
def test_it_stays_in_the_joints_at_every_size(px):
    grid, height, joint = masonry(px)
    asked = straight((60, 60), (600, 390))
    made = along_joints(asked, height, grid)
    assert inside(asked, grid, joint) < 0.4
    assert inside(made, grid, joint) > 0.97
    # By bed and upright joints: as far across as up, and little further.
    assert made.length < 1.15 * (540 + 330)


def test_it_is_the_same_way_at_other_sizes():
    ways = [along_joints(straight((60, 60), (600, 390)), height, grid) for grid, height, _ in map(masonry, (512, 1024))]
    share = np.linspace(0, 1, 60)[:, None]
    fine = np.vstack(
        [start + share * step for start, step in zip(ways[1].points, np.diff(ways[1].points, axis=0), strict=False)]
    )
    off = [np.hypot(*(fine - p).T).min() for p in ways[0].points]
    assert max(off) < JOINT


def test_it_closes_over_the_edge():
    grid, height, joint = masonry(512)
    made = along_joints(straight((0, 200), (300, 240), (WIDE, 200), closed=True), height, grid)
    assert np.allclose(made.points[-1] - made.points[0], (WIDE, 0))
    assert inside(made, grid, joint) > 0.95


def test_cobbles_are_gone_round():
    rng = np.random.default_rng(8)
    grid = Grid(400, 400, 800.0, 800.0)
    stones = rng.uniform(0, 400, (90, 2))
    lattice = np.vstack([stones + (a, b) for a in (-400, 0, 400) for b in (-400, 0, 400)])
    rows, columns = np.indices(grid.shape)
    away = np.sort(np.stack([np.hypot(rows - r, columns - c) for r, c in lattice]), 0)[:2]
    edge = away[1] - away[0]
    height = (12 * np.clip(edge / 14, 0, 1) ** 0.5).astype(np.float32)
    made = along_joints(straight((100, 100), (700, 640)), height, grid, 6.0)
    assert inside(made, grid, edge < 5) > 0.9
    assert np.hypot(*(made.points[0] - (100, 100))) < 80


def test_even_ground_leaves_it_as_it_is():
    grid, height, _ = masonry(384)
    asked = straight((60, 60), (600, 390))
    assert grooves(np.zeros_like(height), grid) is None
    assert along_joints(asked, np.zeros_like(height), grid) is asked
