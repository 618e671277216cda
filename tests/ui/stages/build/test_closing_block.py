"""The title block of Build counts courses of every pattern, and fits the repeat at a click."""

import msgspec
import pytest

from brave_tessel.core.job.document import Job
from brave_tessel.formats.job_file import OpenedJob
from tests.core.place.test_fitting import patterned


@pytest.fixture
def boards(make_window, settled):
    surface = patterned("pattern.planks", (1440.0, 1500.0), width=144.0, length=1440.0)
    window = make_window(OpenedJob(Job(surfaces=(msgspec.structs.replace(surface, name="Boards"),))))
    window.desk.view.set_preview(256)
    window.desk.selection.choose(surface="s")
    window.desk.go("Build")
    settled(window)
    return window


def told(window):
    return {label: value for _, label, value in window.build_stage.block.cells}


def test_boards_are_counted_and_the_repeat_is_fitted_at_a_click(boards, settled):
    assert told(boards)["Courses"] == "10 × 150 mm"
    assert told(boards)["Fit"] == "click to fit"
    boards.build_stage.block.clicked.emit("repeat")
    settled(boards)
    assert boards.desk.job.surface("s").height_mm == 1440.0
    assert told(boards)["Courses"] == "10 × 144 mm"
    assert told(boards)["Fit"] == "whole units"
