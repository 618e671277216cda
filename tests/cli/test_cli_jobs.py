"""The command line on jobs: what it writes, what it says, and how it fails."""

import json

import pytest

from brave_tessel.cli.main import main
from brave_tessel.core.buildup.kinds.plain import PlainWhat
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, Surface, UnknownWhat
from brave_tessel.formats.documents import encode_job
from brave_tessel.formats.job_file import load_job, save_job
from tests.formats.test_job_file import rewrite


@pytest.fixture
def job_file(tmp_path):
    """A small job of two plain surfaces, saved."""
    surfaces = tuple(
        Surface(
            id=name.lower(),
            name=name,
            width_mm=200.0,
            height_mm=100.0,
            layers=(Layer(id="l", name="L", what=PlainWhat(colour=colour)),),
        )
        for name, colour in (("Wall", "#808080"), ("Floor", "#101010"))
    )
    path = tmp_path / "small.tessel"
    save_job(path, Job(id="j", name="Small", surfaces=surfaces), {})
    return path


def said(capsys, *arguments):
    code = main([str(argument) for argument in arguments])
    out, err = capsys.readouterr()
    return code, out, err


def test_list_names_surfaces_with_their_size(job_file, capsys):
    code, out, _ = said(capsys, "list", job_file, "--json")
    assert code == 0
    told = json.loads(out)
    assert [surface["name"] for surface in told["surfaces"]] == ["Wall", "Floor"]


def test_check_tells_how_bad_each_finding_is(job_file, capsys):
    code, out, _ = said(capsys, "check", job_file, "--json")
    findings = json.loads(out)["findings"]
    assert {finding["severity"] for finding in findings} <= {"ok", "caution", "fault"}
    dark = next(f for f in findings if f["surface"] == "Floor" and f["check"] == "base-colour")
    light = next(f for f in findings if f["surface"] == "Wall" and f["check"] == "base-colour")
    assert (dark["severity"], light["severity"]) == ("fault", "ok")
    assert code in {0, 1}


@pytest.mark.parametrize("px", [64, 128])
def test_export_writes_the_size_that_was_asked(job_file, tmp_path, capsys, px):
    out = tmp_path / "maps"
    code, told, _ = said(capsys, "export", job_file, "--surface", "Wall", "--px", px, "--out", out, "--json")
    assert code == 0
    maps = json.loads(told)["maps"]
    assert sorted(maps.values()) == sorted(path.name for path in out.iterdir())
    import png

    width, height, _rows, _about = png.Reader(bytes=(out / maps["base_colour"]).read_bytes()).read()
    assert (width, height) == (px, px // 2)


def test_two_exports_are_the_same_bytes(job_file, tmp_path, capsys):
    for name in ("a", "b"):
        said(capsys, "export", job_file, "--surface", "Floor", "--px", 64, "--out", tmp_path / name)
    for path in (tmp_path / "a").iterdir():
        assert path.read_bytes() == (tmp_path / "b" / path.name).read_bytes()


def test_a_surface_that_is_not_there_is_told_with_those_that_are(job_file, tmp_path, capsys):
    code, _, err = said(capsys, "export", job_file, "--surface", "Roof", "--out", tmp_path / "out")
    assert code == 2
    assert "Roof" in err
    assert len(err.strip().splitlines()) == 1
    assert not (tmp_path / "out").exists()


def test_demo_writes_a_job_that_opens(tmp_path, capsys):
    path = tmp_path / "demo.tessel"
    code, _, _ = said(capsys, "demo", "--out", path)
    assert code == 0
    opened = load_job(path)
    assert opened.job.name
    assert set(opened.previews) == {surface.id for surface in opened.job.surfaces}


def test_a_job_with_something_unknown_is_listed_and_checked(job_file, capsys, tmp_path):
    job = load_job(job_file).job
    tree = json.loads(encode_job(job))
    layers = tree["surfaces"][0]["layers"]
    layers.append({**layers[0], "id": "odd", "name": "Odd", "what": {"type": "hologram", "depth": 3}})

    def put(parts):
        parts["job.json"] = json.dumps(tree).encode()

    rewrite(job_file, put)
    assert isinstance(load_job(job_file).job.surfaces[0].layers[1].what, UnknownWhat)
    code, out, _ = said(capsys, "list", job_file)
    assert code == 0
    assert "Wall" in out
    code, _, err = said(capsys, "export", job_file, "--surface", "Wall", "--px", 32, "--out", tmp_path / "maps")
    assert code == 0, err
    assert json.loads(encode_job(load_job(job_file).job)) == tree


def test_a_job_of_a_later_format_is_refused_in_one_sentence(job_file, capsys):
    def newer(parts):
        parts["job.json"] = json.dumps({**json.loads(parts["job.json"]), "format": 99}).encode()

    rewrite(job_file, newer)
    code, _, err = said(capsys, "list", job_file)
    assert code == 2
    assert len(err.strip().splitlines()) == 1


@pytest.mark.parametrize("verb", ["list", "check"])
def test_a_file_that_is_no_job_is_refused_in_one_sentence(tmp_path, capsys, verb):
    path = tmp_path / "odd.tessel"
    path.write_bytes(b"nothing of the kind")
    code, _, err = said(capsys, verb, path)
    assert code == 2
    assert "odd.tessel" in err
    assert len(err.strip().splitlines()) == 1
    assert path.read_bytes() == b"nothing of the kind"


def test_a_place_that_cannot_be_written_is_told(job_file, tmp_path, capsys):
    target = tmp_path / "taken"
    target.write_text("a file")
    code, _, err = said(capsys, "export", job_file, "--surface", "Wall", "--px", 32, "--out", target)
    assert code == 2
    assert len(err.strip().splitlines()) == 1
    assert target.read_text() == "a file"


def test_the_version_is_told(capsys):
    with pytest.raises(SystemExit) as caught:
        main(["--version"])
    assert caught.value.code == 0
    assert capsys.readouterr().out.strip()[0].isdigit()
