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
from .thinned import StandIn

_SHADERS = Path(__file__).parent / "shaders"
SHADOW_PX = 2048


Triple = tuple[float, float, float]


@dataclass(frozen=True, slots=True)
class Seen:
    """A three-sided laying for the shader: see :class:`brave_tessel.core.place.laying.Sides`; lengths in metres."""

    axes: tuple[Triple, ...]
    frames: tuple[Triple, ...]
    origin: Triple
    sharpness: float
    relief: float
    finish: tuple[float, float, float, float]
    shift: tuple[float, float]


@dataclass(frozen=True, slots=True, eq=False)
class DrawPart:
    """Triangle corners in metres: positions, normals (N, 3), UVs in repeats with v up and their w (N, 3).

    ``seen`` is a three-sided laying, which takes the place of the UVs; ``part`` names the part it belongs to; what is
    ``clear`` is looked through, and casts no shadow. ``light`` is drawn in its place while it moves, once it is made.
    ``box`` holds it, m, where that is known.
    """

    id: str
    positions: npt.NDArray[np.float32]
    normals: npt.NDArray[np.float32]
    uv: npt.NDArray[np.float32]
    surface: str
    bare: Triple
    repeat_m: tuple[float, float] = (1.0, 1.0)
    seen: Seen | None = None
    part: str = ""
    clear: bool = False
    light: StandIn | None = None
    box: tuple[Triple, Triple] | None = None

    @property
    def look(self) -> tuple[object, ...]:
        """What it has in common with others that can be drawn with it."""
        return self.surface, self.bare if not self.surface else (), self.repeat_m, self.seen, self.clear


@dataclass(frozen=True, slots=True)
class Look:
    """How a frame is drawn. ``relief_m``, lowest and highest above the skin in metres, draws relief by parallax.

    ``chosen`` names parts that are tinted; ``marked`` are faces drawn over in the colour of a selection; while
    ``moving``, large parts are drawn by their thinned stand-ins.
    """

    camera: Camera
    sun: tuple[float, float, float]
    width: int
    height: int
    shadows: bool = True
    chosen: frozenset[str] = frozenset()
    chequer: bool = False
    moving: bool = False
    marked: tuple[DrawPart, ...] = ()
    exposure: float = 1.0
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


@dataclass(slots=True)
class _Batch:
    """Parts that look alike, drawn together: their corners in one buffer."""

    members: tuple[DrawPart, ...]
    full: Any
    depth: Any
    buffer: Any
    light: tuple[Any, Any, Any] | None = None

    def give_back(self) -> None:
        _give_back((self.full, self.depth, self.buffer, *(self.light or ())))


def own_of(surface: str) -> str:
    """The surface that one fitted to its faces was made of; its pictures stand in until its own are there."""
    return surface.partition("#")[0].partition("~")[0]


class Renderer:
    """Keeps buffers and textures between frames; uploads only what changed."""

    def __init__(self) -> None:
        backend: Any = {"backend": "egl"} if sys.platform.startswith("linux") else {}
        self.context: Any = moderngl.create_context(standalone=True, **backend)
        self.software = "llvmpipe" in self.context.info["GL_RENDERER"].lower()
        self.program = self._program("part", "part")
        self.sided_program = self._program("part", "part", "SIDED")
        self.depth_program = self._program("depth", "depth")
        self.mark_program = self._program("depth", "mark")
        self._batches: dict[tuple[object, ...], _Batch] = {}
        self._marked: dict[str, tuple[object, Any, Any]] = {}
        self._textures: dict[str, tuple[bytes, tuple[Any, ...]]] = {}
        self._blank = self._upload(np.full((1, 1, 3), 128, np.uint8))
        self._flat = self._upload_height(np.zeros((1, 1), np.float32))
        self._targets: dict[tuple[int, int], tuple[Any, Any, Any]] = {}
        self.shadow_depth = self.context.depth_texture((SHADOW_PX, SHADOW_PX))
        self.shadow_depth.compare_func = ""
        self.shadow_target = self.context.framebuffer(depth_attachment=self.shadow_depth)
        self._shadow_of: object = None
        self._bounds = (np.zeros(3), 4.0)

    def _program(self, vertex: str, fragment: str, *defines: str) -> Any:
        def text(name: str) -> str:
            first, rest = (_SHADERS / f"{name}.glsl").read_text(encoding="utf-8").split("\n", 1)
            return "\n".join([first, *(f"#define {word}" for word in defines), rest])

        return self.context.program(
            vertex_shader=text(f"{vertex}.vert"), fragment_shader=text(f"{fragment}.frag")
        )  # fmt: skip

    # What is drawn -------------------------------------------------------------------------------

    def set_parts(self, parts: list[DrawPart]) -> None:
        """The parts of the scene. Those that look alike are drawn together; only groups in which one is another object
        than before are uploaded again.
        """
        groups: dict[tuple[object, ...], list[DrawPart]] = {}
        for part in parts:
            # Large parts stand alone: a change elsewhere does not upload them again.
            key: tuple[object, ...] = (part.look, part.id if part.light or len(part.positions) > _ALONE else "")
            groups.setdefault(key, []).append(part)
        same = len(groups) == len(self._batches)
        for look, members in groups.items():
            known = self._batches.get(look)
            wanted = tuple(members)
            if known is None or len(known.members) != len(wanted) or any(
                one is not other for one, other in zip(known.members, wanted, strict=True)
            ):  # fmt: skip
                if known is not None:
                    known.give_back()
                self._batches[look] = self._batch(wanted)
                same = False
        for gone in [look for look in self._batches if look not in groups]:
            self._batches.pop(gone).give_back()
        if not same:
            self._shadow_of = None
            self._bounds = _bounds(parts)
        wanted_surfaces = {name for part in parts for name in (part.surface, own_of(part.surface))}
        for surface in [surface for surface in self._textures if surface not in wanted_surfaces]:
            _give_back(texture for texture in self._textures.pop(surface)[1] if texture is not self._flat)

    def _batch(self, members: tuple[DrawPart, ...]) -> _Batch:
        data = np.concatenate(
            [np.concatenate([part.positions, part.normals, part.uv], 1).astype(np.float32) for part in members]
        )
        return _Batch(members, *self._arrays(members, data))

    def _arrays(self, members: tuple[DrawPart, ...], data: npt.NDArray[np.float32]) -> tuple[Any, Any, Any]:
        """What draws some corners whole and by depth alone, and the buffer that holds them."""
        buffer = self.context.buffer(data.tobytes())
        program = self.program if members[0].seen is None else self.sided_program
        layout = "3f 3f 3f" if members[0].seen is None else "3f 3f 12x"
        names = ["in_position", "in_normal", "in_uv"][: 3 if members[0].seen is None else 2]
        full = self.context.vertex_array(program, [(buffer, layout, *names)])
        plain = self.mark_program if members[0].clear else self.depth_program
        depth = self.context.vertex_array(plain, [(buffer, "3f 24x", "in_position")])
        return full, depth, buffer

    def _drawn(self, batch: _Batch, look: Look) -> tuple[Any, Any]:
        """What draws a batch, whole and by depth: its stand-in while it moves, if there is one."""
        light = batch.members[0].light
        if not look.moving or light is None or light.corners is None:
            return batch.full, batch.depth
        if batch.light is None:
            batch.light = self._arrays(batch.members, light.corners)
        return batch.light[0], batch.light[1]

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
        centre, radius = self._bounds
        light_matrix = orthographic_from(np.array(look.sun, np.float64), centre, radius)
        if look.shadows and self._shadow_of != look.sun:
            self._draw_shadow(light_matrix)
            self._shadow_of = look.sun
        target = self._framebuffer((look.width, look.height))
        target.use()
        self.context.enable(moderngl.DEPTH_TEST)
        self.context.disable(moderngl.CULL_FACE)
        target.clear(*look.background)
        matrix = look.camera.view_projection(look.width / look.height)
        self._prepass(matrix, look)
        self.shadow_depth.use(3)
        for program in (self.program, self.sided_program):
            self._set_frame(program, look, matrix, light_matrix)
        self.context.depth_func = "<="
        for batch in self._solid():
            self._draw_batch(batch, look)
        self._draw_clear(matrix)
        self._draw_marks(look, matrix)
        _wait_finished()
        data = target.read(components=3, alignment=1)
        return np.frombuffer(data, np.uint8).reshape(look.height, look.width, 3)[::-1]

    def _solid(self) -> list[_Batch]:
        return [batch for batch in self._batches.values() if not batch.members[0].clear]

    def _draw_clear(self, matrix: npt.NDArray[np.float64]) -> None:
        """Panes over what lies behind them."""
        panes = [batch for batch in self._batches.values() if batch.members[0].clear]
        if not panes:
            return
        self.mark_program["view_projection"].write(_columns(matrix))
        self.context.enable(moderngl.BLEND)
        for batch in panes:
            self.mark_program["tint"] = (*_encoded(batch.members[0].bare), _PANE)
            batch.depth.render()
        self.context.disable(moderngl.BLEND)

    def _prepass(self, matrix: npt.NDArray[np.float64], look: Look) -> None:
        self.context.depth_func = "<"
        self.depth_program["view_projection"].write(_columns(matrix))
        for batch in self._solid():
            self._drawn(batch, look)[1].render()

    def _set_frame(self, program: Any, look: Look, matrix: Any, light_matrix: Any) -> None:
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
            "chequer": int(look.chequer),
            "exposure": look.exposure,
            "shadow_slack": 0.0022 * min(1.0, 3.6 / self._bounds[1]) + 0.0006,
        }
        _write(program, values)
        program["view_projection"].write(_columns(matrix))
        program["light_projection"].write(_columns(light_matrix))

    def _draw_batch(self, batch: _Batch, look: Look) -> None:
        part = batch.members[0]
        known = self._textures.get(part.surface) or self._textures.get(own_of(part.surface))
        textures = known[1] if known else (self._blank, self._blank, self._blank, self._flat)
        for unit, texture in zip((0, 1, 2, 4), textures, strict=True):
            texture.use(unit)
        program = self.program if part.seen is None else self.sided_program
        _write(program, {"textured": known is not None, "bare": part.bare, "repeat_m": part.repeat_m})
        if part.seen is not None:
            seen = part.seen
            _write(
                program,
                {
                    "axes": list(seen.axes),
                    "frames": list(seen.frames),
                    "origin": seen.origin,
                    "sharpness": seen.sharpness,
                    "by_relief": seen.relief,
                    "finish": seen.finish,
                    "slide": seen.shift,
                },
            )
        self._drawn(batch, look)[0].render()

    def _draw_marks(self, look: Look, matrix: npt.NDArray[np.float64]) -> None:
        """What is chosen tinted, what is picked marked, over what is drawn already."""
        wanted: dict[str, tuple[object, npt.NDArray[np.float32], tuple[float, ...]]] = {}
        for batch in self._batches.values():
            for part in batch.members:
                if part.part in look.chosen:
                    wanted[f"chosen {part.id}"] = (part, part.positions, _CHOSEN)
        for part in look.marked:
            wanted[f"marked {part.id}"] = (part, part.positions, _PICKED)
        for id in [id for id, (one, *_) in self._marked.items() if id not in wanted or wanted[id][0] is not one]:
            _give_back(self._marked.pop(id)[1:])
        if not wanted:
            return
        self.mark_program["view_projection"].write(_columns(matrix))
        self.context.enable(moderngl.BLEND)
        for id, (part_, positions, tint) in wanted.items():
            if id not in self._marked:
                buffer = self.context.buffer(np.ascontiguousarray(positions, np.float32).tobytes())
                layout = [(buffer, "3f", "in_position")]
                self._marked[id] = (part_, self.context.vertex_array(self.mark_program, layout), buffer)
            self.mark_program["tint"] = tint
            self._marked[id][1].render()
        self.context.disable(moderngl.BLEND)

    def _draw_shadow(self, light_matrix: Any) -> None:
        self.shadow_target.use()
        self.shadow_target.clear()
        self.context.enable(moderngl.DEPTH_TEST)
        self.context.disable(moderngl.CULL_FACE)
        self.context.depth_func = "<"
        self.depth_program["view_projection"].write(_columns(light_matrix))
        for batch in self._solid():
            batch.depth.render()

    def release(self) -> None:
        """Give everything back to the driver, in the thread that made it."""
        self.set_parts([])
        for _, *made in self._marked.values():
            _give_back(made)
        self._marked.clear()
        for target in self._targets.values():
            _give_back(target)
        self._targets.clear()
        _give_back((self.shadow_target, self.shadow_depth, self._blank, self._flat))
        _give_back((self.program, self.sided_program, self.depth_program, self.mark_program))
        self.context.release()


_ALONE = 60_000
"""Corners from which on a part is drawn by itself."""
_CHOSEN = (0.106, 0.455, 0.408, 0.06)
_PANE = 0.3
"""How much of what lies behind it a pane hides."""
_PICKED = (0.106, 0.455, 0.408, 0.46)


def _encoded(linear: Triple) -> Triple:
    """A linear colour as the frame holds it."""
    codes = [12.92 * v if v <= 0.0031308 else 1.055 * v ** (1 / 2.4) - 0.055 for v in linear]
    return codes[0], codes[1], codes[2]


def _write(program: Any, values: dict[str, Any]) -> None:
    """Set what a program reads; the driver drops what it does not."""
    for name, value in values.items():
        if name in program:
            program[name] = value


def _bounds(parts: list[DrawPart]) -> tuple[npt.NDArray[np.float64], float]:
    """Middle and radius of all that is drawn, m."""
    boxes = [
        part.box or (part.positions.min(0), part.positions.max(0)) for part in parts if len(part.positions)
    ]  # fmt: skip
    if not boxes:
        return np.zeros(3), 4.0
    low, high = np.min([b[0] for b in boxes], 0), np.max([b[1] for b in boxes], 0)
    return np.asarray(low + high, np.float64) / 2, max(0.5, float(np.linalg.norm(high - low)) / 2)


def _columns(matrix: npt.NDArray[np.float64]) -> bytes:
    return np.ascontiguousarray(matrix.T, np.float32).tobytes()
