"""``./dev fuzz --minutes M``: cases without end on every door, each watched for mistakes, for time and for memory.

A case that fails is named by its number and seed; ``python -m tests.faults.targets NUMBER SEED`` does it again. What it
shows is mended, and the file that shows it stays in the corpus.
"""

from __future__ import annotations

import argparse
import collections
import json
import os
import resource
import select
import subprocess
import sys
import time
import traceback
from pathlib import Path
from typing import Any

ROOT = Path(__file__).parents[2]
HANG_S = 10.0
MEMORY_KB = 3 << 20


def serve(seed: int, first: int) -> None:
    """Cases from one number on, each told before it begins and after it ends."""
    import logging
    import warnings

    from .targets import trial

    logging.disable(logging.CRITICAL)
    warnings.simplefilter("ignore")
    number = first
    while True:
        _say({"begins": number})
        told: dict[str, Any] = {"ends": number}
        try:
            told["door"] = trial(number, seed)
        except BaseException as error:  # noqa: BLE001 - whatever comes is what is looked for
            last = traceback.extract_tb(error.__traceback__)[-1]
            told["mistake"] = f"{type(error).__name__}: {str(error)[:160]}"
            told["where"] = f"{Path(last.filename).name}:{last.lineno}"
        told["memory_kb"] = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
        _say(told)
        number += 1


def _say(told: dict[str, Any]) -> None:
    os.write(3, (json.dumps(told) + "\n").encode())


class Trials:
    """One process after another, and what was found."""

    def __init__(self, seed: int) -> None:
        self.seed, self.number = seed, 0
        self.doors: collections.Counter[str] = collections.Counter()
        self.found: list[str] = []
        self.most_kb = 0

    def run(self, seconds: float, cases: int) -> None:
        until = time.monotonic() + seconds
        while time.monotonic() < until and self.number < cases:
            self._process(until, cases)

    def _process(self, until: float, cases: int) -> None:
        reader, writer = os.pipe()
        command = [sys.executable, "-c", f"from tests.faults.fuzz import serve; serve({self.seed}, {self.number})"]
        env = {**os.environ, "PYTHONPATH": os.pathsep.join([str(ROOT), str(ROOT / "src")])}
        child = subprocess.Popen(
            ["/bin/sh", "-c", f'exec "$@" 3>&{writer}', "sh", *command],
            cwd=ROOT, env=env, pass_fds=(writer,), stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
        )  # fmt: skip
        os.close(writer)
        try:
            self._listen(reader, until, cases)
        finally:
            child.kill()
            child.wait()
            os.close(reader)

    def _listen(self, reader: int, until: float, cases: int) -> None:
        rest = b""
        running = False
        while time.monotonic() < until and self.number < cases:
            # The first answer may wait for the program to load.
            ready, _, _ = select.select([reader], [], [], HANG_S if running else 60)
            if not ready:
                self._note(f"case {self.number}: nothing for {HANG_S:g} s")
                self.number += 1
                return
            told = os.read(reader, 1 << 16)
            if not told:
                self._note(f"case {self.number}: the process ended")
                self.number += 1
                return
            *lines, rest = (rest + told).split(b"\n")
            for line in lines:
                running = True
                if not self._hear(json.loads(line)) or self.number >= cases:
                    return

    def _hear(self, told: dict[str, Any]) -> bool:
        """Take in one line; whether the process may go on."""
        if "begins" in told:
            self.number = told["begins"]
            return True
        self.number = told["ends"] + 1
        self.doors[told.get("door", "mistakes")] += 1
        if "mistake" in told:
            self._note(f"case {told['ends']}: {told['mistake']} ({told['where']})")
        self.most_kb = max(self.most_kb, told["memory_kb"])
        if told["memory_kb"] > MEMORY_KB:
            self._note(f"case {told['ends']}: {told['memory_kb'] >> 10} MB")
            return False
        return True

    def _note(self, text: str) -> None:
        self.found.append(text)
        print(text, flush=True)


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--minutes", type=float, default=5.0)
    parser.add_argument("--cases", type=int, default=1 << 40)
    parser.add_argument("--seed", type=int, default=int(time.time()))
    options = parser.parse_args()
    trials = Trials(options.seed)
    begun = time.monotonic()
    trials.run(60 * options.minutes, options.cases)
    spent = time.monotonic() - begun
    doors = ", ".join(f"{door} {count}" for door, count in sorted(trials.doors.items()))
    print(f"{trials.number} cases in {spent:.0f} s (seed {options.seed}), {trials.most_kb >> 10} MB at most: {doors}")
    print(f"{len(trials.found)} found")
    return int(bool(trials.found))


if __name__ == "__main__":
    sys.exit(main())
