"""glTF 2.0 binary of a scene: UVs in repeats carry the real scale, so no reader can lose it.

Khronos glTF 2.0 (ISO/IEC 12113:2022): metres, y up, v down, green up, ORM packing.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
import numpy.typing as npt
import pygltflib as gl

from .. import __version__


@dataclass(frozen=True, slots=True)
class GltfFinish:
    """An extension of the material: its name, its factors, and its pictures by their keys."""

    name: str
    factors: dict[str, object]
    pictures: dict[str, bytes]


@dataclass(frozen=True, slots=True)
class GltfMaterial:
    """PNG bytes of a surface's pictures, and its size in metres. One that is ``cut_out`` has alpha in its base colour;
    ``emission_cd`` is what white of its emission shines with, cd/m².
    """

    name: str
    size_m: tuple[float, float]
    base_colour: bytes = b""
    orm: bytes = b""
    normal: bytes = b""
    factor: tuple[float, float, float] = (1.0, 1.0, 1.0)
    cut_out: bool = False
    emission: bytes = b""
    emission_cd: float = 0.0
    finishes: tuple[GltfFinish, ...] = ()


@dataclass(frozen=True, slots=True)
class GltfPart:
    """Triangle corners: positions in metres (N, 3), normals (N, 3), UVs in repeats with v up (N, 2)."""

    positions: npt.NDArray[np.float32]
    normals: npt.NDArray[np.float32]
    uv: npt.NDArray[np.float32]
    material: int


@dataclass(frozen=True, slots=True)
class GltfNode:
    """A named place: its transform (4, 4) in its parent, metres, y up; what it shows; what lies in it; and what is told
    of it for readers that ask.
    """

    name: str
    matrix: npt.NDArray[np.float64]
    parts: tuple[GltfPart, ...] = ()
    children: tuple[GltfNode, ...] = ()
    extras: dict[str, object] = field(default_factory=dict)


@dataclass(slots=True)
class _Writer:
    tree: gl.GLTF2
    blob: bytearray = field(default_factory=bytearray)

    def view(self, data: bytes, target: int | None = None) -> int:
        """Bytes added to the buffer, aligned; returns the number of their view."""
        self.blob += b"\0" * (-len(self.blob) % 4)
        view = gl.BufferView(buffer=0, byteOffset=len(self.blob), byteLength=len(data), target=target)
        self.tree.bufferViews.append(view)
        self.blob += data
        return len(self.tree.bufferViews) - 1

    def accessor(self, values: npt.NDArray[np.float32], kind: str, *, bounds: bool = False) -> int:
        """Numbers (N, K) added as an accessor; returns its number."""
        values = np.ascontiguousarray(values, np.float32)
        accessor = gl.Accessor(
            bufferView=self.view(values.tobytes(), gl.ARRAY_BUFFER),
            componentType=gl.FLOAT,
            count=len(values),
            type=kind,
        )
        if bounds:
            accessor.min, accessor.max = values.min(0).tolist(), values.max(0).tolist()
        self.tree.accessors.append(accessor)
        return len(self.tree.accessors) - 1

    def texture(self, png: bytes, name: str) -> int:
        """A picture added as a texture; returns its number."""
        self.tree.images.append(gl.Image(bufferView=self.view(png), mimeType="image/png", name=name))
        self.tree.textures.append(gl.Texture(sampler=0, source=len(self.tree.images) - 1))
        return len(self.tree.textures) - 1


def encode_glb(nodes: Sequence[GltfNode], materials: list[GltfMaterial], *, scene_name: str) -> bytes:
    """A ``.glb`` file. Each material carries ``extras.repeat_m``."""
    writer = _Writer(gl.GLTF2(asset=gl.Asset(version="2.0", generator=f"Brave Tessel {__version__}")))
    tree = writer.tree
    tree.samplers = [gl.Sampler(wrapS=gl.REPEAT, wrapT=gl.REPEAT, magFilter=gl.LINEAR, minFilter=9987)]
    tree.materials = [_material(writer, material) for material in materials]
    roots = [_node(writer, node) for node in nodes]
    tree.scenes = [gl.Scene(name=scene_name, nodes=roots)]
    tree.scene = 0
    tree.buffers = [gl.Buffer(byteLength=len(writer.blob))]
    tree.set_binary_blob(bytes(writer.blob))
    return b"".join(tree.save_to_bytes())


def _node(writer: _Writer, node: GltfNode) -> int:
    """A node with all that lies in it; returns its number."""
    tree = writer.tree
    made = gl.Node(name=node.name)
    if not np.allclose(node.matrix, np.eye(4)):
        made.matrix = [float(v) for v in node.matrix.T.ravel()]
    if node.extras:
        made.extras = dict(node.extras)
    tree.nodes.append(made)
    number = len(tree.nodes) - 1
    primitives = [_primitive(writer, part) for part in node.parts if len(part.positions)]
    if primitives:
        tree.meshes.append(gl.Mesh(name=node.name, primitives=primitives))
        made.mesh = len(tree.meshes) - 1
    children = [_node(writer, child) for child in node.children]
    if children:
        made.children = children
    return number


def _primitive(writer: _Writer, part: GltfPart) -> gl.Primitive:
    uv = np.stack([part.uv[:, 0], -part.uv[:, 1]], 1)
    # v counts down from the top of the picture; a whole number may be added without a visible change.
    uv[:, 1] += np.ceil(-uv[:, 1].min()) if len(uv) and uv[:, 1].min() < 0 else 0
    attributes = gl.Attributes(
        POSITION=writer.accessor(part.positions, gl.VEC3, bounds=True),
        NORMAL=writer.accessor(part.normals, gl.VEC3),
        TEXCOORD_0=writer.accessor(uv, gl.VEC2),
    )
    return gl.Primitive(attributes=attributes, material=part.material)


def _material(writer: _Writer, material: GltfMaterial) -> gl.Material:
    pbr = gl.PbrMetallicRoughness(baseColorFactor=[*material.factor, 1.0], metallicFactor=0.0, roughnessFactor=0.9)
    made = gl.Material(name=material.name, pbrMetallicRoughness=pbr, doubleSided=False)
    made.extras = {"repeat_m": [float(side) for side in material.size_m]}
    if material.base_colour:
        pbr.baseColorTexture = gl.TextureInfo(
            index=writer.texture(material.base_colour, f"{material.name} base colour")
        )
    if material.orm:
        orm = writer.texture(material.orm, f"{material.name} occlusion roughness metalness")
        pbr.metallicRoughnessTexture = gl.TextureInfo(index=orm)
        pbr.metallicFactor = pbr.roughnessFactor = 1.0
        made.occlusionTexture = gl.OcclusionTextureInfo(index=orm)
    if material.normal:
        made.normalTexture = gl.NormalMaterialTexture(index=writer.texture(material.normal, f"{material.name} normal"))
    if material.cut_out:
        made.alphaMode, made.alphaCutoff, made.doubleSided = gl.MASK, 0.5, True
    _finish(writer, material, made)
    return made


def _finish(writer: _Writer, material: GltfMaterial, made: gl.Material) -> None:
    """Emission and the material extensions of the Khronos registry."""
    own: dict[str, object] = {}
    if material.emission:
        made.emissiveTexture = gl.TextureInfo(index=writer.texture(material.emission, f"{material.name} emission"))
        made.emissiveFactor = [1.0, 1.0, 1.0]
        own["KHR_materials_emissive_strength"] = {"emissiveStrength": material.emission_cd}
    for finish in material.finishes:
        told = dict(finish.factors)
        for key, png in finish.pictures.items():
            told[key] = {"index": writer.texture(png, f"{material.name} {key}")}
        own[finish.name] = told
    if own:
        made.extensions = own
        writer.tree.extensionsUsed = sorted({*writer.tree.extensionsUsed, *own})
