"""The Library in the window: kits kept and dropped, items laid where they fall, a catalogue that fails and goes on."""


from PyQt6.QtCore import QPointF, Qt

from brave_tessel.engine.catalogue import Catalogue
from brave_tessel.engine.library import items, search


def test_a_kit_is_kept_found_and_dropped(build, settled, tmp_path, monkeypatch):
    panel = build.library
    panel.folders = [tmp_path]
    build.layer_card._add_rule("where.hollows")
    build.desk.layer_ids = ("top",)
    panel.keep("Red wash", ("test", "red"))
    assert (tmp_path / "red-wash.kit.json").exists()
    build.open_library(True)
    panel.text.setText("red")
    assert [item.name for item in panel.found if item.kind == "kit"] == ["Red wash"]
    settled(build.window_)
    panel.lay(panel.found[0].key)
    bundle = build.desk.layer
    assert bundle.kit == "Red wash"
    assert bundle.what.dials
    settled(build.window_)
    assert build.done.faults == {}
    assert [form.op for form, _ in build.layer_card.forms] == ["where.hollows"]
    build.layer_card.forms[0][0].changed.emit("depth", 1.5)
    assert build.desk.layer.what.layers[0].where[0].rule.number("depth") == 1.5
    build.open_library(False)
    assert build.build_left.isVisible()


def test_what_a_kit_cannot_bind_is_told(build, settled):
    found = search(items(build.desk.job, build.desk.surface), "moss", kind="kit")
    assert found
    build.library.lay(found[0].key)
    settled(build.window_)
    assert build.done.faults == {}
    assert "rules look at this relief" in build.window_.told.text()


def test_a_library_item_is_dropped_on_the_board(build, settled):
    from PyQt6.QtCore import QMimeData
    from PyQt6.QtGui import QDropEvent

    from brave_tessel.ui.stages.surface_board import ITEM_MIME

    mime = QMimeData()
    mime.setData(ITEM_MIME, b"Imperfections:Dust")
    event = QDropEvent(QPointF(100, 100), Qt.DropAction.CopyAction, mime, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier)
    build.surface_board.dropEvent(event)
    assert build.desk.layer.name == "Dust"


def test_a_decal_of_the_library_lies_where_it_is_dropped(demo_window, settled):
    desk, build = demo_window.desk, demo_window.stages["Build"]
    desk.set_preview(256)
    desk.select(surface="deck")
    desk.go("Build")
    demo_window.actions_.show_extent("Cell")
    settled(demo_window)
    build.surface_board.item_dropped.emit("Decal:Mosaic panel", 300.0, 420.0)
    settled(demo_window)
    place = desk.layer.what.placement
    assert (place.x_mm, place.y_mm) == (300.0, 420.0)
    assert build.done.faults == {}
    assert build.done.stacks[-1].share[build.done.grid.row_column(300, 420)] > 0.9


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
