"""A real window, driven as a person would."""

from __future__ import annotations

import gc
import time

import pytest
from PyQt6.QtCore import QSettings
from PyQt6.QtTest import QTest

from brave_tessel.core.buildup.kinds.plain import PlainWhat
from brave_tessel.core.buildup.kinds.recipe import RecipeWhat
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, Surface
from brave_tessel.core.recipe.stock import units_recipe
from brave_tessel.engine.session import Session
from brave_tessel.formats.job_file import OpenedJob
from brave_tessel.ui.app import make_app
from brave_tessel.ui.shots import settle
from brave_tessel.ui.window import Window
from tests.conftest import SHARED_CACHE


@pytest.fixture(scope="session")
def qapp_cls():
    from PyQt6.QtWidgets import QApplication

    return QApplication


@pytest.fixture(autouse=True)
def own_settings(tmp_path):
    QSettings.setPath(QSettings.Format.IniFormat, QSettings.Scope.UserScope, str(tmp_path / "settings"))


@pytest.fixture
def make_window(qtbot):
    made = []
    make_app(lamp=False, scale=1.0)
    # What is there by now stays: it need not be looked through after every test.
    gc.freeze()

    def make(opened: OpenedJob | None = None, **more) -> Window:
        window = Window(Session(opened or OpenedJob(Job()), cache=SHARED_CACHE), ask=False, **more)
        # A quarter of the usual pixels: what is tested here is the window.
        window.preview.setCurrentIndex(window.preview.findData(512))
        window.desk.view.set_preview(192)
        window.resize(1280, 800)
        window.show()
        window.activateWindow()
        qtbot.waitExposed(window)
        made.append(window)
        return window

    yield make
    for window in made:
        window.close_down()
        window.hide()
        window.deleteLater()
    made.clear()
    QTest.qWait(1)
    # A window is a knot of cycles that holds pictures of hundreds of megabytes.
    gc.collect()


@pytest.fixture
def window(make_window):
    return make_window()


@pytest.fixture
def demo_window(make_window, demo):
    return make_window(OpenedJob(demo.job, dict(demo.blobs)))


@pytest.fixture
def settled():
    return settle


@pytest.fixture
def soon():
    """Wait until something holds."""

    def wait(condition, seconds=30.0):
        until = time.monotonic() + seconds
        while not condition():
            assert time.monotonic() < until, "it never came true"
            QTest.qWait(20)

    return wait


@pytest.fixture
def build(make_window, settled):
    """A small surface of tiles with one plain layer, at a small preview."""
    tiles = Layer(id="tiles", name="Tiles", what=RecipeWhat(recipe=units_recipe(length=145.0, height=70.0, joint=5.0)))
    top = Layer(id="top", name="Top", what=PlainWhat(colour="#C03020"), hatch="dots")
    window = make_window(
        OpenedJob(
            Job(id="j", surfaces=(Surface(id="s", name="Tiled", width_mm=600.0, height_mm=450.0, layers=(tiles, top)),))
        )
    )
    window.desk.view.set_preview(256)
    window.desk.selection.choose(surface="s", layer="top")
    window.desk.go("Build")
    window.actions_.show_extent("Cell")
    settled(window)
    stage = window.stages["Build"]
    stage.window_ = window
    return stage
