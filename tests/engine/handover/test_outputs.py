"""What a delivery writes: read back by other libraries, each map holds what was worked out."""

import io
from dataclasses import replace

import msgspec
import numpy as np
import png
import pytest
from PIL import Image

from brave_tessel.core.buildup.water import baked
from brave_tessel.core.colour import decode_srgb
from brave_tessel.core.errors import CancelledError, CannotWriteError
from brave_tessel.core.job.document import DeliveryMap
from brave_tessel.core.maps import MapKind
from brave_tessel.engine.handover.deliver import deliver, outputs_of, planned_files, unknown_outputs
from brave_tessel.engine.handover.output import Writing, load_outputs
from brave_tessel.engine.handover.outputs.maps_png import export_surface, included

PX = 96


@pytest.fixture
def writing(demo_session, tmp_path):
    """A delivery of the terrazzo floor, every map there is, 16 bit."""
    job = demo_session.job
    maps = tuple(DeliveryMap(id=kind, depth=16) for kind in MapKind if kind not in {MapKind.OPACITY})
    maps = tuple(entry for entry in maps if entry.id in {m.id for m in job.deliveries[0].maps})
    delivery = msgspec.structs.replace(job.deliveries[0], px=PX, maps=maps)
    return Writing(demo_session.snapshot(), delivery, (job.surface("terrazzo-floor"),), tmp_path)


@pytest.fixture
def written(writing):
    return export_surface(writing, writing.surfaces[0])


@pytest.fixture
def worked_out(writing):
    return baked(writing.snapshot.finished(writing.surfaces[0], PX))


def read(path):
    """Codes in [0, 1] by pypng."""
    width, height, rows, about = png.Reader(bytes=path.read_bytes()).read()
    codes = np.vstack([np.asarray(row, np.float64) for row in rows]).reshape(height, width, about["planes"])
    return codes / (2 ** about["bitdepth"] - 1), about


@pytest.mark.parametrize("kind", [MapKind.ROUGHNESS, MapKind.METALNESS, MapKind.AMBIENT_OCCLUSION])
def test_numbers_are_written_as_they_are(written, worked_out, kind):
    codes, about = read(written[kind])
    assert about["planes"] == 1
    assert np.abs(codes[..., 0] - worked_out[kind]).max() < 1e-4


def test_base_colour_is_coded_as_srgb(written, worked_out):
    codes, _ = read(written[MapKind.BASE_COLOUR])
    assert np.abs(decode_srgb(codes) - worked_out[MapKind.BASE_COLOUR]).max() < 1e-3


def test_normals_point_up_in_the_green(written, worked_out):
    codes, _ = read(written[MapKind.NORMAL])
    assert np.abs(codes * 2 - 1 - worked_out[MapKind.NORMAL]).max() < 2e-3
    assert np.linalg.norm(codes * 2 - 1, axis=2) == pytest.approx(1, abs=2e-3)


def test_heights_come_back_in_mm(written, worked_out):
    codes, _ = read(written[MapKind.HEIGHT])
    note = Image.open(io.BytesIO(written[MapKind.HEIGHT].read_bytes())).text
    told = " ".join(note.values())
    low, high = (float(told.split(f'"height_{end}_mm": ')[1].split(",")[0].rstrip("}")) for end in ("black", "white"))
    back = low + codes[..., 0] * (high - low)
    assert np.abs(back - worked_out[MapKind.HEIGHT]).max() < 1e-3


def test_the_real_size_is_in_every_file(written, writing):
    surface = writing.surfaces[0]
    for path in written.values():
        with Image.open(path) as picture:
            width, height = picture.size
            dpi = picture.info["dpi"]
        # PNG counts whole pixels a metre.
        assert width / dpi[0] * 25.4 == pytest.approx(surface.width_mm, rel=0.006)
        assert height / dpi[1] * 25.4 == pytest.approx(surface.height_mm, rel=0.006)


def test_what_is_planned_is_what_is_written(writing):
    planned = planned_files(writing.snapshot.job, writing.delivery, writing.surfaces)
    written = deliver(writing)
    assert [path.name for path in written] == [entry.name for entry in planned]
    assert all(path.is_file() for path in written)


def test_every_output_has_a_word_a_tip_and_plans_before_it_writes(demo):
    for id, output in load_outputs().items():
        assert output.id == id
        assert output.label
        assert output.tip
        delivery = demo.job.deliveries[0]
        for planned in output.planned(demo.job, delivery, demo.job.surfaces):
            assert planned.name
            assert planned.about_bytes > 0


def test_an_unknown_output_is_named_and_left_out(writing):
    delivery = msgspec.structs.replace(writing.delivery, outputs=("maps-png", "of-the-future"))
    assert unknown_outputs(delivery) == ["of-the-future"]
    assert [output.id for output in outputs_of(delivery)] == ["maps-png"]


def test_a_map_of_an_unknown_kind_is_left_out(writing):
    odd = DeliveryMap(id="subsurface", depth=8)
    delivery = msgspec.structs.replace(writing.delivery, maps=(*writing.delivery.maps, odd))
    job, surfaces = writing.snapshot.job, writing.surfaces
    assert included(delivery, job, *surfaces) == included(writing.delivery, job, *surfaces)
    assert odd not in included(delivery, job, *surfaces)


def test_stopped_between_files_leaves_whole_files_only(writing):
    # Worked out before, so that stopping comes among the files.
    writing.snapshot.finished(writing.surfaces[0], PX)
    few = iter([True, True, False, False, False, False, False, False])
    stopped = changed(writing, current=lambda: next(few))
    with pytest.raises(CancelledError):
        export_surface(stopped, writing.surfaces[0])
    for path in writing.folder.iterdir():
        with Image.open(path) as picture:
            picture.verify()
    assert len(list(writing.folder.iterdir())) < len(writing.delivery.maps)


def changed(writing, **change):
    return replace(writing, **change)


def test_progress_never_goes_back_and_ends_whole(writing):
    shares = []
    told = changed(writing, progress=lambda what, share: shares.append(share))
    deliver(told)
    whole = [share for share in shares if share >= 0.3]
    assert shares[-1] == pytest.approx(1.0)
    assert all(0 <= share <= 1 for share in shares)
    assert whole


def test_a_disk_that_is_too_full_is_told_before_anything_is_written(writing, monkeypatch):
    from brave_tessel.engine.handover.outputs import maps_png

    monkeypatch.setattr(maps_png.shutil, "disk_usage", lambda _place: type("Disk", (), {"free": 10})())
    with pytest.raises(CannotWriteError) as caught:
        export_surface(writing, writing.surfaces[0])
    assert "full" in str(caught.value.value)
    assert not list(writing.folder.iterdir())
