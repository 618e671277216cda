"""What the light rig measured, as a source of the job."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

import msgspec
import numpy as np

from ...core.colour import codes_from_linear
from ...core.gather.stereo import Shape
from ...core.job.document import Picture, Source
from ...core.maps import MapKind
from ...core.sheet import AnyArray
from ...formats.images import encode_png
from .intake import Intake, dressed
from .rig import LIGHTS_FILE, Capture, Measured


@dataclass(frozen=True, slots=True)
class Scan:
    """A source made of a capture, and one line on how good it is."""

    source: Source
    told: str


def _codes(values: AnyArray) -> AnyArray:
    return np.asarray(np.rint(np.clip(values, 0, 1) * 65_535), np.uint16)


def scan_source(intake: Intake, capture: Capture, measured: Measured) -> Scan:
    """Base colour, normal and height at 16 bits, kept with the job; the size is the capture's."""
    shape: Shape = measured.shape
    main = intake.make_source(encode_png(codes_from_linear(shape.albedo, depth=16), srgb=True), f"{capture.name}.png")
    reach = max(float(np.abs(measured.height).max()), 1e-3)
    rise = round(2 * reach, 4)
    height = intake.kept.keep(encode_png(_codes(measured.height / rise + 0.5)))
    normal = intake.kept.keep(encode_png(_codes(shape.normal * 0.5 + 0.5)))
    sized = min(capture.size_mm) > 0
    pictures = (
        Picture(
            id="map-normal",
            role=MapKind.NORMAL,
            blob=normal,
            file_name="normal.png",
            green="up",
            reason="measured by the light rig",
        ),
        Picture(
            id="map-height",
            role=MapKind.HEIGHT,
            blob=height,
            file_name="height.png",
            rise_mm=rise if sized else 0.0,
            reason="integrated from the normal",
        ),
    )
    name = f"{capture.name}, scanned"
    source = dressed(main, name, pictures, MapKind.BASE_COLOUR, capture.size_mm if sized else None)
    return Scan(msgspec.structs.replace(source, kind="scan", path=""), measured.told)


def is_frames_folder(path: Path) -> bool:
    """Whether a folder holds frames with a light file."""
    return path.is_dir() and (path / LIGHTS_FILE).is_file()
