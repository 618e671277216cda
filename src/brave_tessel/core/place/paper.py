"""A drawing on paper: lines, areas and words in millimetres from its lower left corner; formats write it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
import numpy.typing as npt

Points = npt.NDArray[np.float64]
INK, SOFT, CHALK, OCHRE, BRICK, WASH = "#20262A", "#5D666B", "#2B68B0", "#8F5A0C", "#A63F2C", "#F1E2C6"
PALE = "#C6C9C6"


@dataclass(frozen=True, slots=True)
class Drawn:
    """Lines of points (N, 2), open or closed, with a colour, a width in mm and a fill, empty for none."""

    rings: tuple[Points, ...]
    line: str = INK
    width: float = 0.18
    fill: str = ""
    closed: bool = True
    dashes: tuple[float, ...] = ()


@dataclass(frozen=True, slots=True)
class Words:
    """Text whose foot is at a place; ``anchor`` is start, middle or end, ``turn`` in degrees anticlockwise."""

    x: float
    y: float
    text: str
    size: float = 2.6
    colour: str = INK
    anchor: str = "start"
    turn: float = 0.0
    bold: bool = False
    mono: bool = False


@dataclass(slots=True)
class Paper:
    """A sheet of paper, mm."""

    width: float
    height: float
    title: str
    items: list[Drawn | Words] = field(default_factory=list)

    def line(self, x0: float, y0: float, x1: float, y1: float, *, colour: str = INK, width: float = 0.18,
             dashes: tuple[float, ...] = ()) -> None:  # fmt: skip
        """One straight line."""
        self.items.append(Drawn((np.array([(x0, y0), (x1, y1)]),), colour, width, closed=False, dashes=dashes))

    def area(self, rings: Sequence[Points], *, line: str = INK, width: float = 0.18, fill: str = "") -> None:
        """Closed outlines; one within another is a hole."""
        self.items.append(Drawn(tuple(rings), line, width, fill))

    def words(self, x: float, y: float, text: str, **more: object) -> None:
        """A line of text."""
        self.items.append(Words(x, y, str(text), **more))  # type: ignore[arg-type]

    def level_dimension(self, x0: float, x1: float, y: float, text: str, *, size: float = 2.3) -> None:
        """A dimension between two places along, with slanted ends."""
        self.line(x0, y, x1, y, width=0.13)
        for x in (x0, x1):
            self.line(x, y - 1.4, x, y + 1.4, width=0.13)
            self.line(x - 0.8, y - 0.8, x + 0.8, y + 0.8, width=0.3)
        self.words((x0 + x1) / 2, y + 0.8, text, size=size, anchor="middle", mono=True)

    def upright_dimension(self, x: float, y0: float, y1: float, text: str, *, size: float = 2.3) -> None:
        """A dimension between two heights, read from the right."""
        self.line(x, y0, x, y1, width=0.13)
        for y in (y0, y1):
            self.line(x - 1.4, y, x + 1.4, y, width=0.13)
            self.line(x - 0.8, y - 0.8, x + 0.8, y + 0.8, width=0.3)
        self.words(x - 0.8, (y0 + y1) / 2, text, size=size, anchor="middle", turn=90.0, mono=True)
