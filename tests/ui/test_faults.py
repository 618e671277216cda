"""What goes wrong in the window: two on one job, damaged files, mistakes of the program, undo under the brush."""

from __future__ import annotations

import logging
import sys
import threading

import msgspec
import pytest
from PyQt6.QtCore import QTimer
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QMessageBox

from brave_tessel.core.errors import ChangedOnDiskError
from brave_tessel.core.job.commands import Set
from brave_tessel.core.job.document import Job
from brave_tessel.engine import session as sessions
from brave_tessel.engine.open_files import OpenFile
from brave_tessel.engine.session import Session
from brave_tessel.formats.job_file import OpenedJob, load_job, save_job
from brave_tessel.ui.unexpected import LOG_NAME, Unexpected, keep_log


def rename(window, name):
    window.desk.dispatch(Set(path=("name",), value=name, label="Rename the job"))


def answer(window, text):
    """Press a button of the question that comes up."""

    def press():
        box = QApplication.activeModalWidget()
        if not isinstance(box, QMessageBox):
            QTimer.singleShot(20, press)
            return
        next(b for b in box.buttons() if text in b.text().replace("&", "")).click()

    QTimer.singleShot(20, press)


@pytest.fixture
def shared(tmp_path):
    path = tmp_path / "shared.tessel"
    save_job(path, Job(name="First"), {})
    return path


@pytest.fixture
def two(make_window, shared, soon, tmp_path, monkeypatch):
    """One job, opened here and changed by another window meanwhile."""
    monkeypatch.setattr(sessions, "state_folder", lambda: tmp_path / "state")
    window = make_window()
    window.ask = True
    window.open_job(shared)
    soon(lambda: window.desk.job.name == "First")
    save_job(shared, Job(name="Theirs"), {})
    rename(window, "Mine")
    return window


@pytest.mark.parametrize(
    ("button", "mine", "file", "beside"),
    [
        ("Keep both", "Mine", "Theirs", "Mine"),
        ("Take theirs", "Theirs", "Theirs", None),
        ("Overwrite", "Mine", "Mine", None),
        ("Cancel", "Mine", "Theirs", None),
    ],
)
def test_a_file_changed_by_another_window_is_asked_about(two, shared, soon, button, mine, file, beside):
    answer(two, button)
    two.actions_.save()
    soon(lambda: two.desk.work.idle and QApplication.activeModalWidget() is None)
    QTest.qWait(50)
    soon(lambda: two.desk.work.idle and two.desk.job.name == mine)
    assert load_job(shared).job.name == file
    second = shared.with_name("shared 2.tessel")
    assert (load_job(second).job.name if second.exists() else None) == beside
    two.ask = False


def test_saving_again_and_again_asks_nothing(make_window, shared, soon):
    window = make_window()
    window.ask = True
    window.open_job(shared)
    soon(lambda: window.desk.job.name == "First")
    for name in ("A", "B", "C"):
        rename(window, name)
        window.actions_.save()
        soon(lambda: window.desk.session.store.saved)
        assert load_job(shared).job.name == name
    window.ask = False


def test_saves_that_follow_each_other_closely_are_our_own(make_window, shared, soon):
    window = make_window()
    window.open_job(shared)
    soon(lambda: window.desk.job.name == "First")
    for name in ("A", "B", "C"):
        rename(window, name)
        window.actions_.save()
    soon(lambda: window.desk.work.idle)
    assert window.desk.session.store.saved
    assert load_job(shared).job.name == "C"


def test_a_second_window_is_told_at_opening(make_window, shared, soon, tmp_path, monkeypatch):
    monkeypatch.setattr(sessions, "state_folder", lambda: tmp_path / "state")
    other = OpenFile(tmp_path / "state")
    assert other.take(shared)
    window = make_window()
    window.open_job(shared)
    soon(lambda: "another window" in window.told.text())
    other.let_go()
    window.open_job(shared)
    soon(lambda: window.desk.session.alone)
    assert not OpenFile(tmp_path / "state").take(shared)


def test_the_session_refuses_what_it_does_not_expect(shared):
    session = Session()
    session.open(shared)
    save_job(shared, Job(name="Theirs"), {})
    with pytest.raises(ChangedOnDiskError):
        session.save(shared)
    assert load_job(shared).job.name == "Theirs"
    session.save(shared.with_name("own.tessel"))
    session.save(shared.with_name("own.tessel"))


def test_a_damaged_picture_is_marked_and_the_rest_is_there(make_window, demo, tmp_path, soon, settled):
    held = dict(demo.blobs)
    source = demo.job.sources[0]
    del held[source.blob]
    path = tmp_path / "damaged.tessel"
    save_job(path, demo.job, held, lost=frozenset({source.blob}))
    window, heard = make_window(), []
    window.desk.message.connect(lambda text, _meant: heard.append(text))
    window.open_job(path)
    soon(lambda: any(source.name in text for text in heard))
    settled(window)
    # What cannot be worked out for want of it does not hide that sentence.
    assert source.name in window.told.text(), heard
    window.desk.go("Gather")
    window.desk.selection.choose(source=source.id)
    settled(window)
    assert "file missing" in window.gather_stage.list.rows[0].note
    assert window.gather_stage.source_card.missing.isVisible()
    rename(window, "Still mine")
    window.save_job(path)
    soon(lambda: window.desk.session.store.saved)
    assert load_job(path).job.name == "Still mine"
    # The same picture added again mends it.
    window.desk.session.kept.keep(demo.blobs[source.blob])
    assert not window.desk.followed.lost(source)
    rename(window, "Whole")
    window.save_job(path)
    soon(lambda: window.desk.session.store.saved)
    assert load_job(path).lost == frozenset()


@pytest.fixture
def watching(window, tmp_path):
    """The handler, installed as the application does."""
    keep_log(tmp_path)
    made = Unexpected(window.desk.session, window.desk.tell)
    before = sys.excepthook
    made.install()
    yield made
    made.remove()
    assert sys.excepthook is before
    for handler in list(logging.getLogger().handlers):
        if getattr(handler, "baseFilename", "") == str(tmp_path / LOG_NAME):
            logging.getLogger().removeHandler(handler)
            handler.close()


def test_a_mistake_is_told_logged_and_survived(watching, window, soon, tmp_path):
    def mistake():
        raise ZeroDivisionError("nobody foresaw this")

    # As the toolkit reports what a reaction to an event lets through.
    try:
        mistake()
    except ZeroDivisionError as error:
        sys.excepthook(type(error), error, error.__traceback__)
    soon(lambda: "nobody foresaw this" in window.told.text())
    assert "Your work is kept" in window.told.text()
    assert "ZeroDivisionError" in (tmp_path / LOG_NAME).read_text()
    rename(window, "Goes on")
    assert window.desk.job.name == "Goes on"


def test_a_mistake_in_a_thread_is_told_in_the_window(watching, window, soon):
    thread = threading.Thread(target=lambda: {}["gone"])
    thread.start()
    thread.join()
    soon(lambda: "gone" in window.told.text())


def test_undo_under_the_brush_takes_the_whole_stroke(build, settled):
    board, desk = build.surface_board, build.desk
    build.window_.actions_.toggle_painting()
    settled(build.window_)
    count = len(strokes(desk))
    build.hand._stroke_moves([(100.0, 100.0)])
    build.hand._stroke_moves([(100.0, 100.0), (120.0, 100.0)])
    assert len(strokes(desk)) == count + 1
    desk.session.store.undo()
    assert len(strokes(desk)) == count
    build.hand._stroke_moves([(100.0, 100.0), (120.0, 100.0), (140.0, 100.0)])
    build.hand._stroke_done([(100.0, 100.0), (120.0, 100.0), (140.0, 100.0)])
    assert len(strokes(desk)) == count
    assert "no" not in build.window_.told.text().lower().split()
    # The next stroke is whole again.
    build.hand._stroke_moves([(200.0, 100.0)])
    build.hand._stroke_done([(200.0, 100.0), (220.0, 100.0)])
    assert len(strokes(desk)) == count + 1
    assert board is build.surface_board


def strokes(desk):
    """Every stroke of the chosen layer."""
    layer = desk.selection.layer
    own = getattr(layer.what, "strokes", ())
    return [*own, *(stroke for rule in layer.where for stroke in rule.strokes)]


def test_a_pattern_from_a_job_is_told_and_nothing_is_written(make_window, demo, tmp_path, soon):
    bad = msgspec.structs.replace(demo.job.deliveries[0], pattern="../../x_{map}")
    window = make_window(OpenedJob(msgspec.structs.replace(demo.job, deliveries=(bad,)), dict(demo.blobs)))
    window.desk.go("Hand over")
    soon(lambda: "name pattern" in window.hand_over_stage.files.total.text())
    window.hand_over_stage.start(tmp_path / "one" / "two")
    # Told before anything is worked out.
    soon(lambda: "name pattern" in window.told.text(), seconds=10.0)
    assert not list(tmp_path.rglob("x_*"))
