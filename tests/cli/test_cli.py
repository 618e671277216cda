"""The command line as a script would use it."""

import json
import subprocess
import sys

import msgspec
import numpy as np
import pytest
import trimesh
from PIL import Image
from skimage import data

from brave_tessel.cli.main import main
from brave_tessel.core.repeat.meters import read_seam
from brave_tessel.formats.job_file import save_job


@pytest.fixture(scope="module")
def job_file(demo, tmp_path_factory):
    path = tmp_path_factory.mktemp("cli") / "demo.tessel"
    # Those that lie in the scene; the others take long to check and say nothing new of the command.
    job = msgspec.structs.replace(demo.job, surfaces=demo.job.surfaces[:3])
    save_job(path, job, demo.blobs)
    return path


@pytest.fixture
def gravel(tmp_path):
    path = tmp_path / "gravel.png"
    Image.fromarray(data.gravel()).save(path)
    return path


def test_repeat_makes_a_photo_tile(gravel, tmp_path, capsys):
    out = tmp_path / "maps"
    assert main(["repeat", str(gravel), "--size", "600x600mm", "--out", str(out), "--json"]) == 0
    result = json.loads(capsys.readouterr().out)
    assert result["repeat_mm"] == [552.0, 552.0]
    assert result["px"] == [471, 471]
    assert set(result["maps"]) == {"base_colour", "height", "normal", "roughness", "metalness", "ambient_occlusion"}
    assert result["maps"]["base_colour"] == "gravel_base_colour.png"
    assert max(result["seam"].values()) <= 1.3
    assert 0 <= result["repetition"] <= 1
    picture = np.asarray(Image.open(out / "gravel_base_colour.png").convert("L")) / 255
    for axis in (0, 1):
        assert read_seam(picture.astype(np.float32), axis=axis, structured=True).closes
    with Image.open(out / "gravel_base_colour.png") as image:
        assert json.loads(image.info["Repeat"])["width_m"] == pytest.approx(0.552)


def test_maps_are_named_by_the_photo_as_it_is(gravel, tmp_path, capsys):
    photo = gravel.rename(gravel.with_name("IMG_1234 {wall}.png"))
    assert (
        main(["repeat", str(photo), "--size", "600x600mm", "--px", "64", "--out", str(tmp_path / "o"), "--json"]) == 0
    )
    maps = json.loads(capsys.readouterr().out)["maps"]
    assert maps["height"] == "IMG_1234 {wall}_height.png"
    assert (tmp_path / "o" / maps["height"]).is_file()


def test_demo_list_check_and_export(job_file, tmp_path, capsys):
    assert main(["list", str(job_file), "--json"]) == 0
    listed = json.loads(capsys.readouterr().out)
    assert [s["name"] for s in listed["surfaces"]][:2] == ["Limewashed dado tile", "Limewash on render"]
    wall = next(p for p in listed["parts"] if p["id"] == "north-wall")
    assert {laid["surface"]: laid["whole_courses"] for laid in wall["laid"]}["dado"] == 16
    assert main(["check", str(job_file), "--json"]) == 0
    findings = json.loads(capsys.readouterr().out)["findings"]
    assert {f["severity"] for f in findings if f["check"] == "seam"} == {"ok"}
    assert (
        main(
            [
                "export",
                str(job_file),
                "--surface",
                "limewashed dado tile",
                "--px",
                "128",
                "--out",
                str(tmp_path),
                "--json",
            ]
        )
        == 0
    )
    assert len(json.loads(capsys.readouterr().out)["maps"]) == 6
    assert main(["scene", str(job_file), "--px", "64", "--out", str(tmp_path / "scene.glb")]) == 0
    assert (tmp_path / "scene.glb").stat().st_size > 10_000


def test_plain_words_without_json(job_file, capsys):
    assert main(["list", str(job_file)]) == 0
    assert "Saltreach Tide Baths" in capsys.readouterr().out
    assert main(["check", str(job_file)]) == 0
    assert "Closes on itself" in capsys.readouterr().out


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (["export", "JOB", "--surface", "marble", "--out", "OUT"], "Limewashed dado tile"),
        (["list", "none.tessel"], "no such file"),
        (["repeat", "PHOTO", "--size", "wide", "--out", "OUT"], "600x400mm"),
        (["repeat", "PHOTO", "--size", "600x400mm", "--overlap", "590", "--out", "OUT"], "Overlap"),
        (["repeat", "JOB", "--size", "600x400mm", "--out", "OUT"], "cannot be read"),
        (["export", "JOB", "--surface", "dado", "--px", "99999", "--out", "OUT"], "16384"),
    ],
)
def test_bad_input_is_one_sentence_and_2(arguments, words, job_file, gravel, tmp_path, capsys):
    filled = [{"JOB": str(job_file), "PHOTO": str(gravel), "OUT": str(tmp_path / "o")}.get(a, a) for a in arguments]
    assert main(filled) == 2
    told = capsys.readouterr()
    assert words in told.err
    assert "Traceback" not in told.err
    assert told.err.count("\n") == 1
    assert told.out == ""


def test_it_runs_as_a_module():
    done = subprocess.run(
        [sys.executable, "-m", "brave_tessel.cli", "--version"], capture_output=True, text=True, check=True
    )
    assert done.stdout.startswith("0.")


@pytest.mark.parametrize("method", ["smooth-edges", "regrow", "courses"])
def test_every_method_on_the_command_line(method, gravel, tmp_path, capsys):
    from tests.core.repeat.test_methods import wall

    photo = gravel
    if method == "courses":
        photo = tmp_path / "wall.png"
        Image.fromarray(np.rint(np.clip(wall("half", turn=1.0), 0, 1) * 255).astype(np.uint8)).save(photo)
    arguments = [
        "repeat",
        str(photo),
        "--size",
        "450x350mm",
        "--method",
        method,
        "--px",
        "256",
        "--out",
        str(tmp_path / "o"),
        "--json",
    ]
    assert main([*arguments, "--unit", "75mm"]) == 0
    result = json.loads(capsys.readouterr().out)
    assert result["method"] == method
    assert len(result["maps"]) == 6
    if method == "courses":
        # The picture said 37.5 mm; the known course of 75 mm doubles everything.
        assert result["unit_mm"] == pytest.approx(75, abs=0.5)
        assert result["length_mm"] == pytest.approx(225, abs=1)
        assert result["courses"] == 8
        assert result["repeat_mm"] == pytest.approx([675, 600], abs=3)


def test_no_beat_is_told(gravel, tmp_path, capsys):
    assert (
        main(["repeat", str(gravel), "--size", "600x600mm", "--method", "courses", "--out", str(tmp_path / "o")]) == 2
    )
    assert "regrow" in capsys.readouterr().err


def test_gather_groups_a_folder(tmp_path, capsys):
    Image.fromarray(data.gravel()).save(tmp_path / "gravel_rough.png")
    Image.fromarray(np.stack([data.gravel(), data.grass(), data.brick()], 2)).save(tmp_path / "gravel_albedo.png")
    (tmp_path / "broken_normal.png").write_bytes(b"nothing")
    assert main(["gather", str(tmp_path), "--json"]) == 0
    told = capsys.readouterr()
    sets = json.loads(told.out)["sets"]
    assert [(s["name"], sorted(m["role"] for m in s["maps"])) for s in sets] == [
        ("Gravel", ["base_colour", "roughness"])
    ]
    assert sets[0]["missing"] == ["normal", "height"]
    assert "broken_normal.png" in told.err
    assert main(["gather", str(tmp_path)]) == 0
    assert "its name says roughness" in capsys.readouterr().out


def test_straighten_gives_the_aspect_of_the_view(tmp_path, capsys):
    from brave_tessel.demo.camera import View, photograph, seen_corners
    from brave_tessel.formats.images import encode_png
    from brave_tessel.formats.real_size import real_size

    corners = seen_corners((900, 600), picture=(1000, 750), focal_px=1100, distance_mm=1500, yaw=20, pitch=-15, roll=3)
    panel = np.full((600, 900, 3), 90, np.uint8)
    panel[:, 440:460] = 220
    photo = tmp_path / "p.png"
    photo.write_bytes(encode_png(photograph(panel, View(1000, 750, corners, (0.2, 0.2), 0.0, 0.0, 5))))
    text = ";".join(f"{x},{y}" for x, y in corners)
    out = tmp_path / "flat.png"
    assert main(["straighten", str(photo), "--corners", text, "--width", "90 cm", "--out", str(out), "--json"]) == 0
    result = json.loads(capsys.readouterr().out)
    assert result["aspect"] == pytest.approx(1.5, rel=1e-3)
    assert result["size_mm"] == pytest.approx([900, 600], rel=1e-3)
    assert real_size(out.read_bytes()) == pytest.approx((900, 600), rel=1e-3)
    row = np.asarray(Image.open(out).convert("L")).astype(float)[result["px"][1] // 2]
    assert np.argmax(row) / row.size == pytest.approx(0.5, abs=0.02)
    assert result["by"] == "view"
    assert 0 < result["uncertain"] < 0.2
    film = f"{1100 / 1250 * 43.2666:.3f}"
    asked = ["straighten", str(photo), "--corners", text, "--height", "600mm", "--out", str(out), "--json"]
    assert main([*asked, "--focal", film]) == 0
    result = json.loads(capsys.readouterr().out)
    assert result["size_mm"] == pytest.approx([900, 600], rel=1e-3)
    assert result["by"] == "focal length"
    assert result["doubt"] is None
    assert main([*asked, "--width", "1200mm"]) == 0
    assert json.loads(capsys.readouterr().out)["aspect"] == 2
    assert main(["straighten", str(photo), "--corners", "1,2;3", "--out", str(out)]) == 2
    assert "four corners" in capsys.readouterr().err


def test_repeat_tells_every_meter(gravel, tmp_path, capsys):
    assert main(["repeat", str(gravel), "--size", "600x600mm", "--out", str(tmp_path / "m"), "--json"]) == 0
    result = json.loads(capsys.readouterr().out)
    assert {"base_colour", "height", "normal", "roughness"} == set(result["seams"])
    assert all(seam["closes"] for seam in result["seams"].values())
    assert 0.7 < result["spacing"]["x"] < 1.4
    assert 0 <= result["drift"] < 0.5


def test_gather_tells_of_meshes_and_of_what_it_passes_over(tmp_path, capsys):
    u, v = np.meshgrid(np.linspace(0, 800, 9), np.linspace(0, 600, 7))
    places = np.column_stack([u.ravel(), v.ravel(), 10 * np.sin(u / 200).ravel()])
    corners = [[9 * j + i, 9 * j + i + 1, 9 * j + i + 10] for j in range(6) for i in range(8)]
    corners += [[9 * j + i, 9 * j + i + 10, 9 * j + i + 9] for j in range(6) for i in range(8)]
    trimesh.Trimesh(places, corners, process=False).export(tmp_path / "rubble_wall.ply")
    (tmp_path / "notes.txt").write_text("none")
    (tmp_path / "torn.obj").write_text("v 1 2")
    assert main(["gather", str(tmp_path), "--json"]) == 0
    said = capsys.readouterr()
    (mesh,) = json.loads(said.out)["meshes"]
    assert (mesh["name"], mesh["file"], mesh["unit_told"]) == ("Rubble wall", "rubble_wall.ply", False)
    assert sorted(mesh["size_mm"]) == pytest.approx([600, 800], rel=0.02)
    assert "notes.txt" in said.err
    assert "torn.obj" in said.err
    assert main(["gather", str(tmp_path)]) == 0
    assert "(rubble_wall.ply): base colour, height, normal" in capsys.readouterr().out


def test_gather_reads_a_folder_of_frames(tmp_path, capsys):
    rng = np.random.default_rng(2)
    frames = []
    for number, angle in enumerate(np.linspace(0, 2 * np.pi, 8, endpoint=False)):
        Image.fromarray(rng.integers(80, 90, (24, 32, 3)).astype(np.uint8)).save(tmp_path / f"{number}.png")
        frames.append({"file": f"{number}.png", "light": [float(np.cos(angle)), float(np.sin(angle)), 1.0]})
    (tmp_path / "lights.json").write_text(json.dumps({"size_mm": [80, 60], "frames": frames}))
    assert main(["gather", str(tmp_path), "--json"]) == 0
    (scan,) = json.loads(capsys.readouterr().out)["scans"]
    assert (scan["frames"], scan["size_mm"]) == (8, [80.0, 60.0])
    (tmp_path / "lights.json").write_text("{}")
    assert main(["gather", str(tmp_path), "--json"]) == 2
    assert "lights.json" in capsys.readouterr().err


def test_recipes_are_listed_and_written_the_same_in_another_process(tmp_path, capsys):
    assert main(["recipe", "--list", "--json"]) == 0
    told = json.loads(capsys.readouterr().out)["recipes"]
    assert len(told) >= 9
    assert told[0]["dials"]
    one, two = tmp_path / "one", tmp_path / "two"
    arguments = ["recipe", "wet shingle bed", "--px", "128", "--seed", "4", "--set", "large/size=55mm"]
    assert main([*arguments, "--out", str(one), "--json"]) == 0
    made = json.loads(capsys.readouterr().out)
    assert made["repeat_mm"] == [600.0, 600.0]
    subprocess.run(
        [sys.executable, "-m", "brave_tessel.cli", *arguments, "--out", str(two)], check=True, capture_output=True
    )
    for name in made["maps"].values():
        assert (one / name).read_bytes() == (two / name).read_bytes()


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (["recipe", "moon dust", "--out", "x"], "no recipe"),
        (["recipe", "Seat cloth", "--out", "x", "--set", "size"], "dial"),
        (["recipe", "Seat cloth", "--out", "x", "--set", "weight=3"], "no dial"),
        (["recipe", "Seat cloth"], "folder"),
        (["recipe", "Seat cloth", "--out", "x", "--set", "threads/size=-4"], "cannot be"),
    ],
)
def test_bad_recipes_are_told(arguments, words, capsys):
    assert main(arguments) == 2
    assert words in capsys.readouterr().err
