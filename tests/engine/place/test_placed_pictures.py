"""Pictures of surfaces for the model: kept ones at once, worked out beside the shared cache, once each."""

import msgspec
import numpy as np
import pytest

from brave_tessel.core.job.commands import Set
from brave_tessel.core.job.layers import Band
from brave_tessel.core.job.scene import Laid, Part, Piece, Scene
from brave_tessel.engine.cache import Cache
from brave_tessel.engine.library.shipped_demo import shipped_demo
from brave_tessel.engine.pictures.placed import all_there, placed_pictures, scene_textures, textures_at_hand
from brave_tessel.engine.session import Session

PX = 128
COARSE = 32


@pytest.fixture
def session():
    """Two surfaces of the demo on a box each."""
    opened = shipped_demo()
    parts = tuple(
        Part(id=id, name=id, piece=Piece(op="made.box"), laid=(Laid(id="a", surface=id),))
        for id in ("copper-roof", "plaster")
    )
    surfaces = tuple(opened.job.surface(part.id) for part in parts)
    opened.job = msgspec.structs.replace(opened.job, surfaces=surfaces, scene=Scene(parts=parts))
    return Session(opened, cache=Cache(1 << 30))


def always():
    return True


def at_hand(snapshot, previews):
    return textures_at_hand(snapshot, previews, PX, coarse_px=COARSE, current=always)


def test_pictures_kept_with_the_job_stand_in_at_once(session):
    kept = at_hand(session.snapshot(), session.previews)
    assert kept is not None
    assert set(kept.surfaces) == {"copper-roof", "plaster"}
    assert set(kept.swatches) == {surface.id for surface in session.job.surfaces}
    assert not session.cache.used


def test_a_surface_that_has_changed_since_comes_coarsely_and_the_others_stand_in(session):
    kept = at_hand(session.snapshot(), {"plaster": session.previews["plaster"]})
    assert set(kept.surfaces) == {"copper-roof", "plaster"}
    assert max(kept.surfaces["copper-roof"].base.shape[:2]) == COARSE
    assert kept.surfaces["plaster"].key.startswith(b"stored")
    # Nothing else was worked out for it.
    assert all_there(session.snapshot(), COARSE) is False


def test_each_surface_arrives_when_it_is_ready_and_is_worked_out_once(session):
    snapshot = session.snapshot()
    kept = at_hand(snapshot, session.previews)
    assert not all_there(snapshot, PX)
    steps = list(placed_pictures(snapshot, px=PX, current=always, before=kept))
    keys = [{id: one[0] for id, one in step.surfaces.items()} for step in steps]
    assert len(steps) == 3
    assert keys[0] != keys[1]
    assert keys[1] == keys[2]
    assert all_there(snapshot, PX)
    again = scene_textures(snapshot, px=PX, current=always)
    assert all(again.surfaces[id][1] is steps[-1].surfaces[id][1] for id in again.surfaces)


def test_what_a_model_shows_is_what_the_surface_is_and_leaves_the_cache_small(session):
    from brave_tessel.core.colour import display_codes
    from brave_tessel.core.maps import MapKind

    snapshot = session.snapshot()
    shown = scene_textures(snapshot, px=PX, current=always).surfaces["plaster"]
    assert session.cache.used < 40 * PX * PX * len(session.job.surfaces)
    maps = snapshot.finished(session.job.surface("plaster"), PX)
    np.testing.assert_array_equal(shown[1], display_codes(maps[MapKind.BASE_COLOUR]))


def test_what_is_sharp_stays_while_another_surface_is_fitted_or_takes_a_band(session):
    """A change of one laying never brings blurred pictures back on the others."""
    first = scene_textures(session.snapshot(), px=PX, current=always)
    path = ("scene", "parts", "copper-roof", "laid", "a")
    session.store.dispatch(Set(path=(*path, "dials"), value={"pitch": 433.0}, label="dials"))
    now = at_hand(session.snapshot(), session.previews)
    assert not all_there(session.snapshot(), PX)
    assert now.surfaces["plaster"][1] is first.surfaces["plaster"][1]
    (fitted,) = set(now.surfaces) - {"plaster"}
    np.testing.assert_array_equal(now.surfaces[fitted][1], first.surfaces["copper-roof"][1])
    bands = (Band(id="b", name="B", low=100.0, high=500.0),)
    session.store.dispatch(Set(path=("surfaces", "plaster", "bands"), value=bands, label="bands"))
    session.store.dispatch(Set(path=("scene", "parts", "plaster", "laid", "a", "band"), value="b", label="band"))
    scene_textures(session.snapshot(), px=PX, current=always)
    assert all_there(session.snapshot(), PX)
