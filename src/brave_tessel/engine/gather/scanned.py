"""Scanned meshes as sources: laid flat, with the maps they bring."""

from __future__ import annotations

from pathlib import Path

import msgspec
import numpy as np

from ...core.colour import codes_from_linear
from ...core.gather.scanned import LaidFlat, lay_flat
from ...core.job.document import Source
from ...formats.scanned_models import SUFFIXES, read_scan
from .intake import Intake
from .scans import measured_source

METRES_UNDER = 25.0
"""A file that does not say its unit is taken to be in metres where the whole is smaller than this, else in mm."""


class Remark(str):
    """Something to know of what was read; it is no fault. ``sure`` unless something was guessed or filled in."""

    __slots__ = ("sure",)
    sure: bool

    def __new__(cls, words: str, *, sure: bool = True) -> Remark:
        made = super().__new__(cls, words)
        made.sure = sure
        return made


def is_scan(path: Path) -> bool:
    """Whether a file is a mesh that can be laid flat."""
    return path.suffix.lower() in SUFFIXES and path.is_file()


def scanned_source(intake: Intake, path: Path) -> tuple[Source, Remark]:
    """A mesh laid flat as a source with colour, height and normal, and a sentence on its size.

    Raises
    ------
    UnreadableFileError, TooLargeError, DegenerateViewError
        when it cannot be read or laid flat.
    """
    mesh = read_scan(path)
    flat: LaidFlat = lay_flat(mesh.corners, mesh.places, mesh.picture, mesh.colours)
    unit = mesh.unit_mm or (1000.0 if max(flat.size) < METRES_UNDER else 1.0)
    size = flat.size[0] * unit, flat.size[1] * unit
    name = path.stem.replace("_", " ").replace("-", " ").strip().capitalize() or "Scan"
    colour = codes_from_linear(flat.colour, depth=16)
    source = measured_source(
        intake, name, colour, flat.height * np.float32(unit), flat.normal, size, ("of the mesh", "of the mesh")
    )
    told = f"{name}: {size[0]:.0f} × {size[1]:.0f} mm"
    told += (
        "."
        if mesh.unit_mm
        else f", its unit taken to be {'metres' if unit == 1000 else 'mm'}; correct the size if not."
    )
    sure = bool(mesh.unit_mm) and flat.filled <= 0.01
    if flat.filled > 0.01:
        told += f" {100 * flat.filled:.0f} % had no mesh and was filled from what lies nearest."
    return msgspec.structs.replace(source, file_name=path.name), Remark(told, sure=sure)
