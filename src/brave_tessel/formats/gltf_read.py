"""glTF 2.0 read: triangles by material, names, places and colours."""

from __future__ import annotations

import base64
import json
from typing import Any

import numpy as np
import numpy.typing as npt

from ..core.errors import UnreadableFileError
from ..core.sheet import AnyArray

Matrix = npt.NDArray[np.float64]
Shape = tuple[str, list[tuple[str, AnyArray, AnyArray, AnyArray | None]]]
"""A shape's name and its pieces: material, points (V, 3), triangles (T, 3) and places of the unwrap (V, 2) if any."""


def hex_of(linear: list[float]) -> str:
    """A linear colour as ``#RRGGBB``."""
    shares = np.clip(np.asarray(linear[:3], float), 0, 1)
    codes = np.where(shares <= 0.0031308, 12.92 * shares, 1.055 * shares ** (1 / 2.4) - 0.055)
    return "#{:02X}{:02X}{:02X}".format(*np.round(255 * codes).astype(int))


_COMPONENTS = {5120: "i1", 5121: "u1", 5122: "<i2", 5123: "<u2", 5125: "<u4", 5126: "<f4"}
_WIDTHS = {"SCALAR": 1, "VEC2": 2, "VEC3": 3, "VEC4": 4}


class GltfFile:
    """glTF 2.0 (ISO/IEC 12113:2022): metres, y up; names, instances, transforms and materials as they are."""

    def __init__(self, data: bytes, beside: dict[str, bytes]) -> None:
        self.buffers: list[bytes] = []
        binary = b""
        if data[:4] == b"glTF":
            size = int.from_bytes(data[12:16], "little")
            self.tree = json.loads(data[20 : 20 + size])
            binary = data[28 + size :]
        else:
            self.tree = json.loads(data)
        for entry in self.tree.get("buffers", []):
            uri = entry.get("uri")
            if uri is None:
                self.buffers.append(binary)
            elif uri.startswith("data:"):
                self.buffers.append(base64.b64decode(uri.partition(",")[2]))
            else:
                self.buffers.append(beside[uri])
        needed = set(self.tree.get("extensionsRequired", []))
        if needed - {"KHR_texture_transform", "KHR_materials_unlit", "KHR_mesh_quantization"}:
            raise UnreadableFileError("model", value=", ".join(sorted(needed)), allowed="glTF without squeezed meshes")

    def accessor(self, number: int) -> AnyArray:
        """(N, K) numbers; normalized integers as shares."""
        told = self.tree["accessors"][number]
        kind, width = np.dtype(_COMPONENTS[told["componentType"]]), _WIDTHS[told["type"]]
        count = int(told["count"])
        if "bufferView" in told:
            view = self.tree["bufferViews"][told["bufferView"]]
            start = int(view.get("byteOffset", 0)) + int(told.get("byteOffset", 0))
            stride = int(view.get("byteStride") or kind.itemsize * width)
            held = self.buffers[view["buffer"]]
            if count < 0 or start < 0 or start + stride * (count - 1) + kind.itemsize * width > len(held):
                raise ValueError("a buffer is too short")
            out = np.ndarray((count, width), kind, held, start, (stride, kind.itemsize)).copy()
        else:
            out = np.zeros((count, width), kind)
        if "sparse" in told:
            out = self._sparse(out, told["sparse"], kind, width)
        if told.get("normalized") and kind.kind in "iu":
            return np.maximum(out / float(np.iinfo(kind).max), -1.0)
        return out

    def _sparse(self, out: AnyArray, told: dict[str, Any], kind: Any, width: int) -> AnyArray:
        def part(entry: dict[str, Any], of: Any, size: int) -> AnyArray:
            view = self.tree["bufferViews"][entry["bufferView"]]
            start = int(view.get("byteOffset", 0)) + int(entry.get("byteOffset", 0))
            return np.frombuffer(self.buffers[view["buffer"]], of, told["count"] * size, start).reshape(-1, size)

        at = part(told["indices"], np.dtype(_COMPONENTS[told["indices"]["componentType"]]), 1).ravel()
        out[at.astype(np.int64)] = part(told["values"], kind, width)
        return out

    def shape(self, number: int) -> Shape:
        """A mesh: triangles of each of its primitives by material."""
        told = self.tree["meshes"][number]
        pieces: list[tuple[str, AnyArray, AnyArray, AnyArray | None]] = []
        for primitive in told.get("primitives", []):
            mode = primitive.get("mode", 4)
            attributes = primitive.get("attributes", {})
            if mode not in (4, 5, 6) or "POSITION" not in attributes:
                continue
            points = self.accessor(attributes["POSITION"]).astype(np.float64)
            order = (
                self.accessor(primitive["indices"]).ravel().astype(np.int64)
                if "indices" in primitive
                else np.arange(len(points))
            )
            uv = None
            if "TEXCOORD_0" in attributes:
                uv = self.accessor(attributes["TEXCOORD_0"]).astype(np.float64)
                # v counts down from the top of the picture.
                uv = np.stack([uv[:, 0], 1 - uv[:, 1]], 1)
            pieces.append((self.material(primitive.get("material")), points, _triangles(order, mode), uv))
        return str(told.get("name") or f"mesh {number + 1}"), pieces

    def material(self, number: int | None) -> str:
        """A material's name."""
        if number is None:
            return "all"
        return str(self.tree["materials"][number].get("name") or f"material {number + 1}")

    def colours(self) -> dict[str, str]:
        """Base colours by material."""
        found = {}
        for number, told in enumerate(self.tree.get("materials", [])):
            factor = told.get("pbrMetallicRoughness", {}).get("baseColorFactor")
            if isinstance(factor, list) and len(factor) >= 3:
                found[self.material(number)] = hex_of([float(v) for v in factor[:3]])
        return found

    def nodes(self) -> list[tuple[str, int, Matrix, tuple[str, ...]]]:
        """Every node with a mesh, its transform in the scene, and what it lies under."""
        told = self.tree.get("nodes", [])
        scenes = self.tree.get("scenes", [])
        chosen = self.tree.get("scene", 0)
        roots = scenes[chosen].get("nodes", []) if scenes else list(range(len(told)))
        found: list[tuple[str, int, Matrix, tuple[str, ...]]] = []
        waiting: list[tuple[int, Matrix, tuple[str, ...]]] = [(int(root), np.eye(4), ()) for root in reversed(roots)]
        seen: set[int] = set()
        while waiting:
            number, above, names = waiting.pop()
            if number in seen:
                continue
            seen.add(number)
            node = told[number]
            matrix = above @ _matrix_of(node)
            name = str(node.get("name") or "")
            if "mesh" in node:
                own = name or str(self.tree["meshes"][node["mesh"]].get("name") or f"part {number + 1}")
                found.append((own, int(node["mesh"]), matrix, names))
            under = (*names, name) if name else names
            waiting += [(int(child), matrix, under) for child in reversed(node.get("children", []))]
        return found


def _triangles(order: AnyArray, mode: int) -> AnyArray:
    if mode == 4:
        return np.asarray(order[: len(order) // 3 * 3].reshape(-1, 3))
    if mode == 6:
        return np.stack([np.full(len(order) - 2, order[0]), order[1:-1], order[2:]], 1)
    strip = np.stack([order[:-2], order[1:-1], order[2:]], 1)
    strip[1::2] = strip[1::2, [1, 0, 2]]
    return strip


def _matrix_of(node: dict[str, Any]) -> Matrix:
    if "matrix" in node:
        return np.array(node["matrix"], float).reshape(4, 4).T
    out = np.eye(4)
    x, y, z, w = node.get("rotation", (0, 0, 0, 1))
    size = np.array(node.get("scale", (1, 1, 1)), float)
    out[:3, :3] = (
        np.array(
            [
                [1 - 2 * (y * y + z * z), 2 * (x * y - z * w), 2 * (x * z + y * w)],
                [2 * (x * y + z * w), 1 - 2 * (x * x + z * z), 2 * (y * z - x * w)],
                [2 * (x * z - y * w), 2 * (y * z + x * w), 1 - 2 * (x * x + y * y)],
            ]
        )
        * size
    )
    out[:3, 3] = node.get("translation", (0, 0, 0))
    return out
