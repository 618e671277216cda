"""Models for Place: named parts with their places, materials and unwraps, from OBJ, glTF, PLY, STL, OFF and DAE.

:func:`model_parts` runs in a process of its own (see :mod:`.limited`) and gives arrays; :func:`read_model` asks for it
and puts the answer together.
"""

from __future__ import annotations

import io
import json
import re
import zipfile
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np
import numpy.typing as npt

from ..core.errors import MissingError, TooLargeError, UnreadableFileError
from ..core.phrases import say
from ..core.place.mesh import Mesh
from ..core.sheet import AnyArray
from .gltf_read import GltfFile, Shape, hex_of
from .images import read_file
from .limited import read_limited

SUFFIXES = (".obj", ".gltf", ".glb", ".ply", ".stl", ".off", ".dae")
MOST_BYTES = 1 << 30
MOST_TRIANGLES = 12_000_000
MOST_PARTS = 20_000
SECONDS = 240.0
_ZIP = b"PK\x03\x04"
_KINDS = say("OBJ, glTF, GLB, PLY, STL, OFF or DAE")
Matrix = npt.NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class ReadNode:
    """A place of a shape in the file: its name, the shape's number, its transform in the file's unit, the names it lies
    under, outermost first.
    """

    name: str
    shape: int
    matrix: Matrix
    above: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class ReadModel:
    """What a file holds. Shapes are in the file's unit and directions; ``unit_mm`` and ``up`` are what the file says of
    them, 0 and empty where it says nothing.
    """

    shapes: tuple[Mesh, ...]
    names: tuple[str, ...]
    nodes: tuple[ReadNode, ...]
    colours: dict[str, str]
    unit_mm: float
    up: str

    @property
    def triangles(self) -> int:
        """Of all shapes, each counted once."""
        return sum(mesh.count for mesh in self.shapes)


def bundled(path: Path) -> bytes:
    """A model file's bytes; with those it names beside it (buffers of a glTF, materials of an OBJ) as one zip.

    Raises
    ------
    MissingError
        when a buffer it needs is not there.
    UnreadableFileError, TooLargeError
        when it cannot be read.
    """
    if path.suffix.lower() not in SUFFIXES:
        raise UnreadableFileError(path.name, allowed=_KINDS)
    data = read_file(path)
    beside = _named_beside(data, path)
    if not beside:
        return data
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, held in ((path.name, data), *sorted(beside.items())):
            archive.writestr(zipfile.ZipInfo(name, (1980, 1, 1, 0, 0, 0)), held)
    return buffer.getvalue()


def _named_beside(data: bytes, path: Path) -> dict[str, bytes]:
    """Files in the same folder that a model names."""
    found: dict[str, bytes] = {}
    if path.suffix.lower() == ".gltf":
        try:
            tree = json.loads(data)
            wanted = [str(entry.get("uri", "")) for entry in tree.get("buffers", [])]
        except (ValueError, AttributeError, TypeError):
            raise UnreadableFileError(path.name, allowed=_KINDS) from None
        for name in wanted:
            if name and not name.startswith("data:"):
                found[name] = _beside(path, name, needed=True)
    elif path.suffix.lower() == ".obj":
        for name in re.findall(rb"^\s*mtllib[ \t]+([^\r\n]+?)[ \t]*\r?$", data[: 1 << 20], re.MULTILINE)[:8]:
            held = _beside(path, name.decode("utf-8", "replace"), needed=False)
            if held:
                found[name.decode("utf-8", "replace")] = held
    return found


def _beside(path: Path, name: str, *, needed: bool) -> bytes:
    other = path.parent / name
    # A file may name others beside or below it, nothing else of the disk.
    inside = other.resolve().is_relative_to(path.parent.resolve())
    if inside and other.is_file():
        return read_file(other)
    if needed:
        raise MissingError("file", value=name, remedy=f"Put it beside {path.name}.")
    return b""


def read_model(data: bytes, name: str) -> ReadModel:
    """A model from the bytes of :func:`bundled`, read in a process of its own.

    Raises
    ------
    UnreadableFileError, TooLargeError
        when it is none or beyond the limits.
    CancelledError
        when the work that asked has been overtaken.
    """
    if len(data) > MOST_BYTES:
        raise TooLargeError(
            name,
            value=say("{count} MB", count=len(data) >> 20),
            allowed=say("{most_bytes} MB", most_bytes=MOST_BYTES >> 20),
        )
    arrays = read_limited("scene model", data, name, seconds=SECONDS)
    try:
        return _put_together(arrays)
    except (ValueError, KeyError, IndexError, TypeError) as error:
        raise UnreadableFileError(name, value=type(error).__name__, allowed=_KINDS) from None


def _put_together(arrays: list[AnyArray]) -> ReadModel:
    head = json.loads(arrays[0].tobytes())
    shapes = []
    for number, told in enumerate(head["shapes"]):
        points, triangles, groups, unwrap = arrays[1 + 4 * number : 5 + 4 * number]
        shapes.append(
            Mesh(points, triangles, groups, tuple(told["groups"]), unwrap if len(unwrap) else None, unwrap_mm=False)
        )
    nodes = tuple(
        ReadNode(n["name"], n["shape"], np.array(n["matrix"], float).reshape(4, 4), tuple(n["above"]))
        for n in head["nodes"]
    )
    names = tuple(told["name"] for told in head["shapes"])
    return ReadModel(tuple(shapes), names, nodes, dict(head["colours"]), float(head["unit_mm"]), str(head["up"]))


# In the other process ----------------------------------------------------------------------------


@dataclass(slots=True)
class _Found:
    """What a reader gathers: shapes as (name, [(material, corners, uv)]) and where they stand."""

    shapes: list[Shape]
    nodes: list[tuple[str, int, Matrix, tuple[str, ...]]]
    colours: dict[str, str]
    unit_mm: float = 0.0
    up: str = ""


def model_parts(data: bytes, name: str) -> list[AnyArray]:
    """A model as arrays: a head as JSON, then points (V, 3), triangles (T, 3), groups (T,) and unwrap (T, 3, 2) or
    nothing of each shape; run in a process of its own.

    Raises
    ------
    UnreadableFileError, TooLargeError
        see :func:`read_model`.
    """
    main, beside, kind = _unbundled(data, name)
    try:
        found = _READERS[kind](main, beside)
        return _as_arrays(found, name)
    except (MemoryError, UnreadableFileError, TooLargeError):
        raise
    except Exception as error:
        # The readers raise whatever their parsers do; to the person it is one thing.
        raise UnreadableFileError(name, value=type(error).__name__, allowed=_KINDS) from error


def _unbundled(data: bytes, name: str) -> tuple[bytes, dict[str, bytes], str]:
    beside: dict[str, bytes] = {}
    if data[:4] == _ZIP:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            entries = archive.infolist()
            if sum(entry.file_size for entry in entries) > MOST_BYTES or len(entries) > 64:
                raise TooLargeError(name, value="its files", allowed=say("{most} MB", most=MOST_BYTES >> 20))
            held = {entry.filename: archive.read(entry) for entry in entries}
        name, data = next(iter(held.items()))
        beside = dict(list(held.items())[1:])
    return data, beside, _kind_of(data, name)


def _kind_of(data: bytes, name: str) -> str:
    if data[:4] == b"glTF":
        return "glb"
    if data[:3] == b"ply":
        return "ply"
    if data[:3] == b"OFF":
        return "off"
    suffix = name.rpartition(".")[2].lower()
    if suffix in {"gltf", "dae", "stl", "obj", "off", "ply"}:
        return suffix
    return "stl" if data[:5] == b"solid" else "obj"


def _as_arrays(found: _Found, name: str) -> list[AnyArray]:
    arrays: list[AnyArray] = []
    told = []
    total = 0
    for shape_name, pieces in found.shapes:
        materials = list(dict.fromkeys(material for material, *_ in pieces))
        points, triangles, groups, unwraps, start = [], [], [], [], 0
        for material, own, faces, uv in pieces:
            points.append(np.asarray(own, np.float64).reshape(-1, 3))
            faces = np.asarray(faces, np.int64).reshape(-1, 3)
            if len(faces) and (faces.min() < 0 or faces.max() >= len(points[-1])):
                raise ValueError("a face names a point that is not there")
            triangles.append(faces + start)
            groups.append(np.full(len(faces), materials.index(material), np.int32))
            unwraps.append(np.asarray(uv, np.float64)[faces] if uv is not None else np.zeros((len(faces), 3, 2)))
            start += len(points[-1])
        total += sum(map(len, triangles))
        if total > MOST_TRIANGLES:
            raise TooLargeError(
                name, value=say("{count} triangles", count=total), allowed=say("{most}", most=MOST_TRIANGLES)
            )
        every = np.concatenate(points) if points else np.zeros((0, 3))
        if not np.isfinite(every).all() or (len(every) and np.abs(every).max() > 1e9):
            raise ValueError("points that are no places")
        has_unwrap = any(uv is not None for *_, uv in pieces)
        unwrap = np.concatenate(unwraps) if has_unwrap else np.zeros((0, 3, 2))
        arrays += [
            every,
            np.concatenate(triangles).astype(np.int32) if triangles else np.zeros((0, 3), np.int32),
            np.concatenate(groups) if groups else np.zeros(0, np.int32),
            np.where(np.isfinite(unwrap), unwrap, 0.0),
        ]
        told.append({"name": shape_name, "groups": materials or ["all"]})
    if total == 0:
        raise UnreadableFileError(name, value="no faces", allowed="a model with faces")
    if len(found.nodes) > MOST_PARTS:
        raise TooLargeError(
            name, value=say("{count} parts", count=len(found.nodes)), allowed=say("{most}", most=MOST_PARTS)
        )
    head = {
        "shapes": told,
        "nodes": [
            {"name": n, "shape": s, "matrix": np.asarray(m, float).ravel().tolist(), "above": list(above)}
            for n, s, m, above in found.nodes
            if np.isfinite(m).all()
        ],
        "colours": found.colours,
        "unit_mm": found.unit_mm,
        "up": found.up,
    }
    return [np.frombuffer(json.dumps(head).encode(), np.uint8), *arrays]


def _of_trimesh(data: bytes, kind: str, resolver: Any = None) -> Any:
    import trimesh

    more: dict[str, Any] = {"split_objects": True} if kind == "obj" else {}
    return trimesh.load_scene(io.BytesIO(data), file_type=kind, process=False, resolver=resolver, **more)


def _read_obj(data: bytes, beside: dict[str, bytes]) -> _Found:
    """Objects by their names, faces by their materials; an OBJ in Latin-1 (ISO/IEC 8859-1) is read as such."""
    try:
        text = data.decode("utf-8")
    except UnicodeDecodeError:
        text = data.decode("latin-1")
    materials = _materials_of(beside)
    named = dict.fromkeys(word.strip() for word in re.findall(r"^\s*usemtl[ \t]+([^\r\n]+)", text, re.MULTILINE))
    stand_in = "\n".join(f"newmtl {word}\nKd 0.8 0.8 0.8" for word in named)
    if not re.search(r"^\s*o[ \t]", text, re.MULTILINE):
        # Without objects the file's groups are its parts.
        text = re.sub(r"^([ \t]*)g([ \t]+)", r"\1o\2", text, flags=re.MULTILINE)
    text = re.sub(r"^\s*mtllib[^\r\n]*", "", text, flags=re.MULTILINE)
    scene = _of_trimesh(("mtllib all\n" + text).encode(), "obj", Resolver({"all": stand_in.encode()}))
    shapes: dict[str, list[tuple[str, AnyArray, AnyArray, AnyArray | None]]] = {}
    for key, mesh in scene.geometry.items():
        material = str(getattr(getattr(mesh.visual, "material", None), "name", "") or "")
        material = material if material in named else ""
        part = key[: -len(material) - 1] if material and key.endswith(f"_{material}") else key
        part = "model" if part == material or not part else part
        uv = getattr(mesh.visual, "uv", None)
        shapes.setdefault(part, []).append((material or "all", mesh.vertices, mesh.faces, uv))
    listed = [(part, pieces) for part, pieces in shapes.items() if sum(len(p[2]) for p in pieces)]
    return _Found(listed, [(part, n, np.eye(4), ()) for n, (part, _) in enumerate(listed)], materials)


class Resolver:
    """Hands out the files that came with a model, and nothing else."""

    def __init__(self, files: dict[str, bytes]) -> None:
        self.files = files

    def get(self, name: str) -> bytes:
        """The bytes of a file; nothing for others."""
        return self.files.get(name, b"")

    def __getitem__(self, name: str) -> bytes:
        return self.get(name)

    def keys(self) -> list[str]:
        """Names of the files there are."""
        return list(self.files)


def _materials_of(beside: dict[str, bytes]) -> dict[str, str]:
    """Diffuse colours by material, from the MTL files that came along."""
    found: dict[str, str] = {}
    for data in beside.values():
        name = ""
        for line in data.decode("utf-8", "replace").splitlines():
            words = line.split()
            if len(words) >= 2 and words[0] == "newmtl":
                name = line.split(None, 1)[1].strip()
            elif len(words) >= 4 and words[0] == "Kd" and name:
                # What an MTL calls diffuse is a colour as it is seen: common practice.
                codes = np.clip(np.round(255 * np.array(words[1:4], float)), 0, 255).astype(int)
                found[name] = "#{:02X}{:02X}{:02X}".format(*codes)
    return found


def _read_plain(kind: str) -> Callable[[bytes, dict[str, bytes]], _Found]:
    def read(data: bytes, _beside: dict[str, bytes]) -> _Found:
        if kind == "stl":
            count = int.from_bytes(data[80:84], "little")
            end = 84 + 50 * count
            data = data[:end] if count > 0 and len(data) >= end else data
        scene = _of_trimesh(data, kind)
        shapes: list[Shape] = []
        for key, mesh in scene.geometry.items():
            uv = getattr(mesh.visual, "uv", None)
            shapes.append((_word(key) or "model", [("all", mesh.vertices, mesh.faces, uv)]))
        return _Found(shapes, [(part, n, np.eye(4), ()) for n, (part, _) in enumerate(shapes)], {})

    return read


def _word(key: str) -> str:
    return "" if key.startswith("geometry_") else key


def _read_dae(data: bytes, beside: dict[str, bytes]) -> _Found:
    """COLLADA: its unit and the axis that points up are stated in its head."""
    scene = _of_trimesh(data, "dae", Resolver(beside))
    head = data[:8192].decode("utf-8", "replace")
    unit = re.search(r"<unit[^>]*\bmeter\s*=\s*[\"']([^\"']+)", head)
    up = re.search(r"<up_axis>\s*([XYZ])_UP", head)
    shapes: list[Shape] = []
    numbers: dict[str, int] = {}
    colours: dict[str, str] = {}
    for key, mesh in scene.geometry.items():
        material = getattr(mesh.visual, "material", None)
        name = str(getattr(material, "name", "") or "all")
        factor = getattr(material, "baseColorFactor", None)
        if factor is not None:
            shares = np.asarray(factor, float)[:3]
            colours[name] = hex_of(list(shares / 255 if shares.max() > 1 else shares))
        numbers[key] = len(shapes)
        shapes.append((key, [(name, mesh.vertices, mesh.faces, getattr(mesh.visual, "uv", None))]))
    nodes: list[tuple[str, int, Matrix, tuple[str, ...]]] = []
    for node in scene.graph.nodes_geometry:
        matrix, key = scene.graph[node]
        nodes.append((str(node), numbers[key], np.asarray(matrix, float), ()))
    return _Found(
        shapes, nodes, colours, 1000 * float(unit[1]) if unit else 1000.0, up[1].lower() if up else "y"
    )  # fmt: skip


def _read_gltf(data: bytes, beside: dict[str, bytes]) -> _Found:
    file = GltfFile(data, beside)
    shapes = [file.shape(number) for number in range(len(file.tree.get("meshes", [])))]
    nodes = file.nodes()
    if not nodes:
        nodes = [(name, number, np.eye(4), ()) for number, (name, _) in enumerate(shapes)]
    return _Found(shapes, nodes, file.colours(), 1000.0, "y")


_READERS: dict[str, Callable[[bytes, dict[str, bytes]], _Found]] = {
    "obj": _read_obj,
    "glb": _read_gltf,
    "gltf": _read_gltf,
    "ply": _read_plain("ply"),
    "stl": _read_plain("stl"),
    "off": _read_plain("off"),
    "dae": _read_dae,
}
