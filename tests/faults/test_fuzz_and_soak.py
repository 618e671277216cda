"""A few hundred of the trials that ``./dev fuzz`` and ``./dev soak`` make by the thousand."""

from __future__ import annotations

import logging
import subprocess
import sys

import pytest

from . import fuzz, soak
from .targets import CORPUS, DOORS, samples, trial
from .test_kills import ROOT

CASES, SEED = 400, 20261128


def test_every_door_has_something_in_the_corpus():
    assert set(samples()) == set(DOORS)
    assert all(samples().values())
    assert all(path.stat().st_size < 64 << 10 for paths in samples().values() for path in paths)
    assert CORPUS.is_dir()


@pytest.mark.filterwarnings("ignore")
def test_four_hundred_cases(monkeypatch):
    logging.disable(logging.CRITICAL)
    try:
        doors = {trial(number, SEED) for number in range(CASES)}
    finally:
        logging.disable(logging.NOTSET)
    assert doors == set(DOORS)


def test_the_trials_notice_what_goes_wrong(monkeypatch):
    """A mistake, a hang and a greedy case, each named; the others go on."""
    made = fuzz.Trials(1)
    assert made._hear({"begins": 7})
    assert made.number == 7
    assert made._hear({"ends": 7, "door": "job", "memory_kb": 1000})
    assert made._hear({"ends": 8, "mistake": "KeyError: 1", "where": "x.py:3", "memory_kb": 1000})
    assert not made._hear({"ends": 9, "door": "job", "memory_kb": fuzz.MEMORY_KB + 1})
    assert [text.split(":")[0] for text in made.found] == ["case 8", "case 9"]
    assert made.doors == {"job": 2, "mistakes": 1}


def test_the_command_makes_cases_and_counts_them():
    command = [sys.executable, "-m", "tests.faults.fuzz", "--cases", "40", "--minutes", "2", "--seed", "5"]
    done = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, timeout=180)
    assert done.returncode == 0, done.stdout
    assert "0 found" in done.stdout
    assert "40 cases" in done.stdout


@pytest.mark.slow
@pytest.mark.timeout(1500)
def test_ten_thousand_cases():
    command = [sys.executable, "-m", "tests.faults.fuzz", "--cases", "10000", "--minutes", "20", "--seed", "11"]
    done = subprocess.run(command, cwd=ROOT, capture_output=True, text=True)
    assert done.returncode == 0, done.stdout


@pytest.mark.slow
@pytest.mark.timeout(900)
def test_five_minutes_at_random_hold_what_they_held():
    command = [sys.executable, "-m", "tests.faults.soak", "--minutes", "5"]
    done = subprocess.run(command, cwd=ROOT, capture_output=True, text=True)
    assert done.returncode == 0, done.stdout + done.stderr


def test_what_is_held_is_read_from_the_system():
    now = soak.held()
    assert 20 < now["memory_mb"] < 64_000
    assert now["handles"] >= 3
    assert now["threads"] >= 1
