"""Stage 3: a recipe opened from its layer, by mouse and keys."""

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

from brave_tessel.core.maps import MapKind
from brave_tessel.core.recipe.edit import step_named
from tests.ui.hand import click, pull
from tests.ui.test_whole_pass import type_into


@pytest.fixture
def opened(demo_window, settled):
    """The salt-worn limewash's recipe: clouds, relief, tint, sheen."""
    demo_window.desk.selection.choose(surface="limewash-wall", layer="wash")
    demo_window.desk.go("Build")
    settled(demo_window)
    demo_window.actions_.toggle_recipe()
    settled(demo_window)
    return demo_window


def mode(window):
    return window.stages["Build"].recipe


def recipe(window):
    return window.desk.selection.layer.what.recipe


def names(window):
    return [step.name for step in recipe(window).steps]


def row(window, name):
    return mode(window).board.rows.row_of(name).center().toPoint() - QPoint(120, 0)


def chip(window, name, slot):
    rows = mode(window).board.rows
    step = step_named(recipe(window), name)
    return next(box for key, _, box in rows.chips(step, rows.row_of(name)) if key == slot).center().toPoint()


def test_it_opens_shows_its_steps_and_closes(opened, settled):
    build, made = opened.stages["Build"], mode(opened)
    assert made.board.isVisible()
    assert not build.section.isVisible()
    assert names(opened) == ["clouds", "relief", "tint", "sheen"]
    assert set(made.board.rows.thumbs) == set(names(opened))
    assert all(ms > 0 for ms in made.board.rows.costs.values())
    assert "whole recipe" in opened.told.text()
    assert made.board.pair.step
    assert made.board.pair.surface
    assert len(made.left.seeds.looks) == 6
    assert not made.board.rows.grab().isNull()
    click(made.left.back_button)
    settled(opened)
    assert build.surface_board.isVisible()
    assert build.section.isVisible()


def test_a_step_is_added_by_typing_and_used(opened, settled):
    made = mode(opened)
    click(made.board.rows, row(opened, "clouds"))
    assert made.selected == "clouds"
    made.board.line.setFocus()
    QTest.keyClicks(made.board.line, "soft thr")
    assert made.board.found.isVisible()
    QTest.keyClick(made.board.line, Qt.Key.Key_Return)
    settled(opened)
    assert names(opened)[1] == "soft threshold"
    assert step_named(recipe(opened), "soft threshold").made_from == {"field": "clouds"}
    assert made.selected == "soft threshold"
    # Drag its row onto the chip of another: that one is made from it then.
    pull(made.board.rows, row(opened, "soft threshold"), chip(opened, "relief", "field"))
    assert step_named(recipe(opened), "relief").made_from == {"field": "soft threshold"}
    type_into(made.card.form.controls["at"].field, "0.7")
    settled(opened)
    assert step_named(recipe(opened), "soft threshold").values["at"] == 0.7
    opened.desk.session.store.undo()
    opened.desk.session.store.undo()
    assert step_named(recipe(opened), "relief").made_from == {"field": "clouds"}


def test_a_field_on_a_colour_chip_brings_its_ramp(opened, settled):
    made = mode(opened)
    made.choose("tint")
    made.add("colour.tint")
    settled(opened)
    pull(made.board.rows, row(opened, "clouds"), chip(opened, "tint 2", "colour"))
    assert "ramp of colours" in names(opened)
    assert "ramp was put between" in opened.told.text()


def test_rows_are_moved_renamed_muted_and_taken_out(opened, settled):
    made = mode(opened)
    rows = made.board.rows
    made.choose("sheen")
    rows.setFocus()
    QTest.keyClick(rows, Qt.Key.Key_Up, Qt.KeyboardModifier.AltModifier)
    assert names(opened) == ["clouds", "relief", "sheen", "tint"]
    pull(rows, row(opened, "clouds"), row(opened, "sheen") + QPoint(0, 20))
    assert names(opened)[0] == "clouds"
    assert "made from it" in opened.told.text()
    made.choose("clouds")
    made.card.name.selectAll()
    QTest.keyClicks(made.card.name, "weather")
    QTest.keyClick(made.card.name, Qt.Key.Key_Return)
    assert names(opened)[0] == "weather"
    assert recipe(opened).steps[1].made_from == {"field": "weather"}
    made.choose("sheen")
    made.card.done.emit("sheen", "bypass")
    settled(opened)
    assert step_named(recipe(opened), "sheen").bypassed
    made.card.done.emit("sheen", "duplicate")
    assert "sheen 2" in names(opened)
    rows.setFocus()
    QTest.keyClick(rows, Qt.Key.Key_Delete)
    assert "sheen 2" not in names(opened)
    made.choose("weather")
    QTest.keyClick(rows, Qt.Key.Key_Delete)
    assert "weather" in names(opened)
    assert "made from it" in opened.told.text()


def test_dials_are_opened_to_the_layer(opened, settled):
    made, build = mode(opened), opened.stages["Build"]
    made.choose("clouds")
    click(made.card.opened["size"])
    assert step_named(recipe(opened), "clouds").opened == ("size",)
    assert made.left.opened.rows[0].title == "Size, clouds"
    build.open_recipe(False)
    settled(opened)
    forms = [form for form, _ in build.layer_card.forms if form.op == "noise.clouds"]
    assert [list(form.controls) for form in forms] == [["size"]]
    assert not [form for form, _ in build.layer_card.forms if form.op == "adjust.relief"]


def test_maps_are_fed_notes_kept_and_variants_taken(opened, settled):
    made = mode(opened)
    box = made.left.feeds[MapKind.METALNESS]
    box.setCurrentIndex(box.findData("sheen"))
    box.activated.emit(box.currentIndex())
    assert recipe(opened).yields[MapKind.METALNESS] == "sheen"
    made.card.noted.emit("sheen", "keep it dull")
    assert step_named(recipe(opened), "sheen").note == "keep it dull"
    seed = made.left.seeds.looks[3][0]
    click(made.left.seeds, made.left.seeds.cell(3).center().toPoint())
    assert recipe(opened).seed == seed
    made.card.sectioned.emit("sheen", "Finish")
    assert step_named(recipe(opened), "sheen").section == "Finish"
    assert any(row.title.endswith("Finish") for row in made.left.sections.rows)


def test_files_go_out_and_come_back_and_bad_ones_are_told(opened, settled, tmp_path):
    made = mode(opened)
    before = recipe(opened)
    made.export_to(tmp_path / "wash.json")
    made.take_stock("Oyster terrazzo")
    settled(opened)
    assert len(recipe(opened).steps) > 15
    made.import_from(tmp_path / "wash.json")
    assert recipe(opened) == before
    (tmp_path / "bad.json").write_text("{}")
    made.import_from(tmp_path / "bad.json")
    assert "cannot be read" in opened.told.text()
    assert recipe(opened) == before
    made.choose("relief")
    made.copy()
    made.paste()
    assert names(opened)[-2:] == ["clouds 2", "relief 2"]


def test_two_steps_are_held_against_each_other(opened, settled):
    made = mode(opened)
    made.choose("clouds")
    settled(opened)
    made.board.pair.hold_against()
    made.choose("tint")
    settled(opened)
    assert made.board.pair.names[2] == "clouds"
    lower = made.board.pair.boxes()[1]
    pull(
        made.board.pair,
        lower.center().toPoint(),
        QPoint(int(lower.left() + 0.25 * lower.width()), int(lower.center().y())),
    )
    assert made.board.pair.wipe == pytest.approx(0.25, abs=0.03)
    made.board.pair.hold_against()
    assert not made.board.pair.other


def test_a_surface_from_stock_and_its_ramp(demo_window, settled):
    build = demo_window.stages["Build"]
    demo_window.desk.go("Build")
    build.from_stock("Verdigris copper")
    settled(demo_window)
    assert demo_window.desk.selection.surface.width_mm == 1720
    build.open_recipe(True)
    mode(demo_window).choose("patina")
    settled(demo_window)
    field = mode(demo_window).card.form.controls["colours"]
    ramp = field.ramp
    count = len(ramp.stops)
    click(ramp, QPoint(int(ramp.x_of(0.5)), 10))
    assert len(step_named(recipe(demo_window), "patina").values["colours"].split(",")) == count + 1
    pull(ramp, QPoint(int(ramp.x_of(0.5)), 10), QPoint(int(ramp.x_of(0.5)), 10), QPoint(int(ramp.x_of(0.5)), 120))
    assert len(step_named(recipe(demo_window), "patina").values["colours"].split(",")) == count
    type_into(field.field, "#112233,oak")
    assert "Colours" in demo_window.told.text()
    assert not theme_icon_missing()


def test_a_where_rule_is_a_recipe_of_its_own(opened, settled):
    build = opened.stages["Build"]
    build.open_recipe(False)
    build.layer_card.add_rule("where.recipe")
    settled(opened)
    rule = opened.desk.selection.layer.where[-1]
    build.open_recipe(True, rule=rule.id)
    settled(opened)
    made = mode(opened)
    assert [step.name for step in made.opened[2].steps] == ["beneath", "hollows", "ragged", "both", "cover"]
    made.choose("cover")
    before = opened.desk.selection.layer.what
    type_into(made.card.form.controls["at"].field, "0.4")
    settled(opened)
    assert step_named(opened.desk.selection.layer.where[-1].recipe, "cover").values["at"] == 0.4
    assert opened.desk.selection.layer.what == before
    assert len(made.left.seeds.looks) == 6


def theme_icon_missing():
    from brave_tessel.core.recipe.materials import MATERIALS
    from brave_tessel.ui import theme

    return [stock.name for stock in MATERIALS if theme.stock_icon(stock.name).isNull()]


def test_text_is_typed_and_a_pattern_is_fitted(opened, settled):
    made = mode(opened)
    made.add("source.text")
    settled(opened)
    form = made.card.form
    form.controls["text"].field.setPlainText("Baths")
    settled(opened)
    step = step_named(recipe(opened), made.selected)
    assert step.values["text"] == "Baths"
    assert made.board.rows.faults == {}
    box = form.controls["font"].box
    box.setCurrentIndex(box.findText("IBM Plex Mono"))
    box.activated.emit(box.currentIndex())
    assert step_named(recipe(opened), made.selected).values["font"] == "IBM Plex Mono"
    made.add("pattern.hexagons")
    settled(opened)
    assert "whole repeats, stretched" in made.card.closing.text()
    click(made.card.fit)
    settled(opened)
    assert "without stretching" in made.card.closing.text()
    assert not made.card.fit.isEnabled()
    opened.desk.session.store.undo()
    assert "stretched by" in made.card.closing.text()


def test_half_resolution_and_a_note_on_the_section(opened, settled):
    made = mode(opened)
    made.choose("clouds")
    made.card.done.emit("clouds", "half")
    assert step_named(recipe(opened), "clouds").half
    made.card.sectioned.emit("clouds", "Ground")
    made.card.section_noted.emit("Ground", "two coats")
    settled(opened)
    assert recipe(opened).notes == {"Ground": "two coats"}
    assert not made.board.rows.grab().isNull()
