"""What a renderer knows of how much sky is seen from where, and how it comes to know more."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import moderngl
import numpy as np
import numpy.typing as npt

from .opening import Opening
from .openness import Openness, Vector
from .sky_samples import even_direction
from .stock import Stock
from .targets import Shadow

PRIMED = 60
"""Directions that a scene's first picture is made with; much else is being done then."""
ALONE = 24
"""The same of a single thing in the open, which sees nearly all of the sky."""
FURTHER = 6
"""Further directions in each frame at rest."""
LEARNT = 256
"""Directions after which the openness of a scene is known well enough."""
_TOLD_AFTER = 20
"""Further directions after which the driver is told: it takes as long as four of them."""
_STEP = 1.0
"""Cells off a face at which it is asked, so that none behind it counts."""
Draw = Callable[[Vector], tuple[Shadow, npt.NDArray[np.float32]]]
"""Makes the shadow map of a direction, (S, S) with the lower row first."""


class SkySeen:
    """Learns from shadow maps, one direction at a time."""

    def __init__(self, context: Any, stock: Stock) -> None:
        self.context, self.stock = context, stock
        self.openness: Openness | None = None
        self._fields: list[Any] = []
        self._told: Openness | None = None
        self._known = 0
        self._opening: Opening | None = None
        self._next = 0

    @property
    def begun(self) -> bool:
        """Whether anything is known."""
        return self.openness is not None

    def parts_changed(self) -> None:
        """Others stand there: what was learnt of the scene holds nearly, until it is learnt anew at rest."""
        if self.openness is None or not self.openness.fills(*self.stock.built):
            self.openness = None
            return
        self.openness.learnt.fade()
        self._known = min(self._known, self.openness.samples)

    def begin(self, draw: Draw, *, among: bool) -> None:
        """Learn enough for a first picture, of an eye ``among`` what stands or before a single thing; ``draw`` makes
        the shadow map of a direction.
        """
        self.openness = Openness(*self.stock.built)
        self._next = 0
        self.learn_on(draw, PRIMED if among else min(PRIMED, ALONE))

    def learn_on(self, draw: Draw, count: int) -> int:
        """Learn from some more directions, evenly all round, until enough are known; from how many."""
        assert self.openness is not None
        more = max(0, min(count, LEARNT - self.openness.samples))
        for _ in range(more):
            toward = even_direction(self._next)
            self._next += 1
            drawn, depth = draw(toward)
            self.openness.add(depth, drawn.matrix, toward)
        known = self.openness.samples
        if self._told is not self.openness or known >= min(self._known + _TOLD_AFTER, LEARNT) > self._known:
            self.tell()
        return more

    def tell(self) -> None:
        """Bring what is known to the driver."""
        assert self.openness is not None
        if not self.openness.samples:
            return
        even = self.openness.field()
        if self._fields and self._fields[0].size != even.shape[2::-1]:
            self.release()
        for number, cells in enumerate((even, self.openness.clear_field(even))):
            codes = cells.astype(np.float16)
            if len(self._fields) <= number:
                made = self.context.texture3d(codes.shape[2::-1], 4, codes.tobytes(), dtype="f2")
                made.filter = (moderngl.LINEAR if number else moderngl.LINEAR_MIPMAP_LINEAR, moderngl.LINEAR)
                made.repeat_x = made.repeat_y = made.repeat_z = False
                self._fields.append(made)
            else:
                self._fields[number].write(codes.tobytes())
        self._fields[0].build_mipmaps()
        self._told, self._known = self.openness, self.openness.samples

    def use(self, *units: int) -> None:
        """Bind the even field and the clear one."""
        for field, unit in zip(self._fields, units, strict=False):
            field.use(unit)

    def values(self) -> dict[str, Any]:
        """What programs are told of the field."""
        known = self.openness
        low, size, cell = (known.low, known.size, known.cell) if known else (np.zeros(3), np.ones(3), 0.1)
        return {
            "open_low": tuple(float(v) for v in low),
            "open_size": tuple(float(v) for v in size),
            "open_step": _STEP * cell,
            "open_known": float(self._told is not None and self._told is self.openness),
        }

    def opening(self, eye: Vector, toward: Vector) -> float:
        """How far an eye opens that looks from a place towards another."""
        return self.rays.factor(eye, toward)

    @property
    def rays(self) -> Opening:
        """Rays onto what stands there."""
        if self._opening is None:
            self._opening = Opening(self.stock.parts)
        return self._opening

    def look_about_anew(self) -> None:
        """Something else stands there, and rests: how far an eye opens is asked of that."""
        self._opening = None

    def release(self) -> None:
        """Give the fields back to the driver."""
        while self._fields:
            self._fields.pop().release()
