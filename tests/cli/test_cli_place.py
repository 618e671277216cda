"""place and lay on the command line."""

import json

import pytest
import trimesh

from brave_tessel.cli.main import main
from brave_tessel.core.job.document import Job
from brave_tessel.formats.job_file import load_job, save_job
from tests.core.place.scenes import brick, room


def run(capsys, *arguments):
    code = main([str(a) for a in arguments])
    out, err = capsys.readouterr()
    return code, out, err


@pytest.fixture
def model(tmp_path):
    scene = trimesh.Scene()
    scene.add_geometry(trimesh.creation.box((0.9, 2.03, 0.04)), node_name="Door", geom_name="d")
    scene.add_geometry(trimesh.creation.box((4, 3, 0.2)), node_name="Wall", geom_name="w")
    path = tmp_path / "house.obj"
    path.write_text(scene.export(file_type="obj"))
    glb = tmp_path / "house.glb"
    glb.write_bytes(scene.export(file_type="glb"))
    return glb


def test_a_model_is_placed_and_told(model, tmp_path, capsys):
    code, out, _ = run(capsys, "place", model, "--out", tmp_path / "a.tessel", "--json")
    assert code == 0
    told = json.loads(out)
    assert (told["units"], told["sure"], told["up"]) == ("m", True, "y")
    sizes = {part["name"]: part["size_mm"] for part in told["parts"]}
    assert sizes["Door"] == pytest.approx([900, 40, 2030], abs=0.01)
    assert sizes["Wall"] == pytest.approx([4000, 200, 3000], abs=0.01)
    assert all(part["triangles"] == 12 and part["mended"] == [] for part in told["parts"])
    assert [part.name for part in load_job(tmp_path / "a.tessel").job.scene.parts] == ["house", "Door", "Wall"]


def test_units_that_are_asked_for_are_used(model, tmp_path, capsys):
    code, out, _ = run(capsys, "place", model, "--units", "ft", "--out", tmp_path / "a.tessel", "--json")
    told = json.loads(out)
    assert code == 0
    assert (told["units"], told["why"]) == ("ft", "as was asked for")
    assert told["parts"][1]["size_mm"][0] == pytest.approx(4 * 304.8, abs=0.01)


def test_holes_are_told_and_mended_where_asked(tmp_path, capsys):
    mesh = trimesh.creation.box((4, 3, 0.2))
    mesh.update_faces([k > 1 for k in range(12)])
    path = tmp_path / "hole.stl"
    mesh.export(path)
    _, out, _ = run(capsys, "place", path, "--out", tmp_path / "a.tessel", "--json")
    (part,) = json.loads(out)["parts"]
    assert part["faults"] == ["1 hole"]
    assert part["mended"] == []
    _, out, _ = run(capsys, "place", path, "--mend", "--out", tmp_path / "b.tessel", "--json")
    (part,) = json.loads(out)["parts"]
    assert part["mended"] == ["holes"]
    assert part["triangles"] == 12


def test_it_is_added_to_a_job(model, tmp_path, capsys):
    save_job(tmp_path / "room.tessel", room(brick()), {})
    code, out, _ = run(capsys, "place", model, "--job", tmp_path / "room.tessel", "--out", tmp_path / "b.tessel")
    assert code == 0
    assert "Door" in out
    names = {part.name for part in load_job(tmp_path / "b.tessel").job.scene.parts}
    assert {"north", "Door"} <= names


@pytest.fixture
def built(tmp_path):
    path = tmp_path / "room.tessel"
    save_job(path, room(brick()), {})
    return path


def test_a_surface_is_laid_from_a_datum(built, tmp_path, capsys):
    out_path = tmp_path / "b.tessel"
    code, out, _ = run(
        capsys, "lay", built, "--part", "north", "--surface", "Brick", "--laying", "flat", "--faces", "dado",
        "--datum", "0,0,13mm", "--set", "turn=0", "--set", "factor=2", "--out", out_path, "--json",
    )  # fmt: skip
    assert code == 0
    told = json.loads(out)
    assert (told["laying"], told["datum_mm"]) == ("flat", [0, 0, 13])
    # The dado of 4500 by 1248 less the window's foot, from 13 mm below to 1235 above, at twice the size.
    assert told["area_m2"] == pytest.approx((4500 * 1248 - 900 * (1248 - 936)) / 1e6, abs=1e-4)
    assert told["places_mm"]["low"] == pytest.approx([0, -6.5], abs=1e-3)
    assert told["places_mm"]["high"] == pytest.approx([2250, 617.5], abs=1e-3)
    job = load_job(out_path).job
    laid = next(one for one in job.scene.part("north").laid if one.groups == ("dado",))
    assert laid.laying.values["factor"] == 2.0


@pytest.mark.parametrize(
    ("arguments", "said"),
    [
        (["--part", "south", "--surface", "Brick"], "north"), (["--part", "north", "--surface", "Slate"], "Brick"),
        (["--part", "north", "--surface", "Brick", "--laying", "spiral"], "flat"),
        (["--part", "north", "--surface", "Brick", "--datum", "1,2"], "4500,0,0"),
        (["--part", "north", "--surface", "Brick", "--faces", "roof"], "front"),
        (["--part", "north", "--surface", "Brick", "--set", "spin=3"], "turn"),
        (["--part", "north", "--surface", "Brick", "--set", "factor=0"], "0.001"),
    ],
)  # fmt: skip
def test_what_is_not_there_is_told_with_what_is(built, tmp_path, capsys, arguments, said):
    code, _, err = run(capsys, "lay", built, *arguments, "--out", tmp_path / "b.tessel")
    assert code == 2
    assert said in err
    assert err.count("\n") == 1
    assert not (tmp_path / "b.tessel").exists()


def test_no_model_is_told(tmp_path, capsys):
    (tmp_path / "a.glb").write_bytes(b"glTF but no")
    code, _, err = run(capsys, "place", tmp_path / "a.glb", "--out", tmp_path / "b.tessel")
    assert code == 2
    assert "a.glb" in err
    assert Job().scene.parts == ()
