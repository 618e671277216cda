"""Stills: traced, stopped, gone on with, written; and what takes their place."""

import io

import numpy as np
import OpenEXR
import pytest
from PIL import Image

from brave_tessel.core.errors import CannotWriteError, MissingError
from brave_tessel.core.job.document import Job
from brave_tessel.core.light.lighting import Eye, Lighting, light_flat
from brave_tessel.core.light.presets import make_preset
from brave_tessel.core.light.tone import show
from brave_tessel.core.maps import MapKind
from brave_tessel.engine.intents.surfaces import new_surface
from brave_tessel.engine.pictures.placed import pictures_of
from brave_tessel.engine.session import Session
from brave_tessel.formats.job_file import OpenedJob
from brave_tessel.view3d.camera import Camera
from brave_tessel.view3d.drawn import Look, scene_light
from brave_tessel.view3d.renderer import Renderer
from brave_tessel.view3d.samples import sample, solid_camera
from brave_tessel.view3d.solids import solid_part
from brave_tessel.view3d.stills import child, make, run
from brave_tessel.view3d.stills.files import Finish, codes_of, png_of, write_still
from brave_tessel.view3d.stills.filter import evened
from brave_tessel.view3d.stills.make import Wanted, make_still, of_scene, of_surface
from brave_tessel.view3d.stills.run import Still, read_still, trace
from brave_tessel.view3d.stills.scene import write_scene
from tests.view3d.test_light_agrees import SIDE, apart, at_rest, maps_of

tracer = pytest.mark.skipif(not run.tracer_is_there(), reason="the path tracer is not installed")
TRUE = "true mid tones"


@pytest.fixture(scope="module")
def snapshot():
    job = Job(name="Two")
    command, _ = new_surface(job)
    return Session(OpenedJob(command.apply(job))).snapshot()


@pytest.fixture(scope="module")
def renderer():
    made = Renderer()
    yield made
    made.release()


@pytest.fixture
def wanted(snapshot):
    return of_surface(snapshot, snapshot.job.surfaces[0], "Ball", (48, 40), px=64)


def noisy(side=64, samples=16):
    rng = np.random.default_rng(1)
    albedo = np.full((side, side, 3), 0.5, np.float32)
    albedo[:, side // 2 :] = 0.1
    light = albedo * rng.gamma(2.0, 0.5, (side, side, 1)).astype(np.float32)
    normal = np.zeros((side, side, 3), np.float32)
    normal[..., 2] = 1
    ones = np.ones((side, side), np.float32)
    return Still(light, ones, albedo, normal, ones, samples)


@tracer
def test_a_still_is_traced_told_of_and_gone_on_with(wanted, tmp_path):
    write_scene(tmp_path, wanted.parts, wanted.pictures, wanted.look)
    told = []
    first = trace(tmp_path, 8, told.append, lambda: True)
    assert first.samples == 8
    assert first.light.shape == (40, 48, 3)
    assert told[-1].samples == 8
    assert told[0].back_end in {"compiled", "plain"}
    assert np.abs(np.linalg.norm(first.normal[20, 24])) == pytest.approx(1, abs=0.1)
    second = trace(tmp_path, 16, told.append, lambda: True)
    assert second.samples == 16
    assert read_still(tmp_path).samples == 16
    assert second.codes(TRUE).std() > 10


@tracer
def test_a_still_that_is_stopped_keeps_what_is_there(wanted, tmp_path):
    seen = []

    def current():
        return not any(progress.samples for progress in seen)

    write_scene(tmp_path, wanted.parts, wanted.pictures, wanted.look)
    still = trace(tmp_path, 80_000, seen.append, current)
    assert 8 <= still.samples < 80_000


@tracer
def test_transparent_ground_is_transparent(wanted, tmp_path):
    still, note = make_still(wanted, 8, lambda _p: None, lambda: True, folder=tmp_path, open_ground=True)
    assert still.cover[2, 2] == pytest.approx(0, abs=0.01)
    assert still.cover[20, 24] == pytest.approx(1, abs=0.01)
    picture = np.asarray(Image.open(io.BytesIO(png_of(still.smooth(), still.cover, Finish(TRUE, open_ground=True)))))
    assert picture.shape == (40, 48, 4)
    assert picture[2, 2, 3] < 5
    assert note == "" or "plain" in note


def test_without_the_tracer_the_window_s_picture_is_taken_and_said(wanted, monkeypatch):
    monkeypatch.setattr(run, "tracer_is_there", lambda: False)
    monkeypatch.setattr("brave_tessel.view3d.stills.make.REFINED", 4)
    still, note = make_still(wanted, 8, lambda _p: None, lambda: True)
    assert "refined picture" in note
    assert still.codes(TRUE).std() > 10


def test_the_compiler_library_must_be_new_enough(monkeypatch):
    monkeypatch.setattr(child.glob, "glob", lambda pattern: ["/usr/lib/x/libLLVM-15.so.1", "/usr/lib/x/libLLVM-19.so"])
    assert child.find_llvm() == "/usr/lib/x/libLLVM-19.so"
    monkeypatch.setattr(child.glob, "glob", lambda pattern: ["/usr/lib/x/libLLVM-15.so"])
    assert child.find_llvm() == ""


def test_noise_goes_and_edges_stay():
    """À-trous (Dammertz et al. 2010): noise to a third at least, the painted edge where it was."""
    still = noisy()
    even = still.smooth()
    assert even[8:-8, 8:24, 0].std() < still.light[8:-8, 8:24, 0].std() / 3
    assert even[:, 31, 0].mean() > 4 * even[:, 33, 0].mean()
    assert even[:, :30, 0].mean() == pytest.approx(still.light[:, :30, 0].mean(), rel=0.25)


def test_what_a_dark_glaze_mirrors_keeps_its_colour():
    """White light mirrored over dark green with pale flecks, each pixel a mixture: no colour comes of it."""
    rng = np.random.default_rng(3)
    pale = rng.random((48, 48, 1)) ** 3
    albedo = (pale * [0.6, 0.55, 0.5] + (1 - pale) * [0.02, 0.2, 0.1]).astype(np.float32)
    light = (0.05 * albedo + 0.35).astype(np.float32)
    up, ones = np.zeros((48, 48, 3), np.float32) + [0, 0, 1], np.ones((48, 48), np.float32)
    even = evened(light, albedo, up.astype(np.float32), ones, 0.1 * ones)
    assert np.abs(even[..., 0] / even[..., 1] - light[..., 0] / light[..., 1]).mean() < 0.15
    assert even.mean() == pytest.approx(light.mean(), rel=0.08)


def test_what_is_clean_already_is_left_alone():
    """Fine relief that no guide tells of is taken for noise only as far as there is any."""
    rng = np.random.default_rng(8)
    light = np.repeat(rng.random((40, 40, 1)), 3, 2).astype(np.float32)
    flat, ones = np.full((40, 40, 3), 0.5, np.float32), np.ones((40, 40), np.float32)
    off = [np.abs(evened(light, flat, flat, ones, noise * ones) - light).mean() for noise in (0.0, 0.001, 0.5)]
    assert off[0] < 0.01
    assert off[0] < off[1] < off[2] / 2


def test_passes_tell_how_much_noise_is_left(tmp_path):
    """The standard error of a mean of passes, against numpy's."""
    rng = np.random.default_rng(2)
    passes = rng.gamma(3, 0.2, (6, 8, 9, 3))
    rest = np.ones((8, 9, 8))
    sums = sum(np.concatenate([one, rest, one.mean(-1, keepdims=True) ** 2], -1) for one in passes)
    np.savez(tmp_path / "sum.npz", sums=sums.astype(np.float32), count=6)
    still = run.read_still(tmp_path)
    assert still.noise == pytest.approx(passes.mean(-1).std(0, ddof=1) / np.sqrt(6), rel=1e-3)
    np.savez(tmp_path / "sum.npz", sums=sums.astype(np.float32), count=1)
    assert (run.read_still(tmp_path).noise > 0).all()


def test_files_hold_what_was_made(tmp_path):
    still = noisy()
    write_still(tmp_path / "a.png", still, Finish(TRUE))
    assert np.asarray(Image.open(tmp_path / "a.png")).shape == (64, 64, 3)
    write_still(tmp_path / "b.png", still, Finish(TRUE, depth=16))
    import cv2

    assert cv2.imread(str(tmp_path / "b.png"), cv2.IMREAD_UNCHANGED).dtype == np.uint16
    write_still(tmp_path / "c.exr", still, Finish(TRUE, exposure=2.0))
    with OpenEXR.File(str(tmp_path / "c.exr"), separate_channels=True) as file:
        names = set(file.parts[0].channels)
        red = np.array(file.parts[0].channels["noisy.R"].pixels)
    assert {"R", "G", "B", "A", "albedo.R", "normal.X", "depth.Z"} <= names
    assert red == pytest.approx(2 * still.light[..., 0], rel=1e-3)
    with pytest.raises(CannotWriteError):
        write_still(tmp_path / "d.bmp", still, Finish(TRUE))


def test_a_caption_and_a_bar_of_true_length_are_written_on_it():
    dark = np.full((200, 300, 3), 0.02, np.float32)
    plain = png_of(dark, np.ones((200, 300), np.float32), Finish(TRUE))
    told = png_of(dark, np.ones((200, 300), np.float32), Finish(TRUE, caption="Tile", px_per_mm=0.5))
    one, other = (np.asarray(Image.open(io.BytesIO(data)), int) for data in (plain, told))
    differs = np.abs(other - one).max(2) > 60
    assert not differs[:150].any()
    row = differs[185:, 150:].sum(1).max()
    assert row == pytest.approx(50, abs=3), "100 mm at half a pixel a mm"


def test_a_view_that_is_not_there_is_said(demo_session):
    with pytest.raises(MissingError):
        of_scene(demo_session.snapshot(), "nowhere", (32, 32), px=32, current=lambda: True)
    with pytest.raises(MissingError):
        of_scene(
            Session(OpenedJob(Job(rig=make_preset("Overcast")))).snapshot(), "", (32, 32), px=32, current=lambda: True
        )


@tracer
@pytest.mark.parametrize(
    ("colour", "roughness", "metal"),
    [((0.3, 0.2, 0.1), 1.0, 0.0), ((0.05, 0.2, 0.12), 0.25, 0.0), ((0.9, 0.62, 0.28), 0.4, 1.0)],
)
def test_a_still_and_the_flat_board_show_a_sheet_alike(tmp_path, colour, roughness, metal):
    """Mean ΔE00 under 2 on diffuse, dielectric and metal; the tracer's own model has no multiple scattering and another
    diffuse lobe (measured over three lights: 0.7 to 2.2).
    """
    rig = make_preset("Afternoon")
    maps = maps_of(colour, roughness, metal)
    camera = Camera(target=(0.0, 0.0, 1.2), distance=80.0, azimuth=0.0, pitch=30.0, field_of_view=0.4, reach=200.0)
    part = solid_part("Plane", maps[MapKind.HEIGHT], maps.grid, "s", cells=8)
    look = Look(camera, 24, 24, light=scene_light(rig))
    seen = Wanted([part], {"s": pictures_of(b"k", maps)}, look)
    still, _ = make_still(seen, 64, lambda _p: None, lambda: True, folder=tmp_path)
    traced = np.rint(show(still.light[6:18, 6:18].reshape(-1, 3).mean(0)) * 255).astype(np.uint8)
    lighting = Lighting(rig, eye=Eye(off=30.0, side=90.0, near=0.0))
    flat = light_flat(maps, np.ones(SIDE.shape, np.float32), lighting).reshape(-1, 3).mean(0)
    both = [np.broadcast_to(np.rint(one).astype(np.uint8), (2, 2, 3)) for one in (traced, flat)]
    assert apart(*both) < 2


def see_through(kind, share):
    maps = maps_of((0.3, 0.6, 0.35), 0.3, 0.0)
    maps.maps[kind] = np.full(maps.grid.shape, share, np.float32)
    return maps


def brushed_at(angle):
    maps = maps_of((0.9, 0.62, 0.28), 0.3, 1.0)
    maps.maps[MapKind.ANISOTROPY] = np.full(maps.grid.shape, 0.8, np.float32)
    maps.maps[MapKind.ANISOTROPY_ANGLE] = np.full(maps.grid.shape, angle, np.float32)
    return maps


def both_ways(renderer, tmp_path, maps, shape, rig):
    part = solid_part(shape, maps[MapKind.HEIGHT], maps.grid, "s", cells=64)
    pictures = pictures_of(str(tmp_path).encode(), maps)
    look = Look(solid_camera(), 96, 96, light=scene_light(make_preset(rig)))
    renderer.set_parts([part])
    renderer.set_textures("s", pictures)
    still, _ = make_still(Wanted([part], {"s": pictures}, look), 32, lambda _p: None, lambda: True, folder=tmp_path)
    return at_rest(renderer, look, 24), still.codes(look.light.transform)


@tracer
@pytest.mark.parametrize("rig", ["Afternoon", "Two strips"])
@pytest.mark.parametrize(("kind", "share"), [(MapKind.TRANSMISSION, 0.9), (MapKind.TRANSLUCENCY, 0.6)])
def test_what_is_seen_through_looks_alike_in_the_scene_and_in_a_still(renderer, tmp_path, rig, kind, share):
    scene, still = (one[34:62, 34:62] for one in both_ways(renderer, tmp_path, see_through(kind, share), "Plane", rig))
    assert apart(scene, still) < 3
    solid = maps_of((0.3, 0.6, 0.35), 0.3, 0.0)
    part = solid_part("Plane", solid[MapKind.HEIGHT], solid.grid, "s", cells=8)
    renderer.set_parts([part])
    renderer.set_textures("s", pictures_of(b"solid" + str(tmp_path).encode(), solid))
    opaque = at_rest(renderer, Look(solid_camera(), 96, 96, light=scene_light(make_preset(rig))), 24)[34:62, 34:62]
    assert apart(opaque, still) > 4


@tracer
def test_brushing_runs_the_same_way_in_the_scene_and_in_a_still(renderer, tmp_path):
    """The lobes' shapes differ (the scene bends one mirror); the way they are drawn out does not."""
    for angle, way in ((0.5, "up"), (0.25, "aslant")):
        folder = tmp_path / way
        folder.mkdir()
        grey = [
            one[20:76, 20:76].mean(-1) for one in both_ways(renderer, folder, brushed_at(angle), "Drum", "Afternoon")
        ]
        brightest = [np.polyfit(np.arange(56), one.argmax(1), 1)[0] for one in grey]
        assert abs(brightest[0] - brightest[1]) < 0.05, (way, brightest)
        assert (min(brightest) < -0.05) == (way == "aslant")


def test_what_is_written_on_an_open_ground_is_seen_there():
    light, cover = np.full((120, 200, 3), 0.2, np.float32), np.zeros((120, 200), np.float32)
    finish = Finish(TRUE, open_ground=True, caption="Wet shingle", px_per_mm=0.5)
    picture = np.asarray(Image.open(io.BytesIO(png_of(light, cover, finish))))
    assert picture[:60, :, 3].max() == 0
    assert picture[95:, :90, 3].max() > 200
    assert picture[95:, 110:, 3].max() == 255
    shown = codes_of(png_of(light, cover, Finish(TRUE, open_ground=True)))
    assert shown.shape == (120, 200, 3)
    assert len(np.unique(shown)) == 2


def test_nothing_stands_on_a_stand_where_the_ground_is_open(tmp_path, monkeypatch):
    parts = sample("Ball", np.zeros(SIDE.shape, np.float32), SIDE, "s", cells=16)
    asked = []
    monkeypatch.setattr(make, "write_scene", lambda _folder, shown, *_more, **_named: asked.append(shown))
    monkeypatch.setattr(make, "trace", lambda *_asked: None)
    wanted = Wanted(parts, {}, Look(solid_camera(), 32, 32))
    for open_ground in (False, True):
        make_still(wanted, 1, lambda _p: None, lambda: True, folder=tmp_path, open_ground=open_ground)
    assert [len(shown) for shown in asked] == [2, 1]
