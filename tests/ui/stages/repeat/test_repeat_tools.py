"""Stage 2: every tool on the board, with the mouse and keys."""

import dataclasses
import itertools
import json

import numpy as np
import pytest
from PIL import Image
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

from brave_tessel.core.maps import MapKind
from brave_tessel.core.repeat.break_up import cells_of
from brave_tessel.ui.stages.repeat.board import kept_share
from brave_tessel.ui.stages.repeat.spot import before, spot_of_cut
from brave_tessel.ui.stages.repeat.tools import FeatureTool
from tests.ui.hand import at, click, hover, pull
from tests.ui.test_whole_pass import type_into


@pytest.fixture
def shingle(demo_window, settled):
    demo_window.desk.selection.choose(source="shingle")
    demo_window.desk.go("Repeat")
    settled(demo_window)
    return demo_window


def step(window, name, settled):
    window.desk.view.set_step(name)
    settled(window)
    return window.stages["Repeat"]


def test_the_repeat_is_chosen_by_dragging_and_by_search(shingle, settled, soon):
    desk = shingle.desk
    repeat = step(shingle, "choose", settled)
    board = repeat.pair
    whole = board.choice.grid
    assert (whole.width_mm, whole.height_mm) == (640, 480)
    right = at(board, 640, 240)
    pull(board, right, right - QPoint(60, 0))
    crop = desk.selection.source.crop
    assert crop.x_mm == 0
    assert 500 < crop.width_mm < 600
    assert crop.height_mm == 480
    inside = at(board, crop.width_mm / 2, 240)
    pull(board, inside, inside + QPoint(20, 0))
    assert desk.selection.source.crop.x_mm > 10
    assert desk.selection.source.crop.width_mm == pytest.approx(crop.width_mm)
    assert desk.job.surface("shingle-bed").width_mm < 2 * 550
    repeat.choose.find_best()
    soon(lambda: repeat.choose.proposals)
    settled(shingle)
    costs = [proposal.cost for proposal in repeat.choose.proposals]
    assert costs == sorted(costs)
    assert desk.selection.source.crop == repeat.choose.proposals[0].crop
    click(repeat.choose.list.viewport(), repeat.choose.list.visualItemRect(repeat.choose.list.item(1)).center())
    assert desk.selection.source.crop == repeat.choose.proposals[1].crop
    type_into(repeat.choose.fields["width_mm"].field, "9000")
    assert "mm" in shingle.told.text()
    assert desk.selection.source.crop == repeat.choose.proposals[1].crop
    click(repeat.choose.whole)
    assert desk.selection.source.crop is None


def test_the_cut_is_pulled_through_a_place_and_let_go(shingle, settled):
    desk = shingle.desk
    repeat = step(shingle, "mend", settled)
    board, done = repeat.pair, repeat.pair.done
    row = len(done.cut.path_x) // 3
    x = done.cut.path_x[row] * done.grid.width_mm
    y = (1 - row / len(done.cut.path_x)) * done.grid.height_mm
    # Further into the overlap than the cut went by itself.
    lap = done.cut.laps[0] * done.grid.width_mm
    aim = 0.85 * lap if x < 0.5 * lap else 0.2 * lap
    pull(board, at(board, x, y), at(board, aim, y))
    settled(shingle)
    assert len(desk.selection.source.pins) == 1
    after = repeat.pair.done.cut.path_x
    assert abs(after[row] * done.grid.width_mm - aim) < 0.12 * lap
    assert repeat.mend.pins.isVisible()
    pinned = at(board, aim, y)
    QTest.mouseDClick(board, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, pinned)
    assert desk.selection.source.pins == ()
    desk.session.store.undo()
    click(repeat.mend.pins)
    assert desk.selection.source.pins == ()


def test_closed_patches_cover_the_worst_spots(shingle, settled):
    repeat = step(shingle, "mend", settled)
    before = max(repeat.pair.done.cut.along)
    type_into(repeat.mend.form.controls["patches"].field, "4")
    settled(shingle)
    assert len(repeat.pair.done.cut.patches) >= 1
    assert max(repeat.pair.done.cut.along) <= before * 1.05
    assert not repeat.pair.grab().isNull()


@pytest.mark.parametrize("brush", ["clone", "heal", "paint", "smudge", "sharpen"])
def test_a_brush_strokes_over_an_edge_and_is_taken_out_later(shingle, settled, brush):
    desk = shingle.desk
    repeat = step(shingle, "touch", settled)
    before = repeat.pair.done.small[MapKind.BASE_COLOUR].copy()
    click(repeat.touch.tools.buttons[f"touch.{brush}"])
    board = repeat.pair
    board.setFocus()
    # The joins cross in the middle of the cell: from one side of the edge to the other.
    pull(board, at(board, -30, 60), at(board, 30, 90))
    settled(shingle)
    (stroke,) = desk.selection.source.touches
    assert stroke.brush.op == f"touch.{brush}"
    assert len(stroke.points) >= 2
    after = repeat.pair.done.small[MapKind.BASE_COLOUR]
    changed = np.abs(after - before).max(axis=2) > 0.004
    columns = changed.shape[1]
    assert changed[:, : columns // 8].any()
    assert changed[:, -columns // 8 :].any()
    assert not changed[:, columns // 3 : 2 * columns // 3].any()
    assert desk.session.store.undo_label.lower() == brush
    pull(board, at(board, 100, 60), at(board, 130, 60))
    click(repeat.touch.list.viewport(), repeat.touch.list.visualItemRect(repeat.touch.list.item(0)).center())
    click(repeat.touch.remove)
    settled(shingle)
    assert len(desk.selection.source.touches) == 1
    assert desk.selection.source.touches[0].id != stroke.id
    desk.session.store.undo()
    desk.session.store.undo()
    assert [touch.id for touch in desk.selection.source.touches] == [stroke.id]


def test_brush_keys_size_it_take_from_a_place_and_draw_straight(shingle, settled):
    desk = shingle.desk
    repeat = step(shingle, "touch", settled)
    board = repeat.pair
    board.setFocus()
    size = repeat.brush.size
    QTest.keyClick(board, Qt.Key.Key_BracketRight)
    assert repeat.brush.size > size
    QTest.keyClick(board, Qt.Key.Key_BracketLeft)
    assert repeat.brush.size == pytest.approx(size, abs=0.1)
    click(repeat.touch.tools.buttons["touch.clone"])
    hover(board, at(board, 150, -80))
    QTest.keyClick(board, Qt.Key.Key_T)
    pull(board, at(board, 0, 0), at(board, 20, 30), at(board, 60, 0), keys=Qt.KeyboardModifier.ShiftModifier)
    stroke = desk.selection.source.touches[-1]
    assert len(stroke.points) == 2
    assert stroke.offset == pytest.approx((150, -80), abs=4)
    QTest.keyClick(board, Qt.Key.Key_A)
    assert repeat.brush.offset is None


def test_the_field_takes_strokes_too(shingle, settled):
    desk = shingle.desk
    for name in ("across", "up"):
        type_into(shingle.stages["Repeat"].break_up.form.controls[name].field, "1")
    repeat = step(shingle, "touch", settled)
    field = repeat.pair.areas()[1].center().toPoint()
    pull(repeat.pair, field, field + QPoint(6, 0))
    settled(shingle)
    assert len(desk.selection.source.touches) == 1


def test_the_sheet_is_shifted_by_drag_arrows_and_numbers(shingle, settled):
    desk = shingle.desk
    repeat = step(shingle, "touch", settled)
    before = repeat.pair.done.small[MapKind.BASE_COLOUR]
    click(repeat.touch.tools.buttons["shift"])
    board = repeat.pair
    pull(board, at(board, 0, 0), at(board, 40, 25))
    assert desk.selection.source.shift == pytest.approx((40, 25), abs=3)
    board.setFocus()
    QTest.keyClick(board, Qt.Key.Key_Right)
    assert desk.selection.source.shift[0] == pytest.approx(41, abs=3)
    type_into(repeat.touch.shift_fields[0].field, "137.5")
    settled(shingle)
    assert desk.selection.source.shift[0] == 137.5
    after = repeat.pair.done.small[MapKind.BASE_COLOUR]
    assert after.mean() == pytest.approx(before.mean(), rel=0.01)
    assert repeat.pair.done.seams[0].closes
    click(repeat.touch.back)
    assert desk.selection.source.shift == (0, 0)


def test_every_marks_number_stands_on_the_cell(shingle, settled):
    board = step(shingle, "break", settled).pair
    tool, cell, size = FeatureTool(lambda _index: None), board.areas()[0], board.done.grid
    loud = board.done.features[0]
    for x, y in itertools.product((0.0, size.width_mm / 2, size.width_mm), (0.0, size.height_mm / 2, size.height_mm)):
        assert cell.contains(tool.plate(board, dataclasses.replace(loud, x=x, y=y))), (x, y)


def test_a_loud_spot_is_quietened_by_a_click_on_its_mark(shingle, settled):
    desk = shingle.desk
    repeat = step(shingle, "break", settled)
    board, done = repeat.pair, repeat.pair.done
    assert repeat.break_up.list.count() == len(done.features) >= 1
    loud = done.features[0]
    click(board, at(board, loud.x, done.grid.height_mm - loud.y))
    settled(shingle)
    assert len(desk.selection.source.quiets) == 1
    left = repeat.pair.done.features
    gone = [
        f for f in left if np.hypot(f.x - loud.x, f.y - loud.y) < 0.3 * loud.size and f.strength >= 0.95 * loud.strength
    ]
    assert not gone
    click(repeat.break_up.again)
    assert desk.selection.source.quiets == ()


def test_a_way_to_break_the_repeat_does_so_at_once_and_off_lets_it_be(shingle, settled):
    desk = shingle.desk
    repeat = step(shingle, "break", settled)
    page = repeat.break_up
    click(page.way.buttons["off"])
    settled(shingle)
    assert cells_of(desk.selection.source.breakup) == (1, 1)
    assert page.way.buttons["off"].isChecked()
    assert not page.form.isVisible()
    assert repeat.pair.done.field_mips is None
    click(page.way.buttons["breakup.edges"])
    settled(shingle)
    assert cells_of(desk.selection.source.breakup) == (4, 4)
    assert page.form.isVisible()
    assert repeat.pair.done.field_mips is not None
    desk.session.store.undo()
    settled(shingle)
    assert page.way.buttons["off"].isChecked()


def test_variants_are_laid_and_written_as_files(shingle, settled, soon, tmp_path):
    desk = shingle.desk
    repeat = step(shingle, "break", settled)
    click(repeat.break_up.way.buttons["breakup.variants"])
    settled(shingle)
    assert repeat.pair.done.field_mips is not None
    repeat.break_up.write_to(tmp_path)
    soon(lambda: "files in" in shingle.told.text())
    names = sorted(path.name for path in tmp_path.rglob("*.*"))
    count = int(desk.selection.source.breakup.value("count"))
    assert sum("base_colour" in name for name in names) >= count


def test_cells_with_edge_kinds_are_laid_and_written_as_an_atlas(shingle, settled, soon, tmp_path):
    desk = shingle.desk
    repeat = step(shingle, "break", settled)
    click(repeat.break_up.way.buttons["breakup.edges"])
    settled(shingle)
    assert repeat.pair.done.field_mips is not None
    across, up = (int(desk.selection.source.breakup.value(name)) for name in ("across", "up"))
    repeat.break_up.write_to(tmp_path)
    soon(lambda: "files in" in shingle.told.text())
    (colour,) = tmp_path.rglob("*atlas_base_colour.png")
    index = json.loads(next(tmp_path.rglob("*_atlas.json")).read_text())
    with Image.open(colour) as picture:
        wide, high = picture.size
    columns, rows = index["atlas"]["columns"], index["atlas"]["rows"]
    assert columns * rows == len(index["cells"]) == 16
    cell = index["cell_mm"]
    assert wide / columns / (high / rows) == pytest.approx(cell[0] / cell[1], rel=0.02)
    field = index["field"]["rows_from_the_top"]
    assert (len(field), len(field[0])) == (up, across)
    known = {one["cell"]: one for one in index["cells"]}
    for row in field:
        for k, number in enumerate(row):
            assert known[number]["right"] == known[row[(k + 1) % across]]["left"]


def test_cell_and_field_share_the_room(shingle, settled):
    repeat = step(shingle, "mend", settled)
    board = repeat.pair
    board.set_share(0.5)
    even, field = board.areas()
    between = QPoint(round((even.right() + field.left()) / 2), round(even.center().y()))
    QTest.mousePress(board, Qt.MouseButton.LeftButton, pos=between)
    QTest.mouseMove(board, between - QPoint(120, 0))
    QTest.mouseRelease(board, Qt.MouseButton.LeftButton, pos=between - QPoint(120, 0))
    cell, field = board.areas()
    assert cell.right() < even.right() - 90
    assert kept_share() == pytest.approx(board.share)
    title = QPoint(round(field.center().x()), 12)
    QTest.mouseDClick(board, Qt.MouseButton.LeftButton, pos=title)
    assert board.areas()[1].width() > 0.7 * board.width()
    assert board.spot_boxes()
    assert not any(box.intersects(board.areas()[1]) for box in board.spot_boxes())
    QTest.mouseDClick(board, Qt.MouseButton.LeftButton, pos=title)
    assert board.share == 0.5
    QTest.mouseDClick(board, Qt.MouseButton.LeftButton, pos=QPoint(round(even.left() + 8), 12))
    assert board.share > 0.75
    board.set_share(0.5)


def test_a_map_seam_shows_its_worst_place(shingle, settled):
    repeat = step(shingle, "mend", settled)
    seams = repeat.meters.maps
    click(seams, seams.cell(0, 0).center().toPoint())
    assert repeat.pair.spot is not None
    assert repeat.pair.spot[0] == 0
    repeat.meters.seam.pressed.emit()
    assert repeat.pair.spot[0] != 0
    repeat.fit()
    assert repeat.pair.spot is None


def test_regrowing_shows_a_rough_sheet_first_and_can_be_stopped(shingle, settled, soon):
    desk = shingle.desk
    repeat = step(shingle, "mend", settled)
    shown = []
    desk.repeat.ready.connect(lambda done: shown.append(done.rough))
    click(repeat.mend.method.buttons["mend.regrow"])
    settled(shingle)
    assert shown[0] is True
    assert shown[-1] is False
    type_into(repeat.mend.form.controls["seed"].field, "7")
    soon(lambda: not desk.work.idle)
    shingle.actions_.leave_tool()
    assert "Stopped" in shingle.told.text()
    soon(lambda: desk.work.idle)


def drawn_round(board, middle, half):
    """The mouse's way round a piece, in pixels of the board."""
    turns = np.linspace(0, 2 * np.pi, 25)
    return [at(board, middle[0] + half * np.cos(t), middle[1] + half * np.sin(t)) for t in turns]


def pulled(board, way):
    QTest.mousePress(board, Qt.MouseButton.LeftButton, pos=way[0])
    for place in way[1:]:
        hover(board, place)
    QTest.mouseRelease(board, Qt.MouseButton.LeftButton, pos=way[-1])


def test_a_piece_is_drawn_round_dragged_and_turned(shingle, settled):
    desk = shingle.desk
    repeat = step(shingle, "touch", settled)
    click(repeat.touch.tools.buttons["touch.piece"])
    board = repeat.pair
    assert board.tool is repeat.piece
    before, was = desk.selection.source.touches, board.done.small[MapKind.BASE_COLOUR]
    pulled(board, drawn_round(board, (200, 200), 40))
    assert desk.selection.source.touches == before, "drawn round, and not moved yet"
    pull(board, at(board, 200, 200), at(board, 320, 240))
    settled(shingle)
    touch = desk.selection.source.touches[-1]
    assert touch.brush.op == "touch.piece"
    now, grid = board.done.small[MapKind.BASE_COLOUR], board.done.grid
    assert touch.offset[0] % grid.width_mm == pytest.approx(-120 % grid.width_mm, abs=3)
    assert touch.offset[1] % grid.height_mm == pytest.approx(-40 % grid.height_mm, abs=3)
    scale = now.shape[1] / grid.width_mm
    there, here = (
        (round((grid.height_mm - y) * scale) % now.shape[0], round(x * scale)) for x, y in ((200, 200), (320, 240))
    )
    assert np.abs(now[here] - was[there]).max() < 0.03
    QTest.keyClick(board, Qt.Key.Key_BracketLeft)
    QTest.keyClick(board, Qt.Key.Key_BracketLeft)
    settled(shingle)
    assert desk.selection.source.touches[-1].brush.number("turn") == 10
    assert len(desk.selection.source.touches) == len(before) + 1
    pull(board, at(board, 320, 240), at(board, 330, 240))
    settled(shingle)
    assert len(desk.selection.source.touches) == len(before) + 1
    QTest.keyClick(board, Qt.Key.Key_Return)
    assert repeat.piece.held is None
    pulled(board, drawn_round(board, (200, 200), 30))
    pull(board, at(board, 200, 200), at(board, 250, 120))
    settled(shingle)
    assert len(desk.selection.source.touches) == len(before) + 2
    QTest.keyClick(board, Qt.Key.Key_Escape)
    settled(shingle)
    assert len(desk.selection.source.touches) == len(before) + 1


def test_the_worst_place_is_shown_beside_the_join_as_it_lay(shingle, settled):
    repeat = step(shingle, "mend", settled)
    board = repeat.pair
    done = board.done
    spot = spot_of_cut(done)
    was = before(done, spot.at)
    assert was is not None
    assert min(was) == 0.0, "on an edge of the sheet"
    shown, plain = board.spot_boxes()
    assert shown.size() == plain.size()
    assert plain.right() <= board.areas()[0].right() + 1
    assert plain.bottom() + 40 <= board.height(), "with its words"
    picture = board.grab().toImage()
    middle = plain.center().toPoint()
    across = was[0] == 0.0
    step_over, beside = [], []
    for k in range(-50, 50, 2):
        a, b = (
            [QPoint(middle.x() + d, middle.y() + k) for d in (-4, 4)]
            if across
            else [QPoint(middle.x() + k, middle.y() + d) for d in (-4, 4)]
        )
        shift = QPoint(20, 0) if across else QPoint(0, 20)
        for pair, into in (((a, b), step_over), ((a + shift, b + shift), beside)):
            grey = [picture.pixelColor(point).lightness() for point in pair]
            into.append(abs(grey[0] - grey[1]))
    assert np.mean(step_over) > 1.3 * np.mean(beside), "edge against edge it does not close"
    board.show_spot(0.5 * done.grid.width_mm, 0.5 * done.grid.height_mm)
    assert len(board.spot_boxes()) == 1, "far from joins there is none to show"
