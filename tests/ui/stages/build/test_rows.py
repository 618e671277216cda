"""The rows of the build-up, its cards and its dials under the hand."""

from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QLabel, QLineEdit, QPushButton

from brave_tessel.core.job.layers import layer_of
from brave_tessel.core.recipe.edit import kind_of


def test_a_name_typed_over_a_row_leaves_nothing_behind(build, settled):
    """Enter takes the name and does not open it again; Esc leaves it; another name closes the first field."""
    for key, name in ((Qt.Key.Key_Return, "Red lead"), (Qt.Key.Key_Escape, "Lost"), (Qt.Key.Key_Return, "Minium")):
        QTest.keyClick(build.window_, Qt.Key.Key_F2)
        QTest.keyClicks(build.list.name_field, name)
        QTest.keyClick(build.list.name_field, key)
        settled(build.window_)
        assert build.list.name_field is None
        assert not [field for field in build.list.viewport().findChildren(QLineEdit) if field.isVisible()]
    assert layer_of(build.desk.selection.surface, "top").name == "Minium"
    build.list.rename_in_place("top")
    first = build.list.name_field
    build.list.rename_in_place("tiles")
    assert build.list.name_field is not first
    settled(build.window_)
    assert len([field for field in build.list.viewport().findChildren(QLineEdit) if field.isVisible()]) == 1


def click_row(build, index, keys=Qt.KeyboardModifier.NoModifier):
    where = build.list.visualItemRect(build.list.item(index)).center()
    QTest.mouseClick(build.list.viewport(), Qt.MouseButton.LeftButton, keys, where - QPoint(40, 0))


def test_rows_are_chosen_together_with_ctrl_and_shift(build, settled):
    build.layers.lay_on("Special", "Plain colour")
    build.layers.lay_on("Special", "Plain colour")
    settled(build.window_)
    ids = [row.id for row in build.list.rows]
    click_row(build, 0)
    click_row(build, 2, Qt.KeyboardModifier.ControlModifier)
    settled(build.window_)
    assert build.list.selected_ids() == [ids[0], ids[2]]
    assert set(build.desk.selection.layer_ids) == {ids[0], ids[2]}
    assert build.desk.selection.layer_id == ids[2]
    # Once more lets it go; what is left stays chosen, and the card follows.
    click_row(build, 2, Qt.KeyboardModifier.ControlModifier)
    settled(build.window_)
    assert build.list.selected_ids() == [ids[0]]
    assert build.desk.selection.layer_id == ids[0]
    click_row(build, 3, Qt.KeyboardModifier.ShiftModifier)
    settled(build.window_)
    assert build.list.selected_ids() == ids
    QTest.keyClick(build.list, Qt.Key.Key_Delete)
    settled(build.window_)
    assert build.desk.selection.surface.layers == ()
    build.desk.session.store.undo()
    settled(build.window_)
    assert len(build.list.rows) == 4


def test_a_dragged_dial_shows_pictures_while_it_moves(build, settled):
    """Each coarse picture is finished though the hand goes on; the whole one comes when it rests."""
    build.desk.view.set_preview(512)
    settled(build.window_)
    rule = next(f for f, _ in build.layer_card.forms if "level" in f.controls).controls["level"].rule
    seen = []
    build.desk.build.ready.connect(lambda done: seen.append((max(done.grid.shape), done.surface)))
    middle = QPoint(rule.width() // 2, rule.height() // 2)
    QTest.mousePress(rule, Qt.MouseButton.LeftButton, pos=middle)
    for n in range(40):
        QTest.mouseMove(rule, middle + QPoint((n % 10) * 5, 0))
        QTest.qWait(16)
    while_moving = [px for px, _ in seen]
    QTest.mouseRelease(rule, Qt.MouseButton.LeftButton, pos=middle)
    assert len(while_moving) >= 4
    assert set(while_moving) <= {256, 512}
    settled(build.window_)
    assert seen[-1] == (512, build.desk.selection.surface)


def test_rows_are_changed_not_made_anew(build, settled):
    items = {row.id: build.list.item(n) for n, row in enumerate(build.list.rows)}
    build.layers.lay_on("Special", "Plain colour")
    build.layers.rename()
    settled(build.window_)
    assert all(build.list.item([row.id for row in build.list.rows].index(id)) is item for id, item in items.items())


def test_the_hidden_card_rests_while_a_recipe_is_open(build, settled):
    build.desk.selection.choose(layer="tiles")
    settled(build.window_)
    build.open_recipe(True)
    built = build.layer_card.built_count
    card = build.recipe.card
    yields = build.recipe.opened[2].yields
    step = next(s for s in build.recipe.opened[2].steps if s.name in yields.values() and kind_of(s) == "field")
    build.recipe.choose(step.name)
    assert any("Feeds" in label.text() for label in card.findChildren(QLabel))
    other = next(
        s.name for s in build.recipe.opened[2].steps if s.name != step.name and kind_of(s) == kind_of(step) == "field"
    )
    for kind, name in list(build.recipe.opened[2].yields.items()):
        if name == step.name:
            build.recipe._feed(kind, other)
    settled(build.window_)
    told = " ".join(label.text() for label in card.findChildren(QLabel) if label.isVisible())
    assert "Feeds" not in told
    assert build.layer_card.built_count == built


def test_what_is_laid_on_is_chosen_alone(build, settled):
    build.layers.lay_on("Special", "Plain colour")
    settled(build.window_)
    assert build.list.selected_ids() == [build.desk.selection.layer_id] == list(build.desk.selection.layer_ids)


def test_a_card_made_anew_stays_where_it_was_scrolled(build, settled):
    build.layers.lay_on("Special", "Run")
    settled(build.window_)
    card = build.layer_card
    switch = next(one for one in card.findChildren(QPushButton) if one.text() == "Along the joints")
    bar = card.verticalScrollBar()
    assert bar.maximum() > 100
    card.ensureWidgetVisible(switch, 0, 10)
    before, built = bar.value(), card.built_count
    switch.setFocus()
    QTest.mouseClick(switch, Qt.MouseButton.LeftButton)
    settled(build.window_)
    assert card.built_count > built
    # The line that counts its steps goes.
    assert abs(bar.value() - before) < 40
    again = next(one for one in card.findChildren(QPushButton) if one.text() == "Along the joints" and one.isVisible())
    assert again.isChecked()
    assert again.hasFocus()


def test_rows_with_pictures_can_be_dragged(build, settled):
    """What a drag begins with on a display, where a list writes down all that its rows show."""
    settled(build.window_)
    rows = build.list
    assert any(row.picture is not None for row in rows.rows)
    carried = rows.model().mimeData(rows.selectedIndexes())
    assert set(carried.formats()) == set(rows.model().mimeTypes())
