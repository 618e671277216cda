"""A sheet of bands: packed without overlap, as large as can be, padded with what lies round each band."""

import json
import random

import msgspec
import numpy as np
import pytest
from PIL import Image

from brave_tessel.core.handover.packing import packed
from brave_tessel.core.job.layers import Band
from brave_tessel.engine.handover.output import Writing
from brave_tessel.engine.handover.outputs.band_sheet import BandSheet, plan_of

PX = 256


@pytest.mark.parametrize("seed", range(8))
def test_rectangles_do_not_overlap_and_stay_on_the_sheet(seed):
    luck = random.Random(seed)
    sizes = [(luck.randint(3, 90), luck.randint(3, 90)) for _ in range(30)]
    side = 400
    spots = packed(sizes, side, side)
    assert spots is not None
    taken = np.zeros((side, side), int)
    for (x, y), (wide, tall) in zip(spots, sizes, strict=True):
        assert x >= 0
        assert y >= 0
        assert x + wide <= side
        assert y + tall <= side
        taken[y : y + tall, x : x + wide] += 1
    assert taken.max() == 1


def test_equal_squares_fill_a_sheet_to_the_last_pixel():
    assert packed([(25, 25)] * 16, 100, 100) is not None
    assert packed([(25, 25)] * 17, 100, 100) is None


@pytest.mark.parametrize("seed", range(4))
def test_little_room_is_lost(seed):
    luck = random.Random(seed)
    sizes = [(luck.randint(20, 60), luck.randint(5, 25)) for _ in range(120)]
    area = sum(wide * tall for wide, tall in sizes)
    side = next(n for n in range(50, 1000) if packed(sizes, n, n) is not None)
    assert area / side**2 > 0.8


BANDS = (
    Band(id="a", name="Skirting", low=100.0, high=204.0),
    Band(id="b", name="Rail", low=300.0, high=360.0),
    Band(id="c", name="Over the edge", low=0.0, high=80.0),
)


@pytest.fixture
def writing(demo_session, tmp_path):
    job = demo_session.job
    surface = msgspec.structs.replace(job.surface("terrazzo-floor"), bands=BANDS)
    delivery = msgspec.structs.replace(job.deliveries[0], px=PX, outputs=("band-sheet",))
    return Writing(demo_session.snapshot(), delivery, (surface,), tmp_path)


def test_what_is_planned_is_what_is_written(writing):
    planned = [file.name for file in BandSheet().planned(writing.snapshot.job, writing.delivery, writing.surfaces)]
    assert sorted(path.name for path in BandSheet().write(writing)) == sorted(planned)


def test_every_band_is_named_with_its_size(writing):
    paths = BandSheet().write(writing)
    told = json.loads(next(path for path in paths if path.suffix == ".json").read_text())
    assert [one["name"] for one in told["bands"]] == ["Skirting", "Rail", "Over the edge"]
    for one, band in zip(told["bands"], BANDS, strict=True):
        assert one["size_mm"] == [900.0, band.height]
        for pixels, mm in zip(one["size_px"], one["size_mm"], strict=True):
            assert pixels * told["mm_per_px"] == pytest.approx(mm, abs=0.51 * told["mm_per_px"])


def test_round_each_band_lies_what_lies_round_it_in_its_surface(writing):
    """Along, a band wraps; above and below the surface goes on: smaller mips mix in nothing else."""
    paths = BandSheet().write(writing)
    told = json.loads(next(path for path in paths if path.suffix == ".json").read_text())
    codes = np.asarray(Image.open(next(path for path in paths if "base_colour" in path.name)))
    pad = told["pad_px"]
    for one in told["bands"]:
        (x, y), (wide, tall) = one["lower_left_px"], one["size_px"]
        rows = slice(PX - y - tall, PX - y)
        np.testing.assert_array_equal(codes[rows, x - pad : x], codes[rows, x + wide - pad : x + wide])
        np.testing.assert_array_equal(codes[rows, x + wide : x + wide + pad], codes[rows, x : x + pad])
        above = codes[PX - y - tall - pad : PX - y - tall, x : x + wide]
        assert above.reshape(-1, 3).std() > 1.0


def test_a_job_without_bands_writes_none(demo_session, tmp_path):
    job = demo_session.job
    plain = msgspec.structs.replace(job.surface("terrazzo-floor"), bands=())
    writing = Writing(demo_session.snapshot(), job.deliveries[0], (plain,), tmp_path)
    assert BandSheet().planned(job, job.deliveries[0], (plain,)) == []
    assert BandSheet().write(writing) == []


def test_the_scale_is_the_largest_that_fits(writing):
    plan = plan_of(writing.surfaces, PX)
    larger = plan.mm_per_px * 0.97
    sizes = [(round(900 / larger) + 2 * plan.pad, round(band.height / larger) + 2 * plan.pad) for band in BANDS]
    assert packed(sizes, PX, PX) is None
