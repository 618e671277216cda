"""The command that makes stills."""

import json

import numpy as np
import pytest
from PIL import Image

from brave_tessel.cli.main import main
from brave_tessel.core.job.document import Job
from brave_tessel.engine.intents.surfaces import new_surface
from brave_tessel.engine.session import Session
from brave_tessel.formats.job_file import OpenedJob


@pytest.fixture
def job(tmp_path):
    made = Job(name="Two")
    command, _ = new_surface(made)
    session = Session(OpenedJob(command.apply(made)))
    session.save(tmp_path / "a.tessel")
    return tmp_path / "a.tessel"


def test_a_surface_is_pictured(job, tmp_path, capsys):
    out = tmp_path / "s.png"
    surface = "Surface 1"
    arguments = ["picture", str(job), "--surface", surface, "--size", "40x32", "--samples", "8", "--px", "64"]
    code = main([*arguments, "--out", str(out), "--json"])
    told = capsys.readouterr()
    assert code == 0, told.err
    assert json.loads(told.out)["file"] == str(out)
    with Image.open(out) as file:
        picture = np.asarray(file)
    assert picture.shape == (32, 40, 3)
    assert picture.std() > 5


@pytest.mark.parametrize(
    "more", [["--surface", "nothing"], ["--view", "nowhere"], ["--size", "big"], ["--size", "4x4"], ["--samples", "0"]]
)
def test_wrong_input_is_one_sentence_and_2(job, tmp_path, capsys, more):
    code = main(["picture", str(job), *more, "--out", str(tmp_path / "x.png")])
    told = capsys.readouterr().err.strip()
    assert code == 2
    assert told
    assert "Traceback" not in told


def test_several_surfaces_are_a_board_of_samples(tmp_path, capsys):
    made = Job(name="Three")
    for _ in range(3):
        made = new_surface(made)[0].apply(made)
    Session(OpenedJob(made)).save(tmp_path / "b.tessel")
    names = [word for surface in made.surfaces for word in ("--surface", surface.name)]
    arguments = ["picture", str(tmp_path / "b.tessel"), *names, "--size", "90x32", "--samples", "8", "--px", "48"]
    assert main([*arguments, "--out", str(tmp_path / "b.png"), "--open-ground"]) == 0, capsys.readouterr().err
    with Image.open(tmp_path / "b.png") as file:
        there = np.asarray(file)[16, :, 3] > 128
    assert np.count_nonzero(np.diff(there.astype(int)) == 1) + int(there[0]) == 3, "three balls beside each other"


def test_another_suffix_is_refused(job, tmp_path, capsys):
    arguments = ["picture", str(job), "--surface", "Surface 1", "--size", "32x32", "--samples", "8", "--px", "32"]
    assert main([*arguments, "--out", str(tmp_path / "x.jpg")]) == 2
    assert "PNG or EXR" in capsys.readouterr().err


def test_a_contact_sheet_has_every_surface_flat_with_its_name(tmp_path, capsys):
    made = Job(name="Four")
    for _ in range(4):
        made = new_surface(made)[0].apply(made)
    Session(OpenedJob(made)).save(tmp_path / "c.tessel")
    arguments = [
        "picture",
        str(tmp_path / "c.tessel"),
        "--contact",
        "--size",
        "120x100",
        "--samples",
        "8",
        "--px",
        "48",
    ]
    assert main([*arguments, "--out", str(tmp_path / "c.png")]) == 0, capsys.readouterr().err
    with Image.open(tmp_path / "c.png") as file:
        light = np.asarray(file.convert("L")).astype(int)
    ground = light[1, 1]
    for row, column in ((25, 35), (25, 85), (70, 35), (70, 85)):
        assert abs(light[row, column] - ground) > 12, "four pieces"
    assert light.max() > 230, "names are written under them"
