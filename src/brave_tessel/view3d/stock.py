"""What a scene's driver holds: its parts' corners, drawn together where they look alike, and its surfaces' pictures."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

import moderngl
import numpy as np
import numpy.typing as npt

from ..core.place.seams import seam_lines
from ..core.relief.pictures import roughness_colours
from ..core.sheet import AnyArray
from ..engine.pictures.results import SurfacePictures
from .drawn import DrawPart, Look
from .near import STRIDE_M, Spot, away, focal_px, near_patches, reach_m
from .programs import Programs
from .sampling import box_of, built_box
from .targets import Textures, make_mipmaps


@dataclass(slots=True, eq=False)
class Arrays:
    """Some corners as they are drawn, by depth alone and by the programs they met; and their buffer."""

    depth: Any
    buffer: Any
    cut: Any = None
    by: dict[Any, Any] = field(default_factory=dict)

    def give_back(self) -> None:
        for one in (*self.by.values(), self.depth, self.cut, self.buffer):
            if one is not None:
                one.release()


@dataclass(slots=True, eq=False)
class NearArrays:
    """A batch about an eye: what is in reach as patches, what is not as it is; whether any patch was seen in the last
    frame. No buffer where nothing is in reach.
    """

    spot: Spot
    buffer: Any
    rest: Arrays | None
    visible: bool = True
    by: dict[Any, Any] = field(default_factory=dict)

    def array(self, context: Any, program: Any) -> Any:
        """The patches as a program draws them."""
        if program not in self.by:
            names = (*_CORNER, "in_lift") if "in_lift" in program else _CORNER[:1]
            layout = "3f 3f 3f 3f" if len(names) > 1 else "3f 36x"
            self.by[program] = context.vertex_array(program, [(self.buffer, layout, *names)])
        return self.by[program]

    def give_back(self) -> None:
        for one in (*self.by.values(), self.buffer):
            if one is not None:
                one.release()
        if self.rest is not None:
            self.rest.give_back()


@dataclass(slots=True, eq=False)
class Batch:
    """Parts that look alike, drawn together: their corners in one buffer, those of their stand-in, and as patches."""

    members: tuple[DrawPart, ...]
    whole: Arrays
    light: Arrays | None = None
    near: NearArrays | None = None

    @property
    def hidden(self) -> bool:
        """Whether it has patches of which none was seen."""
        return self.near is not None and self.near.buffer is not None and not self.near.visible

    def give_back(self) -> None:
        self.whole.give_back()
        if self.near is not None:
            self.near.give_back()
        if self.light is not None:
            self.light.give_back()


def own_of(surface: str) -> str:
    """The surface that one fitted to its faces was made of; its pictures stand in until its own are there."""
    return surface.partition("#")[0].partition("~")[0]


class Stock:
    """Uploads only what changed. ``changes`` rises when other parts stand there; ``box`` holds them, ``built`` what
    stands on the ground, m.
    """

    def __init__(self, context: Any, programs: Programs, *, software: bool) -> None:
        self.context, self.programs, self.software = context, programs, software
        self.batches: dict[tuple[object, ...], Batch] = {}
        self._textures: dict[str, Textures] = {}
        self.blank = self._upload(np.full((1, 1, 3), 128, np.uint8))
        self.flat = self._upload_height(np.zeros((1, 1), np.float32))
        self.heat = self._upload(roughness_colours(np.linspace(0, 1, 256, dtype=np.float32)[None]), srgb=True)
        self.heat.repeat_x = False
        self._seams: tuple[int, Arrays | None] = (-1, None)
        self._asked: list[tuple[NearArrays, Any]] = []
        self.box = self.built = (np.full(3, -2.0), np.full(3, 2.0))
        self.changes = 0

    def set_parts(self, parts: list[DrawPart]) -> None:
        """The parts of the scene. Those that look alike are drawn together; only groups in which one is another object
        than before are uploaded again.
        """
        groups: dict[tuple[object, ...], list[DrawPart]] = {}
        for part in parts:
            # Large parts stand alone: a change elsewhere does not upload them again.
            key: tuple[object, ...] = (part.look, part.id if part.light or len(part.positions) > _ALONE else "")
            groups.setdefault(key, []).append(part)
        same = len(groups) == len(self.batches)
        for look, members in groups.items():
            known = self.batches.get(look)
            wanted = tuple(members)
            if known is None or len(known.members) != len(wanted) or any(
                one is not other for one, other in zip(known.members, wanted, strict=True)
            ):  # fmt: skip
                if known is not None:
                    known.give_back()
                self.batches[look] = self._batch(wanted)
                same = False
        for gone in [look for look in self.batches if look not in groups]:
            self.batches.pop(gone).give_back()
        if not same:
            self.changes += 1
            self.box, self.built = box_of(parts), built_box(parts)
        wanted_surfaces = {name for part in parts for name in (part.surface, own_of(part.surface))}
        for surface in [surface for surface in self._textures if surface not in wanted_surfaces]:
            self._textures.pop(surface).give_back()

    def _batch(self, members: tuple[DrawPart, ...]) -> Batch:
        data = np.concatenate(
            [np.concatenate([part.positions, part.normals, part.uv], 1).astype(np.float32) for part in members]
        )
        return Batch(members, self._arrays(members, data))

    def _arrays(self, members: tuple[DrawPart, ...], data: npt.NDArray[np.float32]) -> Arrays:
        buffer = self.context.buffer(data.tobytes())
        plain = self.programs.mark if members[0].clear else self.programs.depth
        depth = self.context.vertex_array(plain, [(buffer, "3f 24x", "in_position")])
        cut = None if members[0].seen is not None else self.context.vertex_array(
            self.programs.cut, [(buffer, "3f 12x 3f", "in_position", "in_uv")]
        )  # fmt: skip
        return Arrays(depth, buffer, cut)

    def drawn(self, batch: Batch, look: Look, *, near: bool = False) -> Arrays | None:
        """What draws a batch as it is: its stand-in while it moves, if there is one; what is not drawn ``near``, if
        there is any.
        """
        if near:
            assert batch.near is not None
            return batch.near.rest
        return self.lightest(batch) if look.moving and self._far(batch, look) else batch.whole

    @staticmethod
    def _far(batch: Batch, look: Look) -> bool:
        """Whether the facets of a batch's stand-in are too small on the screen to show."""
        edge_m = 0.0 if batch.members[0].light is None else batch.members[0].light.edge_m
        if not edge_m:
            return True
        return edge_m * focal_px(look) < FACET_PX * max(away(batch.members, look.camera.eye), 0.05)

    def lightest(self, batch: Batch) -> Arrays:
        """A batch's stand-in, or itself where there is none, or none yet."""
        light = batch.members[0].light
        if light is None or light.corners is None:
            return batch.whole
        if batch.light is None:
            batch.light = self._arrays(batch.members, light.corners)
        return batch.light

    def array(self, batch: Batch, arrays: Arrays, program: Any) -> Any:
        """What draws some corners of a batch by a program."""
        if program not in arrays.by:
            sided = batch.members[0].seen is not None
            layout, names = ("3f 3f 12x", _CORNER[:2]) if sided else ("3f 3f 3f", _CORNER)
            arrays.by[program] = self.context.vertex_array(program, [(arrays.buffer, layout, *names)])
        return arrays.by[program]

    def shows_near(self, batch: Batch, look: Look) -> bool:
        """Whether a batch's relief is drawn as a mesh where it is near: one that stands out, and was seen to in the
        frame before. Patches are made at rest, about where the eye then is; software draws none while it moves.
        """
        known = self.textures_of(batch.members[0])
        if not self.programs.divides or batch.members[0].seen is not None or known is None or known.height is None:
            return False
        if look.shows.flat or (look.moving and self.software) or self.drawn(batch, look) is not batch.whole:
            return False
        reach = reach_m(known.relief_m[1] - known.relief_m[0], look)
        if reach < STRIDE_M or away(batch.members, look.camera.eye) >= reach:
            return False
        spot = Spot(self.changes, look.camera.eye, reach)
        near = batch.near
        if look.moving and (near is None or near.spot.changes != self.changes):
            return False
        if near is None or not (look.moving or near.spot.holds(spot)):
            near = self._divide(batch, spot)
        return near.buffer is not None and near.visible

    def _divide(self, batch: Batch, spot: Spot) -> NearArrays:
        if batch.near is not None:
            batch.near.give_back()
        parts = [part for one in self.solid for part in one.members]
        raised = {part.surface for part in parts if (own := self.textures_of(part)) and own.height is not None}
        corners, rest = near_patches(parts, batch.members, raised, spot)
        buffer = self.context.buffer(corners.tobytes()) if len(corners) else None
        batch.near = NearArrays(spot, buffer, self._arrays(batch.members, rest) if len(rest) else None)
        return batch.near

    def draw_patches(self, batch: Batch, program: Any) -> None:
        """A batch's relief as a mesh; behind what gapes where unlike reliefs meet lies its lowest level."""
        assert batch.near is not None
        array = batch.near.array(self.context, program)
        query = self.context.query(samples=True)
        with query:
            for program["backing"] in (False, True):
                for first in range(0, array.vertices, _AT_ONCE):
                    array.render(moderngl.PATCHES, min(_AT_ONCE, array.vertices - first), first=first)
        self._asked.append((batch.near, query))

    def peek(self, near: set[Batch]) -> None:
        """Whether patches that were not seen come into view, in no colour: they are drawn in the next frame."""
        for batch in self.solid:
            if batch.near is not None and batch.hidden and batch not in near:
                query = self.context.query(samples=True)
                with query:
                    batch.near.array(self.context, self.programs.mark).render()
                self._asked.append((batch.near, query))

    def learn_seen(self) -> None:
        """Which patches were seen: asked when the frame is finished, for every answer waits for that, and holds the
        interpreter.
        """
        for near, query in self._asked:
            near.visible = query.samples > 0
        self._asked.clear()

    def seams(self) -> Any:
        """Lines where patterns break off; None where none does. Found anew when other parts stand there."""
        if self._seams[0] != self.changes:
            if self._seams[1] is not None:
                self._seams[1].give_back()
            laid = [part for batch in self.batches.values() for part in batch.members if part.surface]
            found = seam_lines([(p.surface, p.positions, p.uv) for p in laid if p.seen is None])
            made = None
            if len(found):
                buffer = self.context.buffer(found.tobytes())
                made = Arrays(self.context.vertex_array(self.programs.mark, [(buffer, "3f", "in_position")]), buffer)
            self._seams = (self.changes, made)
        made = self._seams[1]
        return None if made is None else made.depth

    def set_textures(self, surface: str, own: SurfacePictures) -> None:
        """A surface's pictures; unchanged ones (by their key) are left alone."""
        known = self._textures.get(surface)
        if known and known.key == own.key:
            return
        if known:
            known.give_back()
        finish, relief = own.finish, own.relief
        self._textures[surface] = Textures(
            own.key,
            self._upload(own.base, srgb=True),
            self._upload(own.normal),
            self._upload(own.orm),
            None if relief is None else self._upload_height(relief.shares),
            (0.0, 0.0) if relief is None else (relief.low_mm / 1000, relief.high_mm / 1000),
            None if finish is None else tuple(self._upload(f, srgb=k in {1, 2}) for k, f in enumerate(finish)),
            own.base.shape[2] == 4,
        )

    def _upload(self, codes: AnyArray, *, srgb: bool = False) -> Any:
        rows, columns = codes.shape[:2]
        # The lower edge is v = 0.
        flipped = np.ascontiguousarray(codes[::-1])
        channels = codes.shape[2]
        options = {"internal_format": 0x8C43 if channels == 4 else 0x8C41} if srgb else {}
        texture = self.context.texture((columns, rows), channels, flipped.tobytes(), alignment=1, **options)
        make_mipmaps(texture)
        texture.repeat_x = texture.repeat_y = True
        if not self.software:
            texture.anisotropy = 8.0
        return texture

    def _upload_height(self, height: AnyArray) -> Any:
        rows, columns = height.shape
        texture = self.context.texture(
            (columns, rows), 1, np.ascontiguousarray(height[::-1], np.float32).tobytes(), dtype="f4"
        )
        make_mipmaps(texture)
        texture.repeat_x = texture.repeat_y = True
        return texture

    def textures_of(self, part: DrawPart) -> Textures | None:
        """Its surface's pictures, or those that stand in for them."""
        return self._textures.get(part.surface) or self._textures.get(own_of(part.surface))

    @property
    def parts(self) -> list[DrawPart]:
        """All that stands there."""
        return [part for batch in self.batches.values() for part in batch.members]

    @property
    def solid(self) -> list[Batch]:
        """What throws shadows."""
        return [batch for batch in self.batches.values() if not batch.members[0].clear]

    @property
    def panes(self) -> list[Batch]:
        """What is looked through."""
        return [batch for batch in self.batches.values() if batch.members[0].clear]

    def release(self) -> None:
        """Give everything back to the driver."""
        self.set_parts([])
        self.heat.release()
        if self._seams[1] is not None:
            self._seams[1].give_back()
        self.blank.release()
        self.flat.release()


FACET_PX = 20.0
"""Longest facet of a stand-in on the screen."""
_ALONE = 60_000
"""Corners from which on a part is drawn by itself."""
_AT_ONCE = 6144
"""Corners of patches handed to the driver in one call: in software it divides them then, holding the interpreter."""
_CORNER = ("in_position", "in_normal", "in_uv")
