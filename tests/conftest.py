"""Shared fixtures. Window tests run offscreen unless a display is given."""

from __future__ import annotations

import gc
import os
import tempfile
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
# One for each process: several run side by side.
os.environ["XDG_STATE_HOME"] = tempfile.mkdtemp(prefix="brave-tessel-test-")

import numpy as np
import pytest
from hypothesis import HealthCheck, settings

import brave_tessel.core.registered  # noqa: F401
from brave_tessel.core.job.document import Job
from brave_tessel.engine.cache import Cache
from brave_tessel.engine.session import Session
from brave_tessel.formats.images import encode_png
from brave_tessel.formats.job_file import OpenedJob
from brave_tessel.view3d import rest, sky_seen

settings.register_profile(
    "calm", deadline=None, max_examples=60, suppress_health_check=list(HealthCheck), derandomize=True
)
settings.register_profile("searching", settings.get_profile("calm"), derandomize=False)
# The same cases each time, so that a red run is red again; ``./dev test --all`` looks for new ones.
settings.load_profile(os.environ.get("BRAVE_TESSEL_CASES", "calm"))

# A picture at rest of one frame, nothing learnt of the sky before: what it converges to has tests of its own.
rest.PASSES = rest.STILL = 1
sky_seen.PRIMED = 0

# Half of what is usual on the smallest machine: two processes run side by side.
SHARED_CACHE = Cache(1 << 30)


def pytest_runtest_logfinish():
    # Once a window was open, cycles are cleared by hand (brave_tessel.ui.tidying).
    if not gc.isenabled():
        gc.collect(1)


@pytest.fixture(scope="session")
def demo() -> OpenedJob:
    from brave_tessel.engine.library.shipped_demo import shipped_demo

    return shipped_demo()


@pytest.fixture
def demo_session(demo):
    """A fresh session on the demo job; results are shared between tests by their keys."""
    return Session(OpenedJob(demo.job, dict(demo.blobs)), cache=SHARED_CACHE)


@pytest.fixture
def session():
    return Session(OpenedJob(Job()))


@pytest.fixture(scope="session")
def photo_bytes() -> bytes:
    """A small picture of one colour ramp and noise, 8-bit PNG."""
    rng = np.random.default_rng(3)
    ramp = np.linspace(40, 200, 160, dtype=np.float32)[None, :, None] * np.ones((120, 1, 3), np.float32)
    return encode_png(np.clip(ramp + rng.normal(0, 18, (120, 160, 3)), 0, 255).astype(np.uint8))


@pytest.fixture
def photo_file(tmp_path: Path, photo_bytes: bytes) -> Path:
    path = tmp_path / "wall.png"
    path.write_bytes(photo_bytes)
    return path
