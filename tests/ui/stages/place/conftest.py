"""Stage 4 with the corner of a room."""

import msgspec
import pytest

from brave_tessel.core.job.document import Job
from brave_tessel.engine.place.starters import room_corner
from brave_tessel.formats.job_file import OpenedJob
from tests.core.place.scenes import SURFACE, brick


@pytest.fixture
def place(make_window, settled):
    """Stage 4 with the corner of a room: bricks on dado and walls, another surface on the floor."""
    surfaces = (brick(900.0, 600.0), SURFACE, msgspec.structs.replace(SURFACE, id="t", name="T"))
    scene = room_corner(["brick", "brick", "s"])
    window = make_window(OpenedJob(Job(surfaces=surfaces, scene=scene)))
    window.desk.go("Place")
    window.desk.selection.choose(part="north-wall")
    settled(window)
    stage = window.stages["Place"]
    stage.window_ = window
    return stage
