"""Where frames are drawn to: linear light, its sums, and depths seen from lights."""

from __future__ import annotations

import ctypes
import ctypes.util
from dataclasses import dataclass
from functools import cache, lru_cache
from typing import Any

import moderngl
import numpy as np
import numpy.typing as npt

from ..core.light.tone import tone_table
from ..core.sheet import AnyArray

Size = tuple[int, int]
_KEPT = 3


@dataclass(frozen=True, slots=True, eq=False)
class Shadow:
    """A shadow map as it was drawn: its matrix, how far off faces it is asked, its width; m."""

    matrix: npt.NDArray[np.float64]
    offset: float
    wide: float


@dataclass(frozen=True, slots=True, eq=False)
class DepthTarget:
    """Square depth textures that can be drawn into."""

    target: Any
    texture: Any
    side: int

    @classmethod
    def of(cls, context: Any, side: int, beside: int = 1) -> DepthTarget:
        """``beside`` so many squares in a row."""
        texture = context.depth_texture((beside * side, side))
        texture.compare_func = ""
        texture.repeat_x = texture.repeat_y = False
        return cls(context.framebuffer(depth_attachment=texture), texture, side)


@dataclass(frozen=True, slots=True, eq=False)
class Textures:
    """A surface's pictures in the driver. ``cut`` says that its base colour has alpha; ``height`` runs from
    0 to 1 between the two levels of ``relief_m`` over the skin.
    """

    key: bytes
    base: Any
    normal: Any
    orm: Any
    height: Any = None
    relief_m: tuple[float, float] = (0.0, 0.0)
    finish: tuple[Any, ...] | None = None
    cut: bool = False

    def give_back(self) -> None:
        """Release them; they do not go by themselves."""
        for texture in (self.base, self.normal, self.orm, self.height, *(self.finish or ())):
            if texture is not None:
                texture.release()


@lru_cache
def tone_of(transform: str) -> AnyArray:
    """The table of a view transform."""
    return tone_table(transform)


class Targets:
    """A picture is drawn small while it moves and large at rest, and smaller to find what is seen: these stay, other
    sizes are given back.
    """

    def __init__(self, context: Any, adds: Any, corners: Any) -> None:
        self.context = context
        self._adds = adds
        self._whole = context.vertex_array(adds, [(corners, "2f", "in_place")])
        self._frames: dict[Size, tuple[Any, ...]] = {}
        self._sums: tuple[Size, tuple[Any, ...]] | None = None

    def frame(self, size: Size) -> Any:
        """The target of a size."""
        if size not in self._frames:
            while len(self._frames) >= _KEPT:
                self._release(self._frames.pop(next(iter(self._frames))))
            self._frames[size] = self._made(size, "f2", depth=True)
        return self._frames[size][0]

    def _made(self, size: Size, dtype: str, *, depth: bool) -> tuple[Any, ...]:
        layers = [self.context.texture(size, 4, dtype=dtype) for _ in range(3)]
        for texture in layers:
            texture.filter = (moderngl.NEAREST, moderngl.NEAREST)
        buffer = (self.context.depth_renderbuffer(size),) if depth else ()
        return self.context.framebuffer(layers, *buffer), *layers, *buffer

    def add(self, size: Size, *, first: bool) -> None:
        """Add the frame of a size to the sum."""
        if self._sums is None or self._sums[0] != size:
            if self._sums is not None:
                self._release(self._sums[1])
            self._sums, first = (size, self._made(size, "f4", depth=False)), True
        _, made = self._sums
        made[0].use()
        if first:
            made[0].clear(0.0, 0.0, 0.0, 0.0)
        self.context.disable(moderngl.DEPTH_TEST)
        self.context.enable(moderngl.BLEND)
        self.context.blend_func = moderngl.ONE, moderngl.ONE
        for unit, name in enumerate(("frame", "frame_around", "frame_guide")):
            self._frames[size][unit + 1].use(unit)
            self._adds[name] = unit
        self._whole.render()
        self.context.disable(moderngl.BLEND)

    def read(self, size: Size) -> list[Any]:
        """The last frame of a size: light, and diffuse light of the sky; (H, W, 4) float32, the lower row first."""
        return self._read(size, self._frames[size][0], 2)

    def guide(self, size: Size) -> npt.NDArray[np.float32]:
        """Normals and distances of the last frame of a size, (H, W, 4), the lower row first."""
        target = self._frames[size][0]
        width, height = size
        return np.frombuffer(target.read(components=4, attachment=2, dtype="f4"), np.float32).reshape(height, width, 4)

    def read_added(self, size: Size) -> list[Any]:
        """The sum, as :meth:`read`, and its guide: normals and distances."""
        assert self._sums is not None
        assert self._sums[0] == size
        self.context.finish()
        return self._read(size, self._sums[1][0], 3)

    @staticmethod
    def _read(size: Size, target: Any, count: int) -> list[Any]:
        width, height = size
        wait_finished()
        return [
            np.frombuffer(target.read(components=4, attachment=k, dtype="f4"), np.float32).reshape(height, width, 4)
            for k in range(count)
        ]

    @staticmethod
    def _release(made: tuple[Any, ...]) -> None:
        for entry in made:
            entry.release()

    def release(self) -> None:
        """Give everything back."""
        for made in self._frames.values():
            self._release(made)
        self._frames.clear()
        if self._sums is not None:
            self._release(self._sums[1])
        self._sums = None


def wait_finished() -> None:
    """Wait for the picture without holding the interpreter, so that the window stays quick."""
    if (driver := _driver()) is not None:
        driver.glFinish()


_TEXTURE_2D, _MIPMAPPED = 0x0DE1, (moderngl.LINEAR_MIPMAP_LINEAR, moderngl.LINEAR)


def make_mipmaps(texture: Any) -> None:
    """A texture's smaller versions, made without holding the interpreter: in software they take tens of ms each."""
    make = getattr(_driver(), "glGenerateMipmap", None)
    if make is None:
        texture.build_mipmaps()
    else:
        texture.use(0)
        make(_TEXTURE_2D)
    texture.filter = _MIPMAPPED


@cache
def _driver() -> ctypes.CDLL | None:
    """The 3D driver's library; looking for it starts a program, so it is done once."""
    try:
        return ctypes.CDLL(ctypes.util.find_library("GL") or "libGL.so.1")
    except OSError:
        return None
