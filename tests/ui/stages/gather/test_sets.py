"""Many sets at once: a list to choose from, to put right and to size together."""

import numpy as np
import pytest
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QDropEvent
from PyQt6.QtTest import QTest

from brave_tessel.formats.images import encode_png
from tests.core.gather.test_scanned import made
from tests.made_photos import write_frames
from tests.ui.test_window import drop

ROLES = ("albedo", "normal", "rough")


@pytest.fixture
def textures(tmp_path):
    """Eight sets in two folders, and a file that is no picture."""
    rng = np.random.default_rng(1)
    for number in range(8):
        place = tmp_path / "packs" / f"pack {number % 2}"
        place.mkdir(parents=True, exist_ok=True)
        for role in ROLES:
            codes = rng.integers(60, 200, (16, 16, 3)).astype(np.uint8)
            if role != "albedo":
                codes[:] = (128, 128, 255) if role == "normal" else 90
            (place / f"stone{number}_{role}.png").write_bytes(encode_png(codes))
    (tmp_path / "packs" / "licence.txt").write_text("free")
    return tmp_path / "packs"


@pytest.fixture
def found(window, settled, textures):
    drop(window, textures)
    settled(window)
    dialog = window.stages["Gather"].sets
    assert dialog.isVisible()
    assert not window.desk.job.sources, "nothing is read before it is wanted"
    yield dialog
    dialog.close()


def row(dialog, name):
    return next(item for item in dialog.rows() if item.text(0) == name)


def press(button):
    QTest.mouseClick(button, Qt.MouseButton.LeftButton)


def test_what_is_ticked_is_gathered(window, settled, found):
    assert "8 sets in 24 files" in found.about.text()
    assert "One file is no picture" in found.about.text()
    QTest.keyClicks(found.search, "pack 1")
    assert found.gather.text() == "Gather 4 sets"
    found.search.clear()
    found.tick(on=False)
    assert not found.gather.isEnabled()
    for name in ("Stone0", "Stone3"):
        row(found, name).setCheckState(0, Qt.CheckState.Checked)
    QTest.keyClicks(found.size_field, "2 m x 1500 mm")
    QTest.keyClick(found.size_field, Qt.Key.Key_Return)
    row(found, "Stone3").setText(0, "Sandstone")
    press(found.gather)
    settled(window)
    sources = window.desk.job.sources
    assert [source.name for source in sources] == ["Stone0", "Sandstone"]
    assert all((s.straightening.width_mm, s.straightening.height_mm) == (2000, 1500) for s in sources)
    assert all(not s.straightening.size_note for s in sources), "typed, not told by a file"
    assert {p.role for p in sources[0].pictures} == {"normal", "roughness"}


def test_a_scanned_mesh_and_frames_among_many_sets_are_rows_too(window, settled, textures):
    made().export(str(textures / "pack 0" / "Quarry_face.glb"))
    (textures / "moss").mkdir()
    write_frames(textures / "moss")
    drop(window, textures)
    settled(window)
    dialog = window.stages["Gather"].sets
    assert "10 sets in 26 files. One file" in dialog.about.text()
    assert row(dialog, "Quarry face").text(1) == "scanned mesh"
    assert row(dialog, "Moss").text(1) == "frames of a light rig"
    dialog.move_onto([row(dialog, "Stone1")], row(dialog, "Moss"))
    assert row(dialog, "Stone1"), "pictures do not become part of what is measured"
    dialog.tick(on=False)
    for name in ("Quarry face", "Moss"):
        row(dialog, name).setCheckState(0, Qt.CheckState.Checked)
    press(dialog.gather)
    settled(window)
    assert [source.kind for source in window.desk.job.sources] == ["scan", "scan"]
    assert all(source.sized for source in window.desk.job.sources)


def test_a_size_that_is_none_is_told_and_changes_nothing(found):
    QTest.keyClicks(found.size_field, "wide")
    QTest.keyClick(found.size_field, Qt.Key.Key_Return)
    assert "wide" in found.state.text()
    assert all(one.size_mm is None for one in found.sets.values())


def dragged(dialog, items, onto):
    """Items chosen and dropped on a row, as a hand does it."""
    dialog.tree.clearSelection()
    for item in items:
        item.setSelected(True)
    at = QPointF(dialog.tree.visualItemRect(onto).center())
    event = QDropEvent(at, Qt.DropAction.MoveAction, dialog.tree.mimeData(items), Qt.MouseButton.LeftButton,
                       Qt.KeyboardModifier.NoModifier)  # fmt: skip
    dialog.tree.dropEvent(event)


def test_files_are_moved_and_sets_joined_by_dragging(window, settled, found):
    one, other = row(found, "Stone0"), row(found, "Stone2")
    found.tree.expandItem(other)
    normal = next(other.child(k) for k in range(3) if "normal" in other.child(k).text(0))
    dragged(found, [normal], one)
    assert "normal" not in other.text(1)
    assert other.childCount() == 2
    dragged(found, [row(found, "Stone1")], other)
    assert len(found.rows()) == 7
    assert "7 sets" in found.about.text()
    held = found.sets[other.data(0, Qt.ItemDataRole.UserRole)]
    assert len(held.named.members) == 5
    found.tick(on=False)
    other.setCheckState(0, Qt.CheckState.Checked)
    press(found.gather)
    settled(window)
    (source,) = window.desk.job.sources
    assert len(source.pictures) == 4, "files of another folder come along"


def test_a_role_is_chosen_for_files_and_not_questioned(window, settled, found):
    item = row(found, "Stone0")
    found.tree.expandItem(item)
    rough = next(item.child(k) for k in range(3) if "rough" in item.child(k).text(0))
    rough.setSelected(True)
    found.role.setCurrentIndex(found.role.findData("height"))
    found.role.activated.emit(found.role.currentIndex())
    assert "height" in item.text(1)
    found.tick(on=False)
    item.setCheckState(0, Qt.CheckState.Checked)
    press(found.gather)
    settled(window)
    (source,) = window.desk.job.sources
    assert {p.role for p in source.pictures} == {"normal", "height"}
    assert next(p.reason for p in source.pictures if p.role == "height") == "chosen by hand"
