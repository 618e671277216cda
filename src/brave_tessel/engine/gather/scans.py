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
from ...core.sheet import AnyArray, Raster
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
    size = capture.size_mm if min(capture.size_mm) > 0 else None
    reasons = "measured by the light rig", "integrated from the normal"
    colour = codes_from_linear(shape.albedo, depth=16)
    name = f"{capture.name}, scanned"
    source = measured_source(intake, name, colour, measured.height, shape.normal, size, reasons)
    return Scan(source, measured.told)


def measured_source(
    intake: Intake,
    name: str,
    colour: AnyArray,
    height: Raster,
    normal: Raster,
    size_mm: tuple[float, float] | None,
    reasons: tuple[str, str],
) -> Source:
    """A source of measured maps: 16-bit codes of its colour, height in mm (H, W), unit normals (H, W, 3), and why the
    normal and the height are what they are.
    """
    main = intake.make_source(encode_png(colour, srgb=True), f"{name}.png")
    reach = max(float(np.abs(height).max()), 1e-3)
    rise = round(2 * reach, 4)
    kept = {
        MapKind.NORMAL: intake.kept.keep(encode_png(_codes(normal * 0.5 + 0.5))),
        MapKind.HEIGHT: intake.kept.keep(encode_png(_codes(height / rise + 0.5))),
    }
    pictures = (
        Picture(
            id="map-normal",
            role=MapKind.NORMAL,
            blob=kept[MapKind.NORMAL],
            file_name="normal.png",
            green="up",
            reason=reasons[0],
        ),
        Picture(
            id="map-height",
            role=MapKind.HEIGHT,
            blob=kept[MapKind.HEIGHT],
            file_name="height.png",
            rise_mm=rise if size_mm else 0.0,
            reason=reasons[1],
        ),
    )
    source = dressed(main, name, pictures, MapKind.BASE_COLOUR, size_mm)
    return msgspec.structs.replace(source, kind="scan", path="")


def is_frames_folder(path: Path) -> bool:
    """Whether a folder holds frames with a light file."""
    return path.is_dir() and (path / LIGHTS_FILE).is_file()
