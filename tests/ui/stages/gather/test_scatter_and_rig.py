"""Stage 1: scatter sheets by hand, and the light rig with its faults."""

import json

import numpy as np
import pytest
import trimesh
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

from brave_tessel.core.maps import MapKind
from brave_tessel.engine.gather.rig import LightRig, RigSettings
from brave_tessel.formats.images import encode_png
from tests.ui.hand import at, click, pull
from tests.ui.test_whole_pass import type_into

SHIFT = Qt.KeyboardModifier.ShiftModifier


@pytest.fixture
def strewn(window, settled):
    """A window on a fresh scatter sheet."""
    window.desk.go("Gather")
    click(window.stages["Gather"].new_scatter)
    settled(window)
    return window


def parts(window):
    gather = window.stages["Gather"]
    return window.desk, gather.scatter, gather.scatter_card


def test_pieces_are_laid_moved_copied_nudged_and_taken_out(strewn, settled):
    desk, board, card = parts(strewn)
    type_into(card.strew.controls["density"].field, "0")
    click(card.lay)
    click(board, at(board, 200, 200))
    click(board, at(board, 590, 300))
    QTest.keyClick(board, Qt.Key.Key_Escape)
    laid = desk.selection.source.scatter.laid
    assert [(round(p.x_mm, -1), round(p.y_mm, -1)) for p in laid] == [(200, 200), (590, 300)]
    start = at(board, laid[0].x_mm, laid[0].y_mm)
    pull(board, start, start + QPoint(50, 0))
    moved = desk.selection.source.scatter.laid[0]
    assert moved.x_mm == pytest.approx(laid[0].x_mm + 50 / board.scale, abs=1)
    desk.session.store.undo()
    assert desk.selection.source.scatter.laid[0].x_mm == laid[0].x_mm
    pull(board, start, start + QPoint(0, -60), keys=SHIFT)
    assert len(desk.selection.source.scatter.laid) == 3
    copy = desk.selection.source.scatter.laid[2]
    assert copy.y_mm > laid[0].y_mm + 20
    board.setFocus()
    QTest.keyClick(board, Qt.Key.Key_Right)
    assert desk.selection.source.scatter.laid[2].x_mm == pytest.approx(copy.x_mm + 1)
    QTest.keyClick(board, Qt.Key.Key_Period)
    QTest.keyClick(board, Qt.Key.Key_BracketRight)
    piece = desk.selection.source.scatter.laid[2]
    assert piece.turn == -5
    assert piece.size == pytest.approx(1.05)
    type_into(card.scales["tilt"].field, "20")
    assert desk.selection.source.scatter.laid[2].tilt == 20
    QTest.keyClick(board, Qt.Key.Key_Delete)
    assert len(desk.selection.source.scatter.laid) == 2
    settled(strewn)
    maps = (
        desk.session.snapshot()
        .evaluation()
        .value(desk.session.snapshot().planner().scattered(desk.selection.source, 256))
    )
    # The piece at the right edge comes in again at the left.
    assert maps[MapKind.HEIGHT][:, :3].max() > 0.5
    assert {MapKind.NORMAL, MapKind.AMBIENT_OCCLUSION, MapKind.KIND_ID, MapKind.PIECE_ID} <= set(maps.maps)


def test_kinds_are_made_cut_out_and_read_from_a_model(strewn, settled, soon, tmp_path):
    desk, board, card = parts(strewn)
    blob = np.full((60, 80, 3), 240, np.uint8)
    yy, xx = np.mgrid[:60, :80]
    blob[((xx - 40) / 30) ** 2 + ((yy - 30) / 18) ** 2 < 1] = (90, 60, 40)
    photo = tmp_path / "Nut.png"
    photo.write_bytes(encode_png(blob))
    sheet = desk.selection.source_id
    desk.gather.read([photo])
    settled(strewn)
    desk.selection.choose(source=sheet)
    card.fill_menu()
    texts = [action.text() for action in card.menu.actions()]
    assert {"Pebble", "Tile", "Leaf", "Brick", "Chip", "Cut from Nut", "A small model…"} <= set(texts)
    for text in ("Leaf", "Cut from Nut"):
        next(action for action in card.menu.actions() if action.text() == text).trigger()
    model = tmp_path / "dome.stl"
    trimesh.creation.icosphere(radius=10).export(model)
    card.take_model(model)
    soon(lambda: len(desk.selection.source.scatter.kinds) == 4)
    settled(strewn)
    assert [row.note.split(" · ")[0] for row in card.list.rows] == ["pebble", "leaf", "cut out", "model"]
    maps = (
        desk.session.snapshot()
        .evaluation()
        .value(desk.session.snapshot().planner().scattered(desk.selection.source, 512))
    )
    colours = {tuple(c) for c in np.round(maps[MapKind.KIND_ID].reshape(-1, 3), 4).tolist()}
    # Four kinds and the ground; the soft rim of a piece is not given a colour of its own.
    assert len(colours) == 5
    card.take_model(photo)
    soon(lambda: "cannot be read" in strewn.told.text())
    assert len(desk.selection.source.scatter.kinds) == 4
    card.list.deleted.emit(desk.selection.source.scatter.kinds[1].id)
    assert [kind.name for kind in desk.selection.source.scatter.kinds] == ["Pebble", "Nut", "Dome"]
    board.views.buttons["Kinds"].click()
    settled(strewn)
    assert board.mips


def test_a_scatter_sheet_goes_through_repeat_into_a_surface(strewn, settled):
    desk, _, card = parts(strewn)
    type_into(card.width_field.field, "450")
    assert desk.selection.source.scatter.width_mm == 450
    desk.go("Repeat")
    settled(strewn)
    repeat = strewn.stages["Repeat"]
    assert all(reading.closes for reading in repeat.pair.done.seams)
    assert {reading.kind for reading in repeat.pair.done.per_map} >= {
        MapKind.BASE_COLOUR,
        MapKind.HEIGHT,
        MapKind.NORMAL,
    }
    repeat.mend.make_surface()
    settled(strewn)
    assert (desk.selection.surface.width_mm, desk.selection.surface.height_mm) == (450, 600)
    desk.go("Gather")
    type_into(card.height_field.field, "500")
    assert desk.selection.surface.height_mm == 500


def test_the_rig_takes_frames_and_says_how_good_it_is(window, settled, soon):
    desk, gather = window.desk, window.stages["Gather"]
    desk.go("Gather")
    click(gather.rig_button)
    assert gather.rig.isVisible()
    click(gather.rig.take)
    soon(lambda: len(desk.job.sources) == 1)
    settled(window)
    source = desk.selection.source
    assert source.kind == "scan"
    assert source.sized
    assert {p.role for p in source.pictures} == {"normal", "height"}
    assert "normals" in gather.rig.told.text()
    assert "albedo" in gather.rig.told.text()
    assert len(gather.frames.frames) == 10
    assert not gather.frames.grab().isNull()


@pytest.mark.parametrize(
    ("fault", "word"), [("unplugged", "unplugged"), ("no answer", "does not answer"), ("lamp out", "lamp")]
)
def test_the_rig_tells_its_faults_and_adds_nothing(window, settled, soon, fault, word):
    desk, gather = window.desk, window.stages["Gather"]
    desk.go("Gather")
    click(gather.rig_button)
    gather.rig.controls["fault"].choices.buttons[fault].click()
    click(gather.rig.take)
    soon(lambda: gather.rig.fault.isVisible())
    assert word in gather.rig.fault.text()
    assert not desk.job.sources
    assert gather.rig.take.isEnabled()


def test_the_rig_is_stopped(window, settled, soon):
    desk, gather = window.desk, window.stages["Gather"]
    desk.go("Gather")
    click(gather.rig_button)
    click(gather.rig.take)
    soon(lambda: "Frame" in gather.rig.state.text())
    click(gather.rig.stop)
    soon(lambda: desk.work.idle)
    settled(window)
    assert "Stopped" in gather.rig.state.text()
    assert not desk.job.sources


def test_a_folder_of_frames_is_dropped(window, settled, tmp_path):
    from tests.ui.test_window import drop

    capture = LightRig(RigSettings(frames=8, seconds=0)).take(lambda *_: None)
    folder = tmp_path / "Panel"
    folder.mkdir()
    told = {"size_mm": [120, 120], "frames": []}
    for number, (frame, light) in enumerate(zip(capture.frames, capture.lights, strict=True)):
        name = f"f{number}.png"
        codes = np.rint(np.clip(frame, 0, 1) ** (1 / 2.2) * 65535).astype(np.uint16)
        (folder / name).write_bytes(encode_png(codes))
        told["frames"].append({"file": name, "light": light})
    (folder / "lights.json").write_text(json.dumps(told))
    drop(window, folder)
    settled(window)
    assert [source.kind for source in window.desk.job.sources] == ["scan"]
    assert window.desk.selection.source.sheet_mm == (120, 120)
