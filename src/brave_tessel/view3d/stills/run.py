"""Runs the tracer's process: progressive pictures, the time that is left, an end at any time."""

from __future__ import annotations

import importlib.util
import json
import math
import subprocess
import sys
import time
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

import numpy as np

from ...core.errors import TesselError
from ...core.light.tone import show
from ...core.sheet import AnyArray, Raster
from .filter import evened


class NoTracerError(TesselError):
    """The path tracer cannot be used here."""


@dataclass(frozen=True, slots=True, eq=False)
class Still:
    """A picture so far: exposed linear light (H, W, 3), what of it is there (H, W), its guides, and the noise (H, W)
    that is left in the mean of its three channels: a standard deviation; none where nothing tells of it.
    """

    light: Raster
    cover: Raster
    albedo: Raster
    normal: Raster
    depth: Raster
    samples: int
    noise: Raster | None = None

    def smooth(self) -> Raster:
        """Its light without the noise that is left."""
        noise = self.light.mean(-1) / math.sqrt(max(1, self.samples)) if self.noise is None else self.noise
        return evened(self.light, self.albedo, self.normal, self.depth, noise)

    def codes(self, transform: str, exposure: float = 1.0) -> AnyArray:
        """As a screen shows it, (H, W, 3) uint8."""
        return np.asarray(np.rint(show(self.smooth() * exposure, transform) * 255), np.uint8)


@dataclass(frozen=True, slots=True)
class Progress:
    """How far a still is: samples a pixel, seconds left (infinite while none can tell), and by which back end."""

    samples: int
    left: float
    back_end: str


def tracer_is_there() -> bool:
    """Whether the path tracer is installed."""
    return importlib.util.find_spec("mitsuba") is not None


def read_still(folder: Path) -> Still | None:
    """What has been added up in a folder; None before the first pass."""
    try:
        with np.load(folder / "sum.npz") as held:
            count = int(held["count"])
            mean = held["sums"] / count
    except (OSError, ValueError):
        return None
    # Channels: colour and alpha, then albedo, normal, depth, and the square of the light of each pass.
    light = np.ascontiguousarray(mean[..., :3])
    middle = light.mean(-1)
    # One pass cannot tell: it is taken to be half wrong.
    spread = np.maximum(mean[..., 11] - middle**2, 0) / (count - 1) if count > 1 else (0.5 * middle) ** 2
    noise = np.asarray(np.sqrt(spread), np.float32)
    return Still(light, mean[..., 3], mean[..., 4:7], mean[..., 7:10], mean[..., 10], count * 8, noise)


def trace(folder: Path, samples: int, show_progress: Callable[[Progress], None], current: Callable[[], bool]) -> Still:
    """Trace the scene of a folder until so many samples a pixel are there, or it is no longer wanted; what was traced
    before is gone on with.

    Raises
    ------
    NoTracerError
        when the tracer is not installed, or ends without a picture.
    """
    if not tracer_is_there():
        raise NoTracerError("still", remedy="The package for stills is not installed.")
    command = [sys.executable, "-m", "brave_tessel.view3d.stills.child", str(folder), str(samples)]
    with (folder / "errors.txt").open("wb") as errors:
        process = subprocess.Popen(command, stdout=subprocess.PIPE, stderr=errors, text=True)
        try:
            _follow(process, samples, show_progress, current)
        finally:
            process.terminate()
            process.wait()
            if process.stdout is not None:
                process.stdout.close()
    made = read_still(folder)
    if made is None:
        if not current():
            raise NoTracerError("still", remedy="It was stopped before there was anything to see.")
        raise NoTracerError("still", remedy="The path tracer ended without a picture.")
    return made


def _follow(
    process: subprocess.Popen[str], samples: int, show_progress: Callable[[Progress], None], current: Callable[[], bool]
) -> None:
    back_end, first = "", None
    assert process.stdout is not None
    for line in process.stdout:
        told = json.loads(line)
        back_end = told.get("back_end", back_end)
        done = int(told.get("samples", 0))
        now = time.monotonic()
        if done and first is None:
            first = (done, now)
        # The first pass compiles the scene, which says nothing of those that follow.
        each = (now - first[1]) / (done - first[0]) if first and done > first[0] else math.inf
        show_progress(Progress(done, (samples - done) * each if done < samples else 0.0, back_end))
        if not current():
            return
