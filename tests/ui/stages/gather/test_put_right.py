"""Stage 1: framing, measuring, the lens, greys, palettes, estimates and linked files, with the mouse."""

import cv2
import numpy as np
import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QColorDialog, QPushButton

from brave_tessel.core.colour import codes_from_linear
from brave_tessel.core.gather.lens import rebend
from brave_tessel.core.maps import MapKind
from brave_tessel.engine.intents import sources as source_intents
from brave_tessel.formats.images import encode_png
from tests.core.gather.test_shadows import ground, shaded
from tests.made_photos import chart_photo
from tests.ui.hand import at, click, hover, pull
from tests.ui.test_whole_pass import type_into

BEND = -0.09


@pytest.fixture
def mosaic(demo_window, settled):
    demo_window.desk.selection.choose(source="mosaic")
    demo_window.desk.go("Gather")
    settled(demo_window)
    return demo_window


@pytest.fixture
def bulging(window, settled, tmp_path):
    """A window on a photo of a white sheet with black lines, seen through a lens that bulges."""
    size = (600, 450)
    photo = np.full((450, 600, 3), 190, np.uint8)
    for y in (40, 225, 410):
        run = rebend(np.column_stack([np.linspace(30, 570, 80), np.full(80, float(y))]), (BEND, 0.0), size)
        cv2.polylines(photo, [np.rint(run * 16).astype(np.int32)], False, (20, 20, 20), 2, cv2.LINE_AA, 4)
    path = tmp_path / "bulging.png"
    path.write_bytes(encode_png(photo))
    window.desk.gather.read([path])
    settled(window)
    return window


def sections(window):
    return window.stages["Gather"].source_card


def test_a_side_is_dragged_and_its_ends_slide_along_the_neighbours(mosaic, settled):
    desk, board = mosaic.desk, mosaic.stages["Gather"].frame
    before = np.array(desk.selection.source.straightening.corners)
    middle = (before[0] + before[1]) / 2
    start = at(board, *middle)
    pull(board, start, start + QPoint(0, 12))
    after = np.array(desk.selection.source.straightening.corners)
    assert after[2:] == pytest.approx(before[2:])
    for moved, still, old in ((after[0], before[3], before[0]), (after[1], before[2], before[1])):
        a, b = moved - still, old - still
        assert abs(a[0] * b[1] - a[1] * b[0]) / np.hypot(*b) < 0.05
    assert np.hypot(*(after[0] - before[0])) > 5
    assert desk.session.store.undo_label == "Move the frame"
    QTest.keyClick(board, Qt.Key.Key_Down)
    assert np.array(desk.selection.source.straightening.corners)[0][1] == pytest.approx(after[0][1] + 1)


def test_a_bent_edge_sets_the_lens(bulging, settled):
    desk, board = bulging.desk, bulging.stages["Gather"].frame
    card = sections(bulging)
    card.lens.unfold()
    click(card.lens.straight)
    ends = rebend([(40.0, 40.0), (300.0, 40.0), (560.0, 40.0)], (BEND, 0.0), (600, 450))
    pull(board, at(board, *ends[0]), at(board, *ends[2]))
    assert desk.selection.source.straightening.bend == 0
    straight_middle = (ends[0] + ends[2]) / 2
    pull(board, at(board, *straight_middle), at(board, *ends[1]))
    settled(bulging)
    # A pixel of the screen is a good pixel of the photo here.
    assert desk.selection.source.straightening.bend == pytest.approx(BEND, abs=0.03)
    assert "curvature" in card.lens.head.words
    assert len(desk.selection.source.straightening.edges) == 1
    # A second edge joins in; both are taken away in one click.
    side = rebend([(40.0, 60.0), (40.0, 225.0), (40.0, 390.0)], (BEND, 0.0), (600, 450))
    pull(board, at(board, *side[0]), at(board, *side[2]))
    pull(board, at(board, *(side[0] + side[2]) / 2), at(board, *side[1]))
    assert len(desk.selection.source.straightening.edges) == 2
    assert "2 edges" in card.lens.edges.text()
    click(card.lens.away)
    assert desk.selection.source.straightening.lens == (0.0, 0.0)
    desk.session.store.undo()
    assert not board.grab().isNull()
    QTest.keyClick(board, Qt.Key.Key_Escape)
    assert board.name == "frame"
    assert not card.lens.straight.isChecked()


def test_a_known_thing_sizes_the_frame_or_the_line(bulging, settled):
    desk, card = bulging.desk, sections(bulging)
    board = bulging.stages["Gather"].frame
    a4 = next(n for n in range(card.line.known.count()) if "A4" in card.line.known.itemText(n))
    card.line.known.activated.emit(a4)
    frame = desk.selection.source.straightening
    # The photo lies on its side, and so does the sheet: ISO 216.
    assert (frame.width_mm, frame.height_mm) == (297, 210)
    assert frame.size_note == "Sheet of A4"
    settled(bulging)
    click(card.line.measure)
    pull(board, at(board, 100, 300), at(board, 400, 300))
    assert card.line.length.field.hasFocus()
    coin = next(n for n in range(card.line.known.count()) if "euro" in card.line.known.itemText(n))
    card.line.known.activated.emit(coin)
    assert desk.selection.source.straightening.width_mm == pytest.approx(600 / 300 * 23.25, rel=0.02)


def test_a_known_proportion_is_locked_and_let_go(bulging, settled):
    desk, card = bulging.desk, sections(bulging)
    type_into(card.frame.width_field.field, "400")
    settled(bulging)
    type_into(card.frame.locked.field, "2:1")
    settled(bulging)
    assert desk.selection.source.straightening.locked == 2
    assert desk.selection.source.straightening.height_mm == 200
    assert "as you say" in card.frame.proportion.text()
    type_into(card.frame.locked.field, "oak")
    assert "proportion" in bulging.told.text()
    card.frame.locked.field.clear()
    card.frame.locked.field.setModified(True)
    card.frame.locked.field.editingFinished.emit()
    assert desk.selection.source.straightening.locked == 0
    assert "px per mm" in card.frame.density.text()


def test_a_focal_length_is_typed_and_the_sheet_stands_before_any_size(bulging, settled):
    desk, card = bulging.desk, sections(bulging)
    settled(bulging)
    strip = bulging.stages["Gather"].sheet
    assert len(strip.pictures) == 2, "its relief waits for a size"
    assert "no size" in strip.pictures[0][1]
    card.lens.unfold()
    type_into(card.lens.focal.field, "28 mm")
    settled(bulging)
    frame = desk.selection.source.straightening
    assert frame.focal == pytest.approx(28 / 43.2666 * 750, rel=1e-4)
    assert "focal" in card.frame.proportion.text()
    assert "±" in card.frame.proportion.text()
    type_into(card.lens.focal.field, "1")
    assert "focal length" in bulging.told.text()
    desk.session.store.undo()
    assert desk.selection.source.straightening.focal == 0


def test_another_patch_is_a_source_of_its_own(mosaic, settled):
    desk = mosaic.desk
    first = desk.selection.source
    click(sections(mosaic).frame.another)
    settled(mosaic)
    assert desk.selection.source.id != first.id
    assert desk.selection.source.blob == first.blob
    assert "patch 2" in desk.selection.source.name
    assert not desk.selection.source.sized
    assert "no size yet" in next(
        row.note for row in mosaic.stages["Gather"].list.rows if row.id == desk.selection.source_id
    )


def test_grey_is_picked_on_the_photo(mosaic, settled, soon):
    desk, board, card = mosaic.desk, mosaic.stages["Gather"].frame, sections(mosaic)
    card.colour_section.unfold()
    before = (
        desk.session.snapshot()
        .evaluation()
        .value(desk.session.snapshot().planner().evened(desk.selection.source, 200))[MapKind.BASE_COLOUR]
        .mean((0, 1))
    )
    click(card.grey)
    corners = np.array(desk.selection.source.straightening.corners)
    place = at(board, *corners.mean(0))
    hover(board, place)
    click(board, place)
    soon(lambda: "neutral" in desk.selection.source.balance.values)
    settled(mosaic)
    assert board.name == "frame"
    after = (
        desk.session.snapshot()
        .evaluation()
        .value(desk.session.snapshot().planner().evened(desk.selection.source, 200))[MapKind.BASE_COLOUR]
        .mean((0, 1))
    )
    assert np.abs(after / before - 1).max() > 0.02
    assert desk.session.store.undo_label == "Pick grey or white"


def test_a_cast_shadow_is_lifted_by_two_clicks(window, settled, tmp_path):
    plain = ground(1)
    dark, share = shaded(plain)
    path = tmp_path / "yard.png"
    path.write_bytes(encode_png(codes_from_linear(dark, depth=8)))
    desk, board, card = window.desk, window.stages["Gather"].frame, sections(window)
    desk.gather.read([path])
    settled(window)
    desk.dispatch(source_intents.set_size(desk.job.sources[0], 400.0, 400.0))
    settled(window)
    card.shadow.unfold()
    click(card.shadow.pick)
    assert board.name == "lit"
    width, height = dark.shape[1], dark.shape[0]
    click(board, at(board, 0.85 * width, 0.4 * height))
    assert board.name == "dark"
    assert not desk.job.sources[0].shadow.number("strength")
    click(board, at(board, 0.2 * width, 0.6 * height))
    settled(window)
    assert board.name == "frame"
    values = desk.job.sources[0].shadow.values
    assert values["strength"] == 1
    assert (values["lit_x"], values["lit_y"]) == (pytest.approx(0.85, abs=0.02), pytest.approx(0.6, abs=0.02))
    assert card.shadow.told.isHidden()
    snapshot = desk.session.snapshot()
    made = snapshot.evaluation().value(snapshot.planner().evened(desk.job.sources[0], max(dark.shape[:2])))
    light = made[MapKind.BASE_COLOUR].mean(2)
    size = light.shape[::-1]
    inside, outside = (cv2.resize(part.astype(np.float32), size) > 0.99 for part in (share > 0.99, share < 0.01))
    assert light[inside].mean() == pytest.approx(light[outside].mean(), rel=0.12)
    click(card.shadow.pick)
    click(board, at(board, 0.2 * width, 0.6 * height))
    click(board, at(board, 0.85 * width, 0.4 * height))
    settled(window)
    assert "no darker" in card.shadow.told.text()
    assert card.shadow.told.isVisible()


def test_palettes_are_taken_kept_and_offered(mosaic, settled, soon):
    desk, board, card = mosaic.desk, mosaic.stages["Gather"].frame, sections(mosaic)
    card.palettes.unfold()
    type_into(card.palettes.stops.field, "4")
    corners = np.array(desk.selection.source.straightening.corners)
    click(card.palettes.line)
    pull(board, at(board, *(0.7 * corners[0] + 0.3 * corners[2])), at(board, *(0.3 * corners[0] + 0.7 * corners[2])))
    soon(lambda: len(desk.job.palettes) == 2)
    click(card.palettes.area)
    pull(board, at(board, *(0.7 * corners[0] + 0.3 * corners[2])), at(board, *(0.3 * corners[0] + 0.7 * corners[2])))
    soon(lambda: len(desk.job.palettes) == 3)
    assert [len(palette.stops) for palette in desk.job.palettes] == [5, 4, 4]
    assert QColorDialog.customColor(0).name().upper() == desk.job.palettes[0].stops[0]
    strip = card.palettes.strips[desk.job.palettes[1].id]
    click(strip, QPoint(3, 5))
    assert desk.job.palettes[1].stops[0] in mosaic.told.text()
    board.leave_tool()
    assert desk.job.palettes[1].name == "Mosaic panel 2"
    remove = next(
        b for b in card.palettes.findChildren(type(card.palettes.line).__mro__[1]) if b.toolTip().startswith("Take out")
    )
    click(remove)
    assert len(desk.job.palettes) == 2


def test_estimates_are_lit_as_they_are_dragged(mosaic, settled):
    desk, gather, card = mosaic.desk, mosaic.stages["Gather"], sections(mosaic)
    card.relief_section.unfold()
    names = [name for _, name in gather.sheet.pictures]
    assert names == ["straightened", "put right", "lit, relief estimated", "the relief alone"]
    before = gather.sheet.pictures[2][0]
    type_into(card.estimates["height"].controls["rise"].field, "15")
    settled(mosaic)
    assert desk.selection.source.height.number("rise") == 15
    assert gather.sheet.pictures[2][0] != before
    right = Qt.MouseButton.RightButton
    lit = gather.sheet.pictures[2][0]
    pull(gather.frame, QPoint(200, 200), QPoint(320, 200), button=right)
    settled(mosaic)
    assert gather.sheet.pictures[2][0] != lit


def test_a_linked_source_follows_its_file_and_says_when_it_is_gone(window, settled, soon, tmp_path):
    path = tmp_path / "Wall.png"
    path.write_bytes(encode_png(np.full((40, 60, 3), 90, np.uint8)))
    desk, gather, card = window.desk, window.stages["Gather"], sections(window)
    desk.gather.read([path])
    settled(window)
    assert not desk.selection.source.linked
    click(card.follows)
    assert desk.selection.source.linked
    assert "follows its file" in card.note.text()
    blob = desk.selection.source.blob
    desk.followed.look()
    path.write_bytes(encode_png(np.full((80, 120, 3), 160, np.uint8)))
    soon(lambda: desk.selection.source.blob != blob, 10)
    assert (desk.selection.source.width_px, desk.selection.source.height_px) == (120, 80)
    assert desk.selection.source.straightening.corners[2] == (120, 80)
    assert "read again" in gather.list.rows[0].note
    # Gone: the last pixels stay, and it asks where the file is now.
    path.unlink()
    soon(lambda: card.missing.isVisible(), 10)
    assert "file missing" in gather.list.rows[0].note
    assert desk.session.snapshot().load_pixels(desk.selection.source.blob).shape == (80, 120, 3)
    moved = tmp_path / "moved" / "Wall.png"
    moved.parent.mkdir()
    moved.write_bytes(encode_png(np.full((80, 120, 3), 30, np.uint8)))
    card.look_in(tmp_path)
    soon(lambda: not card.missing.isVisible(), 10)
    assert desk.selection.source.path == str(moved)
    soon(lambda: desk.session.snapshot().load_pixels(desk.selection.source.blob).mean() < 0.05, 10)
    moved.write_bytes(b"no picture at all")
    before = desk.selection.source.blob
    soon(lambda: "cannot be read" in window.told.text(), 10)
    assert desk.selection.source.blob == before


def test_a_curve_on_data_is_taken_out_at_a_click(window, settled, tmp_path):
    rng = np.random.default_rng(3)
    rough = np.repeat(rng.integers(60, 200, (32, 32, 1)), 3, 2).astype(np.uint8)
    for name, codes in (
        ("tin_basecolor.png", rng.integers(0, 255, (32, 32, 3)).astype(np.uint8)),
        ("tin_roughness.png", rough),
    ):
        (tmp_path / name).write_bytes(encode_png(codes))
    window.desk.gather.read([tmp_path])
    settled(window)
    card = sections(window)
    card.maps_section.unfold()
    curve = next(b for b in card.maps.findChildren(QPushButton) if b.text() == "sRGB curve")
    was = window.desk.selection.source.pictures[0].curved
    click(curve)
    assert window.desk.selection.source.pictures[0].curved is not was


def test_a_second_picture_of_the_patch_takes_a_gleam_out(window, settled, soon, tmp_path):
    rng = np.random.default_rng(6)
    grit = cv2.GaussianBlur(rng.normal(120, 60, (160, 200, 3)).astype(np.float32), (0, 0), 2) * 1.0
    grit = np.clip(120 + (grit - 120) * 4, 20, 220)
    gleaming = grit.copy()
    cv2.circle(gleaming, (60, 70), 16, (250, 250, 250), -1)
    other = grit.copy()
    cv2.circle(other, (150, 110), 16, (250, 250, 250), -1)
    for name, picture in (("one", gleaming), ("two", other), ("three", grit)):
        (tmp_path / f"{name}.png").write_bytes(encode_png(np.rint(picture).astype(np.uint8)))
    desk, card = window.desk, sections(window)
    desk.gather.read([tmp_path / "one.png"])
    settled(window)
    type_into(card.frame.width_field.field, "200")
    type_into(card.frame.height_field.field, "160")
    card.take_maps([tmp_path / "two.png", tmp_path / "three.png", tmp_path / "none.png"], same_patch=True)
    soon(lambda: len(desk.selection.source.pictures) == 2)
    settled(window)
    assert "none.png" in window.told.text()
    assert {p.role for p in desk.selection.source.pictures} == {"same_patch"}
    sheet = (
        desk.session.snapshot()
        .evaluation()
        .value(desk.session.snapshot().planner().evened(desk.selection.source, 200))[MapKind.BASE_COLOUR]
    )
    clean = (np.clip(grit, 0, 255) / 255) ** 2.2
    assert abs(float(sheet[62:78, 52:68].mean()) - float(clean[62:78, 52:68].mean())) < 0.05
    card.maps_section.unfold()
    card.maps.removed.emit(desk.selection.source.pictures[0].id)
    assert len(desk.selection.source.pictures) == 1
    assert desk.session.store.undo_label == "Take out a map"


def test_a_map_is_added_by_hand_and_what_is_missing_is_listed(mosaic, settled, soon, tmp_path):
    rng = np.random.default_rng(6)
    path = tmp_path / "panel_roughness.png"
    path.write_bytes(encode_png(np.repeat(rng.integers(90, 170, (64, 96, 1)), 3, 2).astype(np.uint8)))
    desk, card = mosaic.desk, sections(mosaic)
    card.take_maps([path], same_patch=False)
    soon(lambda: desk.selection.source.pictures)
    settled(mosaic)
    assert desk.selection.source.pictures[0].role == "roughness"
    from PyQt6.QtWidgets import QLabel

    told = [label.text() for label in card.maps.findChildren(QLabel)]
    assert any(text.startswith("Missing: normal, height") for text in told)
    assert card.relief_section.head.words == "roughness its own"


def test_a_chart_found_on_one_photo_serves_another(window, settled, tmp_path):
    photo, _ = chart_photo()
    names = []
    for name, pixels in (("chart", photo), ("wall", photo[500:, :400] * 0 + 0.2)):
        path = tmp_path / f"{name}.png"
        path.write_bytes(encode_png(codes_from_linear(np.ascontiguousarray(pixels, np.float32), depth=16)))
        names.append(path)
    desk = window.desk
    desk.gather.read(names)
    settled(window)
    sources = desk.job.sources
    desk.selection.choose(source=sources[0].id)
    settled(window)
    section = sections(window).chart
    section.unfold()
    click(section.seek)
    settled(window)
    known = desk.selection.source.calibration
    assert known.mean < 0.5 < 3 < known.before
    assert "ΔE" in section.told.text()
    (plain, _), (right, _) = window.stages["Gather"].sheet.pictures
    assert plain != right, "the chart shows before any size is typed"
    desk.selection.choose(source=sources[1].id)
    settled(window)
    click(section.seek)
    settled(window)
    assert "chart" in window.told.text()
    section.others.setCurrentIndex(1)
    section.others.activated.emit(1)
    assert desk.selection.source.calibration == known
    click(section.away)
    assert desk.selection.source.calibration is None


def test_a_line_along_a_shadow_tells_where_the_light_came_from(mosaic, settled):
    desk, stage = mosaic.desk, mosaic.stages["Gather"]
    card, board = stage.source_card, stage.frame
    card.relief_section.unfold()
    assert not card.estimates["height"].controls["light_bearing"].isVisibleTo(card.estimates["height"])
    click(card.shadow_line)
    assert board.name == "light"
    corners = np.array(desk.selection.source.straightening.corners)
    middle, foot = corners.mean(0), (corners[2] + corners[3]) / 2
    # What throws it stands above its tip: the light comes from above.
    pull(board, at(board, *middle), at(board, *(0.4 * middle + 0.6 * foot)))
    settled(mosaic)
    height = desk.selection.source.height
    assert height.values["one_side"]
    assert height.values["light_bearing"] == pytest.approx(90, abs=4)
    assert board.name == "frame"
    assert board.line is None
    assert card.estimates["height"].controls["light_bearing"].isVisibleTo(card.estimates["height"])
    assert "paint" in card.told.text()
    desk.session.store.undo()
    assert not desk.selection.source.height.values.get("one_side")
