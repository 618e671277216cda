"""Every action of every menu, on nothing and on the demo: none raises, each is named, and undo takes it back."""

import pytest
from PyQt6.QtGui import QAction
from PyQt6.QtWidgets import QDialog, QFileDialog, QInputDialog, QMenu, QMessageBox

from brave_tessel.ui.view_state import STAGES


@pytest.fixture(autouse=True)
def nobody_answers(monkeypatch):
    """Every dialog is closed as it opens."""
    monkeypatch.setattr(QDialog, "exec", lambda self: 0)
    monkeypatch.setattr(QFileDialog, "exec", lambda self: 0)
    monkeypatch.setattr(QMessageBox, "exec", lambda self: QMessageBox.StandardButton.Cancel)
    monkeypatch.setattr(QInputDialog, "getText", lambda *args, **more: ("", False))
    for name in ("information", "warning", "question", "about"):
        monkeypatch.setattr(QMessageBox, name, lambda *args, **more: QMessageBox.StandardButton.Cancel)


def menus(window):
    """Every action that is carried out, with the way to it."""
    found = []

    def walk(menu: QMenu, way):
        for action in menu.actions():
            if action.menu() is not None:
                walk(action.menu(), (*way, action.text()))
            elif not action.isSeparator():
                found.append((" · ".join((*way, action.text())), action))

    for action in window.menuBar().actions():
        walk(action.menu(), (action.text(),))
    return found


LEAVES = ("Quit", "Close", "New window")
"""Actions that end what the test looks at."""


def trigger(action: QAction):
    if action.isEnabled():
        action.trigger()


def test_every_action_is_named_and_no_two_in_a_menu_alike(window):
    found = menus(window)
    assert len(found) > 40
    names = [name for name, _ in found]
    assert len(names) == len(set(names))
    for name, action in found:
        assert action.text().strip(), name
        assert not action.text().endswith("..."), "an ellipsis is one character"


def test_words_are_in_sentence_case(window):
    """Capitals stand at the beginning only, and in names and keys."""
    allowed = {
        "ID",
        "SVG",
        "PNG",
        "EXR",
        "TIFF",
        "JSON",
        "glTF",
        "×",
        "Brave",
        "Tessel",
        "Saltreach",
        "Library",
        *(name.split()[0] for name in STAGES),
    }
    for name, action in menus(window):
        words = action.text().replace("&", "").replace("…", "").split()
        for word in words[1:]:
            assert word in allowed or word[:1].lower() == word[:1] or not word[:1].isalpha(), name


@pytest.mark.parametrize("stage", STAGES)
def test_on_an_empty_job_no_action_raises(window, settled, stage, qtbot):
    window.desk.go(stage)
    settled(window)
    with qtbot.captureExceptions() as raised:
        for name, action in menus(window):
            if not any(word in name for word in LEAVES):
                window.desk.go(stage)
                trigger(action)
        settled(window)
    assert [str(error) for _, error, _ in raised] == []
    assert window.desk.work.idle


@pytest.mark.parametrize("stage", ["Build", "Repeat"])
def test_on_a_job_no_action_raises_and_all_is_taken_back(build, settled, stage, qtbot):
    window = build.window_
    first = window.desk.job
    with qtbot.captureExceptions() as raised:
        for name, action in menus(window):
            if any(word in name for word in LEAVES) or "Undo" in name or "Redo" in name:
                continue
            window.desk.go(stage)
            trigger(action)
        settled(window)
    assert [str(error) for _, error, _ in raised] == []
    for _ in range(200):
        if not window.desk.session.store.undo():
            break
    assert window.desk.job is first or window.desk.session.era > 0


def test_what_needs_a_choice_says_so_instead_of_nothing(window, settled):
    """On an empty job Hand over tells that there is nothing to hand over."""
    window.desk.go("Hand over")
    settled(window)
    window.stages["Hand over"].choose_folder()
    assert "no surface" in window.told.text()
