"""Draws a scene with moderngl on a standalone context; must be used from the one thread that made it."""

from __future__ import annotations

import ctypes
import ctypes.util
import math
import sys
from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import moderngl
import numpy as np
import numpy.typing as npt

from ..core.kernels.expose import joined_light, smoothed, toned
from ..core.light.tone import unshow
from ..core.maps import EMISSION_CD
from ..core.sheet import AnyArray, Raster
from .camera import orthographic_fitted
from .drawn import DrawPart, Look, Seen, Triple
from .openness import CELLS, PRIMED, Openness, SkySamples, opened
from .sampling import box_of, columns, radical, within_disc, write_values
from .sky_textures import SHARP_UNIT, SkyTextures
from .targets import DepthTarget, Shadow, Targets, Textures, tone_of

_SHADERS = Path(__file__).parent / "shaders"
SHADOW_PX, FINE_PX, OPEN_PX = 2048, 1024, 512
SKIES = 3
"""Directions of the sky in one frame at rest."""
_LEARNT = 256
"""Directions after which the openness of a scene is known well enough."""


def _wait_finished() -> None:
    """Wait for the picture without holding the interpreter, so that the window stays quick."""
    name = ctypes.util.find_library("GL") or "libGL.so.1"
    try:
        ctypes.CDLL(name).glFinish()
    except OSError:
        return


def _give_back(made: Iterable[Any]) -> None:
    """Release what the driver holds for some objects; it does not go with them."""
    for entry in made:
        entry.release()


@dataclass(frozen=True, slots=True, eq=False)
class _Arrays:
    """Some corners as they are drawn: whole while moving and at rest, by depth alone, and the buffer that holds them."""

    moving: Any
    rest: Any
    depth: Any
    buffer: Any
    cut: Any = None

    def give_back(self) -> None:
        _give_back(one for one in (self.moving, self.rest, self.depth, self.cut, self.buffer) if one is not None)


@dataclass(slots=True)
class _Batch:
    """Parts that look alike, drawn together: their corners in one buffer, and those of their stand-in."""

    members: tuple[DrawPart, ...]
    whole: _Arrays
    light: _Arrays | None = None

    def give_back(self) -> None:
        self.whole.give_back()
        if self.light is not None:
            self.light.give_back()


def own_of(surface: str) -> str:
    """The surface that one fitted to its faces was made of; its pictures stand in until its own are there."""
    return surface.partition("#")[0].partition("~")[0]


class Renderer:
    """Keeps buffers and textures between frames; uploads only what changed."""

    def __init__(self) -> None:
        backend: Any = {"backend": "egl"} if sys.platform.startswith("linux") else {}
        self.context: Any = moderngl.create_context(standalone=True, **backend)
        self.software = "llvmpipe" in self.context.info["GL_RENDERER"].lower()
        self.program = self._program("part", "part", "MOVING")
        self.sided_program = self._program("part", "part", "SIDED", "MOVING")
        self.rest_program = self._program("part", "part")
        self.rest_sided_program = self._program("part", "part", "SIDED")
        self.depth_program = self._program("depth", "depth")
        self.cut_program = self._program("cut", "cut")
        self.mark_program = self._program("depth", "mark")
        self._batches: dict[tuple[object, ...], _Batch] = {}
        self._marked: dict[str, tuple[object, Any, Any]] = {}
        self._textures: dict[str, Textures] = {}
        self._blank = self._upload(np.full((1, 1, 3), 128, np.uint8))
        self._flat = self._upload_height(np.zeros((1, 1), np.float32))
        self.sky_program = self._program("full", "sky")
        corners = self.context.buffer(np.array([-1, -1, 3, -1, -1, 3], np.float32).tobytes())
        self.whole_sky = self.context.vertex_array(self.sky_program, [(corners, "2f", "in_place")])
        flat = self.context.buffer(np.array([-1, -1, 0, 3, -1, 0, -1, 3, 0], np.float32).tobytes())
        self.whole_mark = self.context.vertex_array(self.mark_program, [(flat, "3f", "in_position")])
        self.light = SkyTextures(self.context)
        self.targets = Targets(self.context, self._program("full", "add"), corners)
        self.shadow, self.fine, self.open = (
            DepthTarget.of(self.context, side, beside) for side, beside in ((SHADOW_PX, 1), (FINE_PX, 1), (OPEN_PX, SKIES))
        )
        self.openness: Openness | None = None
        self._field: Any = None
        self._samples: tuple[object, SkySamples] | None = None
        self._drawn_samples = 0
        self._shadow_of: object = None
        self._sunlit: Shadow | None = None
        self._box = (np.full(3, -2.0), np.full(3, 2.0))

    def _program(self, vertex: str, fragment: str, *defines: str) -> Any:
        def text(name: str) -> str:
            first, rest = (_SHADERS / f"{name}.glsl").read_text(encoding="utf-8").split("\n", 1)
            return "\n".join([first, *(f"#define {word}" for word in defines), rest])

        return self.context.program(
            vertex_shader=text(f"{vertex}.vert"), fragment_shader=text(f"{fragment}.frag")
        )  # fmt: skip

    def _programs(self, *, moving: bool) -> tuple[Any, Any]:
        """Those of plain and of three-sided layings."""
        return (self.program, self.sided_program) if moving else (self.rest_program, self.rest_sided_program)

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
            self._box = box_of(parts)
            self.openness = None
        wanted_surfaces = {name for part in parts for name in (part.surface, own_of(part.surface))}
        for surface in [surface for surface in self._textures if surface not in wanted_surfaces]:
            self._textures.pop(surface).give_back()

    def _batch(self, members: tuple[DrawPart, ...]) -> _Batch:
        data = np.concatenate(
            [np.concatenate([part.positions, part.normals, part.uv], 1).astype(np.float32) for part in members]
        )
        return _Batch(members, self._arrays(members, data))

    def _arrays(self, members: tuple[DrawPart, ...], data: npt.NDArray[np.float32]) -> _Arrays:
        buffer = self.context.buffer(data.tobytes())
        sided = members[0].seen is not None
        layout, names = ("3f 3f 12x", ("in_position", "in_normal")) if sided else ("3f 3f 3f", _CORNER)
        moving, rest = (
            self.context.vertex_array(pair[sided], [(buffer, layout, *names)])
            for pair in ((self.program, self.sided_program), (self.rest_program, self.rest_sided_program))
        )
        plain = self.mark_program if members[0].clear else self.depth_program
        depth = self.context.vertex_array(plain, [(buffer, "3f 24x", "in_position")])
        cut = None if sided else self.context.vertex_array(
            self.cut_program, [(buffer, "3f 12x 3f", "in_position", "in_uv")]
        )  # fmt: skip
        return _Arrays(moving, rest, depth, buffer, cut)

    def _drawn(self, batch: _Batch, look: Look) -> _Arrays:
        """What draws a batch: its stand-in while it moves, if there is one."""
        light = batch.members[0].light
        if not look.moving or light is None or light.corners is None:
            return batch.whole
        if batch.light is None:
            batch.light = self._arrays(batch.members, light.corners)
        return batch.light

    def set_textures(
        self,
        surface: str,
        key: bytes,
        base: AnyArray,
        normal: AnyArray,
        orm: AnyArray,
        height: AnyArray | None = None,
        *,
        finish: tuple[AnyArray, AnyArray, AnyArray] | None = None,
    ) -> None:
        """A surface's three pictures, (H, W, 3) uint8, base colour with alpha where it is cut out; its height in
        [0, 1], (H, W), for parallax; its finishes, where it has any. Unchanged ones (by key) are left alone.
        """
        known = self._textures.get(surface)
        if known and known.key == key:
            return
        if known:
            known.give_back()
        self._textures[surface] = Textures(
            key,
            self._upload(base, srgb=True),
            self._upload(normal),
            self._upload(orm),
            None if height is None else self._upload_height(height),
            None if finish is None else (self._upload(finish[0]), *(self._upload(f, srgb=True) for f in finish[1:])),
            base.shape[2] == 4,
        )

    def _upload(self, codes: AnyArray, *, srgb: bool = False) -> Any:
        rows, columns = codes.shape[:2]
        # The lower edge is v = 0.
        flipped = np.ascontiguousarray(codes[::-1])
        channels = codes.shape[2]
        options = {"internal_format": 0x8C43 if channels == 4 else 0x8C41} if srgb else {}
        texture = self.context.texture((columns, rows), channels, flipped.tobytes(), alignment=1, **options)
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

    def draw(self, look: Look) -> AnyArray:
        """One frame, (height, width, 3) uint8 sRGB."""
        self._take_light(look)
        if look.shadows and self._shadow_of != look.light.dome.key.direction:
            self._sunlit = self._draw_shadow(self.shadow, look.light.dome.key.direction)
            self._shadow_of = look.light.dome.key.direction
        size = (look.width, look.height)
        self._frame(look, self._sunlit if look.shadows else None, [], (0.0, 0.0))
        colour, around = self.targets.read(size)
        return toned(colour, around, self._exposure(look), tone_of(look.light.transform))

    def _exposure(self, look: Look) -> float:
        if not look.adapts or self.openness is None:
            return look.exposure
        eye, ahead = look.camera.eye, np.array(look.camera.target)
        step = (ahead - eye) / max(float(np.linalg.norm(ahead - eye)), 1e-6)
        shares = [self.openness.at(eye + step * away) for away in (0.0, 1.5)]
        return look.exposure * opened(sum(shares) / 2)

    def refine(self, look: Look, pass_: int) -> None:
        """Add one frame to the picture of a look at rest: the eye, the sun's disc and one direction of the sky are
        drawn anew each time. ``pass_`` counts from 0, which begins anew.
        """
        self._take_light(look)
        if self._samples is None or self._samples[0] is not look.light.dome:
            self._samples = (look.light.dome, SkySamples(look.light.dome))
        key, size = look.light.dome.key, (look.width, look.height)
        jitter = (radical(pass_ + 1, 2) - 0.5, radical(pass_ + 1, 3) - 0.5)
        sun = within_disc(key.direction, key.radius, radical(pass_ + 1, 5), radical(pass_ + 1, 7))
        lit = self._draw_shadow(self.fine, sun, (jitter[1] / FINE_PX, jitter[0] / FINE_PX))
        self.light.sharpen()
        skies = []
        for number in range(SKIES):
            toward, weight, even = self._samples[1].draw(self._drawn_samples)
            self._drawn_samples += 1
            shift = (jitter[0] / OPEN_PX, jitter[1] / OPEN_PX)
            drawn = self._draw_shadow(self.open, toward, shift, number)
            skies.append((drawn, toward, weight))
            if number == 0 and self.openness is not None and self.openness.samples < _LEARNT:
                self._learn(drawn, toward, even)
        self._frame(look, lit, skies, jitter)
        self.targets.add(size, first=pass_ == 0)

    def refined(self, look: Look, passes: int) -> AnyArray:
        """What :meth:`refine` has added up so far, (height, width, 3) uint8."""
        colour, around, guide = self.targets.read_added((look.width, look.height))
        colour = smoothed(colour, around, guide, passes)
        return toned(colour, around, self._exposure(look) / passes, tone_of(look.light.transform))

    def refined_light(self, look: Look, passes: int) -> Raster:
        """As :meth:`refined`, in exposed linear light (height, width, 3) float32."""
        colour, around, guide = self.targets.read_added((look.width, look.height))
        colour = smoothed(colour, around, guide, passes)
        return joined_light(colour, around, self._exposure(look) / passes)

    def _take_light(self, look: Look) -> None:
        self.light.show(look.light)
        if self.openness is None and self._batches:
            low, high = self._box
            self.openness = Openness(low, high)
            samples = SkySamples(look.light.dome)
            for k in range(PRIMED):
                toward, _, even = samples.draw(2 * k)
                self._learn(self._draw_shadow(self.open, toward), toward, even)

    def _learn(self, drawn: Shadow, toward: Any, even: float) -> None:
        """What one direction's shadow map says of the openness of the scene."""
        assert self.openness is not None
        whole = np.frombuffer(self.open.texture.read(), np.float32).reshape(OPEN_PX, SKIES * OPEN_PX)
        depth = whole[:, :OPEN_PX]
        self.openness.add(depth, drawn.matrix, toward, even)
        if self.openness.samples % 8 == 0:
            field = self.openness.field()
            if self._field is None:
                self._field = self.context.texture3d(field.shape[2::-1], 4, field.tobytes(), dtype="f4")
                self._field.filter = (moderngl.LINEAR, moderngl.LINEAR)
                self._field.repeat_x = self._field.repeat_y = self._field.repeat_z = False
            else:
                self._field.write(field.tobytes())

    def _frame(
        self, look: Look, lit: Shadow | None, skies: list[tuple[Shadow, Any, float]], jitter: tuple[float, float]
    ) -> None:
        """One frame into the target of its size."""
        target = self.targets.frame((look.width, look.height))
        target.use()
        self.context.enable(moderngl.DEPTH_TEST)
        self.context.disable(moderngl.CULL_FACE)
        target.clear(0.0, 0.0, 0.0, 1.0)
        matrix = look.camera.view_projection(look.width / look.height)
        shift = np.eye(4)
        shift[:2, 3] = 2 * jitter[0] / look.width, 2 * jitter[1] / look.height
        matrix = shift @ matrix
        self._draw_ground(look, jitter)
        self._prepass(matrix, look)
        self.light.use()
        (self.fine if skies else self.shadow).texture.use(3)
        self.open.texture.use(7)
        if self._field is not None:
            self._field.use(8)
        plain, sided = self._programs(moving=not skies)
        for program in (plain, sided):
            self._set_frame(program, look, matrix, lit, skies)
        self.context.depth_func = "<="
        for batch in self._solid():
            self._draw_batch(batch, look, sided if batch.members[0].seen else plain, rest=bool(skies))
        self._blend()
        self._draw_clear(matrix, look)
        self._draw_marks(look, matrix)
        self.context.disable(moderngl.BLEND)
        _wait_finished()

    def _blend(self) -> None:
        """What is drawn from now on lies over what is there; how much of the sky was open stays."""
        self.context.enable(moderngl.BLEND)
        self.context.blend_func = moderngl.SRC_ALPHA, moderngl.ONE_MINUS_SRC_ALPHA, moderngl.ZERO, moderngl.ONE

    def _draw_ground(self, look: Look, jitter: tuple[float, float]) -> None:
        """What lies behind everything: the sky, or an even colour."""
        self.context.disable(moderngl.DEPTH_TEST)
        if look.background is not None:
            # Shown as it is, whatever the exposure.
            colour = unshow(np.array(look.background), look.light.transform) / max(self._exposure(look), 1e-6)
            self.mark_program["view_projection"].write(columns(np.eye(4)))
            self.mark_program["tint"] = (*(float(v) for v in colour), 1.0)
            self.whole_mark.render()
        else:
            right, up, forward = look.camera.axes()
            half = math.tan(math.radians(look.camera.field_of_view) / 2)
            aspect = look.width / look.height
            # The middle moves with the jitter, so that the sky's edges are smoothed too.
            forward = forward - right * (2 * jitter[0] / look.width * half * aspect) - up * (2 * jitter[1] / look.height * half)
            ray = np.stack([right * half * aspect, up * half, forward], 1)
            self.light.use()
            write_values(
                self.sky_program,
                {
                    "sharp": SHARP_UNIT,
                    "sun": look.light.dome.key.direction,
                    "sun_glow": self.light.glow(),
                    "sun_cos": math.cos(max(look.light.dome.key.radius, 1e-3)),
                },
            )
            self.sky_program["ray"].write(np.ascontiguousarray(ray.T, np.float32).tobytes())
            self.whole_sky.render()
        self.context.enable(moderngl.DEPTH_TEST)

    def _of(self, part: DrawPart) -> Textures | None:
        """Its surface's pictures, or those that stand in for them."""
        return self._textures.get(part.surface) or self._textures.get(own_of(part.surface))

    def _draw_depth(self, batch: _Batch, arrays: _Arrays, matrix: Any) -> None:
        """A batch by depth alone; what is cut out of it is open."""
        known = self._of(batch.members[0])
        if known is None or not known.cut or arrays.cut is None:
            arrays.depth.render()
            return
        known.base.use(0)
        self.cut_program["view_projection"].write(columns(matrix))
        write_values(self.cut_program, {"base_colour": 0, "cut": _CUT})
        arrays.cut.render()

    def _solid(self) -> list[_Batch]:
        return [batch for batch in self._batches.values() if not batch.members[0].clear]

    def _draw_clear(self, matrix: npt.NDArray[np.float64], look: Look) -> None:
        """Panes over what lies behind them."""
        panes = [batch for batch in self._batches.values() if batch.members[0].clear]
        if not panes:
            return
        self.mark_program["view_projection"].write(columns(matrix))
        r, g, b = self.light.values["harmonics"][0]
        for batch in panes:
            bare = batch.members[0].bare
            self.mark_program["tint"] = (bare[0] * r / math.pi, bare[1] * g / math.pi, bare[2] * b / math.pi, _PANE)
            batch.whole.depth.render()

    def _prepass(self, matrix: npt.NDArray[np.float64], look: Look) -> None:
        self.context.depth_func = "<"
        self.depth_program["view_projection"].write(columns(matrix))
        for batch in self._solid():
            self._draw_depth(batch, self._drawn(batch, look), matrix)

    def _set_frame(
        self, program: Any, look: Look, matrix: Any, lit: Shadow | None, skies: list[tuple[Shadow, Any, float]]
    ) -> None:
        sun = lit or Shadow(np.eye(4), 0.0, 0.0)
        nothing = (Shadow(np.eye(4), 0.0, 0.0), np.array([0.0, 0.0, 1.0]), 0.0)
        seen = skies or [nothing] * SKIES
        low, size = (self.openness.low, self.openness.size) if self.openness else (np.zeros(3), np.ones(3))
        values = {
            **self.light.values,
            "eye": tuple(look.camera.eye),
            "sun": look.light.dome.key.direction,
            "shadows": lit is not None,
            "base_colour": 0,
            "normal_map": 1,
            "orm": 2,
            "shadow_map": 3,
            "height_map": 4,
            "open_map": 7,
            "lacquer": 10,
            "sheen_map": 11,
            "glow_map": 12,
            "glow_gain": tuple(EMISSION_CD * v for v in look.light.gain),
            "openness": 8,
            "open_low": tuple(float(v) for v in low),
            "open_size": tuple(float(v) for v in size),
            "open_step": 0.6 * float((size / CELLS).max()),
            "open_known": float(self._field is not None),
            "open_sample": [(*(float(v) for v in toward), weight) for _, toward, weight in seen],
            "finer": -0.7 if skies else 0.0,
            "relief_m": look.relief_m,
            "chequer": int(look.chequer),
            "shadow_slack": 0.0006,
            "offset_m": (sun.offset, seen[0][0].offset),
        }
        write_values(program, values)
        program["view_projection"].write(columns(matrix))
        if "light_projection" in program:
            program["light_projection"].write(columns(sun.matrix))
        if "open_projection" in program:
            program["open_projection"].write(b"".join(columns(shadow.matrix) for shadow, *_ in seen))

    def _draw_batch(self, batch: _Batch, look: Look, program: Any, *, rest: bool) -> None:
        part = batch.members[0]
        known = self._of(part)
        own = known or Textures(b"", self._blank, self._blank, self._blank)
        for unit, texture in zip((0, 1, 2, 4), (own.base, own.normal, own.orm, own.height or self._flat), strict=True):
            texture.use(unit)
        for unit, texture in zip((10, 11, 12), own.finish or (), strict=False):
            texture.use(unit)
        told = {"textured": known is not None, "bare": part.bare, "repeat_m": part.repeat_m}
        write_values(program, {**told, "finished": own.finish is not None, "cut": _CUT if own.cut else 0.0})
        if part.seen is not None:
            seen = part.seen
            write_values(
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
        arrays = self._drawn(batch, look)
        (arrays.rest if rest else arrays.moving).render()

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
        self.mark_program["view_projection"].write(columns(matrix))
        for id, (part_, positions, tint) in wanted.items():
            if id not in self._marked:
                buffer = self.context.buffer(np.ascontiguousarray(positions, np.float32).tobytes())
                layout = [(buffer, "3f", "in_position")]
                self._marked[id] = (part_, self.context.vertex_array(self.mark_program, layout), buffer)
            # A mark shows in its own colour, whatever the exposure.
            self.mark_program["tint"] = (*(v / max(self._exposure(look), 1e-6) for v in tint[:3]), tint[3])
            self._marked[id][1].render()

    def _draw_shadow(
        self, into: DepthTarget, toward: Any, shift: tuple[float, float] = (0.0, 0.0), number: int = 0
    ) -> Shadow:
        """What a distant light in a direction sees of the scene, by depth."""
        low, high = self._box
        matrix, wide, _ = orthographic_fitted(np.array(toward, np.float64), low, high, shift)
        into.target.use()
        into.target.viewport = (number * into.side, 0, into.side, into.side)
        into.target.clear(viewport=into.target.viewport)
        self.context.enable(moderngl.DEPTH_TEST)
        self.context.disable(moderngl.CULL_FACE)
        self.context.depth_func = "<"
        self.depth_program["view_projection"].write(columns(matrix))
        for batch in self._solid():
            # Soft light of the sky asks for no more than a stand-in gives.
            self._draw_depth(batch, batch.light if into is self.open and batch.light else batch.whole, matrix)
        return Shadow(matrix, 1.2 * wide / into.side, wide)

    def release(self) -> None:
        """Give everything back to the driver, in the thread that made it."""
        self.set_parts([])
        for _, *made in self._marked.values():
            _give_back(made)
        self._marked.clear()
        self.targets.release()
        self.light.release()
        for depth in (self.shadow, self.fine, self.open):
            _give_back((depth.target, depth.texture))
        _give_back(kept for kept in (self._blank, self._flat, self._field) if kept is not None)
        _give_back((*self._programs(moving=True), *self._programs(moving=False), self.cut_program, self.depth_program, self.mark_program, self.sky_program))
        self.context.release()


_ALONE = 60_000
"""Corners from which on a part is drawn by itself."""
_CUT = 0.5
"""Opacity from which on something is there."""
_CORNER = ("in_position", "in_normal", "in_uv")
__all__ = ["DrawPart", "Look", "Renderer", "Seen", "Triple", "own_of"]

_CHOSEN = (0.011, 0.175, 0.138, 0.10)
_PANE = 0.3
"""How much of what lies behind it a pane hides."""
_PICKED = (0.011, 0.175, 0.138, 0.5)
