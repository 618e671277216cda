"""The demo job's surfaces stay as they are: means and spreads of every map, by which an unmeant change shows."""

import json
from pathlib import Path

import numpy as np
import pytest

from brave_tessel.engine.session import Session
from brave_tessel.formats.job_file import OpenedJob

FACTS = Path(__file__).with_name("demo_facts.json")
PX = 192


def facts_of(maps):
    """Mean and standard deviation of each map, and of its steps from pixel to pixel."""
    told = {}
    for kind, pixels in sorted(maps.maps.items()):
        flat = np.asarray(pixels, np.float64)
        told[str(kind)] = [round(float(v), 4) for v in (flat.mean(), flat.std(), np.abs(np.diff(flat, axis=1)).mean())]
    return told


@pytest.fixture(scope="module")
def known():
    return json.loads(FACTS.read_text(encoding="utf-8"))


NAMES = (
    "dado",
    "limewash-wall",
    "mosaic-floor",
    "shingle-bed",
    "terrazzo-floor",
    "slate-roof",
    "copper-roof",
    "deck",
    "seat",
    "sign",
)


@pytest.mark.parametrize("name", NAMES)
def test_a_surface_of_the_demo_is_as_it_was(demo, known, name):
    """Write demo_facts.json anew with ``python -m tests.demo.test_demo`` when a change is meant."""
    session = Session(OpenedJob(demo.job, dict(demo.blobs)))
    surface = next(s for s in demo.job.surfaces if s.id == name)
    run = session.snapshot().evaluation()
    maps = session.snapshot().finished(surface, PX, evaluation=run)
    assert run.faults == {}
    for kind, told in facts_of(maps).items():
        assert told == pytest.approx(known[name][kind], abs=2e-3, rel=1e-2), kind
    assert 4 <= len(surface.layers) <= 12


if __name__ == "__main__":
    from brave_tessel.demo.job import demo_job

    session = Session(demo_job())
    FACTS.write_text(
        json.dumps({s.id: facts_of(session.snapshot().finished(s, PX)) for s in session.job.surfaces}, indent=1),
        encoding="utf-8",
    )
