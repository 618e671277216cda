"""Small models read for their relief: Wavefront OBJ, glTF binary, PLY and STL."""

from __future__ import annotations

import io

import numpy as np
import numpy.typing as npt

from ..core.errors import TooLargeError, UnreadableFileError
from ..core.kernels.compiled import compiled
from ..core.phrases import say
from ..core.sheet import AnyArray, Raster
from .limited import read_limited

MODEL_SUFFIXES = (".obj", ".glb", ".ply", ".stl")
MOST_BYTES = 64 << 20
MOST_FACES = 2_000_000
RELIEF_PX = 384


def model_kind(data: bytes) -> str:
    """The kind of a model by its first bytes."""
    if data[:4] == b"glTF":
        return "glb"
    if data[:3] == b"ply":
        return "ply"
    return "stl" if data[:5] == b"solid" or _stl_end(data) else "obj"


def model_relief(data: bytes, name: str) -> Raster:
    """A model seen from above along its shortest side, (H, W, 2): height over its foot in pixels, and cover.

    Raises
    ------
    UnreadableFileError, TooLargeError
        when it is no model, has no faces, or is beyond the limits.
    """
    if len(data) > MOST_BYTES:
        raise TooLargeError(
            name,
            value=say("{count} MB", count=len(data) >> 20),
            allowed=say("{most_bytes} MB", most_bytes=MOST_BYTES >> 20),
        )
    (corners,) = read_limited("model", data, name)
    return _from_above(corners)


def model_corners(data: bytes, name: str) -> list[AnyArray]:
    """The corners of a model's triangles, one array of (N, 3, 3) float64; run in a process of its own.

    Raises
    ------
    UnreadableFileError, TooLargeError
        see :func:`model_relief`.
    """
    import trimesh  # only where models are read: it takes long to load

    kind = model_kind(data)
    try:
        mesh = trimesh.load(
            io.BytesIO(_tidied(data, kind)), file_type=kind, force="mesh", process=False, skip_materials=True
        )
        corners = np.asarray(mesh.vertices, np.float64)[np.asarray(mesh.faces, np.int64)]  # type: ignore[attr-defined]
    except MemoryError:
        raise
    except Exception as error:
        # The reader raises whatever its parsers do; to the person it is one thing.
        raise UnreadableFileError(name, value=type(error).__name__, allowed="OBJ, GLB, PLY or STL") from error
    if (
        len(corners) == 0
        or corners.shape[1:] != (3, 3)
        or not np.isfinite(corners).all()
        or np.abs(corners).max() > 1e12
    ):
        raise UnreadableFileError(name, value="no faces", allowed="a model with faces")
    if len(corners) > MOST_FACES:
        raise TooLargeError(
            name,
            value=say("{count} faces", count=len(corners)),
            allowed=say("{most_faces} faces", most_faces=MOST_FACES),
        )
    return [corners]


def _tidied(data: bytes, kind: str) -> bytes:
    """The bytes as their reader wants them: an STL without what follows its triangles, an OBJ as UTF-8."""
    if kind == "stl" and (end := _stl_end(data)):
        return data[:end]
    if kind == "obj":
        try:
            data.decode("utf-8")
        except UnicodeDecodeError:
            # Names of parts from an older program; every byte is a letter in Latin-1 (ISO/IEC 8859-1).
            return data.decode("latin-1").encode("utf-8")
    return data


def _stl_end(data: bytes) -> int:
    """Where the triangles of a binary STL end: 80 bytes of head, a count, 50 bytes each; 0 where it is none."""
    count = int.from_bytes(data[80:84], "little")
    end = 84 + 50 * count
    return end if count > 0 and len(data) >= end else 0


def _from_above(corners: npt.NDArray[np.float64]) -> Raster:
    flat = corners.reshape(-1, 3)
    extent = np.ptp(flat, axis=0)
    up = int(extent.argmin())
    across, along = (axis for axis in range(3) if axis != up)
    if extent[along] > extent[across]:
        across, along = along, across
    scale = (RELIEF_PX - 2) / max(float(extent[across]), 1e-9)
    low = flat.min(0)
    x, y, z = ((corners[..., axis] - low[axis]) * scale for axis in (across, along, up))
    rows, columns = max(4, int(np.ceil(extent[along] * scale)) + 2), RELIEF_PX
    height = np.full((rows, columns), -1.0, np.float32)
    _raster(np.stack([x + 1, rows - 1 - y, z], 2), height)
    cover = (height >= 0).astype(np.float32)
    return np.stack([np.maximum(height, 0), cover], 2)


@compiled
def _raster(triangles: npt.NDArray[np.float64], height: Raster) -> None:
    rows, columns = height.shape
    for t in range(triangles.shape[0]):
        x0, y0, z0 = triangles[t, 0]
        x1, y1, z1 = triangles[t, 1]
        x2, y2, z2 = triangles[t, 2]
        area = (x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0)
        if abs(area) < 1e-12:
            continue
        for r in range(max(0, int(min(y0, y1, y2))), min(rows - 1, int(max(y0, y1, y2)) + 1) + 1):
            for c in range(max(0, int(min(x0, x1, x2))), min(columns - 1, int(max(x0, x1, x2)) + 1) + 1):
                px, py = c + 0.5, r + 0.5
                a = ((x1 - px) * (y2 - py) - (x2 - px) * (y1 - py)) / area
                b = ((x2 - px) * (y0 - py) - (x0 - px) * (y2 - py)) / area
                w = 1.0 - a - b
                if a < -1e-9 or b < -1e-9 or w < -1e-9:
                    continue
                z = a * z0 + b * z1 + w * z2
                if z > height[r, c]:
                    height[r, c] = np.float32(z)
