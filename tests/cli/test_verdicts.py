"""What the command line says of joins, and what it needs to close by whole courses."""

import json

import numpy as np
import pytest

from brave_tessel.cli.main import main
from brave_tessel.core.colour import codes_from_linear
from brave_tessel.formats.images import encode_png
from tests.core.repeat.closings import masonry, natural

WORDS = ("good", "look closer", "broken")


@pytest.fixture
def wall(tmp_path):
    """Half bond, units of 75 by 32 mm: what best cut leaves of 460 by 420 mm is out of step up."""
    colour = masonry(np.random.default_rng(8), (460, 420), (75, 32), 0.5, 1.5)
    (tmp_path / "wall.png").write_bytes(encode_png(codes_from_linear(colour, depth=8)))
    return tmp_path / "wall.png"


def repeated(capsys, photo, *more):
    code = main(["repeat", str(photo), *map(str, more), "--px", "256", "--out", str(photo.parent / "o"), "--json"])
    told = capsys.readouterr()
    return code, json.loads(told.out) if told.out.startswith("{") else {}, told.err


def test_a_wall_out_of_step_is_not_called_good_and_whole_courses_closes_it(wall, capsys):
    code, told, err = repeated(capsys, wall, "--size", "460x420mm", "--overlap", "48")
    assert code == 0, err
    assert told["overlap_mm"] == [48, 48]
    assert told["verdict"] != "good"
    assert "out of step" in " ".join(told["joins"]["y"]["reasons"])
    assert told["seams"]["base_colour"]["verdict"] == told["verdict"]
    code, told, err = repeated(capsys, wall, "--size", "460x420mm", "--method", "courses")
    assert code == 0, err
    assert told["verdict"] != "broken"
    assert told["joins"]["y"]["in_step"] > 0.8


def test_its_overlap_is_lined_up_where_none_is_asked_for(wall, capsys):
    code, told, err = repeated(capsys, wall, "--size", "460x420mm")
    assert code == 0, err
    assert told["verdict"] == "good"
    for length, beat in zip(told["repeat_mm"], (75, 64), strict=True):
        assert abs((length / beat + 0.5) % 1 - 0.5) < 0.02


def test_a_natural_ground_is_good_in_every_map(tmp_path, capsys):
    ground = natural(np.random.default_rng(4), (400, 400), 1.2)
    (tmp_path / "ground.png").write_bytes(encode_png(codes_from_linear(ground, depth=8)))
    code, told, err = repeated(capsys, tmp_path / "ground.png", "--size", "400x400mm")
    assert code == 0, err
    assert told["verdict"] == "good"
    assert {one["verdict"] for one in told["seams"].values()} <= set(WORDS)


def test_courses_with_a_known_unit_need_no_size(wall, capsys):
    code, told, err = repeated(capsys, wall, "--method", "courses", "--unit", "32mm")
    assert code == 0, err
    assert told["unit_mm"] == pytest.approx(32, rel=0.02)
    assert told["repeat_mm"][1] == pytest.approx(round(told["repeat_mm"][1] / 32) * 32, rel=0.02)
    assert abs(told["turn"]) < 1, "a bond that steps aside is no turn"


def test_without_any_size_it_is_asked_for(wall, capsys):
    code, _, err = repeated(capsys, wall)
    assert code == 2
    assert "--size" in err
