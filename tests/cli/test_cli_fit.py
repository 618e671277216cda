"""elevation and fit on the command line."""

import json
import re

import pytest

from brave_tessel.cli.main import main
from brave_tessel.core.job.scene import Level
from brave_tessel.formats.job_file import OpenedJob, load_job, save_job
from tests.core.place.scenes import brick, room

LEVELS = (Level(id="a", name="floor", height=0.0), Level(id="b", name="rail", height=1000.0))


def run(capsys, *arguments):
    code = main([str(a) for a in arguments])
    out, err = capsys.readouterr()
    return code, out, err


@pytest.fixture
def saved(tmp_path):
    path = tmp_path / "room.tessel"
    save_job(path, OpenedJob(room(brick(), levels=LEVELS)).job, {})
    return path


def test_an_elevation_counts_courses_units_and_slivers(saved, capsys):
    code, out, _ = run(capsys, "elevation", saved, "--part", "north", "--json")
    assert code == 0
    told = json.loads(out)
    assert set(told["courses"]) >= {"whole", "cut", "cut_mm"}
    assert set(told["units"]) >= {"whole", "cut", "by_size"}
    assert told["units"]["by_size"]["215x65"] == told["units"]["whole"]
    assert sum(told["units"]["by_size"].values()) == told["units"]["whole"] + told["units"]["cut"]
    for sliver in told["slivers"]:
        assert len(sliver["place"]) == 3
        assert 0 < sliver["mm"] < 215 / 3


@pytest.mark.parametrize(("ending", "start"), [("svg", b"<?xml"), ("pdf", b"%PDF"), ("png", b"\x89PNG")])
def test_a_sheet_is_written_as_it_is_named(saved, tmp_path, capsys, ending, start):
    target = tmp_path / f"sheet.{ending}"
    code, out, _ = run(capsys, "elevation", saved, "--part", "north", "--out", target)
    assert code == 0
    assert target.read_bytes().startswith(start)
    assert str(target) in out


def test_another_ending_is_refused(saved, tmp_path, capsys):
    code, _, err = run(capsys, "elevation", saved, "--part", "north", "--out", tmp_path / "sheet.doc")
    assert code == 2
    assert ".svg" in err
    assert not (tmp_path / "sheet.doc").exists()


def test_ways_to_fit_are_listed(saved, capsys):
    code, out, _ = run(capsys, "fit", saved, "--part", "north", "--between", "floor,rail", "--json")
    assert code == 0
    told = json.loads(out)
    assert told["between_mm"] == [0.0, 1000.0]
    assert told["now"]["cut_mm"]
    joint = next(way for way in told["ways"] if way["by"] == "joint")
    assert joint["count"] == 13
    assert joint["joint_mm"] == pytest.approx(1000 / 13 - 65, abs=1e-3)


@pytest.mark.parametrize("by", ["joint", "unit", "stretch", "cut", "datum"])
def test_a_fit_is_written_and_holds(saved, tmp_path, capsys, by):
    target = tmp_path / "fitted.tessel"
    code, out, _ = run(
        capsys, "fit", saved, "--part", "north", "--between", "0,990", "--by", by, "--out", target, "--json"
    )
    assert code == 0
    told = json.loads(out)["chosen"]
    code, out, _ = run(capsys, "fit", target, "--part", "north", "--between", "0,990", "--json")
    now = json.loads(out)["now"]
    assert now["cut_mm"] == pytest.approx(told["cut_mm"], abs=0.6)
    part = load_job(target).job.scene.part("north")
    assert any(one.dials for one in part.laid) is (by in {"joint", "unit"})


def test_a_level_that_is_not_there_names_those_that_are(saved, capsys):
    code, _, err = run(capsys, "fit", saved, "--part", "north", "--between", "floor,attic")
    assert code == 2
    assert "rail" in err


@pytest.mark.parametrize("between", ["floor", "floor,rail,floor"])
def test_two_levels_are_needed(saved, capsys, between):
    code, _, err = run(capsys, "fit", saved, "--part", "north", "--between", between)
    assert code == 2
    assert "floor,sill" in err


def test_a_surface_without_courses_is_refused(tmp_path, capsys):
    path = tmp_path / "plain.tessel"
    save_job(path, room(), {})
    code, _, err = run(capsys, "fit", path, "--part", "north")
    assert code == 2
    assert "courses" in err


def test_units_along_are_fitted_too(saved, capsys):
    code, out, _ = run(capsys, "fit", saved, "--part", "east", "--along", "--ends", "pier", "--json")
    assert code == 0
    assert json.loads(out)["ways"]


def test_the_dimensions_of_the_sheet_are_those_of_the_wall(saved, tmp_path, capsys):
    target = tmp_path / "sheet.svg"
    run(capsys, "elevation", saved, "--part", "east", "--out", target)
    assert "3000" in re.findall(r">([\d.]+)</text>", target.read_text())


def test_a_way_that_does_not_reach_is_refused(saved, tmp_path, capsys):
    """13 courses of 75 are 975: 2.6 % are more than a stretch may be."""
    target = tmp_path / "b.tessel"
    code, _, err = run(
        capsys, "fit", saved, "--part", "north", "--between", "0,1000", "--by", "stretch", "--out", target
    )
    assert code == 1
    assert "limits" in err
    assert not target.exists()


def test_the_scene_is_checked_with_the_surfaces(saved, capsys):
    code, out, _ = run(capsys, "check", saved, "--json")
    found = json.loads(out)["scene"]
    assert code == 0
    assert {"part", "check", "severity", "title", "cause", "place_mm", "mend"} <= set(found[0])
    assert any(one["check"] == "slivers" for one in found)
    code, out, _ = run(capsys, "check", saved)
    assert "Pieces under a third" in out
