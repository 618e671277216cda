"""The Library in the window: kits kept and dropped, items laid where they fall, a catalogue that fails and goes on."""

import pytest
from PyQt6.QtCore import QMimeData, QPointF, Qt
from PyQt6.QtGui import QDragEnterEvent, QDragMoveEvent, QDropEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from brave_tessel.core.job.layers import layer_of
from brave_tessel.engine.intents.layers import set_in_layer
from brave_tessel.engine.library.catalogue import Catalogue
from brave_tessel.engine.library.items import items, search
from brave_tessel.ui.stages.build.surface_board import ITEM_MIME


def test_a_kit_is_kept_found_and_dropped(build, settled, tmp_path, monkeypatch):
    panel = build.library
    panel.folders = [tmp_path]
    build.layer_card.add_rule("where.hollows")
    build.desk.selection.layer_ids = ("top",)
    panel.keep("Red wash", ("test", "red"))
    assert (tmp_path / "red-wash.kit.json").exists()
    build.open_library(True)
    panel.text.setText("red")
    assert [item.name for item in panel.found if item.kind == "kit"] == ["Red wash"]
    settled(build.window_)
    panel.lay(panel.found[0].key)
    bundle = build.desk.selection.layer
    assert bundle.kit == "Red wash"
    assert bundle.what.dials
    settled(build.window_)
    assert build.done.faults == {}
    assert [form.op for form, _ in build.layer_card.forms] == ["where.hollows"]
    build.layer_card.forms[0][0].changed.emit("depth", 1.5)
    assert build.desk.selection.layer.what.layers[0].where[0].rule.number("depth") == 1.5
    assert build.build_left.isVisible(), "the layers stay in sight"
    assert not build.layer_card.isVisible()
    build.open_library(False)
    assert build.layer_card.isVisible()
    assert not panel.isVisible()


def test_what_a_kit_cannot_bind_is_told(build, settled):
    found = search(items(build.desk.job, build.desk.selection.surface), "moss", kind="kit")
    assert found
    build.library.lay(found[0].key)
    settled(build.window_)
    assert build.done.faults == {}
    assert "rules look at this relief" in build.window_.told.text()


def dropped(widget, key, at):
    """An item of the library let go over a widget, as a window system tells it."""
    mime = QMimeData()
    mime.setData(ITEM_MIME, key.encode())
    keys = Qt.DropAction.CopyAction, mime, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
    for event in (QDragEnterEvent(at.toPoint(), *keys), QDragMoveEvent(at.toPoint(), *keys), QDropEvent(at, *keys)):
        QApplication.sendEvent(widget, event)
        assert event.isAccepted() or isinstance(event, QDragMoveEvent)


def test_a_library_item_is_dropped_on_the_board(build, settled):
    dropped(build.surface_board, "Marks of use:Dust", QPointF(100, 100))
    assert build.desk.selection.layer.name == "Dust"


@pytest.mark.parametrize(
    ("row", "share", "order"),
    [(0, 0.2, ["Tiles", "Top", "Dust"]), (0, 0.8, ["Tiles", "Dust", "Top"]), (1, 0.8, ["Dust", "Tiles", "Top"])],
)
def test_a_library_item_is_dropped_between_the_layers(build, settled, row, share, order):
    build.open_library(True)
    box = build.list.visualItemRect(build.list.item(row))
    dropped(build.list.viewport(), "Marks of use:Dust", QPointF(box.center().x(), box.top() + share * box.height()))
    settled(build.window_)
    assert [layer.name for layer in build.desk.selection.surface.layers] == order
    assert build.desk.selection.layer.name == "Dust"
    assert [entry.title for entry in build.list.rows] == order[::-1]
    QTest.keyClick(build.window_, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert [layer.name for layer in build.desk.selection.surface.layers] == ["Tiles", "Top"], "one step"


def test_a_library_item_is_dropped_beneath_all_and_into_a_bundle(build, settled):
    build.open_library(True)
    foot = QPointF(40, build.list.viewport().height() - 6)
    dropped(build.list.viewport(), "Recipe:Oyster terrazzo", foot)
    settled(build.window_)
    assert [layer.name for layer in build.desk.selection.surface.layers][1:] == ["Tiles", "Top"]
    build.desk.selection.layer_ids = ("top",)
    build.layers.bundle()
    bundle = build.desk.selection.layer
    settled(build.window_)
    box = build.list.visualItemRect(build.list.item([entry.id for entry in build.list.rows].index(bundle.id)))
    dropped(build.list.viewport(), "Marks of use:Dust", QPointF(box.center()))
    assert [layer.name for layer in layer_of(build.desk.selection.surface, bundle.id).what.layers] == ["Top", "Dust"]
    build.desk.dispatch(
        set_in_layer(
            build.desk.selection.surface, layer_of(build.desk.selection.surface, bundle.id), ("locked",), True, "Lock"
        )
    )
    before = build.desk.job
    dropped(build.list.viewport(), "Marks of use:Smudges", QPointF(box.center()))
    assert build.desk.job is before
    assert "locked" in build.window_.told.text()


def test_other_things_are_not_dropped_between_layers(build):
    mime = QMimeData()
    mime.setText("words")
    event = QDragEnterEvent(
        build.list.rect().center(),
        Qt.DropAction.CopyAction,
        mime,
        Qt.MouseButton.LeftButton,
        Qt.KeyboardModifier.NoModifier,
    )
    event.ignore()
    QApplication.sendEvent(build.list.viewport(), event)
    assert not event.isAccepted()


def test_a_decal_of_the_library_lies_where_it_is_dropped(demo_window, settled):
    desk, build = demo_window.desk, demo_window.stages["Build"]
    desk.view.set_preview(256)
    desk.selection.choose(surface="deck")
    desk.go("Build")
    demo_window.actions_.show_extent("Cell")
    settled(demo_window)
    build.surface_board.item_dropped.emit("Decal:Mosaic panel", 300.0, 420.0)
    settled(demo_window)
    place = desk.selection.layer.what.placement
    assert (place.x_mm, place.y_mm) == (300.0, 420.0)
    assert build.done.faults == {}
    assert build.done.stack.share[build.done.grid.row_column(300, 420)] > 0.9


def test_the_catalogue_breaks_off_and_goes_on(build, settled, soon, tmp_path):
    panel = build.library
    panel.folders, panel.catalogue = [tmp_path], Catalogue(tmp_path / "catalogue", fault="breaks off", seconds=0.02)
    build.open_library(True)
    panel.show_offers()
    assert panel.offers.count() >= 36
    panel.fetch()
    soon(lambda: "broke" in panel.told.text())
    number = panel.offers.currentData()
    assert 0.5 < panel.catalogue.fetched_share(number) < 1
    panel.fetch()
    soon(lambda: "Fetched" in panel.told.text())
    assert panel.catalogue.has(number)
    assert any(item.name.startswith("Oyster terrazzo, slate") for item in panel.found)
