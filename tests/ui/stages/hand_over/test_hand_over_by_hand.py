"""Stage 5 by mouse and keys: checks, what is written, where to, and what goes wrong."""

import numpy as np
import png
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from brave_tessel.core.job.commands import Set
from brave_tessel.engine.handover.output import load_outputs
from brave_tessel.formats import disk
from brave_tessel.formats.images import decode_codes


@pytest.fixture
def hand_over(build, settled):
    """Stage 5 of a small surface of tiles."""
    window = build.window_
    window.desk.go("Hand over")
    settled(window)
    stage = window.stages["Hand over"]
    stage.window_ = window
    stage.size.setCurrentIndex(stage.size.findData(512))
    stage.size.activated.emit(stage.size.currentIndex())
    settled(window)
    return stage


def deliver(stage, settled, folder):
    stage.start(folder)
    settled(stage.window_)
    assert stage.write.isEnabled()
    return sorted(path.name for path in folder.glob("*") if path.is_file())


def names(stage):
    return [row.title for row in stage.files.list.rows]


def test_the_files_are_named_before_and_written_as_named(hand_over, settled, tmp_path):
    promised = names(hand_over)
    assert len(promised) >= 6
    written = deliver(hand_over, settled, tmp_path)
    assert written == sorted(promised)
    assert f"{len(promised)} files" in hand_over.files.what.text()


def test_a_map_is_left_out_at_a_click(hand_over, settled, tmp_path):
    box = hand_over.included["height"]
    QTest.mouseClick(box, Qt.MouseButton.LeftButton, pos=box.rect().center() - box.rect().center() / 2)
    if box.isChecked():
        box.click()
    settled(hand_over.window_)
    assert not any("height" in name for name in names(hand_over))
    assert not any("height" in name for name in deliver(hand_over, settled, tmp_path))
    hand_over.desk.session.store.undo()
    assert any("height" in name for name in names(hand_over))


@pytest.mark.parametrize(("index", "depth"), [(0, 8), (1, 16)])
def test_the_depth_that_is_chosen_is_written(hand_over, settled, tmp_path, index, depth):
    box = hand_over.depths["height"]
    box.setCurrentIndex(index)
    box.activated.emit(index)
    deliver(hand_over, settled, tmp_path)
    (path,) = tmp_path.glob("*height*")
    width, height, _rows, about = png.Reader(bytes=path.read_bytes()).read()
    assert about["bitdepth"] == depth
    assert max(width, height) == 512


def test_the_size_is_chosen_by_keys(hand_over, settled):
    box = hand_over.size
    box.setFocus()
    QTest.keyClick(box, Qt.Key.Key_Down)
    box.activated.emit(box.currentIndex())
    assert hand_over.delivery.px == box.currentData() == 1024


@pytest.mark.parametrize("output", sorted(load_outputs()))
def test_a_format_is_switched_off_and_on(hand_over, settled, output):
    box = hand_over.outputs[output]
    before, was = names(hand_over), box.isChecked()
    box.setFocus()
    QTest.keyClick(box, Qt.Key.Key_Space)
    assert (output in hand_over.delivery.outputs) is not was
    if hand_over.desk.job.scene.parts or output == "maps-png":
        assert names(hand_over) != before
    QTest.keyClick(box, Qt.Key.Key_Space)
    assert names(hand_over) == before


def test_nothing_to_write_is_said(hand_over, settled, tmp_path):
    for box in hand_over.outputs.values():
        if box.isChecked():
            box.click()
    assert names(hand_over) == []
    assert deliver(hand_over, settled, tmp_path) == []


def test_a_delivery_is_of_the_job_as_it_was_when_it_began(hand_over, settled, tmp_path):
    """Recoloured while it runs, the files show the colour from before."""
    path = ("surfaces", "s", "layers", "top", "what", "colour")
    hand_over.desk.dispatch(Set(path=path, value="#FFFFFF", label="White"))
    settled(hand_over.window_)
    hand_over.start(tmp_path)
    hand_over.desk.dispatch(Set(path=path, value="#000000", label="Black"))
    settled(hand_over.window_)
    (written,) = tmp_path.glob("*base_colour*")
    codes = decode_codes(written.read_bytes(), written.name)[..., :3]
    assert codes.mean() > 0.6


def test_a_full_disk_is_told_and_the_button_comes_back(hand_over, settled, tmp_path, monkeypatch):
    def full(*_args, **_more):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(disk.os, "fsync", full)
    hand_over.start(tmp_path / "out")
    settled(hand_over.window_)
    assert hand_over.write.isEnabled()
    told = hand_over.files.what.text() + hand_over.window_.told.text()
    assert "space" in told.lower() or "full" in told.lower()
    monkeypatch.undo()
    assert deliver(hand_over, settled, tmp_path / "out")


def test_a_folder_that_is_a_file_is_told(hand_over, settled, tmp_path):
    target = tmp_path / "out"
    target.write_text("not a folder")
    hand_over.start(target)
    settled(hand_over.window_)
    assert hand_over.write.isEnabled()
    assert "was not written" in hand_over.files.what.text()
    assert target.read_text() == "not a folder"


def test_what_was_found_of_a_surface_as_it_was_is_not_said_of_it_now(hand_over, settled):
    assert hand_over.heading.note.text() == "all good"
    hand_over.desk.dispatch(Set(path=("surfaces", "s", "width_mm"), value=655.0, label="Width"))
    assert hand_over.heading.note.text() == "checking…"
    assert not hand_over.findings
    settled(hand_over.window_)
    assert "to look at" in hand_over.heading.note.text()
    hand_over.show_picture(None)
    assert not hand_over.heading.note.text(), "of nothing nothing is said"


def test_a_finding_tells_its_cause_and_is_mended_at_a_click(hand_over, settled):
    hand_over.desk.dispatch(Set(path=("surfaces", "s", "width_mm"), value=655.0, label="Width"))
    settled(hand_over.window_)
    units = next(f for f in hand_over.findings if f.check == "whole-units")
    assert units.severity != "ok"
    row = [row.id for row in hand_over.list.rows].index("whole-units")
    hand_over.list.setCurrentRow(row)
    assert hand_over.cause.text() == units.cause
    assert hand_over.mend.isVisible()
    QTest.mouseClick(hand_over.mend, Qt.MouseButton.LeftButton)
    settled(hand_over.window_)
    assert next(f for f in hand_over.findings if f.check == "whole-units").severity == "ok"
    hand_over.desk.session.store.undo()
    settled(hand_over.window_)
    assert next(f for f in hand_over.findings if f.check == "whole-units").severity == units.severity


def test_the_worst_comes_first_and_is_counted(hand_over):
    order = {"fault": 0, "caution": 1, "ok": 2}
    found = [order[finding.severity] for finding in hand_over.findings]
    assert found == sorted(found)
    bad = sum(finding.severity != "ok" for finding in hand_over.findings)
    assert hand_over.heading.note.text() == (f"{bad} to look at" if bad else "all good")


def test_every_surface_is_handed_over_at_once(demo_window, settled):
    stage = demo_window.stages["Hand over"]
    demo_window.desk.go("Hand over")
    demo_window.desk.selection.choose(surface="dado")
    settled(demo_window)
    one = len(names(stage))
    stage.every.click()
    many = names(stage)
    assert len(many) > 8 * (one - 2)
    assert len(set(many)) == len(many)


def test_maps_written_twice_are_the_same_bytes(hand_over, settled, tmp_path):
    first, second = tmp_path / "first", tmp_path / "second"
    files = deliver(hand_over, settled, first)
    deliver(hand_over, settled, second)
    assert all((first / name).read_bytes() == (second / name).read_bytes() for name in files)
    assert np.prod([len((first / name).read_bytes()) > 0 for name in files])
