"""What is drawn over the faces: what is chosen and picked, and the lines where a pattern breaks off."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

import moderngl
import numpy as np
import numpy.typing as npt

from .drawn import DrawPart, Look, Shows
from .programs import Programs
from .sampling import columns
from .stock import Stock

_CHOSEN, _PICKED = (0.011, 0.175, 0.138, 0.10), (0.011, 0.175, 0.138, 0.5)
_SEAM = (0.78, 0.16, 0.03)
_NEARER = 2e-4
"""Of its depth by which a seam lies before its faces."""


def nearer() -> npt.NDArray[np.float64]:
    """Draws a little before the faces themselves."""
    out = np.eye(4)
    out[2, 2] = 1 - _NEARER
    return out


def give_back(made: Iterable[Any]) -> None:
    """Release what the driver holds for some objects; it does not go with them."""
    for entry in made:
        entry.release()


class Marks:
    """Keeps the faces of what is chosen and picked between frames."""

    def __init__(self, context: Any, programs: Programs, stock: Stock) -> None:
        self.context, self.programs, self.stock = context, programs, stock
        self._marked: dict[str, tuple[object, Any, Any]] = {}

    def draw(self, look: Look, matrix: npt.NDArray[np.float64], exposure: float) -> None:
        """All marks of a look into the frame that is being drawn, which will be shown at an exposure."""
        self._draw_faces(look, matrix, exposure)
        self._draw_seams(look, matrix, exposure)

    def _draw_faces(self, look: Look, matrix: npt.NDArray[np.float64], exposure: float) -> None:
        """What is chosen tinted, what is picked marked, over what is drawn already."""
        chosen = [(part, _CHOSEN) for part in self.stock.parts if part.part in look.chosen]
        wanted: dict[str, tuple[DrawPart, float, tuple[float, ...]]] = {}
        for part, as_ in (*chosen, *((part, _PICKED) for part in look.marked)):
            # Over the highest of its relief.
            high = own.relief_m[1] if (own := self.stock.textures_of(part)) else 0.0
            wanted[f"{as_} {part.id} {high}"] = (part, high, as_)
        for id in [id for id, (one, *_) in self._marked.items() if id not in wanted or wanted[id][0] is not one]:
            give_back(self._marked.pop(id)[1:])
        if not wanted:
            return
        self.programs.mark["view_projection"].write(columns(matrix))
        for id, (part_, high, tint) in wanted.items():
            if id not in self._marked:
                positions = part_.positions + np.float32(high) * part_.normals
                buffer = self.context.buffer(np.ascontiguousarray(positions, np.float32).tobytes())
                layout = [(buffer, "3f", "in_position")]
                self._marked[id] = (part_, self.context.vertex_array(self.programs.mark, layout), buffer)
            # A mark shows in its own colour, whatever the exposure.
            self.programs.mark["tint"] = (*(v / exposure for v in tint[:3]), tint[3])
            self._marked[id][1].render()

    def _draw_seams(self, look: Look, matrix: npt.NDArray[np.float64], exposure: float) -> None:
        """Lines where a pattern breaks off, a little before the faces."""
        lines = self.stock.seams() if look.shows is Shows.SEAMS else None
        if lines is None:
            return
        self.programs.mark["view_projection"].write(columns(nearer() @ matrix))
        self.programs.mark["tint"] = (*(v / exposure for v in _SEAM), 1.0)
        self.context.line_width = max(1.0, look.height / 300)
        lines.render(moderngl.LINES)

    def release(self) -> None:
        """Give everything back to the driver."""
        for _, *made in self._marked.values():
            give_back(made)
        self._marked.clear()
