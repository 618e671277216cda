"""Scanned meshes as sources: laid flat, with the maps they bring."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import ClassVar

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


@dataclass(frozen=True, slots=True)
class FlatScan:
    """A mesh laid flat: what it is called, its size in mm, and whether the file said its unit."""

    KINDS: ClassVar = ("base_colour", "height", "normal")
    name: str
    sheet: LaidFlat
    size_mm: tuple[float, float]
    unit_mm: float
    unit_told: bool

    @property
    def remark(self) -> Remark:
        """A sentence on its size, and on what was filled in."""
        told = f"{self.name}: {self.size_mm[0]:.0f} × {self.size_mm[1]:.0f} mm"
        told += (
            "."
            if self.unit_told
            else f", its unit taken to be {'metres' if self.unit_mm == 1000 else 'mm'}; correct the size if not."
        )
        filled = self.sheet.filled
        if filled > _FILLED:
            told += f" {100 * filled:.0f} % had no mesh and was filled from what lies nearest."
        return Remark(told, sure=self.unit_told and filled <= _FILLED)


_FILLED = 0.01


def laid_flat(path: Path) -> FlatScan:
    """A mesh, read and laid flat.

    Raises
    ------
    UnreadableFileError, TooLargeError, DegenerateViewError
        when it cannot be read or laid flat.
    """
    mesh = read_scan(path)
    flat = lay_flat(mesh.corners, mesh.places, mesh.picture, mesh.colours)
    unit = mesh.unit_mm or (1000.0 if max(flat.size) < METRES_UNDER else 1.0)
    name = path.stem.replace("_", " ").replace("-", " ").strip().capitalize() or "Scan"
    return FlatScan(name, flat, (flat.size[0] * unit, flat.size[1] * unit), unit, bool(mesh.unit_mm))


def scanned_source(intake: Intake, path: Path) -> tuple[Source, Remark]:
    """A mesh laid flat as a source with colour, height and normal, and a sentence on its size; raises as
    :func:`laid_flat`.
    """
    scan = laid_flat(path)
    colour = codes_from_linear(scan.sheet.colour, depth=16)
    height = scan.sheet.height * np.float32(scan.unit_mm)
    whence = ("of the mesh", "of the mesh")
    source = measured_source(intake, scan.name, colour, height, scan.sheet.normal, scan.size_mm, whence)
    return msgspec.structs.replace(source, file_name=path.name), scan.remark
