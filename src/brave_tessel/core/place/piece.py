"""Made pieces: parts of a building with typed sizes, each declared once, in a file of ``core/place/pieces``."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace

import msgspec
import numpy as np

from ..job.scene import Opening, Piece, Place
from ..operation import operation
from .laying import Axis
from .mesh import EMPTY, Mesh, Vector

MOST_TRIANGLES = 400_000
"""A made piece has at most so many."""


@dataclass(frozen=True, slots=True)
class Drawn:
    """What a piece takes beside its dials: openings, the path it runs along and a drawn profile; mm."""

    openings: tuple[Opening, ...] = ()
    path: tuple[Place, ...] = ()
    closed: bool = False
    profile: tuple[tuple[float, float], ...] = ()


@dataclass(frozen=True, slots=True)
class Handle:
    """A size that is pulled at on the model: which dial, where its mark stands, which way it grows; mm of the piece.
    ``share`` is how far the mark moves for each mm of the size.
    """

    dial: str
    at: tuple[float, float, float]
    along: tuple[float, float, float]
    share: float = 1.0
    opening: str = ""


@dataclass(frozen=True, slots=True)
class Made:
    """A piece as made: its mesh, heights it offers by name, the axis it turns about, the path it runs along, and what
    of it can be pulled at; mm of its own.
    """

    mesh: Mesh
    levels: Mapping[str, float] = field(default_factory=dict)
    axis: Axis | None = None
    path: Vector | None = None
    closed: bool = False
    handles: tuple[Handle, ...] = ()


Make = Callable[..., Made]


def piece(name: str, *, label: str, version: int = 1, takes: str = "") -> Callable[[Make], Make]:
    """Declare a piece by the function that makes it from a :class:`Drawn` and its dials.

    ``takes`` names what else it is made from: openings, path or profile, in that order, with commas.
    """

    def declare(make: Make) -> Make:
        TAKES[f"made.{name}"] = tuple(word for word in takes.split(",") if word)
        return operation(f"made.{name}", label=label, version=version)(make)

    return declare


TAKES: dict[str, tuple[str, ...]] = {}
"""What pieces are made from beside their dials, by operation."""

NOTHING = Made(EMPTY)
"""A piece that this version cannot make."""

_KEPT: dict[bytes, Made] = {}
_MOST_KEPT = 512


def made(piece: Piece) -> Made:
    """A piece as made; :data:`NOTHING` for one that this version does not know.

    Raises
    ------
    OutOfRangeError
        when a stored value is outside what its dial allows.
    """
    if not piece.known:
        return NOTHING
    key = msgspec.json.encode((piece.op, piece.version, piece.values, piece.openings, piece.path, piece.closed,
                               piece.profile))  # fmt: skip
    if key not in _KEPT:
        while len(_KEPT) >= _MOST_KEPT:
            _KEPT.pop(next(iter(_KEPT)))
        drawn = Drawn(piece.openings, piece.path, piece.closed, piece.profile)
        _KEPT[key] = piece.operation.run(drawn, **piece.bound())
    return _KEPT[key]


def turned_round(made: Made, matrix: Vector) -> Made:
    """A piece moved in its own mm: its mesh, axis, path and handles together."""
    linear, at = matrix[:3, :3], matrix[:3, 3]

    def point(value: Vector) -> Vector:
        return np.asarray(np.asarray(value) @ linear.T + at)

    axis = made.axis and replace(made.axis, at=point(made.axis.at), along=made.axis.along @ linear.T)
    handles = tuple(
        replace(h, at=tuple(point(np.array(h.at))), along=tuple(np.array(h.along) @ linear.T)) for h in made.handles
    )
    path = None if made.path is None else point(made.path)
    return replace(made, mesh=made.mesh.moved(matrix), axis=axis, path=path, handles=handles)
