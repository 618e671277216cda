"""Draws a scene with moderngl on a standalone context; must be used from the one thread that made it."""

from __future__ import annotations

import math
import sys
from collections.abc import Callable
from dataclasses import replace
from typing import Any

import moderngl
import numpy as np
import numpy.typing as npt

from ..core.kernels.edges import softened
from ..core.kernels.expose import joined_light, smoothed, toned
from ..core.light.tone import STRAIGHT, unshow
from ..core.maps import EMISSION_CD
from ..core.sheet import AnyArray, Raster
from ..engine.pictures.results import SurfacePictures
from .camera import orthographic_fitted
from .drawn import DrawPart, Look, Seen, Shows, Triple
from .marks import Marks, give_back, nearer
from .near import COARSE_PX, GRAIN_PX, away, focal_px
from .openness import eased
from .programs import Kind, Programs
from .sampling import columns, places_seen, radical, rays, within_disc, write_values
from .sky_samples import SkyAim, seen_sky
from .sky_seen import FURTHER, SkySeen
from .sky_textures import SHARP_UNIT, SkyTextures
from .stock import Arrays, Batch, Stock, own_of
from .targets import DepthTarget, Shadow, Targets, Textures, tone_of, wait_finished

SHADOW_PX, FINE_PX, OPEN_PX, PROBE_PX = 2048, 1024, 512, 256
SKIES = 3
"""Directions of the sky in one frame at rest."""
_SMOOTH = 5
"""Frames from which on edges are smooth by themselves."""
_SMALLER = 4
"""Than a picture is one that tells where what is seen lies."""
_EVERY = 5
"""Of every so many pixels it is asked how bright they are."""
_LEARNS_FROM = 1
"""Frames at rest before more is learnt of the sky: it is what a person waits for."""
_PRESUMED = 24.0
"""Frames at rest for which what is learnt of the sky counts at first: it is even where few directions are not."""


class Renderer:
    """Keeps buffers and textures between frames; uploads only what changed."""

    def __init__(self) -> None:
        backend: Any = {"backend": "egl"} if sys.platform.startswith("linux") else {}
        self.context: Any = moderngl.create_context(standalone=True, **backend)
        self.software = "llvmpipe" in self.context.info["GL_RENDERER"].lower()
        self.programs = Programs(self.context)
        self.stock = Stock(self.context, self.programs, software=self.software)
        if self.programs.divides:
            self.context.patch_vertices = 3
        corners = self.context.buffer(np.array([-1, -1, 3, -1, -1, 3], np.float32).tobytes())
        self.whole_sky = self.context.vertex_array(self.programs.sky, [(corners, "2f", "in_place")])
        flat = self.context.buffer(np.array([-1, -1, 0, 3, -1, 0, -1, 3, 0], np.float32).tobytes())
        self.whole_mark = self.context.vertex_array(self.programs.mark, [(flat, "3f", "in_position")])
        self.marks = Marks(self.context, self.programs, self.stock)
        self.light = SkyTextures(self.context)
        self.targets = Targets(self.context, self.programs.add, corners)
        self.shadow, self.fine, self.open, self.probe = (
            DepthTarget.of(self.context, side, beside)
            for side, beside in ((SHADOW_PX, 1), (FINE_PX, 1), (OPEN_PX, SKIES), (PROBE_PX, 1))
        )
        self.sky_seen = SkySeen(self.context, self.stock)
        self._presumes = False
        self.aim = SkyAim()
        self._shadow_of: object = None
        self._sunlit: Shadow | None = None
        self._stale = False
        self._changes = 0
        self._closed = 1.0
        self._held: npt.NDArray[np.float64] | None = None

    def set_parts(self, parts: list[DrawPart]) -> None:
        """The parts of the scene; see :class:`.stock.Stock`."""
        self.stock.set_parts(parts)
        if self.stock.changes != self._changes:
            self._changes, self._stale = self.stock.changes, True
            self.sky_seen.parts_changed()

    def set_textures(self, surface: str, own: SurfacePictures) -> None:
        """A surface's pictures; see :class:`.stock.Stock`."""
        self.stock.set_textures(surface, own)

    # Drawing -------------------------------------------------------------------------------------

    def draw(self, look: Look) -> AnyArray:
        """One frame, (height, width, 3) uint8 sRGB."""
        self._take_light(look)
        if look.shadows:
            self._throw_shadow(look, at_once=not look.moving)
        size = (look.width, look.height)
        self._frame(look, self._sunlit if look.shadows else None, [], (0.0, 0.0))
        colour, around = self.targets.read(size)
        codes = toned(colour, around, self._eased(look, colour, around), self._tone(look))
        # Codes are shown as they are, edges too.
        return codes if look.shows.flat else softened(codes)

    def _throw_shadow(self, look: Look, *, at_once: bool) -> None:
        """The shadow map that frames share. What has only just been changed throws its shadow at rest: a hand that is
        moving it does not wait for that.
        """
        direction = look.light.dome.key.direction
        if self._sunlit is None or self._shadow_of != direction or (at_once and self._stale):
            self._sunlit = self._draw_shadow(self.shadow, direction)
            self._shadow_of = direction
            if self._stale:
                self._stale = False
                self.sky_seen.look_about_anew()

    @staticmethod
    def _tone(look: Look) -> AnyArray:
        return tone_of(STRAIGHT if look.shows.flat else look.light.transform)

    def _exposure(self, look: Look) -> float:
        if look.shows.flat:
            return 1.0
        if not look.adapts:
            return look.exposure
        return look.exposure * self.sky_seen.opening(look.camera.eye, np.array(look.camera.target))

    def _eased(self, look: Look, colour: AnyArray, around: AnyArray, passes: int = 1) -> float:
        exposure = self._exposure(look) / passes
        if not look.adapts:
            return exposure
        some, beside = (np.ascontiguousarray(part[::_EVERY, ::_EVERY]) for part in (colour, around))
        done = eased(exposure, look.exposure / passes, joined_light(some, beside, 1.0), beside[::-1, :, 3] > 0)
        self._closed = done / exposure
        return done

    def _shown_at(self, look: Look) -> float:
        """The exposure at which this frame will be shown, as near as the one before it tells."""
        return max(self._exposure(look) * (self._closed if look.adapts else 1.0), 1e-6)

    def refine(self, look: Look, pass_: int) -> None:
        """Add one frame to the picture of a look at rest: the eye, the sun's disc and three directions of the sky
        are drawn anew each time. ``pass_`` counts from 0, which begins anew.
        """
        self._take_light(look)
        if pass_ == 0:
            self._throw_shadow(look, at_once=True)
            self._hold_seen(look)
        key, size = look.light.dome.key, (look.width, look.height)
        jitter = (radical(pass_ + 1, 2) - 0.5, radical(pass_ + 1, 3) - 0.5)
        sun = within_disc(key.direction, key.radius, radical(pass_ + 1, 5), radical(pass_ + 1, 7))
        lit = self._draw_shadow(self.fine, sun, (jitter[1] / FINE_PX, jitter[0] / FINE_PX), held=self._held)
        self.light.sharpen()
        if pass_ >= _LEARNS_FROM and self.sky_seen.begun:
            self.sky_seen.learn_on(self.seen_from, FURTHER)
        skies = []
        for number in range(SKIES):
            toward, weight = self.aim.draw()
            shift = (jitter[0] / OPEN_PX, jitter[1] / OPEN_PX)
            skies.append((self._draw_shadow(self.open, toward, shift, number, held=self._held), toward, weight))
        self._presumes = pass_ == 0
        self._frame(look, lit, skies, jitter)
        self._presumes = False
        self.targets.add(size, first=pass_ == 0)

    def refined(self, look: Look, passes: int) -> AnyArray:
        """What :meth:`refine` has added up so far, (height, width, 3) uint8."""
        colour, around, guide = self.targets.read_added((look.width, look.height))
        colour = smoothed(colour, around, guide, passes)
        codes = toned(colour, around, self._eased(look, colour, around, passes), self._tone(look))
        # Few frames leave stairs at edges.
        return softened(codes) if passes < _SMOOTH else codes

    def refined_light(self, look: Look, passes: int) -> Raster:
        """As :meth:`refined`, in exposed linear light (height, width, 3) float32."""
        colour, around, guide = self.targets.read_added((look.width, look.height))
        colour = smoothed(colour, around, guide, passes)
        return joined_light(colour, around, self._eased(look, colour, around, passes))

    def _hold_seen(self, look: Look) -> None:
        """Where what is seen lies, (N, 3) m: shadow maps of a look at rest need not be wider. Found by drawing it."""
        small = replace(look, width=max(8, look.width // _SMALLER), height=max(8, look.height // _SMALLER))
        size = (small.width, small.height)
        nothing = Shadow(np.eye(4), 0.0, 0.0)
        self._frame(small, None, [(nothing, np.array([0.0, 0.0, 1.0]), 0.0)] * SKIES, (0.0, 0.0))
        self._held, normals = places_seen(look.camera, size, self.targets.guide(size))
        # A single thing in the open sees the sky all round: no rays are asked for it.
        among = look.adapts and len(self._held) > 0
        self.aim.take(look.light.dome, seen_sky(self.sky_seen.rays, self._held, normals) if among else None)

    def _take_light(self, look: Look) -> None:
        self.light.show(look.light)
        if not self.sky_seen.begun and self.stock.batches:
            self.sky_seen.begin(self.seen_from, among=look.adapts)

    def learn_on(self, current: Callable[[], bool]) -> None:
        """Learn more of the sky, until enough is known, while nothing else is asked for."""
        while self.sky_seen.begun and current() and self.sky_seen.learn_on(self.seen_from, FURTHER):
            pass

    def seen_from(self, toward: Any) -> tuple[Shadow, Any]:
        """The shadow map of a direction, of all that is built, and its depths."""
        known = self.sky_seen.openness
        drawn = self._draw_shadow(self.probe, toward, held=None if known is None else known.corners)
        wait_finished()
        return drawn, np.frombuffer(self.probe.texture.read(), np.float32).reshape(PROBE_PX, PROBE_PX)

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
        near = {batch for batch in self.stock.solid if self.stock.shows_near(batch, look)}
        self._prepass(matrix, look, near)
        self.light.use()
        (self.fine if skies else self.shadow).texture.use(3)
        self.open.texture.use(7)
        self.sky_seen.use(8, 14)
        if look.shows.flat:
            # Without light nothing of the sky is asked.
            self.stock.heat.use(14)
        self.context.depth_func = "<="
        ready: set[Any] = set()

        def told(batch: Batch, *, by_patches: bool) -> Any:
            program = self.programs.part(self._kind(batch, look, rest=bool(skies), near=by_patches))
            if program not in ready:
                self._set_frame(program, look, matrix, lit, skies)
                ready.add(program)
            self._tell_batch(batch, look, program)
            return program

        # Patches bring their own depth, so they come first, the nearest before what they hide.
        for batch in sorted(near, key=lambda one: away(one.members, look.camera.eye)):
            self.stock.draw_patches(batch, told(batch, by_patches=True))
        target.depth_mask = False
        for batch in self.stock.solid:
            if (arrays := self.stock.drawn(batch, look, near=batch in near)) is not None:
                self.stock.array(batch, arrays, told(batch, by_patches=False)).render()
        self._blend()
        if any(batch.hidden and batch not in near for batch in self.stock.solid):
            self.programs.mark["view_projection"].write(columns(nearer() @ matrix))
            self.programs.mark["tint"] = (0.0, 0.0, 0.0, 0.0)
            self.stock.peek(near)
        self._draw_clear(matrix, look)
        self.marks.draw(look, matrix, self._shown_at(look))
        self.context.disable(moderngl.BLEND)
        target.depth_mask = True
        wait_finished()
        self.stock.learn_seen()

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
            self.programs.mark["view_projection"].write(columns(np.eye(4)))
            self.programs.mark["tint"] = (*(float(v) for v in colour), 1.0)
            self.whole_mark.render()
        else:
            self.light.use()
            write_values(
                self.programs.sky,
                {
                    "sharp": SHARP_UNIT,
                    "even": not look.moving,
                    "sun": look.light.dome.key.direction,
                    "sun_glow": self.light.glow(),
                    "sun_cos": math.cos(max(look.light.dome.key.radius, 1e-3)),
                },
            )
            self.programs.sky["ray"].write(columns(rays(look.camera, (look.width, look.height), jitter)))
            self.whole_sky.render()
        self.context.enable(moderngl.DEPTH_TEST)

    def _draw_depth(self, batch: Batch, arrays: Arrays, matrix: Any) -> None:
        """A batch by depth alone; what is cut out of it is open."""
        known = self.stock.textures_of(batch.members[0])
        if known is None or not known.cut or arrays.cut is None:
            arrays.depth.render()
            return
        known.base.use(0)
        self.programs.cut["view_projection"].write(columns(matrix))
        write_values(self.programs.cut, {"base_colour": 0, "cut": _CUT})
        arrays.cut.render()

    def _draw_clear(self, matrix: npt.NDArray[np.float64], look: Look) -> None:
        """Panes over what lies behind them."""
        panes = self.stock.panes
        if not panes:
            return
        self.programs.mark["view_projection"].write(columns(matrix))
        r, g, b = self.light.values["harmonics"][0]
        for batch in panes:
            bare = batch.members[0].bare
            self.programs.mark["tint"] = (bare[0] * r / math.pi, bare[1] * g / math.pi, bare[2] * b / math.pi, _PANE)
            batch.whole.depth.render()

    def _prepass(self, matrix: npt.NDArray[np.float64], look: Look, near: set[Batch]) -> None:
        self.context.depth_func = "<"
        self.programs.depth["view_projection"].write(columns(matrix))
        for batch in self.stock.solid:
            if (arrays := self.stock.drawn(batch, look, near=batch in near)) is not None:
                self._draw_depth(batch, arrays, matrix)

    def _set_frame(
        self, program: Any, look: Look, matrix: Any, lit: Shadow | None, skies: list[tuple[Shadow, Any, float]]
    ) -> None:
        sun = lit or Shadow(np.eye(4), 0.0, 0.0)
        nothing = (Shadow(np.eye(4), 0.0, 0.0), np.array([0.0, 0.0, 1.0]), 0.0)
        seen = skies or [nothing] * SKIES
        values = {
            **self.light.values,
            **self.sky_seen.values(),
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
            "face_map": 13,
            "brushed_map": 15,
            "glow_gain": tuple(EMISSION_CD * v for v in look.light.gain),
            "openness": 8,
            "clear_sky": 14,
            "open_sample": [(*(float(v) for v in toward), weight) for _, toward, weight in seen],
            "finer": -0.7 if skies else 0.0,
            "presumed": _PRESUMED if self._presumes else 0.0,
            "shows": int(look.shows),
            "heat": 14,
            "shadow_slack": 0.0006,
            "offset_m": (sun.offset, seen[0][0].offset),
            "focal": focal_px(look),
            "grain": GRAIN_PX if skies else COARSE_PX,
        }
        write_values(program, values)
        program["view_projection"].write(columns(matrix))
        if "light_projection" in program:
            program["light_projection"].write(columns(sun.matrix))
        if "open_projection" in program:
            program["open_projection"].write(b"".join(columns(shadow.matrix) for shadow, *_ in seen))

    def _kind(self, batch: Batch, look: Look, *, rest: bool, near: bool) -> Kind:
        """What a batch's program has to do."""
        known, sided = self.stock.textures_of(batch.members[0]), batch.members[0].seen is not None
        has = {
            "MOVING": not rest,
            "SIDED": sided,
            "FINISHED": known is not None and known.finish is not None,
            "FLAT": look.shows.flat,
            "CHEQUER": look.shows is Shows.CHEQUER,
            "NEAR": near,
            "RELIEF": not sided and known is not None and known.height is not None and not look.shows.flat,
        }
        return frozenset(word for word, wanted in has.items() if wanted)

    def _tell_batch(self, batch: Batch, look: Look, program: Any) -> None:
        """Have a program draw a batch: its pictures and how it is laid."""
        part = batch.members[0]
        known = self.stock.textures_of(part)
        own = known or Textures(b"", self.stock.blank, self.stock.blank, self.stock.blank)
        for unit, texture in zip(
            (0, 1, 2, 4), (own.base, own.normal, own.orm, own.height or self.stock.flat), strict=True
        ):
            texture.use(unit)
        for unit, texture in zip((10, 11, 12, 13, 15), own.finish or (), strict=False):
            texture.use(unit)
        per_m = look.sheet_px / max(part.repeat_m)
        told = {"per_m": per_m, "textured": known is not None, "bare": part.bare, "repeat_m": part.repeat_m}
        write_values(program, {**told, "relief_m": own.relief_m, "cut": _CUT if own.cut else 0.0})
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

    def _draw_shadow(
        self,
        into: DepthTarget,
        toward: Any,
        shift: tuple[float, float] = (0.0, 0.0),
        number: int = 0,
        held: npt.NDArray[np.float64] | None = None,
    ) -> Shadow:
        """What a distant light in a direction sees of the scene, by depth; no more of it than is ``held``."""
        low, high = self.stock.box
        matrix, wide, _ = orthographic_fitted(np.array(toward, np.float64), low, high, shift, held)
        into.target.use()
        into.target.viewport = (number * into.side, 0, into.side, into.side)
        into.target.clear(viewport=into.target.viewport)
        self.context.enable(moderngl.DEPTH_TEST)
        self.context.disable(moderngl.CULL_FACE)
        self.context.depth_func = "<"
        self.programs.depth["view_projection"].write(columns(matrix))
        for batch in self.stock.solid:
            # Soft light of the sky asks for no more than a stand-in gives.
            self._draw_depth(batch, self.stock.lightest(batch) if into.side <= OPEN_PX else batch.whole, matrix)
        return Shadow(matrix, 1.2 * wide / into.side, wide)

    def release(self) -> None:
        """Give everything back to the driver, in the thread that made it."""
        self.marks.release()
        self.stock.release()
        self.targets.release()
        self.light.release()
        for depth in (self.shadow, self.fine, self.open, self.probe):
            give_back((depth.target, depth.texture))
        self.sky_seen.release()
        give_back((self.programs, self.context))


_CUT = 0.5
"""Opacity from which on something is there."""
__all__ = ["DrawPart", "Look", "Renderer", "Seen", "Triple", "own_of"]

_PANE = 0.3
"""How much of what lies behind it a pane hides."""
