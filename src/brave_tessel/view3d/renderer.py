"""Draws a scene with moderngl on a standalone context; must be used from the one thread that made it."""

from __future__ import annotations

import ctypes
import ctypes.util
import sys
from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import moderngl
import numpy as np
import numpy.typing as npt

from ..core.sheet import AnyArray
from .camera import Camera, orthographic_from

_SHADERS = Path(__file__).parent / "shaders"
SHADOW_PX = 2048


@dataclass(frozen=True, slots=True)
class DrawPart:
    """Triangle corners in metres: positions, normals (N, 3), UVs in repeats with v up (N, 2)."""

    id: str
    positions: npt.NDArray[np.float32]
    normals: npt.NDArray[np.float32]
    uv: npt.NDArray[np.float32]
    surface: str
    bare: tuple[float, float, float]
    repeat_m: tuple[float, float] = (1.0, 1.0)


@dataclass(frozen=True, slots=True)
class Look:
    """How a frame is drawn. ``relief_m``, lowest and highest above the skin in metres, draws relief by parallax."""

    camera: Camera
    sun: tuple[float, float, float]
    width: int
    height: int
    shadows: bool = True
    chosen: str = ""
    chequer: bool = False
    background: tuple[float, float, float] = (0.62, 0.65, 0.68)
    relief_m: tuple[float, float] = (0.0, 0.0)


def _wait_finished() -> None:
    """Wait for the picture without holding the interpreter, so that the window stays quick."""
    name = ctypes.util.find_library("GL") or "libGL.so.1"
    try:
        ctypes.CDLL(name).glFinish()
    except OSError:
        return


_TARGETS = 2


def _give_back(made: Iterable[Any]) -> None:
    """Release what the driver holds for some objects; it does not go with them."""
    for entry in made:
        entry.release()


class Renderer:
    """Keeps buffers and textures between frames; uploads only what changed."""

    def __init__(self) -> None:
        backend: Any = {"backend": "egl"} if sys.platform.startswith("linux") else {}
        self.context: Any = moderngl.create_context(standalone=True, **backend)
        self.software = "llvmpipe" in self.context.info["GL_RENDERER"].lower()
        self.program = self._program("part", "part")
        self.depth_program = self._program("depth", "depth")
        self._parts: dict[str, tuple[DrawPart, Any, Any, Any]] = {}
        self._textures: dict[str, tuple[bytes, tuple[Any, ...]]] = {}
        self._blank = self._upload(np.full((1, 1, 3), 128, np.uint8))
        self._flat = self._upload_height(np.zeros((1, 1), np.float32))
        self._targets: dict[tuple[int, int], tuple[Any, Any, Any]] = {}
        self.shadow_depth = self.context.depth_texture((SHADOW_PX, SHADOW_PX))
        self.shadow_depth.compare_func = ""
        self.shadow_target = self.context.framebuffer(depth_attachment=self.shadow_depth)
        self._shadow_of: object = None

    def _program(self, vertex: str, fragment: str) -> Any:
        return self.context.program(
            vertex_shader=(_SHADERS / f"{vertex}.vert.glsl").read_text(encoding="utf-8"),
            fragment_shader=(_SHADERS / f"{fragment}.frag.glsl").read_text(encoding="utf-8"),
        )

    # What is drawn -------------------------------------------------------------------------------

    def set_parts(self, parts: list[DrawPart]) -> None:
        """The parts of the scene; only those that are other objects than before are uploaded."""
        kept = {}
        for part in parts:
            known = self._parts.get(part.id)
            kept[part.id] = known if known and known[0] is part else (part, *self._arrays(part))
        for id, (_, *old) in self._parts.items():
            if id not in kept or kept[id][1] is not old[0]:
                _give_back(old)
        self._parts = kept
        self._shadow_of = None
        wanted = {part.surface for part in parts}
        for surface in [surface for surface in self._textures if surface not in wanted]:
            _give_back(texture for texture in self._textures.pop(surface)[1] if texture is not self._flat)

    def _arrays(self, part: DrawPart) -> tuple[Any, Any, Any]:
        data = np.concatenate([part.positions, part.normals, part.uv], 1).astype(np.float32)
        buffer = self.context.buffer(data.tobytes())
        full = self.context.vertex_array(self.program, [(buffer, "3f 3f 2f", "in_position", "in_normal", "in_uv")])
        depth = self.context.vertex_array(self.depth_program, [(buffer, "3f 20x", "in_position")])
        return full, depth, buffer

    def set_textures(
        self, surface: str, key: bytes, base: AnyArray, normal: AnyArray, orm: AnyArray, height: AnyArray | None = None
    ) -> None:
        """A surface's three pictures, (H, W, 3) uint8, and its height in [0, 1], (H, W), for parallax; unchanged ones
        (by key) are left alone.
        """
        known = self._textures.get(surface)
        if known and known[0] == key:
            return
        if known:
            _give_back(texture for texture in known[1] if texture is not self._flat)
        made = (
            self._upload(base, srgb=True),
            self._upload(normal),
            self._upload(orm),
            self._flat if height is None else self._upload_height(height),
        )
        self._textures[surface] = (key, made)

    def _upload(self, codes: AnyArray, *, srgb: bool = False) -> Any:
        rows, columns = codes.shape[:2]
        # The lower edge is v = 0.
        flipped = np.ascontiguousarray(codes[::-1])
        options = {"internal_format": 0x8C41} if srgb else {}
        texture = self.context.texture((columns, rows), 3, flipped.tobytes(), alignment=1, **options)
        texture.build_mipmaps()
        texture.filter = (moderngl.LINEAR_MIPMAP_LINEAR, moderngl.LINEAR)
        texture.repeat_x = texture.repeat_y = True
        if not self.software:
            texture.anisotropy = 8.0
        return texture

    def _upload_height(self, height: AnyArray) -> Any:
        rows, columns = height.shape
        texture = self.context.texture(
            (columns, rows), 1, np.ascontiguousarray(height[::-1], np.float32).tobytes(), dtype="f4"
        )
        texture.build_mipmaps()
        texture.filter = (moderngl.LINEAR_MIPMAP_LINEAR, moderngl.LINEAR)
        texture.repeat_x = texture.repeat_y = True
        return texture

    # Drawing -------------------------------------------------------------------------------------

    def _framebuffer(self, size: tuple[int, int]) -> Any:
        if size not in self._targets:
            # A picture is drawn small while it moves and large at rest: both stay, other sizes are given back.
            while len(self._targets) >= _TARGETS:
                _give_back(self._targets.pop(next(iter(self._targets))))
            colour, depth = self.context.texture(size, 3), self.context.depth_renderbuffer(size)
            self._targets[size] = (self.context.framebuffer([colour], depth), colour, depth)
        return self._targets[size][0]

    def draw(self, look: Look) -> AnyArray:
        """One frame, (height, width, 3) uint8 sRGB."""
        light = np.array(look.sun, np.float64)
        light_matrix = orthographic_from(light, np.array([2.25, 1.2, 1.4]), 3.6)
        if look.shadows and self._shadow_of != look.sun:
            self._draw_shadow(light_matrix)
            self._shadow_of = look.sun
        target = self._framebuffer((look.width, look.height))
        target.use()
        self.context.enable(moderngl.DEPTH_TEST | moderngl.CULL_FACE)
        target.clear(*look.background)
        matrix = look.camera.view_projection(look.width / look.height)
        self._prepass(matrix)
        self._set_frame(look, matrix, light_matrix)
        self.context.depth_func = "<="
        for part, full, _, _ in self._parts.values():
            self._draw_part(part, full, look)
        _wait_finished()
        data = target.read(components=3, alignment=1)
        return np.frombuffer(data, np.uint8).reshape(look.height, look.width, 3)[::-1]

    def _prepass(self, matrix: npt.NDArray[np.float64]) -> None:
        self.context.depth_func = "<"
        self.depth_program["view_projection"].write(_columns(matrix))
        for _, _, depth, _ in self._parts.values():
            depth.render()

    def _set_frame(self, look: Look, matrix: Any, light_matrix: Any) -> None:
        values = {
            "eye": tuple(look.camera.eye),
            "sun": look.sun,
            "shadows": look.shadows,
            "base_colour": 0,
            "normal_map": 1,
            "orm": 2,
            "shadow_map": 3,
            "height_map": 4,
            "relief_m": look.relief_m,
        }
        for name, value in values.items():
            self.program[name] = value
        self.program["view_projection"].write(_columns(matrix))
        self.program["light_projection"].write(_columns(light_matrix))
        self.shadow_depth.use(3)

    def _draw_part(self, part: DrawPart, full: Any, look: Look) -> None:
        known = self._textures.get(part.surface)
        textures = known[1] if known else (self._blank, self._blank, self._blank, self._flat)
        for unit, texture in zip((0, 1, 2, 4), textures, strict=True):
            texture.use(unit)
        self.program["textured"] = known is not None
        self.program["bare"] = part.bare
        self.program["chequer"] = int(look.chequer)
        self.program["repeat_m"] = part.repeat_m
        self.program["highlight"] = 1.0 if part.id == look.chosen else 0.0
        full.render()

    def _draw_shadow(self, light_matrix: Any) -> None:
        self.shadow_target.use()
        self.shadow_target.clear()
        self.context.enable(moderngl.DEPTH_TEST)
        self.context.disable(moderngl.CULL_FACE)
        self.context.depth_func = "<"
        self.depth_program["view_projection"].write(_columns(light_matrix))
        for _, _, depth, _ in self._parts.values():
            depth.render()

    def release(self) -> None:
        """Give everything back to the driver, in the thread that made it."""
        self.set_parts([])
        for target in self._targets.values():
            _give_back(target)
        self._targets.clear()
        _give_back((self.shadow_target, self.shadow_depth, self._blank, self._flat, self.program, self.depth_program))
        self.context.release()


def _columns(matrix: npt.NDArray[np.float64]) -> bytes:
    return np.ascontiguousarray(matrix.T, np.float32).tobytes()
