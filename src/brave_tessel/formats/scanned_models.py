"""Scanned meshes with their pictures: OBJ with its materials, GLB, PLY with colours of its points.

:func:`scan_arrays` runs in a process of its own, see :mod:`.limited`.
"""

from __future__ import annotations

import io
import re
import zipfile
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np
import numpy.typing as npt

from ..core.errors import TooLargeError, UnreadableFileError
from ..core.phrases import say
from ..core.sheet import AnyArray
from .images import read_file
from .limited import read_limited
from .scene_models import Resolver

SUFFIXES = (".obj", ".glb", ".ply")
MOST_FACES = 12_000_000
SECONDS = 240.0
_ZIP = b"PK\x03\x04"
_NAMED = re.compile(rb"^\s*(?:mtllib|map_Kd)[ \t]+(?:-\S+[ \t]+\S+[ \t]+)*([^\r\n]+?)[ \t]*\r?$", re.MULTILINE)


@dataclass(frozen=True)
class ScannedMesh:
    """Triangles as corners (N, 3, 3), in the file's unit; ``unit_mm`` of it, 0 where the file does not say. Colours
    come from ``picture`` (H, W, 3) uint8 by ``places`` (N, 3, 2), v up, or from ``colours`` (N, 3, 3) uint8; either
    may be empty.
    """

    corners: npt.NDArray[np.float64]
    places: npt.NDArray[np.float64]
    picture: AnyArray
    colours: AnyArray
    unit_mm: float


def bundled(path: Path) -> bytes:
    """A model's bytes, with the materials and pictures it names beside it as one zip."""
    data = read_file(path)
    if path.suffix.lower() != ".obj":
        return data
    beside: dict[str, bytes] = {}
    for name in _NAMED.findall(data[: 1 << 20])[:8]:
        held = _beside(path, name.decode("utf-8", "replace"), beside)
        for picture in _NAMED.findall(held)[:64]:
            _beside(path, picture.decode("utf-8", "replace"), beside)
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w") as archive:
        for name, held in ((path.name, data), *sorted(beside.items())):
            archive.writestr(zipfile.ZipInfo(name, (1980, 1, 1, 0, 0, 0)), held)
    return buffer.getvalue()


def _beside(path: Path, name: str, found: dict[str, bytes]) -> bytes:
    """A file beside or below a model; nothing else of the disk is read."""
    other = path.parent / name.replace("\\", "/")
    if not other.resolve().is_relative_to(path.parent.resolve()) or not other.is_file():
        return b""
    found[name] = read_file(other)
    return found[name]


def read_scan(path: Path) -> ScannedMesh:
    """A scanned mesh from a file, read in a process of its own.

    Raises
    ------
    UnreadableFileError, TooLargeError
        when it is none, has no faces, or is beyond the limits.
    """
    corners, places, picture, colours = read_limited("scan", bundled(path), path.name, seconds=SECONDS)
    return ScannedMesh(corners, places, picture, colours, 1000.0 if path.suffix.lower() == ".glb" else 0.0)


def scan_arrays(data: bytes, name: str) -> list[AnyArray]:
    """Corners, places in the picture, the picture, colours of the corners; see :class:`ScannedMesh`."""
    import trimesh

    files = {name: data}
    if data[:4] == _ZIP:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            files = {entry: archive.read(entry) for entry in archive.namelist()}
    kind = Path(name).suffix.lower().removeprefix(".")
    try:
        mesh: Any = trimesh.load(
            io.BytesIO(files[name]),
            file_type=kind,
            force="mesh",
            process=False,
            resolver=Resolver(files),  # type: ignore[arg-type]
        )
        faces = np.asarray(mesh.faces, np.int64)
        corners = np.asarray(mesh.vertices, np.float64)[faces]
        places, picture, colours = _dressed(mesh, faces)
    except MemoryError:
        raise
    except Exception as error:
        # The reader raises whatever its parsers do; to the person it is one thing.
        raise UnreadableFileError(name, value=type(error).__name__, allowed="OBJ, GLB or PLY") from error
    if not len(corners) or not np.isfinite(corners).all() or np.abs(corners).max() > 1e12:
        raise UnreadableFileError(name, value="no faces", allowed="a model with faces")
    if len(corners) > MOST_FACES:
        raise TooLargeError(name, value=say("{count} faces", count=len(corners)))
    return [corners, places, picture, colours]


def _dressed(mesh: Any, faces: AnyArray) -> tuple[AnyArray, AnyArray, AnyArray]:
    none = np.zeros((0, 3, 2)), np.zeros((0, 0, 3), np.uint8), np.zeros((0, 3, 3), np.uint8)
    visual, material = mesh.visual, getattr(mesh.visual, "material", None)
    picture = getattr(material, "baseColorTexture", None) or getattr(material, "image", None)
    uv = getattr(visual, "uv", None)
    if picture is not None and uv is not None and len(uv) == len(mesh.vertices):
        return np.asarray(uv, np.float64)[faces], np.asarray(picture.convert("RGB"), np.uint8), none[2]
    if visual.kind == "vertex":
        return none[0], none[1], np.asarray(visual.vertex_colors, np.uint8)[:, :3][faces]
    return none
