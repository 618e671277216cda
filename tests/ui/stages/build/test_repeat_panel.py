"""The repeat typed in the title block, by mouse and keys."""

from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

LEFT = Qt.MouseButton.LeftButton


def opened(build):
    """The panel, opened by a click on the cell that says Repeat."""
    block = build.block
    index = next(n for n, cell in enumerate(block.cells) if cell[1] == "Repeat")
    middle = block._cell_rects()[index].center().toPoint()
    QTest.mouseClick(block, LEFT, pos=middle)
    panel = block.repeat
    assert panel.isVisible()
    return panel


def write(field, text):
    field.setFocus()
    field.selectAll()
    QTest.keyClicks(field, text)


def surface(build):
    return build.desk.selection.surface


def test_a_typed_repeat_keeps_the_features(build, settled):
    panel = opened(build)
    assert panel.across.field.text() == "600"
    write(panel.across.field, "8*150")
    QTest.keyClick(panel.across.field, Qt.Key.Key_Return)
    settled(build.window_)
    assert not panel.isVisible()
    assert (surface(build).width_mm, surface(build).height_mm) == (1200, 450)
    assert "1200 × 450" in {c[1]: c[2] for c in build.block.cells}["Repeat"]
    values = surface(build).layers[0].what.recipe.steps[0].values
    assert values["length"] == 145.0
    build.desk.session.store.undo()
    assert surface(build).width_mm == 600


def test_whole_units_are_proposed_and_taken(build, settled):
    panel = opened(build)
    write(panel.across.field, "700")
    QTest.keyClick(panel.across.field, Qt.Key.Key_Tab)
    shown = [button for button in panel.proposals if button.isVisible()]
    assert shown
    assert "units" in shown[0].text()
    QTest.mouseClick(shown[0], LEFT)
    assert surface(build).width_mm in {600, 750}
    assert not panel.isVisible()


def test_scaling_keeps_the_shape_and_grows_the_units(build, settled):
    panel = opened(build)
    QTest.mouseClick(panel.grow, LEFT, pos=QPoint(8, panel.grow.height() // 2))
    assert panel.grow.isChecked()
    assert not any(button.isVisible() for button in panel.proposals)
    write(panel.across.field, "1200")
    QTest.keyClick(panel.across.field, Qt.Key.Key_Return)
    settled(build.window_)
    assert (surface(build).width_mm, surface(build).height_mm) == (1200, 900)
    assert surface(build).layers[0].what.recipe.steps[0].values["length"] == 290.0


def test_escape_leaves_the_repeat_as_it_was(build):
    panel = opened(build)
    write(panel.up.field, "900")
    QTest.keyClick(panel, Qt.Key.Key_Escape)
    assert not panel.isVisible()
    assert surface(build).height_mm == 450
