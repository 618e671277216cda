"""One command, one table: our kernels beside their plain peers, in the same run, as medians and ratios."""

from __future__ import annotations

import argparse
import itertools
import statistics
import time
from collections.abc import Callable
from typing import Any

from brave_tessel.engine.memory import keep_freed_memory
from brave_tessel.view3d import rest

from . import fitting, kernels, layers, light, mending, place, recipes, sheets, stalls, whole, window


def median_ms(run: Callable[[], Any], *, least: int = 3, seconds: float = 1.5) -> float:
    """Median of several runs after one that is not counted."""
    run()
    times = []
    until = time.perf_counter() + seconds
    while len(times) < least or (time.perf_counter() < until and len(times) < 25):
        begun = time.perf_counter()
        run()
        times.append((time.perf_counter() - begun) * 1000)
    return statistics.median(times)


def main() -> None:
    # As in the program, so that both ways find memory at hand.
    keep_freed_memory()
    # A window settles after a few frames: what more of them cost has rows of its own.
    rest.PASSES = 8
    parser = argparse.ArgumentParser(prog="./dev bench")
    parser.add_argument("--only", default="", help="part of a name")
    options = parser.parse_args()
    print(f"{'what':52}{'ours ms':>10}{'plain ms':>10}{'ratio':>8}  plain way")
    for name, ours, plain, way in itertools.chain(
        kernels.cases(), sheets.cases(), recipes.cases(), layers.cases(), place.cases(), fitting.cases(), light.cases()
    ):
        if options.only not in name:
            continue
        mine, theirs = median_ms(ours), median_ms(plain, least=1)
        print(f"{name:52}{mine:10.1f}{theirs:10.1f}{theirs / mine:7.1f}×  {way}", flush=True)
    print(f"\n{'whole actions':52}{'ms':>10}{'aim':>10}")
    for name, run, aim in itertools.chain(
        whole.cases(),
        sheets.actions(),
        recipes.actions(),
        layers.actions(),
        place.actions(),
        light.actions(),
        window.actions(),
        mending.actions(),
        stalls.actions(),
    ):
        if options.only not in name:
            continue
        print(f"{name:52}{run(median_ms):10.1f}{aim:>10}", flush=True)


if __name__ == "__main__":
    main()
