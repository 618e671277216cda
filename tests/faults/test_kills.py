"""Killed at random moments and started again for real: the saved job is whole, and at most two seconds are gone."""

from __future__ import annotations

import json
import os
import random
import subprocess
import sys
import time
from pathlib import Path

import pytest

from brave_tessel.formats.documents import encode_job
from brave_tessel.formats.job_file import blob_name, load_job

ROOT = Path(__file__).parents[2]
LOST_S = 2.0
KILLS = 2
ALL_KILLS = 200


def victim(folder: Path, *arguments: str) -> subprocess.Popen[str]:
    env = {
        **os.environ,
        "XDG_STATE_HOME": str(folder / "state"),
        "XDG_CONFIG_HOME": str(folder / "config"),
        "QT_QPA_PLATFORM": "offscreen",
        "PYTHONPATH": os.pathsep.join([str(ROOT), str(ROOT / "src")]),
    }
    command = [sys.executable, "-m", "tests.faults.victim", arguments[0], str(folder), *arguments[1:]]
    return subprocess.Popen(command, cwd=ROOT, env=env, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True)


def kill_and_look(folder: Path, seed: int) -> None:
    """One trial."""
    working = victim(folder, "work", str(seed))
    assert working.stdout is not None
    assert working.stdout.readline() == "working\n"
    time.sleep(random.Random(seed).uniform(0.2, 4.0))
    working.kill()
    killed = time.time()
    working.wait()
    working.stdout.close()
    log = [json.loads(line) for line in (folder / "log").read_text().splitlines() if line.endswith("}")]
    after = victim(folder, "recover")
    told, _ = after.communicate(timeout=60)
    found = json.loads(told)
    # Nothing older than two seconds before the kill is lost: it is one of the states since, or the last one before.
    late = [entry["mark"] for entry in log if entry["at"] > killed - LOST_S]
    before = [entry["mark"] for entry in log if entry["at"] <= killed - LOST_S][-1:]
    assert found["mark"] in {*late, *before}, f"kill {seed}: {len(log)} states, none of the last"
    assert found["missing"] == []
    saves = [entry["saved"] for entry in log if entry["saved"]]
    saved = folder / "job.tessel"
    if saves:
        assert not load_job(saved).lost
        assert blob_name(encode_job(load_job(saved).job)) in {entry["mark"] for entry in log}
    assert not list(folder.glob(".brave-tessel-*.tmp"))


@pytest.mark.parametrize("seed", range(KILLS))
def test_a_kill_costs_two_seconds_at_most(tmp_path, seed):
    kill_and_look(tmp_path, seed)


@pytest.mark.slow
@pytest.mark.parametrize("seed", range(KILLS, ALL_KILLS))
def test_two_hundred_kills(tmp_path, seed):
    kill_and_look(tmp_path, seed)
