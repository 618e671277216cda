"""From opening a skewed photo to the files on disk, with mouse and keys in the window."""

import numpy as np
import pytest
from PIL import Image
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtTest import QTest

from brave_tessel.core.buildup.kinds.recipe import RecipeWhat
from brave_tessel.core.buildup.kinds.source import SourceWhat
from brave_tessel.demo.camera import View, photograph, seen_corners
from brave_tessel.formats.images import encode_png


def mouse(widget, kind, at, button=Qt.MouseButton.LeftButton, modifiers=Qt.KeyboardModifier.NoModifier):
    point = at.toPoint() if isinstance(at, QPointF) else at
    if kind == "press":
        QTest.mousePress(widget, button, modifiers, point)
    elif kind == "release":
        QTest.mouseRelease(widget, button, modifiers, point)
    else:
        QTest.mouseMove(widget, point)


def drag(widget, start, end, *, button=Qt.MouseButton.LeftButton, steps=4):
    """A real press, moves with the button held, and a release."""
    from PyQt6.QtCore import QEvent
    from PyQt6.QtGui import QMouseEvent
    from PyQt6.QtWidgets import QApplication

    def send(kind, point, which, held):
        event = QMouseEvent(kind, point, widget.mapToGlobal(point), which, held, Qt.KeyboardModifier.NoModifier)
        QApplication.sendEvent(widget, event)

    start, end = QPointF(start), QPointF(end)
    send(QEvent.Type.MouseButtonPress, start, button, button)
    for step in range(1, steps + 1):
        send(QEvent.Type.MouseMove, start + (end - start) * step / steps, Qt.MouseButton.NoButton, button)
    send(QEvent.Type.MouseButtonRelease, end, button, Qt.MouseButton.NoButton)


def type_into(field, text):
    field.setFocus()
    field.selectAll()
    QTest.keyClicks(field, text)
    QTest.keyClick(field, Qt.Key.Key_Return)


@pytest.fixture
def skewed(tmp_path):
    """A stony panel of 900 × 600 mm seen at an angle by a pinhole camera, and where its corners fall."""
    from brave_tessel.core.recipe.steps.noise import clouds, pebbles
    from brave_tessel.core.sheet import Grid

    grid = Grid(900, 600, 1000, 700)
    shape = pebbles(grid, size=40, seed=3) * 0.6 + 0.4 * clouds(grid, size=30, seed=8)
    panel = np.rint(shape[..., None] * np.array([180, 160, 130])).astype(np.uint8)
    corners = seen_corners((900, 600), picture=(1000, 750), focal_px=1100, distance_mm=1500, yaw=20, pitch=-15, roll=3)
    path = tmp_path / "stones.png"
    path.write_bytes(encode_png(photograph(panel, View(1000, 750, corners, (0.2, 0.2), 0.3, 0.002, 5))))
    return path, corners


def test_from_a_photo_to_a_wall(window, settled, skewed, tmp_path, soon):
    desk = window.desk
    path, corners = skewed

    # 1 Gather: open, drag the four corners, type the width; the height follows from the view.
    desk.gather.read([path])
    settled(window)
    gather = window.stages["Gather"]
    frame = gather.frame
    for corner, target in zip(desk.selection.source.straightening.corners, corners, strict=True):
        drag(frame, frame.to_screen(*corner), frame.to_screen(*target))
    settled(window)
    placed = np.array(desk.selection.source.straightening.corners)
    assert np.abs(placed - np.array(corners)).max() < 1.5 / frame.scale
    assert desk.session.store.undo_label == "Move the frame"
    type_into(gather.source_card.frame.width_field.field, "12*75")
    settled(window)
    sizes = desk.selection.source.straightening
    assert sizes.width_mm == 900
    assert sizes.height_mm == pytest.approx(600, rel=0.02)
    assert sizes.size_note == "12*75"
    assert len(gather.sheet.pictures) == 4

    # 2 Repeat: widen the overlap with the arrow keys, read the meters, make a surface.
    QTest.keyClick(window, Qt.Key.Key_2)
    assert desk.view.stage == "Repeat"
    settled(window)
    repeat = window.stages["Repeat"]
    overlap = repeat.mend.form.controls["overlap"]
    before = desk.selection.source.mend.number("overlap")
    overlap.rule.setFocus()
    for _ in range(12):
        QTest.keyClick(overlap.rule, Qt.Key.Key_Right)
    settled(window)
    assert desk.selection.source.mend.number("overlap") > before
    assert repeat.pair.done is not None
    assert all(reading.closes for reading in repeat.pair.done.seams)
    assert repeat.meters.seam.value == f"{max(r.score for r in repeat.pair.done.seams):.2f}"
    QTest.mouseClick(repeat.mend.make, Qt.MouseButton.LeftButton)
    assert desk.view.stage == "Build"
    settled(window)

    # 3 Build: a second layer, its seat and a rule, and paint over the edge.
    build = window.stages["Build"]
    assert isinstance(desk.selection.surface.layers[0].what, SourceWhat)
    build.layers.lay_on("Recipe", "Clouds")
    settled(window)
    assert isinstance(desk.selection.surface.layers[1].what, RecipeWhat)
    level = next(form for form, _ in build.layer_card.forms if form.op == "seat.by_height").controls["level"]
    type_into(level.field, "0.8 mm")
    assert desk.selection.layer.seat.number("level") == 0.8
    build.layer_card.add_rule("where.noise")
    QTest.keyClick(window, Qt.Key.Key_B)
    assert build.surface_board.painting
    board = build.surface_board
    width, height = board.size_mm()
    drag(board, board.to_screen(width - 30, height / 2), board.to_screen(width + 40, height / 2), steps=8)
    settled(window)
    QTest.keyClick(window, Qt.Key.Key_Escape)
    assert not board.painting
    rules = {rule.rule.op: rule for rule in desk.selection.layer.where}
    assert len(rules["where.painted"].strokes) == 1
    assert desk.session.store.undo_label == "Paint"
    row, column = build.done.grid.row_column(5.0, height / 2)
    assert build.done.stack.share[row, column] > 0.9
    row, column = build.done.grid.row_column(width - 5.0, height / 2)
    assert build.done.stack.share[row, column] > 0.9
    assert len(build.section.section.heights) == 3

    # 4 Place: put up the corner, drop the surface on a wall, pick the datum.
    QTest.keyClick(window, Qt.Key.Key_4)
    place = window.stages["Place"]
    QTest.keyClick(window, Qt.Key.Key_C, Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier)
    settled(window)
    desk.selection.choose(part="floor")
    place.laid_card.laid_id = ""
    QTest.mouseClick(place.tiles[desk.selection.surface_id], Qt.MouseButton.LeftButton)
    assert desk.job.scene.part("floor").laid[-1].surface == desk.selection.surface_id
    QTest.keyClick(window, Qt.Key.Key_P, Qt.KeyboardModifier.ControlModifier)
    assert place.hand.tool == "Datum"
    at = place.view.on_screen((2250.0, 0.0, 2700.0))
    QTest.mouseClick(
        place.view, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, QPoint(round(at.x()), round(at.y()) + 3)
    )
    assert desk.job.scene.main_datum().at == pytest.approx((2250, 0, 2700), abs=40)
    assert place.hand.tool == "Choose"
    settled(window)
    assert place.view.image is not None

    # 5 Hand over: read the checks and write the files.
    QTest.keyClick(window, Qt.Key.Key_5)
    settled(window)
    hand_over = window.stages["Hand over"]
    assert {f.check for f in hand_over.findings} == {"seam", "base-colour", "whole-units", "size"}
    assert next(f for f in hand_over.findings if f.check == "seam").severity == "ok"
    hand_over.size.setCurrentIndex(0)
    hand_over.size.activated.emit(0)
    QTest.mouseClick(hand_over.included["metalness"], Qt.MouseButton.LeftButton, pos=QPoint(8, 8))
    out = tmp_path / "out"
    hand_over.start(out)
    soon(lambda: hand_over.write.isEnabled(), 60)
    names = sorted(path.name for path in out.iterdir())
    assert names == sorted(
        [
            "untitled-job.glb",
            *(f"stones_{m}.png" for m in ("ambient_occlusion", "base_colour", "height", "normal", "roughness")),
        ]
    )
    with Image.open(out / "stones_base_colour.png") as image:
        assert max(image.size) == 512

    # Undo takes all of it back, by name.
    steps = 0
    while desk.session.store.undo():
        steps += 1
    assert steps >= 10
    assert desk.job.sources == ()
