"""What a picture tells of its relief, held against surfaces whose relief is known.

The surfaces are the program's own stock and demo, made for other ends; the slope for a unit of tone was set on made
sheets; where a picture becomes flat colour was set by looking at these.
"""

import msgspec
import numpy as np
import pytest

from brave_tessel.core.colour import decode_srgb
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.kernels.relief import normal_of_height
from brave_tessel.core.light.lighting import Eye, Lighting, light_flat, shadow_on
from brave_tessel.core.light.presets import make_preset
from brave_tessel.core.maps import MapKind
from brave_tessel.core.recipe.materials import MATERIALS
from brave_tessel.core.relief.estimate import height_from_colour
from brave_tessel.core.relief.told import tell_relief
from brave_tessel.core.sheet import Grid
from brave_tessel.engine.intents.surfaces import surface_from_stock
from brave_tessel.engine.session import Session
from brave_tessel.formats.job_file import OpenedJob

PX = 256
LIGHTS = ("Overcast", "Low sun, raking")


def surfaces(demo):
    yield from ((Session(OpenedJob(demo.job, dict(demo.blobs))).snapshot(), one) for one in demo.job.surfaces)
    for entry in MATERIALS:
        one = surface_from_stock(Job(), entry.name)[0].item
        yield Session(OpenedJob(Job())).snapshot().with_job(Job(surfaces=(one,))), one


def photo_of(maps, rig):
    light = Lighting(make_preset(rig), eye=Eye(off=0.0, side=90.0, near=0.0))
    codes = light_flat(maps, shadow_on(maps, light), light)
    return np.asarray(decode_srgb(codes.astype(np.float32) / 255), np.float32)


def error(normals, truth):
    return float(np.degrees(np.arccos(np.clip((normals * truth).sum(-1), -1, 1))).mean())


def test_what_the_picture_tells_is_nearer_than_flat(demo):
    """Mean error of the normals over 21 surfaces under two lights; a rise of 4 mm for all gives 12.8°."""
    flat, told, worse = [], [], 0
    for snapshot, surface in surfaces(demo):
        maps = snapshot.finished(surface, PX)
        truth = maps[MapKind.NORMAL]
        for rig in LIGHTS:
            colour = photo_of(maps, rig)
            height = height_from_colour(maps.grid, colour, as_told=True)
            flat.append(error(np.float32([0, 0, 1]), truth))
            told.append(error(normal_of_height(height, maps.grid), truth))
            worse += told[-1] > flat[-1] + 1
    assert len(told) >= 40
    assert np.mean(told) < 0.95 * np.mean(flat)
    assert worse <= 4


@pytest.mark.parametrize("seed", range(6))
def test_a_print_of_other_hues_is_taken_for_flat_colour(seed):
    rng = np.random.default_rng(seed)
    fields = rng.integers(0, 5, (8, 8)).repeat(16, 0).repeat(16, 1)
    inks = rng.uniform(0.03, 0.7, (5, 3)).astype(np.float32)
    found = tell_relief(inks[fields], Grid(128, 128, 300.0, 300.0))
    assert found.sure < 0.15
    assert found.rise < 1


def test_shading_of_one_hue_is_taken_for_relief():
    y, x = np.mgrid[:128, :128] / 128 * 2 * np.pi
    tone = 0.25 * (1 + 0.4 * np.cos(6 * x) * np.cos(5 * y))
    found = tell_relief((tone[..., None] * [1.0, 0.8, 0.6]).astype(np.float32), Grid(128, 128, 300.0, 300.0))
    assert found.sure > 0.8
    assert 0.2 < found.rise < 5
    assert found.broad == pytest.approx(2 * 300 / np.hypot(6, 5), rel=0.2)


@pytest.mark.parametrize("hue", [(1.0, 1.0, 1.0), (1.0, 0.95, 0.9)])
def test_of_one_hue_it_does_not_claim_to_know(hue):
    """Grey print on grey and shading look alike: 50 of 50 prints in greys are taken for relief, and that is said."""
    rng = np.random.default_rng(7)
    print_ = np.where(rng.random((16, 16)) > 0.5, 0.4, 0.12).repeat(8, 0).repeat(8, 1)
    found = tell_relief((print_[..., None] * hue).astype(np.float32), Grid(128, 128, 300.0, 300.0))
    assert found.one_hue
    many = print_[..., None] * [1.0, 0.8, 0.6] + 0.05 * rng.random((16, 16, 3)).repeat(8, 0).repeat(8, 1)
    assert not tell_relief(many.astype(np.float32), Grid(128, 128, 300.0, 300.0)).one_hue


def test_it_tells_the_same_however_often_the_sheet_is_laid(demo):
    """The picture of one repeat counts, and its size in pixels hardly does."""
    source = next(one for one in demo.job.sources if one.id == "render-scan")
    source = msgspec.structs.replace(source, height=Setting(op="estimate.height", values={"as_told": True}))
    snapshot = Session(OpenedJob(demo.job, dict(demo.blobs))).snapshot()
    job = msgspec.structs.replace(demo.job, sources=(source,), surfaces=())
    planner, run = snapshot.with_job(job).planner(), snapshot.with_job(job).evaluation()
    spread = []
    for px in (256, 512):
        laid = planner.evened(source, px)
        spread.append(float(run.value(planner.estimated(source, None, laid, "x"))[MapKind.HEIGHT].std()))
    assert spread[0] == pytest.approx(spread[1], rel=0.15)
    assert spread[0] > 0.05


def test_a_photo_that_is_gathered_takes_what_it_tells(session, photo_file):
    source = session.intake().read_source(photo_file)
    assert source.height.values == {"as_told": True}
