"""Another repeat: features keep their mm, or all of them scale."""

import msgspec
import numpy as np
import pytest

from brave_tessel.core.buildup.kinds.painted import PaintedWhat
from brave_tessel.core.buildup.kinds.run import RunWhat
from brave_tessel.core.buildup.kinds.source import SourceWhat
from brave_tessel.core.errors import OutOfRangeError
from brave_tessel.core.job.layers import Band, Layer, Stroke, Surface
from brave_tessel.core.job.resize import resized
from brave_tessel.core.maps import MapKind
from brave_tessel.core.place.gauge import closing_of, whole_repeats
from brave_tessel.engine.intents.surfaces import resize
from tests.core.place.scenes import brick


def finished(session, surface, px=128):
    return session.snapshot().finished(surface, px)


@pytest.mark.parametrize("id", ["limewash-wall", "plaster", "cast-stone"])
def test_a_scaled_surface_is_the_same_picture_and_twice_as_deep(demo_session, id):
    """Similar figures: at the same pixels nothing but the mm of the relief may differ."""
    surface = next(one for one in demo_session.store.job.surfaces if one.id == id)
    before = finished(demo_session, surface)
    after = finished(demo_session, resized(surface, 2 * surface.width_mm, 2 * surface.height_mm, scale=True))
    for kind in before.maps:
        factor = 2.0 if kind is MapKind.HEIGHT else 1.0
        assert np.abs(before[kind] * factor - after[kind]).mean() < 2e-3, kind


def test_kept_features_keep_their_mm():
    photo = Layer(id="p", name="P", what=SourceWhat(source="x", across=2, up=1))
    run = Layer(id="r", name="R", what=RunWhat(points=((10.0, 20.0), (300.0, 200.0))))
    surface = msgspec.structs.replace(brick(900.0, 600.0), beat="brick")
    surface = msgspec.structs.replace(surface, layers=(*surface.layers, photo, run), rows=(4, 8))
    wide = resized(surface, 1800.0, 600.0, scale=False)
    assert (wide.layers[1].what.across, wide.layers[1].what.up) == (4, 1)
    assert wide.layers[2] == surface.layers[2]
    assert wide.layers[0] == surface.layers[0]
    assert (wide.rows, wide.beat) == ((8, 8), "brick")
    assert resized(surface, 1000.0, 600.0, scale=False).beat == ""


def test_scaled_features_grow_both_ways():
    stroke = Stroke(id="s", points=((10.0, 20.0),), size_mm=30.0, into="height", amount=2.0, centre=(5.0, 5.0))
    layers = (
        Layer(id="r", name="R", what=RunWhat(points=((10.0, 20.0), (300.0, 200.0)))),
        Layer(id="p", name="P", what=PaintedWhat(strokes=(stroke,))),
    )
    surface = Surface(id="s", name="S", width_mm=400.0, height_mm=300.0, layers=layers,
                      bands=(Band(id="b", name="B", low=10.0, high=40.0),))  # fmt: skip
    grown = resized(surface, 800.0, 1350.0, scale=True)
    assert grown.layers[0].what.points == ((20.0, 90.0), (600.0, 900.0))
    painted = grown.layers[1].what.strokes[0]
    assert (painted.points, painted.size_mm, painted.amount, painted.centre) == (
        ((20.0, 90.0),),
        90.0,
        6.0,
        (10.0, 22.5),
    )
    assert (grown.bands[0].low, grown.bands[0].high) == (45.0, 180.0)
    stamp = surface.layers[0].what.stamp
    lengths = [name for name, param in stamp.operation.params.items() if param.kind == "length" and stamp.number(name)]
    assert lengths
    for name in lengths:
        assert grown.layers[0].what.stamp.number(name) == pytest.approx(3 * stamp.number(name))


def test_whole_units_near_a_wanted_repeat():
    """Running bond of 225 × 75 mm: an even number of courses (common practice)."""
    found = whole_repeats(brick(900.0, 600.0), 1000.0, 700.0)
    assert (found[0].width_mm, found[0].height_mm) == (900.0, 750.0)
    assert {(one.across, one.up) for one in found} == {(4, 8), (4, 10), (5, 8), (5, 10)}
    for one in found:
        surface = resized(brick(900.0, 600.0), one.width_mm, one.height_mm, scale=False)
        assert not closing_of(surface).stretched()
    assert whole_repeats(Surface(id="s", name="S", width_mm=400.0, height_mm=300.0), 500.0, 500.0) == []


def test_a_repeat_out_of_bounds_is_refused():
    with pytest.raises(OutOfRangeError):
        resize(brick(), 0.5, 600.0, scale=False)
