"""As much of a pixel is joint, and of which piece the rest, at every size; earlier versions stay as they were."""

import numpy as np
import pytest

from brave_tessel.core.operation import REGISTRY, SUPERSEDED, Pieces
from brave_tessel.core.recipe.steps.rims import painted
from brave_tessel.core.sheet import Grid

RIMMED = ("piece.tone", "piece.pick", "piece.share", "colour.pieces")
SIDE = 300.0


def cobbles(px):
    grid = Grid(px, px, SIDE, SIDE)
    return grid, REGISTRY["pattern.cobbles"].run(grid, size=12.0, joint=1.4, jitter=1.0, even=2, seed=3)


def strips(px, pitch, joint):
    """Upright strips side by side, of two numbers."""
    grid = Grid(px, px, SIDE, SIDE)
    x = (np.arange(px) + 0.5) * SIDE / px
    at = x % pitch
    edge = np.broadcast_to(np.minimum(at, pitch - at) - joint / 2, (px, px)).astype(np.float32)
    owner = np.broadcast_to((x // pitch).astype(np.int32) % 2, (px, px))
    number = np.where(edge < 0, -1, owner).astype(np.int32)
    zero = np.zeros((px, px), np.float32)
    return grid, Pieces(np.ascontiguousarray(number), np.ascontiguousarray(edge), zero, zero, 2)


@pytest.mark.parametrize("px", [512, 256, 128])
def test_pieces_cover_as_much_at_every_size(px):
    """From joints of five pixels to those of half a one."""

    def covered(size):
        grid, pieces = cobbles(size)
        return float(painted(grid, pieces, np.append(np.ones(pieces.count), 0)[:, None])[..., 0].mean())

    assert covered(px) == pytest.approx(covered(1024), rel=0.03)


@pytest.mark.parametrize("joint", [0.7, 2.5, 9.0])
@pytest.mark.parametrize("px", [97, 211])
def test_a_strip_covers_what_it_covers(joint, px):
    """Against the strips' own widths."""
    grid, pieces = strips(px, 20.0, joint)
    shown = painted(grid, pieces, np.eye(3, 2, dtype=np.float32))
    assert shown.sum(2).mean() == pytest.approx((20 - joint) / 20, abs=0.03)


def test_a_pixel_in_a_joint_shows_the_piece_beside_it():
    grid, pieces = strips(97, 20.0, 2.5)
    shown = painted(grid, pieces, np.eye(3, dtype=np.float32))
    assert np.allclose(shown.sum(2), 1, atol=1e-5)
    joint = shown[0][pieces.number[0] < 0]
    assert (joint[:, 2] > 0.49).all()
    assert (joint[:, :2].max(1) > 0).any()


@pytest.mark.parametrize("id", RIMMED)
def test_earlier_versions_keep_their_look(id):
    """The second version gives a pixel whose middle lies in a joint to the joint alone; the first hashes otherwise."""
    grid, pieces = cobbles(128)
    now, second, first = REGISTRY[id], SUPERSEDED[id, 2], SUPERSEDED[id, 1]
    assert now.version == 3
    joint = pieces.number < 0
    shown = [np.asarray(one.run(grid, pieces)) for one in (now, second, first)]
    of_joint = [one[joint].reshape(joint.sum(), -1) for one in shown]
    assert np.ptp(of_joint[1], 0).max() == 0
    assert np.ptp(of_joint[2], 0).max() == 0
    assert np.ptp(of_joint[0], 0).max() > 0
    assert np.array_equal(shown[1], np.asarray(SUPERSEDED[id, 2].run(grid, pieces)))
    assert not np.array_equal(shown[1], shown[2])
