"""Bond repeats and unit shares of check-values B2 (UK brick 215 × 65, joint 10)."""

import numpy as np
import pytest

from brave_tessel.core.recipe.steps.pattern import BONDS, bond_repeat, set_out, units
from brave_tessel.core.recipe.steps.piece import pick, relief, tone
from brave_tessel.core.sheet import Grid

UK = {
    "stack": ((225, 75), 0.828148),
    "half": ((225, 150), 0.828148),
    "third": ((225, 225), 0.828148),
    "header": ((112.5, 150), 0.789630),
    "english": ((225, 150), 0.808889),
    "garden wall": ((225, 300), 0.818519),
    "flemish": ((337.5, 150), 0.815309),
    "monk": ((562.5, 150), 0.820444),
}


@pytest.mark.parametrize(("bond", "known"), UK.items())
def test_smallest_repeat(bond, known):
    assert bond_repeat(bond, 215, 65, 10) == pytest.approx(known[0])


@pytest.mark.parametrize(("bond", "known"), UK.items())
def test_share_of_the_face_that_is_unit(bond, known):
    (width, height), share = known
    grid = Grid(round(width * 4), round(height * 4), width, height)
    made = units(grid, length=215, height=65, joint=10, bond=bond)
    assert (made.number >= 0).mean() == pytest.approx(share, abs=0.004)


@pytest.mark.parametrize("bond", BONDS)
def test_no_smaller_period_closes(bond):
    """The picture of one repeat is not itself made of halves, thirds or quarters."""
    width, height = bond_repeat(bond, 215, 65, 10)
    grid = Grid(480, 480, width, height)
    inside = units(grid, length=215, height=65, joint=10, bond=bond).number >= 0
    for part in (2, 3, 4):
        assert (np.roll(inside, 480 // part, 1) != inside).mean() > 0.02
        assert (np.roll(inside, 480 // part, 0) != inside).mean() > 0.02


def test_units_per_square_metre():
    # 59.26 stretchers a square metre (UK tables).
    grid = Grid(90, 60, 2250, 1500)
    assert units(grid, length=215, height=65, joint=10).count / (2.25 * 1.5) == pytest.approx(59.26, abs=0.01)


def test_fundamental_of_the_courses_sits_in_its_bin():
    # 2250 × 1500 mm: course bins 20, 40, 60; B2 rule 2.
    grid = Grid(4500, 3000, 2250, 1500)
    made = units(grid, length=215, height=65, joint=10)
    inside = (made.number >= 0).astype(float)
    assert inside.mean() == pytest.approx(0.8281481, abs=2e-4)
    courses = np.abs(np.fft.rfft(inside.mean(1) - inside.mean()))
    assert courses.argmax() == 20
    row = np.abs(np.fft.rfft(inside[80] - inside[80].mean()))
    assert row[10] == row[1:].max()


def test_a_repeat_that_is_no_whole_number_is_closed_with_its_deviation():
    # Flemish on 2250 mm: 6.667 periods must be corrected; 7 are taken and said to be 321.4 for 337.5.
    setting = set_out(Grid(10, 10, 2250, 1500), "flemish", 215, 65, 10)
    assert setting.across == 7
    assert setting.unit_mm == pytest.approx(2250 / 7 / 1.5)


def test_distance_to_the_edge_is_exact():
    grid = Grid(900, 600, 225, 150)
    made = units(grid, length=215, height=65, joint=10)
    row, column = grid.row_column(112.5, 37.5)
    assert made.edge[row, column] == pytest.approx(32.5, abs=0.3)
    row, column = grid.row_column(0.1, 0.1)
    assert made.edge[row, column] == pytest.approx(-np.hypot(4.9, 4.9), abs=0.3)


def test_every_pixel_is_painted():
    for px in (257, 640, 1021):
        grid = Grid.for_repeat(612, 624, px)
        made = units(grid, length=150, height=75, joint=3)
        assert np.abs(made.across).max() < 1.3
        assert made.number.max() == made.count - 1
        assert np.unique(made.number).size == made.count + 1


def test_pieces_have_their_own_level_tone_and_sheen():
    grid = Grid(400, 400, 612, 624)
    made = units(grid, length=150, height=75, joint=3)
    height = relief(grid, made, depth=2.0, edge_round=4.0, height_spread=0.5, tilt=0.0, cushion=0.0)
    assert height.min() == pytest.approx(-2.0, abs=0.55)
    middles = [height[(made.number == n) & (made.edge > 10)] for n in range(made.count)]
    assert all(np.ptp(m) < 1e-5 for m in middles)
    assert np.std([m.mean() for m in middles]) > 0.15
    colour = tone(grid, made, colour="#808080", spread=0.5, drift=0.0, joint_colour="#000000")
    assert (colour[made.edge < -1.4] < 0.01).all()
    assert len({round(float(colour[made.number == n].max()), 4) for n in range(made.count)}) > 20
    sheen = pick(grid, made, on_pieces=0.1, spread=0.0, in_joints=0.9)
    assert sheen.min() == pytest.approx(0.1)
    assert sheen.max() == pytest.approx(0.9, abs=0.05)


def test_moving_the_seed_moves_the_pieces_only():
    grid = Grid(200, 200, 612, 624)
    made = units(grid)
    a, b = (relief(grid, made, seed=s) for s in (1, 2))
    assert not np.allclose(a, b)
    assert np.allclose(a[made.edge < -1], b[made.edge < -1])
