"""The one light menu and the picture dialog, by mouse."""

import numpy as np
import pytest
from PIL import Image
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

from brave_tessel.core.job.commands import Set
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.light.dome import eye_of, sun_of
from brave_tessel.core.light.presets import PRESETS, make_preset
from brave_tessel.core.light.standing import BY_HOUR
from brave_tessel.engine.intents import light as intents
from brave_tessel.engine.intents.surfaces import empty_surface
from brave_tessel.formats.images import encode_png
from brave_tessel.formats.job_file import load_job
from brave_tessel.ui.picture_dialog import BOARD, HOURS
from brave_tessel.view3d.stills.run import tracer_is_there


@pytest.fixture
def window(build):
    return build.window_


@pytest.fixture
def panel(window, settled):
    window.light.open()
    settled(window)
    yield window.light.panel
    window.light.panel.hide()


def rig(window):
    return window.desk.job.rig


@pytest.mark.parametrize("name", PRESETS)
def test_a_preset_is_one_step_and_says_its_name(window, panel, settled, name):
    panel.presets[name].click()
    settled(window)
    assert rig(window) == make_preset(name)
    assert window.light.text() == name
    assert panel.presets[name].isChecked()
    assert not panel.presets[name].strip.isNull()


def test_the_picture_follows_the_light_and_undo_brings_it_back(window, build, panel, settled):
    before = build.done.mips[0].copy()
    panel.presets["Two strips"].click()
    settled(window)
    assert np.abs(build.done.mips[0].astype(int) - before).mean() > 2
    window.desk.session.store.undo()
    settled(window)
    assert (build.done.mips[0] == before).all()


def test_dials_change_sun_sky_and_white(window, panel, settled):
    panel.sun.controls["height"].changed.emit(12.0)
    assert sun_of(rig(window)).height == 12
    assert window.light.text() == "Own light"
    panel.sun.controls["by"].changed.emit("by the hour")
    assert panel.sun.controls["hour"].isVisibleTo(panel.sun)
    # Day 105 of a common year; noon at 50° north: 90° less the latitude, more the declination of 9.4° (NOAA).
    panel.sun.controls["hour"].changed.emit(12.0)
    assert "15 April" in panel.stand.text()
    assert "49° high, bearing 180°" in panel.stand.text()
    panel.sun.controls["hour"].changed.emit(1.0)
    assert "down" in panel.stand.text()
    assert not panel.sun.controls["bearing"].isVisibleTo(panel.sun)
    panel.sky_form.controls["clouds"].changed.emit(0.1)
    assert rig(window).sky.number("clouds") == 0.1
    panel.eye.controls["white"].changed.emit("typed")
    assert eye_of(rig(window)).white == "typed"


def test_stops_are_over_what_is_metered_and_stay_when_the_sky_changes(window, panel):
    panel.stops.changed.emit(1.0)
    assert intents.stops_of(rig(window)) == pytest.approx(1, abs=0.02)
    panel.sky_form.controls["haze"].changed.emit(6.0)
    assert intents.stops_of(rig(window)) == pytest.approx(1, abs=0.02)


def test_lamps_come_are_switched_and_go(window, panel, settled):
    panel.skies.activated.emit(panel.skies.findData("sky.room"))
    assert rig(window).sky.op == "sky.room"
    window.desk.dispatch(intents.add_lamp(rig(window), "lamp.bulb"))
    (lamp,) = rig(window).lamps
    panel.lamp_forms[lamp.id].changed.emit("lumen", 5000.0)
    assert rig(window).lamps[0].number("lumen") == 5000
    window.desk.dispatch(intents.switch_lamp(rig(window), lamp.id))
    assert rig(window).lamps[0].off
    window.desk.dispatch(intents.remove_lamp(rig(window), lamp.id))
    assert rig(window).lamps == ()
    settled(window)


def test_a_light_is_kept_in_the_job_and_taken_again(window, panel, settled, tmp_path):
    panel.presets["Overcast"].click()
    window.desk.dispatch(intents.keep_light(window.desk.job, "Grey"))
    panel.presets["Two strips"].click()
    settled(window)
    (kept,) = window.desk.job.lights
    window.desk.dispatch(intents.take_rig(kept.rig, kept.name))
    assert rig(window).sky.op == "sky.overcast"
    window.desk.session.save(tmp_path / "a.tessel")
    assert load_job(tmp_path / "a.tessel").job.lights == (kept,)


def test_an_own_sky_is_read_dimmed_and_saved_with_the_job(window, panel, settled, soon, tmp_path):
    sky = np.full((64, 128, 3), 90, np.uint8)
    sky[10:14, 60:64] = 255
    path = tmp_path / "sky.png"
    path.write_bytes(encode_png(sky))
    panel.take_picture(path)
    soon(lambda: rig(window).sky.op == "sky.picture")
    assert rig(window).picture_name == "sky.png"
    settled(window)
    window.desk.session.save(tmp_path / "a.tessel")
    opened = load_job(tmp_path / "a.tessel")
    assert opened.blobs[opened.job.rig.picture] == path.read_bytes()


def test_a_drag_turns_an_own_sky_or_the_lamp_that_throws_shadows(window):
    hall, strips = make_preset("Lamp-lit hall"), make_preset("Two strips")
    for made in (hall, strips):
        turned = intents.turn_sun(made, 20, 0, "wall").value
        assert turned.lamps[0].number("bearing") == (made.lamps[0].number("bearing") - 10) % 360
        assert turned.sky == made.sky
    own = intents.take_picture(hall, "blob", "sky.hdr", lambda _blob: None).value
    assert intents.turn_sun(own, 30, 0, "wall").value.sky.number("turn") == -15
    assert intents.turn_sun(own, 30, 0, "floor").value.sky.number("turn") == 15


def test_a_picture_that_is_no_sky_is_refused_in_a_sentence(window, panel, settled, tmp_path):
    path = tmp_path / "square.png"
    path.write_bytes(encode_png(np.zeros((32, 32, 3), np.uint8)))
    panel.take_picture(path)
    settled(window)
    assert rig(window).sky.op == "sky.clear"
    assert "twice as wide" in window.told.text()


def test_a_drag_with_the_right_button_turns_the_light_on_the_board(window, build, settled):
    board = build.surface_board
    before = sun_of(rig(window)).stand
    QTest.mousePress(board, Qt.MouseButton.RightButton, pos=QPoint(300, 200))
    QTest.mouseMove(board, QPoint(360, 180))
    QTest.mouseMove(board, QPoint(380, 170))
    QTest.mouseRelease(board, Qt.MouseButton.RightButton, pos=QPoint(380, 170))
    settled(window)
    assert sun_of(rig(window)).stand != before
    assert window.desk.session.store.undo_label == "Turn the light"


def test_a_surface_is_told_to_be_a_floor_and_lit_as_one(window, build, settled):
    before = build.done.mips[0].copy()
    surface = window.desk.selection.surface
    window.desk.dispatch(intents.set_stance(surface.id, "floor"))
    settled(window)
    assert "floor" in {c[1]: c[2] for c in build.block.cells}["Surface"]
    assert (build.done.mips[0] != before).any()


def test_single_views_have_their_legend(window, build, settled):
    for view, end in (("Roughness in colour", "1 rough"), ("Height lines", "mm")):
        window.desk.view.show_view(view)
        settled(window)
        assert build.surface_board.legend is not None
        assert end in build.surface_board.legend[1][1]
        assert not build.surface_board.grab().isNull()
    window.desk.view.show_view("Lit")
    settled(window)
    assert build.surface_board.legend is None


@pytest.mark.skipif(not tracer_is_there(), reason="the path tracer is not installed")
def test_a_still_of_what_is_seen_is_made_in_the_window_and_saved(window, soon, tmp_path):
    window.open_picture()
    dialog = window.picture
    dialog.pixels.setText("nonsense")
    dialog.start.click()
    assert "900x600" in dialog.state.text()
    dialog.pixels.setText("48x32")
    dialog.samples.setCurrentIndex(0)
    dialog.caption.setChecked(True)
    dialog.start.click()
    soon(lambda: dialog.idle and dialog.still is not None, seconds=60)
    assert dialog.still.samples == 16
    dialog.on.click()
    soon(lambda: dialog.idle and dialog.still.samples == 32, seconds=60)
    dialog.save(tmp_path / "still.png")
    with Image.open(tmp_path / "still.png") as picture:
        assert picture.size == (48, 32)
    dialog.save(tmp_path / "still.tiff")
    assert "PNG or EXR" in dialog.state.text()


@pytest.mark.skipif(not tracer_is_there(), reason="the path tracer is not installed")
def test_a_board_holds_what_is_ticked_and_the_hours_of_a_day_are_files(window, soon, tmp_path):
    command, fresh = empty_surface(window.desk.job)
    assert window.desk.dispatch(command)
    day = Setting(op="light.sun", values={"by": BY_HOUR, "day": 355, "latitude": 62.0})
    assert window.desk.dispatch(Set(path=("rig", "sun"), value=day, label="a winter's day"))
    window.open_picture()
    dialog = window.picture
    dialog.pixels.setText("32x32")
    dialog.samples.setCurrentIndex(0)
    assert not dialog.surfaces.isVisibleTo(dialog), "what is seen is one"
    dialog.what.setCurrentIndex(dialog.what.findData(BOARD))
    assert dialog.surfaces.isVisibleTo(dialog)
    rows = {item.text(): item for item in dialog.surfaces.findItems("", Qt.MatchFlag.MatchContains)}
    assert set(rows) == {surface.name for surface in window.desk.job.surfaces}
    for item in rows.values():
        item.setCheckState(Qt.CheckState.Unchecked)
    dialog.start.click()
    assert "Tick" in dialog.state.text()
    rows[fresh.name].setCheckState(Qt.CheckState.Checked)
    dialog.start.click()
    soon(lambda: dialog.idle and dialog.still is not None, seconds=60)
    assert dialog.wanted.caption == fresh.name
    dialog.make_series(HOURS, (32, 32), tmp_path)
    soon(lambda: "left" in dialog.state.text(), seconds=60)
    soon(lambda: dialog.idle and "pictures are in" in dialog.state.text(), seconds=90)
    names = sorted(path.name for path in tmp_path.glob("*.png"))
    # Four hours of sun at the winter solstice at 62° north, by the NOAA equations; at its ends it is under two degrees.
    assert names == ["hour-11.png", "hour-12.png", "hour-13.png"]


def test_while_the_light_turns_the_picture_follows_and_at_rest_it_is_exact(window, build, settled):
    seen = []
    window.desk.build.ready.connect(seen.append)
    window.desk.turn_light(40.0, 10.0)
    settled(window)
    assert [done.fine for done in seen[-2:]] == [False, True]
    turned, exact = seen[-2:]
    assert turned.mips[0].shape[0] == exact.mips[0].shape[0] // 2
    assert turned.grid == exact.grid
    small = exact.mips[1].astype(int)
    assert np.abs(turned.mips[0].astype(int) - small).mean() < 12, "the same but for the sky and half the pixels"
    assert turned.maps is exact.maps or turned.surface is exact.surface
