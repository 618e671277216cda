"""The bathing pavilion: a vaulted hall with its windows, arch, steps and bench, made from pieces alone.

Sizes follow the tile: a course is 78 mm, a unit 153 mm, so that the dado ends on whole courses and the jambs on whole
units counted from the north-east corner.
"""

from __future__ import annotations

import math

from ..core.job.nodes import Setting
from ..core.job.scene import WITH_PART, Datum, Eye, Laid, Level, Opening, Part, Piece, Place, Scene
from ..core.operation import Value

UNIT, COURSE = 153.0, 78.0
LONG, DEEP, TALL, THICK = 39.5 * UNIT, 27.5 * UNIT, 2700.0, 320.0
SILL, DADO, HEAD = 12 * COURSE, 16 * COURSE, 18 * COURSE
VAULT_RISE, RIB = 1100.0, 200.0
PASSAGE, LANDING = 1500.0, 300.0
PITCH = 40.0
OVER = 320.0
"""How far the walls go up past the springing of the vault, to the roof."""
PLASTERED = ("front", "reveal", "soffit", "sill")
FRAME, PANE, DOOR = "#31524A", "#A9BCC2", "#2F4A44"
_FOOTING = "#8C857A"
_WOODWORK = {"frame": FRAME, "glass": PANE, "door": DOOR}


def _part(
    id: str,
    name: str,
    op: str,
    values: dict[str, Value],
    *laid: Laid,
    parent: str = "hall",
    at: Place = (0.0, 0.0, 0.0),
    turn: float = 0.0,
    path: tuple[Place, ...] = (),
    openings: tuple[Opening, ...] = (),
    bare: str = "#C9C6BE",
    copies: Setting | None = None,
) -> Part:
    piece = Piece(op=f"made.{op}", values=values, openings=openings, path=path)
    colours = _WOODWORK if openings else {}
    return Part(
        id=id, name=name, parent=parent, at=at, turn=(0.0, 0.0, turn), piece=piece, laid=laid, bare=bare,
        colours=colours, copies=copies,
    )  # fmt: skip


def _laid(id: str, surface: str, *groups: str, by: str = "flat", holds: str = "in place", **values: Value) -> Laid:
    return Laid(
        id=id, surface=surface, laying=Setting(op=f"laying.{by}", values=values), groups=groups, holds=holds
    )  # fmt: skip


def _window(id: str, left: float, width: float = 6 * UNIT) -> Opening:
    return Opening(
        id=id, left=left, width=width, sill=SILL, height=HEAD, head="segmental", rise=150.0, filling="window",
        sill_out=36.0,
    )  # fmt: skip


def _walls() -> list[Part]:
    """Four walls seen from the hall, each with its dado; the long ones with windows, the ends with gables."""
    finish = (
        _laid("render", "limewash-wall", "back", "ends", "top", by="box"),
        _laid("plaster", "plaster", *PLASTERED, by="box"),
        _laid("tile", "dado", "dado"),
    )
    size: dict[str, Value] = {"height": TALL + OVER, "thickness": THICK, "dado": DADO, "set_back": 170.0}
    gable: dict[str, Value] = {"top": "gabled", "rise": math.tan(math.radians(PITCH)) * DEEP / 2}
    north = tuple(_window(f"north-{k}", LONG - UNIT * count) for k, count in enumerate((36, 23, 10)))
    south = (
        _window("south-0", 600.0),
        Opening(id="south-door", left=2100.0, width=1000.0, sill=0.0, height=2250.0, filling="door"),
        _window("south-1", 4100.0),
    )
    middle = (DEEP - PASSAGE) / 2
    arch = Opening(id="arch", left=middle, width=PASSAGE, sill=0.0, height=2400.0, head="round")
    west = _window("west-0", 9.5 * UNIT, 8.5 * UNIT)
    return [
        _part("north-wall", "North wall", "wall", {**size, "length": LONG}, *finish, openings=north),
        _part("east-wall", "East wall", "wall", {**size, **gable, "length": DEEP}, *finish, at=(LONG, 0.0, 0.0),
              turn=-90.0, openings=(arch,)),
        _part("south-wall", "South wall", "wall", {**size, "length": LONG}, *finish, at=(LONG, -DEEP, 0.0), turn=180.0,
              openings=south),
        _part("west-wall", "West wall", "wall", {**size, **gable, "length": DEEP}, *finish, at=(0.0, -DEEP, 0.0),
              turn=90.0, openings=(west,)),
    ]  # fmt: skip


def _hall() -> list[Part]:
    inner = (DEEP**2 / 4 + VAULT_RISE**2) / (2 * VAULT_RISE)
    rib = inner - RIB
    rib_rise = VAULT_RISE - RIB
    rib_span = 2 * math.sqrt(rib**2 - (inner - VAULT_RISE) ** 2)
    stone = _laid("stone", "cast-stone", by="box")
    return [
        _part("floor", "Floor", "floor", {"width": LONG, "depth": DEEP, "thickness": 200.0},
              _laid("mosaic", "mosaic-floor", "top"), at=(0.0, -DEEP, 0.0), bare=_FOOTING),
        _part("vault", "Vault", "vault", {"span": DEEP, "length": LONG, "shape": "segmental", "rise": VAULT_RISE,
                                          "thickness": 140.0},
              _laid("render", "plaster", by="around", girth="of each face"), at=(0.0, -DEEP / 2, TALL), turn=-90.0),
        _part("rib", "Rib", "arch", {"span": rib_span, "shape": "segmental", "rise": rib_rise, "ring": RIB,
                                     "thickness": 320.0, "bevel": 12.0},
              _laid("stone", "cast-stone", by="path"), at=(4240.0, -DEEP / 2, TALL), turn=-90.0),
        _part("columns", "Columns", "column", {"height": TALL, "diameter": 300.0, "thinner": 0.1},
              _laid("stone", "cast-stone", by="around"), at=(4400.0, -130.0, 0.0),
              copies=Setting(op="copies.row", values={"count": 2, "across": 0.0, "deep": -(DEEP - 260.0)})),
        _part("cornice-north", "Cornice, north", "moulding", {"profile": "cornice", "height": 150.0},
              _laid("stone", "cast-stone", by="path"), at=(0.0, 0.0, TALL - 150.0),
              path=((0.0, 0.0, 0.0), (LONG, 0.0, 0.0))),
        _part("cornice-south", "Cornice, south", "moulding", {"profile": "cornice", "height": 150.0},
              _laid("stone", "cast-stone", by="path"), at=(LONG, -DEEP, TALL - 150.0), turn=180.0,
              path=((0.0, 0.0, 0.0), (LONG, 0.0, 0.0))),
        *_skirtings(stone),
        _part("arch-ring", "Arch ring", "arch", {"span": PASSAGE - 30.0, "ring": 3 * COURSE, "thickness": THICK + 60.0},
              _laid("tile", "dado", by="path", whole="units", keystone=True),
              at=(LONG - 30.0, -DEEP / 2, 2400.0 - PASSAGE / 2), turn=-90.0),
        _part("steps", "Steps", "steps", {"width": PASSAGE + 300.0, "rise": 150.0, "going": 320.0, "count": 2,
                                          "nosing": 20.0},
              stone, at=(LONG - 640.0, -(DEEP - PASSAGE) / 2 + 150.0, 0.0), turn=-90.0),
        _part("rail", "Handrail", "tube", {"diameter": 42.0, "bend": 110.0},
              _laid("copper", "copper-roof", by="path", rises="round the path"),
              at=(LONG - 700.0, -(DEEP - PASSAGE) / 2 + 90.0, 0.0),
              path=((0.0, 0.0, 0.0), (0.0, 0.0, 900.0), (640.0, 0.0, 1200.0), (1500.0, 0.0, 1200.0),
                    (1500.0, 0.0, 300.0))),
        *_bench(),
        _part("curtain", "Curtain", "cloth", {"width": 1300.0, "drop": 2050.0, "folds": 8.0, "fullness": 1.6},
              _laid("cloth", "seat", by="unwrapped", holds=WITH_PART), at=(60.0, -3950.0, 60.0), turn=90.0),
        _part("figure", "Figure 1.75 m", "figure", {}, at=(2780.0, -1900.0, 0.0), turn=-62.0, bare="#A9A69E"),
        _part("child", "Child 1.2 m", "figure", {"who": "child"}, at=(1830.0, -1500.0, 0.0), turn=-30.0,
              bare="#A9A69E"),
    ]  # fmt: skip


def _skirtings(stone: Laid) -> list[Part]:
    edge = (DEEP - PASSAGE) / 2 - 150.0
    runs: dict[str, tuple[Place, ...]] = {
        "north": ((0.0, -DEEP, 0.0), (0.0, 0.0, 0.0), (LONG, 0.0, 0.0), (LONG, -edge, 0.0)),
        "south": ((LONG, -DEEP + edge, 0.0), (LONG, -DEEP, 0.0), (LONG - 2100.0, -DEEP, 0.0)),
        "door": ((LONG - 3100.0, -DEEP, 0.0), (0.0, -DEEP, 0.0)),
    }
    laid = Laid(
        id="terrazzo", surface="terrazzo-floor", band="band-skirting",
        laying=Setting(op="laying.path", values={"rises": "over the profile", "fill": True, "whole": "repeats"}),
        groups=("face", "top", "ends"),
    )  # fmt: skip
    return [
        _part(f"skirting-{name}", f"Skirting, {name}", "moulding", {"profile": "cove skirting", "height": COURSE}, laid,
              path=path)
        for name, path in runs.items()
    ]  # fmt: skip


def _bench() -> list[Part]:
    return [
        _part("bench", "Curved bench", "curved_wall",
              {"radius": 1350.0, "angle": 90.0, "height": 5 * COURSE, "thickness": 430.0, "front": "inside",
               "bevel": 0.0},
              _laid("tile", "dado", by="around", girth="of each face"), at=(1860.0, -1860.0, 0.0), turn=90.0),
        _part("seat", "Seat", "curved_wall",
              {"radius": 1320.0, "angle": 90.0, "height": 45.0, "thickness": 480.0, "front": "inside", "bevel": 8.0},
              _laid("boards", "deck", by="around", turn=90.0, girth="of each face"),
              at=(1860.0, -1860.0, 5 * COURSE), turn=90.0),
    ]  # fmt: skip


def _passage() -> list[Part]:
    length, start = 22 * UNIT - THICK, LONG + THICK
    spring = 2400.0 - PASSAGE / 2 - LANDING
    low = -(DEEP - PASSAGE) / 2
    finish = (_laid("plaster", "plaster", *PLASTERED, "back", "ends", "top"), _laid("tile", "dado", "dado"))
    size: dict[str, Value] = {"length": length, "height": spring, "thickness": 240.0, "dado": DADO - LANDING}
    return [
        _part("passage-floor", "Passage floor", "floor", {"width": length + THICK, "depth": PASSAGE,
                                                         "thickness": 300.0},
              _laid("mosaic", "mosaic-floor", "top"), parent="passage", at=(LONG, low - PASSAGE, LANDING),
              bare=_FOOTING),
        _part("passage-north", "Passage wall, north", "wall", size, *finish, parent="passage",
              at=(start, low, LANDING)),
        _part("passage-south", "Passage wall, south", "wall", size, *finish, parent="passage",
              at=(start + length, low - PASSAGE, LANDING), turn=180.0),
        _part("passage-vault", "Passage vault", "vault", {"span": PASSAGE, "length": length, "thickness": 140.0},
              _laid("render", "plaster", by="around", girth="of each face"), parent="passage",
              at=(start, low - PASSAGE / 2, LANDING + spring), turn=-90.0),
    ]  # fmt: skip


def _outside() -> list[Part]:
    corner: dict[str, Value] = {"width": THICK, "depth": THICK - 3.0, "height": TALL + OVER}
    plaster = _laid("plaster", "limewash-wall", by="box")
    # Three millimetres off the inner planes: a wall's elevation ends at its own corner.
    places = {"nw": (-THICK, 3.0), "ne": (LONG, 3.0), "sw": (-THICK, -DEEP - THICK), "se": (LONG, -DEEP - THICK)}
    slope: dict[str, Value] = {
        "width": LONG + 2 * THICK,
        "depth": DEEP + 2 * THICK,
        "pitch": PITCH,
        "eaves": 320.0,
        "thickness": 110.0,
    }
    round_it = tuple(
        (-3400.0 + 2600.0 * math.cos(a), -2100.0 + 3200.0 * math.sin(a), 0.0)
        for a in (math.radians(90.0 + 180.0 * k / 24) for k in range(25))
    )
    return [
        *(
            _part(f"corner-{name}", f"Corner, {name.upper()}", "box", corner, plaster, parent="outside",
                  at=(x, y, 0.0))
            for name, (x, y) in places.items()
        ),
        _part("roof", "Roof, two slopes", "roof", slope,
              _laid("slates", "slate-roof", "slope"), parent="outside", at=(-THICK, -DEEP - THICK, TALL + OVER),
              bare="#6B5A48"),
        _part("terrace", "Terrace", "floor", {"width": 8000.0, "depth": 9000.0, "thickness": 200.0},
              _laid("boards", "deck", "top"), parent="outside", at=(-8000.0 - THICK, -6600.0, -150.0),
              bare="#4A3B2E"),
        _part("parapet", "Curved parapet", "parapet", {"height": 1000.0, "thickness": 240.0},
              _laid("plaster", "limewash-wall", by="path"), _laid("stone", "cast-stone", "coping", by="path"),
              parent="outside", at=(0.0, 0.0, -150.0), path=round_it),
        _part("ground", "Ground", "floor", {"width": 30000.0, "depth": 26000.0, "thickness": 300.0},
              _laid("shingle", "shingle-bed", "top"), parent="outside", at=(-14000.0, -16000.0, -170.0),
              bare="#6F6A60"),
    ]  # fmt: skip


def pavilion() -> Scene:
    """The scene of the demo job."""
    groups = [
        Part(id="hall", name="Changing hall"),
        Part(id="passage", name="Passage"),
        Part(id="outside", name="Outside"),
    ]
    levels = (
        Level(id="level-floor", name="floor", height=0.0),
        Level(id="level-landing", name="landing", height=LANDING),
        Level(id="level-sill", name="sill", height=SILL),
        Level(id="level-dado", name="dado", height=DADO),
        Level(id="level-spring", name="springing", height=TALL),
    )
    corner = Datum(id="datum-ne", name="floor line, NE corner", at=(LONG, 0.0, 0.0))
    eyes = (
        Eye(id="eye-hall", name="Hall", at=(330.0, -3880.0, 1620.0), toward=(4700.0, -1300.0, 1320.0), angle=58.0),
        Eye(id="eye-door", name="From the passage", at=(7600.0, -2100.0, 1900.0), toward=(2500.0, -1900.0, 1300.0),
            angle=56.0),
        Eye(id="eye-outside", name="Outside", at=(-6500.0, -11500.0, 2600.0), toward=(2200.0, -2300.0, 1500.0),
            angle=42.0),
    )  # fmt: skip
    parts = (*groups, *_walls(), *_hall(), *_passage(), *_outside())
    return Scene(parts=parts, levels=levels, datums=(corner,), datum="datum-ne", eyes=eyes)
