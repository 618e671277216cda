"""States that are kept with the job: compared, gone back to, let go; after a save too."""

import msgspec
import numpy as np
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from brave_tessel.core.job.commands import Set
from brave_tessel.engine.intents.light import take_preset
from brave_tessel.formats.job_file import OpenedJob, load_job, save_job, used_blobs


@pytest.fixture
def build(two_surfaces, settled):
    window = two_surfaces
    window.desk.go("Build")
    settled(window)
    stage = window.stages["Build"]
    stage.window_ = window
    return stage


@pytest.fixture
def two_surfaces(make_window, red_and_units):
    return make_window(OpenedJob(red_and_units))


@pytest.fixture
def red_and_units():
    from brave_tessel.core.buildup.kinds.plain import PlainWhat
    from brave_tessel.core.job.document import Job
    from brave_tessel.core.job.layers import Layer, Surface

    def plain(id, colour):
        layer = Layer(id=f"{id}-layer", name="Paint", what=PlainWhat(colour=colour))
        return Surface(id=id, name=id.capitalize(), width_mm=300, height_mm=300, layers=(layer,))

    return Job(surfaces=(plain("red", "#A03020"), plain("green", "#206030")))


def press_k(build, settled):
    QTest.keyClick(build.window_, Qt.Key.Key_K)
    settled(build.window_)


def middle(pixmap):
    colour = pixmap.toImage().pixelColor(pixmap.width() // 2, pixmap.height() // 2)
    return np.array([colour.red(), colour.green(), colour.blue()])


def paint(build, settled, colour):
    path = ("surfaces", "red", "layers", "red-layer", "what", "colour")
    build.desk.dispatch(Set(path=path, value=colour, label="Paint"))
    settled(build.window_)


def entry(build, text):
    return next(action for action in build.kept.menu().actions() if action.text() == text)


def test_a_state_is_kept_with_the_job_and_gone_back_to(build, settled, tmp_path):
    press_k(build, settled)
    compared = build.surface_board.compared
    red = middle(compared.pictures[0])
    paint(build, settled, "#2040A0")
    assert np.abs(middle(compared.pictures[0]) - red).max() <= 2
    assert np.abs(middle(build.surface_board.mips[0]) - red).max() > 40
    save_job(tmp_path / "kept.tessel", build.desk.job, {})
    again = load_job(tmp_path / "kept.tessel").job
    assert again.states == build.desk.job.states
    entry(build, "Go back to Red · 1").trigger()
    settled(build.window_)
    assert build.desk.job.surface("red").layers[0].what.colour == "#A03020"
    assert np.abs(middle(build.surface_board.mips[0]) - red).max() <= 2
    build.desk.session.store.undo()
    assert build.desk.job.surface("red").layers[0].what.colour == "#2040A0"


def test_another_surface_is_compared_with_it(build, settled):
    press_k(build, settled)
    build.desk.selection.choose(surface="green")
    settled(build.window_)
    kept, now = middle(build.surface_board.compared.pictures[0]), middle(build.surface_board.mips[0])
    assert kept[0] > kept[1]
    assert now[1] > now[0]
    entry(build, "Let Red · 1 go").trigger()
    assert build.desk.job.states == ()
    assert not build.surface_board.compared.of
    assert not build.surface_board.compared.states.isVisible()


def test_a_state_that_differs_by_its_light_is_shown_in_its_own(build, settled):
    press_k(build, settled)
    before = middle(build.surface_board.compared.pictures[0])
    build.desk.dispatch(take_preset("Lamp-lit hall"))
    settled(build.window_)
    kept, now = middle(build.surface_board.compared.pictures[0]), middle(build.surface_board.mips[0])
    assert np.abs(kept - before).max() <= 2
    assert np.abs(now - before).max() > 4
    paint(build, settled, "#2040A0")
    # Now the surface differs: both are seen in today's light.
    assert np.abs(middle(build.surface_board.compared.pictures[0]) - before).max() > 4


def test_what_is_kept_is_not_drawn_again_while_what_is_now_changes(build, settled):
    press_k(build, settled)
    drawn = []
    build.desk.build.kept_ready.connect(drawn.append)
    for colour in ("#2040A0", "#204020", "#A0A020"):
        paint(build, settled, colour)
    assert drawn == []
    QTest.mouseClick(build.surface_board.compared.states, Qt.MouseButton.LeftButton)
    assert QApplication.activePopupWidget() is not None
    QApplication.activePopupWidget().close()


def test_keeping_twice_what_is_the_same_keeps_it_once(build, settled):
    press_k(build, settled)
    press_k(build, settled)
    assert not build.surface_board.compared.of
    press_k(build, settled)
    assert build.surface_board.compared.of
    assert len(build.desk.job.states) == 1
    QTest.keyClick(build.window_, Qt.Key.Key_K, Qt.KeyboardModifier.ShiftModifier)
    listed = QApplication.activePopupWidget()
    assert listed.actions()[0].text() == "Red · 1"
    listed.close()
    build.desk.session.store.undo()
    assert build.desk.job.states == ()
    assert not build.surface_board.compared.of
    assert not entry(build, "Nothing is kept yet: K keeps what is shown").isEnabled()


def test_files_of_a_kept_state_stay_in_the_job(demo):
    sign = next(one for one in demo.job.surfaces if used_blobs(msgspec.structs.replace(demo.job, surfaces=(one,))))
    from brave_tessel.engine.intents.states import keep_state

    kept = keep_state(demo.job, sign)[0].apply(demo.job)
    gone = msgspec.structs.replace(kept, surfaces=())
    bare = msgspec.structs.replace(demo.job, surfaces=())
    assert used_blobs(gone) >= used_blobs(bare)
