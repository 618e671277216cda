"""Scenes to begin with, made from pieces like any other."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from ...core.job.document import Job
from ...core.job.nodes import Setting
from ...core.job.scene import Datum, Eye, Laid, Level, Opening, Part, Piece, Place, Scene
from ...core.operation import Value
from ...core.phrases import say

Surfaces = Sequence[str]


def _part(
    id: str, name: str, op: str, values: dict[str, Value], at: Place, turn: float = 0.0, *laid: Laid,
    openings: tuple[Opening, ...] = (), path: tuple[Place, ...] = (), parent: str = "",
) -> Part:  # fmt: skip
    piece = Piece(op=f"made.{op}", values=values, openings=openings, path=path)
    return Part(id=id, name=name, parent=parent, at=at, turn=(0.0, 0.0, turn), piece=piece, laid=laid)


def _laid(surface: str, id: str, *groups: str, by: str = "flat") -> tuple[Laid, ...]:
    if not surface:
        return ()
    return (Laid(id=id, surface=surface, groups=groups, laying=Setting(op=f"laying.{by}")),)


def _pick(surfaces: Surfaces, number: int) -> str:
    return surfaces[number] if number < len(surfaces) else ""


def room_corner(surfaces: Surfaces = ()) -> Scene:
    """Two walls with a window, a floor and a figure; the first three surfaces on dado, wall and floor."""
    dado, wall, floor = (_pick(surfaces, k) for k in range(3))
    window = Opening(
        id="window", left=1404.0, width=900.0, sill=936.0, height=1170.0, filling="window", sill_out=36.0
    )  # fmt: skip
    size: dict[str, Value] = {"height": 2700.0, "thickness": 240.0, "dado": 1248.0}
    plain = ("front", "back", "reveal", "sill", "soffit", "ends", "top")
    parts = (
        _part("north-wall", "North wall", "wall", {**size, "length": 4500.0}, (0.0, 0.0, 0.0), 0.0,
              *_laid(wall, "plaster", *plain, by="box"), *_laid(dado, "tile", "dado"), openings=(window,)),
        _part("east-wall", "East wall", "wall", {**size, "length": 3000.0}, (4500.0, 0.0, 0.0), -90.0,
              *_laid(wall, "plaster", *plain, by="box"), *_laid(dado, "tile", "dado")),
        _part("floor", "Floor", "floor", {"width": 4500.0, "depth": 3000.0}, (0.0, -3000.0, 0.0), 0.0,
              *_laid(floor, "floor", "top")),
        _part("figure", "Figure 1.75 m", "figure", {}, (3350.0, -700.0, 0.0), -40.0),
    )  # fmt: skip
    levels = (
        Level(id="level-floor", name="floor", height=0.0),
        Level(id="level-sill", name="sill", height=936.0),
        Level(id="level-dado", name="dado", height=1248.0),
    )
    datum = Datum(id="datum", name="floor line, NE corner", at=(4500.0, 0.0, 0.0))
    eye = Eye(id="eye-room", name="Room", at=(700.0, -5300.0, 1700.0), toward=(2900.0, -600.0, 1150.0))
    return Scene(parts=parts, levels=levels, datums=(datum,), datum="datum", eyes=(eye,))


def street_corner(surfaces: Surfaces = ()) -> Scene:
    """Two house fronts round a street corner, pavement, kerb and road; the first four surfaces on walls, pavement,
    road and roofs.
    """
    wall, pavement, road, roof = (_pick(surfaces, k) for k in range(4))
    openings = (
        Opening(id="door", left=900.0, width=1000.0, sill=0.0, height=2300.0, head="segmental", rise=120.0,
                filling="door", lintel=225.0),
        *(
            Opening(id=f"window-{floor}-{k}", left=left, width=1000.0, sill=sill, height=1500.0, filling="window",
                    sill_out=60.0, lintel=150.0)
            for floor, sill in ((0, 900.0), (1, 3900.0))
            for k, left in enumerate((2900.0, 5000.0) if floor == 0 else (900.0, 2900.0, 5000.0))
        ),
    )  # fmt: skip
    faces = ("front", "reveal", "soffit", "ends", "back", "top", "sill")
    size: dict[str, Value] = {"height": 6200.0, "thickness": 330.0, "length": 7000.0, "set_back": 120.0}
    line: tuple[Place, ...] = ((-1500.0, -1800.0, 0.0), (7900.0, -1800.0, 0.0), (8600.0, -1500.0, 0.0),
                               (8900.0, -800.0, 0.0), (8900.0, 8000.0, 0.0))  # fmt: skip
    parts = (
        _part("south-front", "South front", "wall", size, (0.0, 0.0, 0.0), 0.0, *_laid(wall, "wall", *faces),
              openings=openings),
        _part("east-front", "East front", "wall", size, (7000.0, 0.0, 0.0), 90.0, *_laid(wall, "wall", *faces),
              openings=openings),
        _part("pavement", "Pavement", "floor", {"thickness": 120.0}, (0.0, 0.0, 0.0), 0.0,
              *_laid(pavement, "pavement", "top"), path=((-1500.0, 300.0, 0.0), *line, (6800.0, 8000.0, 0.0),
                                                         (6800.0, 300.0, 0.0))),
        _part("kerb", "Kerb", "kerb", {"upstand": 110.0}, (0.0, 0.0, -110.0), 0.0, path=line),
        _part("road", "Road", "floor", {"width": 22000.0, "depth": 20000.0}, (-8000.0, -9000.0, -112.0), 0.0,
              *_laid(road, "road", "top")),
        _part("roof", "Roof", "roof", {"width": 7000.0, "depth": 7000.0, "shape": "hipped", "pitch": 38.0},
              (0.0, 0.0, 6200.0), 0.0, *_laid(roof, "roof", "slope", "hip")),
        _part("string", "String course", "moulding", {"profile": "string course", "height": 150.0},
              (0.0, 0.0, 3300.0), 0.0, path=((0.0, 0.0, 0.0), (7000.0, 0.0, 0.0), (7000.0, 7000.0, 0.0))),
        _part("figure", "Figure 1.75 m", "figure", {}, (2400.0, -1000.0, 0.0), 20.0),
    )  # fmt: skip
    levels = (
        Level(id="level-ground", name="pavement", height=0.0),
        Level(id="level-sill", name="sill", height=900.0),
        Level(id="level-upper", name="upper sill", height=3900.0),
        Level(id="level-eaves", name="eaves", height=6200.0),
    )
    datum = Datum(id="datum", name="pavement, SE corner", at=(7000.0, 0.0, 0.0))
    eye = Eye(id="eye-street", name="Street", at=(14500.0, -9500.0, 1700.0), toward=(5600.0, 600.0, 2700.0),
              angle=50.0)  # fmt: skip
    return Scene(parts=parts, levels=levels, datums=(datum,), datum="datum", eyes=(eye,))


STARTERS: dict[str, tuple[str, Callable[[Surfaces], Scene]]] = {
    "room": (say("Room corner"), room_corner),
    "street": (say("Street corner"), street_corner),
}
"""Scenes that are put up as a whole: what they are called, and how they are made."""


def starter(name: str, job: Job) -> Scene:
    """A scene to begin with, with the job's first surfaces on it."""
    return STARTERS[name][1]([surface.id for surface in job.surfaces])
