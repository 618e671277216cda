"""Stage 2: the ways to make a repeat, by mouse and keys."""

import msgspec
import numpy as np
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from brave_tessel.core.colour import codes_from_linear
from brave_tessel.core.job.commands import Insert, Set
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.maps import MapKind
from brave_tessel.engine.intents import sources as source_intents
from brave_tessel.formats.images import encode_png
from tests.core.repeat.closings import masonry
from tests.core.repeat.test_methods import wall
from tests.ui.test_whole_pass import type_into


@pytest.fixture
def walled(window, settled, tmp_path):
    """A window on a photo of a wall, sized as 450 × 350 mm."""
    path = tmp_path / "wall.png"
    path.write_bytes(encode_png(np.rint(np.clip(wall("half", turn=1.0), 0, 1) * 255).astype(np.uint8)))
    window.desk.gather.read([path])
    settled(window)
    gather = window.stages["Gather"]
    gather.source_card.frame.keep.setChecked(False)
    type_into(gather.source_card.frame.width_field.field, "450")
    type_into(gather.source_card.frame.height_field.field, "350")
    window.desk.go("Repeat")
    settled(window)
    return window


def choose(window, op):
    QTest.mouseClick(window.stages["Repeat"].mend.method.buttons[op], Qt.MouseButton.LeftButton)


def test_whole_courses_measure_and_a_known_course_sizes_the_sheet(walled, settled, soon):
    desk, repeat = walled.desk, walled.stages["Repeat"]
    choose(walled, "mend.courses")
    soon(lambda: desk.selection.source_id in repeat.mend.beats)
    settled(walled)
    assert repeat.mend.beat.isVisible()
    assert desk.selection.source.mend.number("across") == 3
    assert desk.selection.source.mend.number("up") == 4
    assert "course 37.5" in walled.told.text()
    type_into(repeat.mend.beat.course.field, "75")
    settled(walled)
    assert desk.selection.source.straightening.width_mm == pytest.approx(900, abs=3)
    assert repeat.pair.done.grid.width_mm == pytest.approx(675, abs=3)
    assert all(reading.closes for reading in repeat.pair.done.seams)
    assert desk.session.store.undo_label == "Size by the known unit"
    desk.session.store.undo()
    desk.session.store.undo()
    assert desk.selection.source.mend.op == "mend.courses"
    desk.session.store.undo()
    assert desk.selection.source.mend.op == "mend.best_cut"


def test_a_picture_without_a_beat_is_told(window, settled, photo_file, soon):
    desk = window.desk
    desk.gather.read([photo_file])
    settled(window)
    gather = window.stages["Gather"]
    gather.source_card.frame.keep.setChecked(False)
    type_into(gather.source_card.frame.width_field.field, "400")
    desk.go("Repeat")
    settled(window)
    choose(window, "mend.courses")
    soon(lambda: "regrow" in window.told.text())
    assert desk.selection.source.mend.op == "mend.courses"


@pytest.mark.parametrize(("op", "size"), [("mend.level", (450, 350)), ("mend.regrow", (450, 350))])
def test_level_and_regrow(walled, settled, op, size):
    repeat = walled.stages["Repeat"]
    choose(walled, op)
    settled(walled)
    assert not repeat.mend.beat.isVisible()
    done = repeat.pair.done
    assert (done.grid.width_mm, done.grid.height_mm) == pytest.approx(size)
    assert done.cut is None
    assert repeat.mend.form is None or set(repeat.mend.form.controls) == set(
        repeat.desk.selection.source.mend.complete()
    )


def test_a_surface_follows_its_source_through_another_method(walled, settled):
    desk, repeat = walled.desk, walled.stages["Repeat"]
    repeat.mend.make_surface()
    surface = desk.selection.surface
    desk.go("Repeat")
    choose(walled, "mend.level")
    after = desk.job.surface(surface.id)
    assert (after.width_mm, after.height_mm) == (450, 350)
    choose(walled, "mend.regrow")
    settled(walled)
    type_into(repeat.mend.form.controls["width"].field, "800")
    assert desk.job.surface(surface.id).width_mm == 800


def test_breaking_the_repeat_widens_the_surface_and_calms_the_score(demo_window, settled):
    desk, repeat = demo_window.desk, demo_window.stages["Repeat"]
    desk.selection.choose(source="shingle")
    desk.go("Repeat")
    settled(demo_window)
    cell = repeat.pair.done.grid
    for name in ("across", "up"):
        type_into(repeat.break_up.form.controls[name].field, "1")
    settled(demo_window)
    plain = repeat.pair.done.repetition.score
    assert repeat.pair.done.field_mips is None
    type_into(repeat.break_up.form.controls["across"].field, "3")
    type_into(repeat.break_up.form.controls["up"].field, "3")
    settled(demo_window)
    assert repeat.pair.done.repetition.score < 0.6 * plain
    assert repeat.pair.done.field_grid.width_mm == pytest.approx(3 * cell.width_mm)
    bed = desk.job.surface("shingle-bed")
    assert (bed.width_mm, bed.height_mm) == pytest.approx((3 * 550, 3 * 390))
    desk.session.store.undo()
    assert desk.job.surface("shingle-bed").height_mm == pytest.approx(390)


def test_the_field_is_stepped_back_to_twenty_metres(demo_window, settled):
    from PyQt6.QtCore import QPoint, QPointF
    from PyQt6.QtGui import QWheelEvent
    from PyQt6.QtWidgets import QApplication

    demo_window.desk.go("Repeat")
    settled(demo_window)
    pair = demo_window.stages["Repeat"].pair
    for _ in range(30):
        event = QWheelEvent(
            QPointF(600, 200),
            pair.mapToGlobal(QPointF(600, 200)),
            QPoint(0, 0),
            QPoint(0, -120),
            Qt.MouseButton.NoButton,
            Qt.KeyboardModifier.NoModifier,
            Qt.ScrollPhase.NoScrollPhase,
            False,
        )
        QApplication.sendEvent(pair, event)
    assert pair.field_m == 20
    assert not pair.grab().isNull()


@pytest.fixture
def bonded(window, settled, tmp_path):
    """Repeat with a wall in half bond, which a best cut closes out of step."""
    colour = masonry(np.random.default_rng(8), (460, 420), (75, 32), 0.5, 1.5)
    path = tmp_path / "bond.png"
    path.write_bytes(encode_png(codes_from_linear(colour, depth=8)))
    window.desk.gather.read([path])
    settled(window)
    window.desk.dispatch(source_intents.set_size(window.desk.job.sources[0], 460.0, 420.0))
    window.desk.go("Repeat")
    settled(window)
    return window


def test_a_pattern_out_of_step_is_noticed_and_closed_by_whole_courses_at_a_click(bonded, settled):
    desk, meters = bonded.desk, bonded.stages["Repeat"].meters
    assert meters.seam.severity != "ok"
    assert meters.seam.sentence.startswith("At the ")
    assert meters.in_step.isVisible()
    QTest.mouseClick(meters.in_step, Qt.MouseButton.LeftButton)
    settled(bonded)
    assert desk.job.sources[0].mend.op == "mend.courses"
    assert meters.in_step.isHidden()
    assert "out of step" not in meters.seam.sentence
    assert meters.seam.severity != "fault"


def test_or_its_overlap_is_lined_up_at_a_click_and_undone(bonded, settled):
    desk, repeat = bonded.desk, bonded.stages["Repeat"]
    before = desk.job.sources[0].mend
    assert repeat.meters.lined_up.isVisible()
    QTest.mouseClick(repeat.meters.lined_up, Qt.MouseButton.LeftButton)
    settled(bonded)
    mend = desk.job.sources[0].mend
    assert mend.op == "mend.best_cut"
    assert abs(((460 - mend.number("overlap")) / 75 + 0.5) % 1 - 0.5) < 0.02
    assert abs(((420 - mend.number("overlap_up")) / 64 + 0.5) % 1 - 0.5) < 0.02
    assert repeat.meters.lined_up.isHidden()
    assert "out of step" not in repeat.meters.seam.sentence
    assert repeat.mend.lined_up.isVisible()
    desk.session.store.undo()
    assert desk.job.sources[0].mend == before


def test_the_seams_of_what_is_estimated_are_metered_too(bonded, settled):
    meters = bonded.stages["Repeat"].meters
    told = {reading.kind: reading.estimated for reading in meters.maps.readings}
    assert told[MapKind.BASE_COLOUR] is False
    assert told[MapKind.HEIGHT] is told[MapKind.ROUGHNESS] is True
    assert "Height" in meters.maps.accessibleDescription()


def test_a_mask_is_not_among_what_is_mended(bonded, settled):
    desk, repeat = bonded.desk, bonded.stages["Repeat"]
    wall = desk.job.sources[0]
    mask = msgspec.structs.replace(wall, id="mask", name="Where it is worn", role="mask")
    desk.dispatch(Insert(path=("sources",), item=mask, label="Add"))
    settled(bonded)
    assert [row.id for row in repeat.list.rows] == [wall.id]


def test_meters_of_an_older_result_are_struck_through(walled, settled):
    repeat, desk = walled.stages["Repeat"], walled.desk
    desk.go("Repeat")
    settled(walled)
    assert not repeat.meters.seam.stale
    source = desk.job.sources[0]
    # More periods than the sheet holds: nothing closes it.
    values = {"across": 40, "up": 1, "period_across": 200.0, "period_up": 100.0}
    desk.dispatch(Set(path=("sources", source.id, "mend"), value=Setting(op="mend.courses", values=values), label="x"))
    settled(walled)
    assert repeat.meters.seam.stale
    assert "older" in repeat.meters.seam.accessibleName()
    desk.session.store.undo()
    settled(walled)
    assert not repeat.meters.seam.stale


def test_meters_judge_neither_nothing_nor_another_source(walled, settled, tmp_path):
    repeat, first = walled.stages["Repeat"], walled.desk.selection.source_id
    assert repeat.meters.seam.severity in {"ok", "caution", "fault"}
    path = tmp_path / "other.png"
    path.write_bytes(encode_png(np.full((64, 64, 3), 128, np.uint8)))
    walled.desk.gather.read([path])
    settled(walled)
    other = walled.desk.selection.source_id
    assert other != first
    settled(walled)
    assert repeat.meters.seam.value == "–"
    assert not repeat.meters.seam.severity, "a picture without a size is not called good"
    walled.desk.selection.choose(source=first)
    settled(walled)
    assert repeat.meters.seam.severity
    assert not repeat.meters.seam.stale
    copied = msgspec.structs.replace(walled.desk.selection.source, id="copied", name="Copied")
    walled.desk.dispatch(Insert(path=("sources",), item=copied, label="Copied"))
    walled.desk.selection.choose(source="copied")
    assert repeat.meters.seam.stale, "of the one before"
    settled(walled)
    assert not repeat.meters.seam.stale
