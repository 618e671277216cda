"""The light rig: a stand-in for a capture device that ships with the program, and folders of real frames.

The simulated device holds made-up samples and takes frames of them under single lights, with exposure,
noise, cast shadows and highlights, slowly enough to be watched, and can fail as devices do.
"""

from __future__ import annotations

import json
import math
import time
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path

import numpy as np

from ...core.colour import hex_to_linear
from ...core.errors import CancelledError, DeviceError, OutOfRangeError, UnreadableFileError
from ...core.gather.stereo import Shape, albedo_error, angular_error, height_of, solve
from ...core.kernels.relief import cast_shadow, normal_of_height
from ...core.phrases import say
from ...core.recipe.steps.noise import clouds, pebbles, ripples
from ...core.sheet import Grid, Raster
from ...formats.images import decode_picture, read_file
from ..evaluate import always

SAMPLE_PX = 512
SAMPLE_MM = 120.0
LIGHTS_FILE = "lights.json"
FAULTS = ("none", "unplugged", "no answer", "lamp out")
Progress = Callable[[str, float], None]


@dataclass(frozen=True, slots=True)
class RigSettings:
    """How frames are taken. ``height`` of the lights over the sheet in degrees; ``exposure`` in stops;
    ``noise`` the spread of a mid grey; ``fault`` what the stand-in should do wrong, halfway through.
    """

    sample: str = "Render"
    frames: int = 10
    height: float = 40.0
    exposure: float = 0.0
    noise: float = 0.004
    fault: str = "none"
    seconds: float = 1.2

    def check(self) -> None:
        """Raise :class:`OutOfRangeError` where a value cannot be."""
        if self.sample not in SAMPLES:
            raise OutOfRangeError("sample", value=self.sample, allowed=", ".join(SAMPLES))
        if not 8 <= self.frames <= 12:
            raise OutOfRangeError("frames", value=self.frames, allowed="8 to 12")
        if not 15 <= self.height <= 70:
            raise OutOfRangeError("height of the lights", value=f"{self.height:g}°", allowed="15 to 70°")


@dataclass(frozen=True, slots=True)
class Sample:
    """A made-up sample: its height in mm, albedo and gloss on a wrapped grid."""

    grid: Grid
    height: Raster
    albedo: Raster
    gloss: float

    @property
    def normal(self) -> Raster:
        """Normals (H, W, 3) of its relief."""
        return normal_of_height(self.height, self.grid)


@dataclass(frozen=True, slots=True)
class Capture:
    """Frames under single lights, their directions, the size of what is seen in mm, and the truth where it is known."""

    name: str
    frames: tuple[Raster, ...]
    lights: tuple[tuple[float, float, float], ...]
    size_mm: tuple[float, float]
    wraps: bool = False
    truth: Sample | None = None


def _albedo(low: str, high: str, share: Raster) -> Raster:
    a, b = (np.asarray(hex_to_linear(c), np.float32) for c in (low, high))
    return np.asarray(a + (b - a) * share[..., None], np.float32)


def _render(grid: Grid) -> Sample:
    grain = clouds(grid, size=9, octaves=6, gain=0.6, seed=11)
    return Sample(
        grid,
        (grain * 1.6 + clouds(grid, size=40, octaves=3, seed=3) * 2).astype(np.float32),
        _albedo("#8E8370", "#CFC6B2", clouds(grid, size=22, octaves=5, seed=7)),
        0.0,
    )


def _shingle(grid: Grid) -> Sample:
    stones = pebbles(grid, size=14, seed=4)
    return Sample(
        grid,
        (stones * 2.8).astype(np.float32),
        _albedo("#5B5750", "#A59A88", clouds(grid, size=16, octaves=4, seed=2)),
        0.25,
    )


def _ribbed(grid: Grid) -> Sample:
    ribs = ripples(grid, spacing=8, crest=0.3)
    return Sample(
        grid,
        (ribs * 1.4 + clouds(grid, size=30, octaves=5, seed=6) * 0.8).astype(np.float32),
        _albedo("#3E6F5C", "#7FA78F", clouds(grid, size=35, octaves=4, seed=9)),
        0.5,
    )


SAMPLES: dict[str, Callable[[Grid], Sample]] = {"Render": _render, "Shingle": _shingle, "Ribbed copper": _ribbed}


def make_sample(name: str, px: int = SAMPLE_PX) -> Sample:
    """One of the stand-in's samples, with what is really true of it."""
    return SAMPLES[name](Grid(px, px, SAMPLE_MM, SAMPLE_MM))


def ring_of_lights(count: int, height: float) -> tuple[tuple[float, float, float], ...]:
    """Unit directions of a ring, every third a little higher, as rigs have them."""
    directions = []
    for k in range(count):
        turn, up = 2 * math.pi * k / count, math.radians(height + (14 if k % 3 == 0 else 0))
        directions.append((math.cos(turn) * math.cos(up), math.sin(turn) * math.cos(up), math.sin(up)))
    return tuple(directions)


class LightRig:
    """The simulated device: it is opened, takes frames one by one, and may fail at any of them."""

    name = "Light rig (simulated)"

    def __init__(self, settings: RigSettings) -> None:
        settings.check()
        self.settings = settings
        self.sample = make_sample(settings.sample)
        self.lights = ring_of_lights(settings.frames, settings.height)

    def take(self, progress: Progress, current: Callable[[], bool] = always) -> Capture:
        """All frames.

        Raises
        ------
        DeviceError
            when the device fails, does not answer or is unplugged.
        CancelledError
            when stopped.
        """
        frames = []
        for index, light in enumerate(self.lights):
            if not current():
                raise CancelledError
            progress(f"Frame {index + 1} of {len(self.lights)}", index / len(self.lights))
            self._fail_at(index)
            time.sleep(self.settings.seconds / len(self.lights))
            frames.append(self._frame(index, light))
        progress("All frames taken", 1.0)
        size = (self.sample.grid.width_mm, self.sample.grid.height_mm)
        return Capture(self.settings.sample, tuple(frames), self.lights, size, wraps=True, truth=self.sample)

    def _fail_at(self, index: int) -> None:
        if self.settings.fault == "none" or index < len(self.lights) // 2:
            return
        what = {
            "unplugged": ("was unplugged", "Plug it in again and take the frames anew."),
            "no answer": ("does not answer", "Switch it off and on, then try again."),
            "lamp out": (f"reports that lamp {index + 1} is out", "Change the lamp, or use fewer lights."),
        }[self.settings.fault]
        raise DeviceError(self.name, value=what[0], remedy=what[1])

    def _frame(self, index: int, light: tuple[float, float, float]) -> Raster:
        sample, settings = self.sample, self.settings
        facing = np.maximum(sample.normal @ np.asarray(light, np.float32), 0)
        lit = facing * cast_shadow(sample.height, sample.grid, light)
        half = np.asarray(light) + np.array([0, 0, 1.0])
        gleam = np.maximum(sample.normal @ (half / np.linalg.norm(half)).astype(np.float32), 0) ** 120
        seen = sample.albedo * lit[..., None] + (0.6 * sample.gloss * gleam * (lit > 0))[..., None]
        rng = np.random.default_rng(1000 + index)
        seen = seen * 2**settings.exposure
        seen = seen + rng.normal(0, settings.noise, seen.shape) * np.sqrt(0.2 + seen)
        return np.asarray(np.clip(seen, 0, 1) / 2**settings.exposure, np.float32)


def read_lights(data: bytes) -> tuple[list[str], list[tuple[float, float, float]], tuple[float, float]]:
    """File names, directions and size in mm from a light file; its form is in the guide.

    Raises
    ------
    UnreadableFileError
        when it is no such file.
    """
    try:
        told = json.loads(data)
        frames = told["frames"]
        names = [str(frame["file"]) for frame in frames]
        lights = [tuple(float(v) for v in frame["light"]) for frame in frames]
        width, height = (float(v) for v in told.get("size_mm", (0, 0)))
    except (ValueError, KeyError, TypeError, AttributeError) as error:
        raise UnreadableFileError(
            LIGHTS_FILE, value=str(error), allowed='{"size_mm": [w, h], "frames": [{"file", "light": [x, y, z]}]}'
        ) from None
    if any(len(light) != 3 for light in lights) or any(Path(name).name != name for name in names):
        raise UnreadableFileError(LIGHTS_FILE, allowed="three numbers a light, and files beside it")
    return names, lights, (width, height)  # type: ignore[return-value]


def read_frames(folder: Path, *, progress: Progress | None = None) -> Capture:
    """A folder of frames with its light file."""
    names, lights, size = read_lights(read_file(folder / LIGHTS_FILE))
    frames: list[Raster] = []
    for index, name in enumerate(names):
        if progress:
            progress(f"Read {name}", index / max(1, len(names)))
        frame = decode_picture(read_file(folder / name), name)
        if frames and frame.shape != frames[0].shape:
            raise UnreadableFileError(
                name,
                value=say("{shape} × {shape_2} px", shape=frame.shape[1], shape_2=frame.shape[0]),
                allowed="the size of the other frames",
            )
        frames.append(frame)
    if not frames:
        raise UnreadableFileError(LIGHTS_FILE, value="no frames", allowed="four frames or more")
    if min(size) <= 0:
        size = (0.0, 0.0)
    return Capture(folder.name, tuple(frames), tuple(lights), size)


@dataclass(frozen=True, slots=True)
class Measured:
    """What a capture became: its shape, height in mm (or in sheet widths where the size is not known), and,
    where the truth is known, the mean angular error in degrees and the relative albedo error.
    """

    shape: Shape
    height: Raster
    angle: float | None
    albedo: float | None

    @property
    def told(self) -> str:
        """One line for the card."""
        if self.angle is None or self.albedo is None:
            return say("Frames agree to {mean:.0%}.", mean=self.shape.agreement.mean())
        return say(
            "Against the sample's truth: normals {angle:.1f}° off on average, albedo {albedo:.1%}.",
            angle=self.angle,
            albedo=self.albedo,
        )


def measure(capture: Capture) -> Measured:
    """Photometric stereo and integration of a capture."""
    shape = solve(capture.frames, capture.lights)
    rows, columns = shape.normal.shape[:2]
    width, height = capture.size_mm if min(capture.size_mm) > 0 else (1000.0, 1000.0 * rows / columns)
    relief = height_of(shape.normal, Grid(columns, rows, width, height), wraps=capture.wraps)
    truth = capture.truth
    if truth is None:
        return Measured(shape, relief, None, None)
    return Measured(shape, relief, angular_error(shape.normal, truth.normal), albedo_error(shape.albedo, truth.albedo))


def frames_as_codes(frames: Sequence[Raster]) -> list[Raster]:
    """Frames in display range, for thumbnails."""
    top = max(float(np.percentile(frame, 99.5)) for frame in frames)
    return [np.clip(frame / max(top, 1e-6), 0, 1) for frame in frames]
