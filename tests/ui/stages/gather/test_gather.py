"""Stage 1: folders of map sets in the window."""

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from brave_tessel.ui import theme
from tests.engine.gather.test_reading import folder, relief  # noqa: F401 - fixtures
from tests.ui.test_window import drop


def test_a_dropped_folder_becomes_sources_with_maps(window, settled, folder):  # noqa: F811
    drop(window, folder)
    settled(window)
    desk, gather = window.desk, window.stages["Gather"]
    assert [source.name for source in desk.job.sources] == ["Cobbles", "Plaster"]
    assert "cannot be read" in window.told.text()
    rows = {row.title: row.note for row in gather.list.rows}
    assert "240 × 240 mm" in rows["Cobbles"]
    assert "no size yet" in rows["Plaster"]
    desk.selection.choose(source=desk.job.sources[0].id)
    settled(window)
    assert len(gather.source_card.maps.roles) == 3
    shown = {gather.source_card.maps.roles[p.id].currentData() for p in desk.selection.source.pictures}
    assert shown == {"normal", "glossiness", "height"}
    card = gather.card.currentWidget()
    assert card.widget().minimumSizeHint().width() <= card.viewport().width()


def test_a_role_and_the_green_are_set_right_at_a_click(window, settled, folder):  # noqa: F811
    drop(window, folder)
    settled(window)
    desk, gather = window.desk, window.stages["Gather"]
    desk.selection.choose(source=desk.job.sources[0].id)
    normal = next(p for p in desk.selection.source.pictures if p.role == "normal")
    assert normal.green == "down"
    from PyQt6.QtWidgets import QPushButton

    green = next(b for b in gather.source_card.maps.findChildren(QPushButton) if b.text() == "Green down")
    QTest.mouseClick(green, Qt.MouseButton.LeftButton)
    assert next(p for p in desk.selection.source.pictures if p.role == "normal").green == "up"
    gloss = next(p for p in desk.selection.source.pictures if p.role == "glossiness")
    box = gather.source_card.maps.roles[gloss.id]
    box.activated.emit(box.findData("roughness"))
    assert next(p for p in desk.selection.source.pictures if p.id == gloss.id).role == "roughness"
    assert desk.session.store.undo_label == "Set a map right"


def test_a_dropped_scan_is_laid_flat_and_sized(window, settled, tmp_path):
    import numpy as np
    import trimesh

    x, y = np.meshgrid(np.linspace(0, 400, 30), np.linspace(0, 300, 24))
    points = np.stack([x, y, 4 * np.sin(x / 30)], 2).reshape(-1, 3)
    number = np.arange(720).reshape(24, 30)
    quads = np.stack([number[:-1, :-1], number[:-1, 1:], number[1:, 1:], number[1:, :-1]], 2).reshape(-1, 4)
    path = tmp_path / "Harbour_stone.ply"
    trimesh.Trimesh(points, np.concatenate([quads[:, [0, 1, 2]], quads[:, [0, 2, 3]]]), process=False).export(str(path))
    drop(window, path)
    settled(window)
    (source,) = window.desk.job.sources
    assert (source.name, source.kind) == ("Harbour stone", "scan")
    assert source.sheet_mm == pytest.approx((400, 300), rel=0.01)
    assert "400 × 300 mm" in window.told.text()
    # A guessed unit is something to look at, not a fault.
    assert theme.colour("ochre").name() in window.told.styleSheet()
