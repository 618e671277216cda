"""What belongs to the window is taken apart in the window's thread."""

import gc
import threading
import weakref

import numpy as np
from PyQt6.QtCore import QObject

from brave_tessel.engine.workers import Worker
from brave_tessel.ui.app import make_app
from brave_tessel.ui.tidying import Tidying, tidy


class Knot(QObject):
    """Holds itself, as a widget does whose slot is a closure over it."""

    def __init__(self, told):
        super().__init__()
        self.again = lambda: self
        self.picture = np.zeros(1000)
        weakref.finalize(self, lambda: told.append(threading.get_ident()))


def test_one_application_has_one_tidier_and_threads_collect_nothing(qtbot):
    app = make_app(lamp=False, scale=1.0)
    assert make_app(lamp=False, scale=1.0) is app
    assert len(app.findChildren(Tidying)) == 1
    assert not gc.isenabled()
    told = []
    Knot(told)
    worker = Worker()
    worker.request("x", lambda current: [[] for _ in range(200_000)])
    qtbot.waitUntil(lambda: worker.idle, timeout=20_000)
    worker.stop()
    assert told in ([], [threading.get_ident()])
    qtbot.waitUntil(lambda: bool(told) or bool(gc.collect()), timeout=20_000)
    assert told == [threading.get_ident()]


def test_only_the_generation_that_is_due_is_collected(qtbot):
    make_app(lamp=False, scale=1.0)
    gc.collect()
    told = []
    Knot(told)
    tidy()
    assert told == [], "nothing is due yet"
    kept = [[k] for k in range(2 * gc.get_threshold()[0])]
    tidy()
    assert told == [threading.get_ident()]
    assert kept[0] == [0]


def test_the_models_driver_is_given_back_where_it_was_made(demo_window, settled, qtbot):
    demo_window.desk.go("Place")
    settled(demo_window)
    view = demo_window.stages["Place"].view
    assert view.image is not None or view.failed
    assert view.frames.holds_driver or view.failed
    demo_window.close_down()
    assert not view.frames.holds_driver
    view.redraw()
    qtbot.waitUntil(lambda: view.idle, timeout=5000)
    assert not view.frames.holds_driver, "a window that was closed draws nothing more"
