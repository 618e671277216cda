"""What the command line is given wrongly: one sentence and a code, never a traceback."""

import os
import subprocess
import sys
from pathlib import Path

import msgspec
import numpy as np
import pytest
from PIL import Image

from brave_tessel.cli import jobs
from brave_tessel.cli.main import main
from brave_tessel.core.handover.check import Finding
from brave_tessel.core.job.scene import Scene
from brave_tessel.formats.job_file import save_job

BAD_NUMBERS = ("0", "-5", "1e308", "nan", "inf", "-inf", "99999999999999999999", "wide", "", "0x10")


@pytest.fixture
def photo(tmp_path):
    path = tmp_path / "photo.png"
    Image.fromarray(np.random.default_rng(1).integers(0, 255, (60, 80, 3)).astype(np.uint8)).save(path)
    return path


def refused(capsys, *arguments, code=2):
    """Run a command that must be refused; returns the sentence."""
    try:
        given = main([str(argument) for argument in arguments])
    except SystemExit as ended:
        given = ended.code
    told = capsys.readouterr()
    assert given == code, (arguments, told.err)
    assert told.out == ""
    assert len(told.err.strip().splitlines()) == 1, told.err
    assert "Traceback" not in told.err
    return told.err


@pytest.mark.parametrize("text", BAD_NUMBERS)
@pytest.mark.parametrize("option", ["--px", "--overlap", "--even"])
def test_numbers_of_repeat(photo, tmp_path, capsys, option, text):
    if (option, text) in {("--overlap", "0"), ("--even", "0")}:
        return
    refused(capsys, "repeat", photo, "--size", "600x400mm", "--out", tmp_path / "out", f"{option}={text}")
    assert not (tmp_path / "out").exists()


@pytest.mark.parametrize("text", [*BAD_NUMBERS, "600", "600x", "600x0mm", "600x-4", "1e300x1e300", "600x400 stone"])
def test_sizes_of_repeat(photo, tmp_path, capsys, text):
    refused(capsys, "repeat", photo, f"--size={text}", "--out", tmp_path / "out")


@pytest.mark.parametrize("text", [*BAD_NUMBERS, "-75mm", "0 mm", "7 stone"])
def test_lengths(photo, tmp_path, capsys, text):
    method = ("--size", "600x400mm", "--method", "courses")
    refused(capsys, "repeat", photo, *method, f"--unit={text}", "--out", tmp_path / "out")
    corners = ("--corners", "0,0;70,2;69,50;1,52")
    refused(capsys, "straighten", photo, *corners, f"--width={text}", "--out", tmp_path / "out.png")


@pytest.mark.parametrize("option", ["--px", "--seed"])
@pytest.mark.parametrize("text", BAD_NUMBERS)
def test_numbers_of_recipe(tmp_path, capsys, option, text):
    if (option, text) == ("--seed", "0"):
        return
    refused(capsys, "recipe", "Oyster terrazzo", "--out", tmp_path / "out", f"{option}={text}")


@pytest.mark.parametrize(
    "dial",
    [
        "size",
        "large cells/size=",
        "large cells/size=inf",
        "large cells/size=nan mm",
        "no/such=3",
        "share=1e400",
        "=",
        "seed=3",
    ],
)
def test_dials_of_recipe(tmp_path, capsys, dial):
    refused(capsys, "recipe", "Oyster terrazzo", "--out", tmp_path / "out", "--set", dial)


@pytest.mark.parametrize(
    "arguments",
    [
        ("repeat", "NONE", "--size", "600x400mm", "--out", "out"),
        ("gather", "NONE"),
        ("list", "NONE"),
        ("check", "NONE"),
        ("export", "NONE", "--surface", "x", "--out", "out"),
        ("scene", "NONE", "--out", "out.glb"),
        ("straighten", "NONE", "--corners", "0,0;1,0;1,1;0,1", "--out", "out.png"),
        ("recipe", "NONE", "--out", "out"),
        ("recipe", "NONE.json", "--out", "out"),
        ("list", "/dev/zero"),
        ("list", "/"),
        (),
        ("nonsense",),
        ("export",),
    ],
)
def test_what_is_not_there(tmp_path, monkeypatch, capsys, arguments):
    monkeypatch.chdir(tmp_path)
    refused(capsys, *arguments)
    assert not list(tmp_path.iterdir())


@pytest.mark.parametrize(
    "corners", ["", "1,2", "a,b;c,d;e,f;g,h", "0,0;0,0;0,0;0,0", "nan,0;1,0;1,1;0,1", "0,0;9,9;9,0;0,9"]
)
def test_corners_of_straighten(photo, tmp_path, capsys, corners):
    refused(capsys, "straighten", photo, "--corners", corners, "--out", tmp_path / "out.png")


def test_recipe_writes_over_files_only_when_asked(tmp_path, capsys):
    arguments = ["recipe", "Limewash on render", "--px", "64", "--out", str(tmp_path)]
    assert main(arguments) == 0
    capsys.readouterr()
    before = {path: path.stat().st_mtime_ns for path in tmp_path.iterdir()}
    assert "--force" in refused(capsys, *arguments, code=1)
    assert {path: path.stat().st_mtime_ns for path in tmp_path.iterdir()} == before
    assert main([*arguments, "--force"]) == 0


def test_a_delivery_of_a_job_cannot_leave_its_folder(demo, tmp_path, capsys):
    bad = msgspec.structs.replace(demo.job.deliveries[0], pattern="../../x_{map}")
    job = msgspec.structs.replace(demo.job, deliveries=(bad,))
    save_job(tmp_path / "a.tessel", job, demo.blobs)
    inner = tmp_path / "one" / "two"
    refused(capsys, "export", tmp_path / "a.tessel", "--surface", job.surfaces[1].name, "--px", "64", "--out", inner)
    assert not list(tmp_path.glob("x_*"))


@pytest.mark.parametrize("closed_after", [0, 1])
def test_a_closed_pipe_is_quiet(closed_after):
    command = [sys.executable, "-m", "brave_tessel.cli", "recipe", "--list", "--json"]
    root = Path(__file__).parents[2]
    env = {**os.environ, "PYTHONPATH": str(root / "src")}
    reader, writer = os.pipe()
    if closed_after == 0:
        os.close(reader)
    running = subprocess.Popen(command, stdout=writer, stderr=subprocess.PIPE, text=True, env=env)
    os.close(writer)
    if closed_after:
        os.read(reader, 1)
        os.close(reader)
    _, told = running.communicate(timeout=60)
    assert told == ""


def test_stopped_by_hand_is_three(monkeypatch, tmp_path, capsys):
    def stop(*_):
        raise KeyboardInterrupt

    monkeypatch.setattr(jobs, "load_job", stop)
    assert "Stopped." in refused(capsys, "list", tmp_path / "a.tessel", code=3)


def test_findings_are_one(monkeypatch, demo, tmp_path, capsys):
    plain_job = msgspec.structs.replace(demo.job, surfaces=demo.job.surfaces[1:2], scene=Scene())
    save_job(tmp_path / "a.tessel", plain_job, demo.blobs)
    for severity, plain, strict in (("ok", 0, 0), ("caution", 0, 1), ("fault", 1, 1)):
        monkeypatch.setattr(jobs, "run_checks", lambda *_, s=severity: [Finding("seam", "", s, "Title", "Cause")])
        assert main(["check", str(tmp_path / "a.tessel")]) == plain
        assert main(["check", "--strict", str(tmp_path / "a.tessel")]) == strict
    capsys.readouterr()
