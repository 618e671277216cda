"""A scene as the path tracer is handed it: plain arrays in a folder, nothing of the program."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import asdict, dataclass
from pathlib import Path

import numpy as np

from ...core.sheet import AnyArray, Raster
from ...engine.pictures.results import SurfacePictures
from ..drawn import DrawPart, Look, Triple

SKY_ROWS = 512
_SKY = "sky"


@dataclass(frozen=True, slots=True)
class StillMaterial:
    """Names of a material's pictures in the folder; without them an even colour (linear)."""

    colour: Triple = (0.6, 0.6, 0.6)
    base: str = ""
    normal: str = ""
    orm: str = ""
    lacquer: str = ""
    sheen: str = ""
    glow: str = ""
    face: str = ""
    brushed: str = ""
    repeat: tuple[float, float] = (1.0, 1.0)
    cut: bool = False


@dataclass(frozen=True, slots=True)
class StillScene:
    """Everything but the arrays: materials, one mesh each; the eye; the light."""

    width: int
    height: int
    eye: Triple
    toward: Triple
    field_of_view: float
    sun: Triple
    sun_radiance: Triple
    sun_radius: float
    radius: float
    open_ground: bool = False
    materials: tuple[StillMaterial, ...] = ()


def sky_directions() -> Raster:
    """Unit directions (rows, 2 × rows, 3) of the tracer's sky picture: north at its left edge, east right of it."""
    theta = (np.arange(SKY_ROWS) + 0.5) / SKY_ROWS * np.pi
    around = (np.arange(2 * SKY_ROWS) + 0.5) / (2 * SKY_ROWS) * 2 * np.pi
    t, a = np.meshgrid(theta, around, indexing="ij")
    return np.stack([np.sin(t) * np.sin(a), np.sin(t) * np.cos(a), np.cos(t)], -1).astype(np.float32)


def write_scene(
    folder: Path,
    parts: list[DrawPart],
    pictures: Mapping[str, SurfacePictures],
    look: Look,
    *,
    open_ground: bool = False,
) -> StillScene:
    """Put a scene into a folder; returns what was put there. ``open_ground`` leaves the ground transparent."""
    groups: dict[tuple[object, ...], list[DrawPart]] = {}
    for part in parts:
        # Light comes through panes as if they were open: paths would not find the sun behind glass.
        if len(part.positions) and not part.clear:
            groups.setdefault((part.surface, part.bare if part.surface not in pictures else ()), []).append(part)
    materials: list[StillMaterial] = []
    for number, members in enumerate(groups.values()):
        materials.append(_material(folder, members[0], pictures.get(members[0].surface), number))
        rows = [np.concatenate([part.positions, part.normals, _places(part)], 1) for part in members]
        corners, faces = np.unique(np.concatenate(rows).astype(np.float32), axis=0, return_inverse=True)
        np.savez(folder / f"mesh-{number}.npz", corners=corners, faces=faces.reshape(-1).astype(np.uint32))
    gain = np.array(look.light.gain)
    sky = look.light.dome.paint(sky_directions()) * gain
    np.save(folder / f"{_SKY}.npy", np.ascontiguousarray(sky, np.float32))
    key_light = look.light.dome.key
    radius = max(key_light.radius, 2e-3)
    radiance = np.array(key_light.lux) * gain / (np.pi * radius**2)
    low, high = _box(parts)
    eye = look.camera.eye
    made = StillScene(
        look.width,
        look.height,
        _triple(eye),
        look.camera.target,
        look.camera.field_of_view,
        key_light.direction,
        _triple(radiance),
        radius,
        float(np.linalg.norm(high - low)) / 2 + float(np.linalg.norm(eye - (low + high) / 2)),
        open_ground,
        tuple(materials),
    )
    (folder / "scene.json").write_text(json.dumps(asdict(made)), encoding="utf-8")
    return made


def _material(folder: Path, part: DrawPart, own: SurfacePictures | None, number: int) -> StillMaterial:
    if own is None:
        return StillMaterial(part.bare)
    names: dict[str, str] = {}

    def put(kind: str, pixels: AnyArray) -> None:
        names[kind] = f"{kind}-{number}.npy"
        np.save(folder / names[kind], np.ascontiguousarray(pixels))

    put("base", own.base)
    put("normal", own.normal)
    put("orm", own.orm)
    if own.finish is not None:
        for kind, pixels in zip(("lacquer", "sheen", "glow", "face", "brushed"), own.finish, strict=False):
            put(kind, pixels)
    return StillMaterial(repeat=part.repeat_m, cut=own.base.shape[2] == 4, **names)  # type: ignore[arg-type]


def _places(part: DrawPart) -> AnyArray:
    """UVs (N, 2) with v up; those of a three-sided laying by the side each face looks to."""
    if part.seen is None:
        w = np.where(np.abs(part.uv[:, 2:]) > 1e-6, part.uv[:, 2:], 1)
        return np.ascontiguousarray(part.uv[:, :2] / w, np.float32)
    seen = part.seen
    axes, frames = np.array(seen.axes), np.array(seen.frames).reshape(3, 4, 3)
    facing = np.repeat(part.normals.reshape(-1, 3, 3).mean(1), 3, 0) @ axes.T
    side = np.abs(facing).argmax(1)
    rows = np.arange(len(side))
    far = facing[rows, side] < 0
    away = part.positions - np.array(seen.origin)
    along, up = (np.where(far[:, None], frames[side, 2 + k], frames[side, k]) for k in (0, 1))
    flat = np.stack([(along * away).sum(1), (up * away).sum(1)], 1) - np.array(seen.shift)
    a, b, c, d = seen.finish
    turned = np.stack([a * flat[:, 0] + b * flat[:, 1], c * flat[:, 0] + d * flat[:, 1]], 1)
    return np.ascontiguousarray(turned / np.array(part.repeat_m), np.float32)


def _box(parts: list[DrawPart]) -> tuple[AnyArray, AnyArray]:
    drawn = [part for part in parts if len(part.positions)]
    if not drawn:
        return np.full(3, -1.0), np.full(3, 1.0)
    return np.min([p.positions.min(0) for p in drawn], 0), np.max([p.positions.max(0) for p in drawn], 0)


def _triple(row: AnyArray) -> Triple:
    x, y, z = (float(v) for v in row)
    return x, y, z
