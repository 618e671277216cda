"""A mask or ID picture in a where-rule is used exactly as the file has it."""

import msgspec
import numpy as np
import pytest

from brave_tessel.core.buildup.kinds.plain import PlainWhat
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, Rule, Surface
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.sheet import Grid
from brave_tessel.engine.intents.layers import read_picture
from brave_tessel.engine.pictures.probe import id_at
from brave_tessel.engine.session import Session
from brave_tessel.formats.images import encode_png
from brave_tessel.formats.job_file import OpenedJob


@pytest.fixture
def laid(tmp_path):
    """A session, and a function that lays a plain layer by a rule on a picture of some codes."""
    session = Session(OpenedJob(Job()))

    def lay(codes, name, op, *, unframed=True, **values):
        path = tmp_path / name
        path.write_bytes(encode_png(codes))
        source = session.intake().read_source(path)
        role = "mask" if "mask" in name else source.role
        source = msgspec.structs.replace(source, role=role)
        rule = Rule(id="r", rule=Setting(op=op, values={"source": source.id, **values}))
        layer = Layer(id="l", name="L", what=PlainWhat(), where=(rule,))
        surface = Surface(id="s", name="S", width_mm=400.0, height_mm=300.0, layers=(layer,))
        snapshot = session.snapshot().with_job(Job(sources=(source,), surfaces=(surface,)))
        return snapshot, surface, layer, rule

    return lay


def cover(snapshot, layer, grid):
    planner = snapshot.planner()
    return snapshot.evaluation().value(planner.coverage(layer, planner.bare(grid, "l"), grid))


def test_a_mask_covers_what_it_says_at_every_code(laid):
    """All 256 codes, without a size, without a mend, without a tone."""
    codes = np.arange(48 * 64).reshape(48, 64).astype(np.uint8)
    snapshot, _, layer, _ = laid(codes, "wear_mask.png", "where.picture")
    assert np.abs(cover(snapshot, layer, Grid(64, 48, 400.0, 300.0)) * 255 - codes).max() < 0.01


def test_a_mask_of_sixteen_bits_and_its_repeats(laid):
    codes = (np.arange(48 * 64).reshape(48, 64) * 21).astype(np.uint16)
    snapshot, _, layer, _ = laid(codes, "rust_mask.png", "where.picture", across=2, up=1)
    seen = cover(snapshot, layer, Grid(128, 48, 400.0, 300.0))
    assert np.abs(seen[:, :64] * 65535 - codes).max() < 1
    assert (seen[:, :64] == seen[:, 64:]).all()
    coarse = cover(snapshot, layer, Grid(64, 24, 400.0, 300.0))
    mean = codes.reshape(24, 2, 32, 2).mean((1, 3)) / 65535
    assert np.abs(coarse[:, :32] - mean).max() < 1e-3


def test_every_picked_id_colour_is_found_again(laid):
    rng = np.random.default_rng(3)
    colours = rng.integers(0, 256, (6, 8, 3)).astype(np.uint8)
    codes = np.repeat(np.repeat(colours, 8, 0), 8, 1)
    snapshot, surface, layer, rule = laid(codes, "parts.png", "where.id", takes="colour", reach=0.0)
    for row, column in ((0, 0), (2, 5), (5, 7), (3, 3)):
        x, y = (column + 0.5) * 50, 300 - (row + 0.5) * 50
        told = id_at(snapshot, surface, layer, rule, x, y, current=lambda: True)
        assert told == "#{:02X}{:02X}{:02X}".format(*colours[row, column])
        chosen = msgspec.structs.replace(rule.rule, values={**rule.rule.values, "colours": f"{told},{told}"})
        covering = msgspec.structs.replace(layer, where=(msgspec.structs.replace(rule, rule=chosen),))
        seen = cover(snapshot, covering, Grid(200, 150, 400.0, 300.0))
        assert set(np.unique(seen)) == {0.0, 1.0}
        assert seen.mean() == pytest.approx(1 / 48, abs=2e-3)


def test_a_framed_mask_is_straightened_and_nothing_else(laid):
    codes = np.zeros((60, 80), np.uint8)
    codes[20:40, 20:60] = 200
    snapshot, _, layer, _ = laid(codes, "patch_mask.png", "where.picture")
    source = snapshot.job.sources[0]
    corners = ((20.0, 20.0), (60.0, 20.0), (60.0, 40.0), (20.0, 40.0))
    frame = msgspec.structs.replace(source.straightening, corners=corners)
    framed = msgspec.structs.replace(source, straightening=frame)
    inner = snapshot.with_job(msgspec.structs.replace(snapshot.job, sources=(framed,)))
    seen = cover(inner, layer, Grid(40, 20, 400.0, 200.0))
    assert np.abs(seen[2:-2, 2:-2] * 255 - 200).max() < 1


@pytest.mark.parametrize(
    ("size", "repeats"), [((200.0, 150.0), (2, 2)), ((130.0, 310.0), (3, 1)), ((0.0, 0.0), (7, 5))]
)
def test_a_picture_is_read_in_as_many_repeats_as_bring_it_nearest_to_its_size(laid, size, repeats):
    snapshot, surface, layer, rule = laid(np.zeros((48, 64), np.uint8), "a_mask.png", "where.picture", across=7, up=5)
    source = snapshot.job.sources[0]
    frame = msgspec.structs.replace(source.straightening, width_mm=size[0], height_mm=size[1])
    job = msgspec.structs.replace(snapshot.job, sources=(msgspec.structs.replace(source, straightening=frame),))
    job = read_picture(job, surface, layer, rule, source.id).apply(job)
    values = job.surfaces[0].layers[0].where[0].rule.values
    assert (values["across"], values["up"]) == repeats
    assert values["source"] == source.id
