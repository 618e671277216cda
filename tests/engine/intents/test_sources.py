"""What is done with sources: framed, sized, mended, taken out; surfaces that follow move with them."""

import msgspec
import pytest

from brave_tessel.core.buildup.kinds.source import SourceWhat
from brave_tessel.core.errors import DegenerateViewError, DoesNotFitError
from brave_tessel.core.job.commands import Set
from brave_tessel.core.job.document import Job, Source, Straightening
from brave_tessel.core.job.layers import Layer, Rule
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.repeat.mend import closed_size
from brave_tessel.core.repeat.method import METHODS
from brave_tessel.engine.intents import sheets, sources
from brave_tessel.engine.intents.surfaces import surface_from_source
from brave_tessel.engine.store import Store


def photo(id="wall", width_mm=600.0, height_mm=400.0):
    corners = ((0.0, 0.0), (600.0, 0.0), (600.0, 400.0), (0.0, 400.0))
    frame = Straightening(corners=corners, width_mm=width_mm, height_mm=height_mm)
    return Source(id=id, name=id.title(), blob="x", width_px=600, height_px=400, straightening=frame)


@pytest.fixture
def store():
    """A job with a photo and a surface made of it."""
    job = Job(id="j", sources=(photo(), photo("floor")))
    command, surface = surface_from_source(job, job.sources[0])
    made = Store(command.apply(job))
    made.surface = surface.id
    return made


def wall(store):
    return store.job.source("wall")


def surface(store):
    return store.job.surface(store.surface)


def test_a_surface_of_a_source_has_its_closed_size(store):
    assert (surface(store).width_mm, surface(store).height_mm) == pytest.approx(closed_size(wall(store)))
    assert surface(store).width_mm < 600


@pytest.mark.parametrize("width", [300.0, 1200.0])
def test_a_resized_source_takes_its_surface_with_it_in_one_step(store, width):
    before = store.job
    store.dispatch(sources.resize_source(store.job, wall(store), width, width * 2 / 3, "typed"))
    assert (surface(store).width_mm, surface(store).height_mm) == pytest.approx(closed_size(wall(store)))
    assert wall(store).straightening.size_note == "typed"
    store.undo()
    assert store.job is before


def test_a_source_that_no_surface_follows_moves_none(store):
    before = surface(store)
    store.dispatch(sources.resize_source(store.job, store.job.source("floor"), 900.0, 600.0))
    assert surface(store) is before


@pytest.mark.parametrize("op", sorted(METHODS))
def test_every_way_of_mending_starts_from_values_that_suit_the_size(store, op):
    store.dispatch(sources.set_method(store.job, wall(store), op))
    mend = wall(store).mend
    assert mend.op == op
    mend.bound()
    width, height = closed_size(wall(store))
    assert 0 < width <= 2000
    assert 0 < height <= 2000
    assert (surface(store).width_mm, surface(store).height_mm) == pytest.approx((width, height))


def test_a_wider_overlap_leaves_a_smaller_repeat(store):
    store.dispatch(sources.set_method(store.job, wall(store), "mend.best_cut"))
    before = surface(store).width_mm
    overlap = wall(store).mend.number("overlap")
    command = sources.set_source_value(store.job, wall(store), "mend", "overlap", overlap + 20, gesture="drag")
    store.dispatch(command)
    assert surface(store).width_mm == pytest.approx(before - 20)


def test_corners_that_make_no_frame_are_refused(store):
    with pytest.raises(DegenerateViewError):
        sources.set_frame(wall(store), ((0, 0), (10, 0), (5, 0), (0, 10)))


def test_a_source_in_use_is_not_taken_out_and_the_reason_names_the_place(store):
    with pytest.raises(DoesNotFitError) as caught:
        sources.remove_source(store.job, wall(store))
    assert surface(store).name in caught.value.allowed
    store.dispatch(sources.remove_source(store.job, store.job.source("floor")))
    assert [source.id for source in store.job.sources] == ["wall"]


def test_a_source_that_only_a_rule_looks_at_is_in_use_too(store):
    rule = Rule(id="r", mode="keep", rule=Setting(op="where.picture", values={"source": "floor"}))
    path = ("surfaces", store.surface, "layers", surface(store).layers[0].id, "where")
    store.dispatch(Set(path=path, value=(rule,), label="Rule"))
    with pytest.raises(DoesNotFitError):
        sources.remove_source(store.job, store.job.source("floor"))
    store.undo()
    store.dispatch(sources.remove_source(store.job, store.job.source("floor")))


def test_a_source_within_a_bundle_is_in_use_too(store):
    from brave_tessel.core.buildup.kinds.bundle import BundleWhat

    inner = Layer(id="inner", name="Inner", what=SourceWhat(source="floor"))
    bundle = Layer(id="bundle", name="Bundle", what=BundleWhat(layers=(inner,)))
    path = ("surfaces", store.surface, "layers")
    store.dispatch(Set(path=path, value=(*surface(store).layers, bundle), label="x"))
    with pytest.raises(DoesNotFitError):
        sources.remove_source(store.job, store.job.source("floor"))


# Sheets ----------------------------------------------------------------------------------------------


def test_another_patch_is_a_source_of_the_same_picture(store):
    command, fresh = sheets.another_patch(store.job, wall(store))
    store.dispatch(command)
    assert fresh.blob == wall(store).blob
    assert fresh.id != "wall"
    assert len(store.job.sources) == 3


def test_a_bend_of_the_lens_is_one_gesture(store):
    before = store.job
    for bend in (0.01, 0.02, 0.03):
        store.dispatch(sheets.set_bend(wall(store), bend, gesture="bend"))
    assert wall(store).straightening.bend == 0.03
    store.undo()
    assert store.job is before


def test_a_palette_is_kept_and_taken_out(store):
    command, palette = sheets.keep_palette(store.job, "Panel", ("#112233", "#445566"))
    store.dispatch(command)
    assert store.job.palettes[-1] == palette
    store.dispatch(sheets.remove_palette(palette))
    assert palette not in store.job.palettes


def test_touches_grow_and_go(store):
    command, touch = sheets.begin_touch(
        wall(store), Setting(op="touch.sharpen"), ((10.0, 10.0),), offset=(0.0, 0.0), tip="", maps=frozenset()
    )
    store.dispatch(command)
    longer = ((10.0, 10.0), (40.0, 20.0))
    store.dispatch(sheets.lengthen_touch(wall(store), touch, longer))
    assert wall(store).touches[-1].points == longer
    store.dispatch(sheets.remove_touch(wall(store), touch.id))
    assert wall(store).touches == ()


def test_a_scatter_sheet_is_made_filled_moved_and_emptied(store):
    command, source = sheets.new_scatter(store.job)
    store.dispatch(command)
    sheet = store.job.source(source.id)
    kind = sheet.scatter.kinds[0]
    command, piece = sheets.lay_piece(sheet, kind.id, (30.0, 40.0))
    store.dispatch(command)
    sheet = store.job.source(source.id)
    assert [(p.x_mm, p.y_mm) for p in sheet.scatter.laid] == [(30.0, 40.0)]
    store.dispatch(sheets.move_piece(sheet, piece, (50.0, 60.0), gesture="m"))
    sheet = store.job.source(source.id)
    assert (sheet.scatter.laid[0].x_mm, sheet.scatter.laid[0].y_mm) == (50.0, 60.0)
    store.dispatch(sheets.change_piece(sheet, msgspec.structs.replace(sheet.scatter.laid[0], turn=30.0)))
    sheet = store.job.source(source.id)
    assert sheet.scatter.laid[0].turn == 30.0
    store.dispatch(sheets.remove_piece(sheet, piece.id))
    assert store.job.source(source.id).scatter.laid == ()


def test_a_piece_raised_lies_on_top(store):
    command, source = sheets.new_scatter(store.job)
    store.dispatch(command)
    laid = []
    for x in (10.0, 20.0, 30.0):
        sheet = store.job.source(source.id)
        command, piece = sheets.lay_piece(sheet, sheet.scatter.kinds[0].id, (x, 5.0))
        store.dispatch(command)
        laid.append(piece.id)
    store.dispatch(sheets.raise_piece(store.job.source(source.id), laid[0]))
    assert [piece.id for piece in store.job.source(source.id).scatter.laid] == [laid[1], laid[2], laid[0]]
