"""Where pieces fall: a wrapped Poisson disc with size, turn and tilt of each."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated

import numpy as np

from ..errors import OutOfRangeError
from ..job.layers import LaidPiece, PieceKind, Scatter
from ..maps import MapKind
from ..operation import Angle, Choice, Fraction, Paint, Seed, Whole, find, settings
from ..phrases import say

MOST_PIECES = 6000
_TRIES = 24


@settings("scatter.strew", label="Strew")
@dataclass(frozen=True, slots=True)
class Strew:
    """Pieces thrown at random on the wrapped sheet, none nearer to another than its spacing."""

    density: Annotated[int, Whole(0, 5000, most=200_000, unit="/m²", help="How many pieces; 0 strews none.")] = 300
    spacing: Annotated[
        float, Fraction(0, 2, most=6, help="Least distance of two middles, in widths of a piece; 0 is without regard.")
    ] = 0.6
    meeting: Annotated[
        str,
        Choice(
            "avoid",
            "overlap",
            "pile",
            help="Pieces keep clear of each other, pass through each other, or rest on those below.",
        ),
    ] = "pile"
    size_spread: Annotated[float, Fraction(help="How far sizes vary.")] = 0.35
    turn: Annotated[float, Angle(0, 180, help="How far pieces are turned either way.")] = 180.0
    tilt: Annotated[float, Angle(0, 60, help="How far pieces lean at most.")] = 8.0
    sink: Annotated[float, Fraction(help="How much of each piece lies below the ground.")] = 0.15
    jitter: Annotated[float, Fraction(help="How far the colour of each piece is its own.")] = 0.3
    ground: Annotated[str, Paint(help="Colour of the ground between the pieces.")] = "#5E574B"
    ground_roughness: Annotated[float, Fraction(help="Roughness of the ground.")] = 0.9
    seed: Annotated[int, Seed()] = 1


def fallen(scatter: Scatter) -> list[LaidPiece]:
    """The strewn pieces of a scatter sheet, in the order in which they fall; the same at every size.

    Dart throwing on the torus (Cook 1986), with cells of the least distance to look around in. The
    order is by size, so that small pieces come to rest on large ones.
    """
    values = find(scatter.strew.op).bind(scatter.strew.values)
    area = scatter.width_mm * scatter.height_mm / 1e6
    count = round(float(values["density"]) * area)
    if count > MOST_PIECES:
        raise OutOfRangeError(
            "Density",
            value=say("{values:g} per m²", values=values["density"]),
            allowed=say("up to {most_pieces} pieces on the sheet", most_pieces=MOST_PIECES),
            remedy="Choose a lower density or a smaller sheet.",
        )
    kinds = [kind for kind in scatter.kinds if kind.share > 0]
    if not kinds or count == 0:
        return []
    rng = np.random.default_rng(int(values["seed"]))
    shares = np.array([kind.share for kind in kinds], float)
    chosen = rng.choice(len(kinds), count, p=shares / shares.sum())
    spread = float(values["size_spread"])
    sizes = np.exp((rng.random(count) * 2 - 1) * spread)
    order = np.argsort(-sizes * [kinds[k].width_mm for k in chosen])
    placed = _Placed(scatter.width_mm, scatter.height_mm)
    out: list[LaidPiece] = []
    for n in order:
        kind, size = kinds[chosen[n]], float(sizes[n])
        reach = float(values["spacing"]) * size * math.sqrt(kind.width_mm * kind.height_mm) / 2
        if values["meeting"] == "avoid":
            reach = max(reach, size * math.hypot(kind.width_mm, kind.height_mm) / 2)
        spot = placed.throw(rng, reach)
        turns, lean, towards = rng.random(3)
        if spot is not None:
            out.append(
                LaidPiece(
                    id=f"fallen-{n}",
                    kind=kind.id,
                    x_mm=spot[0],
                    y_mm=spot[1],
                    size=size,
                    turn=(turns * 2 - 1) * float(values["turn"]),
                    tilt=lean * float(values["tilt"]),
                    tilt_towards=towards * 360,
                )
            )
    return out


class _Placed:
    """Discs on a torus, none of which may reach into another."""

    def __init__(self, width: float, height: float) -> None:
        self.width, self.height = width, height
        self.cell = max(width, height) / 64
        self.columns, self.rows = max(1, int(width / self.cell)), max(1, int(height / self.cell))
        self.cells: dict[tuple[int, int], list[tuple[float, float, float]]] = {}
        self.largest = 0.0

    def throw(self, rng: np.random.Generator, reach: float) -> tuple[float, float] | None:
        """A free place for a disc, or none after a few tries."""
        for _ in range(_TRIES):
            x, y = float(rng.random() * self.width), float(rng.random() * self.height)
            if reach <= 0 or self._free(x, y, reach):
                where = int(x / self.width * self.columns), int(y / self.height * self.rows)
                self.cells.setdefault(where, []).append((x, y, reach))
                self.largest = max(self.largest, reach)
                return x, y
        return None

    def _free(self, x: float, y: float, reach: float) -> bool:
        far = reach + self.largest
        steps_x = min(self.columns // 2, math.ceil(far / (self.width / self.columns)))
        steps_y = min(self.rows // 2, math.ceil(far / (self.height / self.rows)))
        column, row = int(x / self.width * self.columns), int(y / self.height * self.rows)
        for j in range(-steps_y, steps_y + 1):
            for i in range(-steps_x, steps_x + 1):
                for a, b, other in self.cells.get(((column + i) % self.columns, (row + j) % self.rows), ()):
                    dx = (x - a + self.width / 2) % self.width - self.width / 2
                    dy = (y - b + self.height / 2) % self.height - self.height / 2
                    if dx * dx + dy * dy < (reach + other) ** 2:
                        return False
        return True


def kind_of(kinds: Sequence[PieceKind], id: str) -> int:
    """Index of a kind; −1 if there is none of that id."""
    return next((n for n, kind in enumerate(kinds) if kind.id == id), -1)


ID_MAPS = (MapKind.KIND_ID, MapKind.PIECE_ID)
"""Maps that hold one colour a kind or a piece; never mixed."""
