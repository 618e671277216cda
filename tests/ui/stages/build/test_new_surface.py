"""A new surface by the button *New*: empty, of units, or of stock, and what it is called."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QMenu, QPushButton

from brave_tessel.engine.intents import surfaces as surface_intents


def new_button(window) -> QPushButton:
    """The button above the layers."""
    found = window.stages["Build"].left.findChildren(QPushButton)
    return next(button for button in found if button.text() == "New" and button.menu() is not None)


def take(window, entry: str) -> None:
    """Open its menu and click an entry."""
    menu: QMenu = new_button(window).menu()
    menu.popup(window.mapToGlobal(window.rect().center()))
    action = next(action for action in menu.actions() if action.text() == entry)
    QTest.mouseClick(menu, Qt.MouseButton.LeftButton, pos=menu.actionGeometry(action).center())
    assert not menu.isVisible()


def test_an_empty_one_can_be_built_on(window, settled):
    window.desk.go("Build")
    take(window, "Empty")
    settled(window)
    surface = window.desk.selection.surface
    assert (surface.name, surface.layers) == ("Surface 1", ())
    assert (surface.width_mm, surface.height_mm) == (surface_intents.EMPTY_MM,) * 2
    assert window.build_stage.surface_board.isVisible()
    window.build_stage.layers.lay_on("Recipe", "Limewash on render")
    settled(window)
    assert [layer.name for layer in window.desk.selection.surface.layers] == ["Limewash on render"]
    assert window.build_stage.done is not None
    window.desk.session.store.undo()
    window.desk.session.store.undo()
    settled(window)
    assert window.desk.job.surfaces == ()


def test_each_is_called_by_its_number_and_not_by_its_stock(window, settled):
    window.desk.go("Build")
    for entry in ("Worn road", "Rectangular units", "Worn road"):
        take(window, entry)
    settled(window)
    assert [surface.name for surface in window.desk.job.surfaces] == ["Surface 1", "Surface 2", "Surface 3"]
    assert window.desk.job.surfaces[0].layers[0].name == "Worn road"


def test_a_layer_laid_on_nothing_brings_a_surface_of_its_own(window, settled):
    window.desk.go("Build")
    settled(window)
    menu = window.build_stage.layers.lay_menu
    menu.popup(window.mapToGlobal(window.rect().center()))
    action = next(action for action in menu.actions() if action.text() == "Plain colour")
    QTest.mouseClick(menu, Qt.MouseButton.LeftButton, pos=menu.actionGeometry(action).center())
    settled(window)
    (surface,) = window.desk.job.surfaces
    assert [layer.name for layer in surface.layers] == ["Plain colour"]
    assert window.build_stage.done is not None
    window.desk.session.store.undo()
    settled(window)
    assert window.desk.job.surfaces == (), "one step back"
