"""Further patterns: units that are no rectangles in courses, paving, roofing, boards; each as convex pieces in mm.

Units keep their asked sizes as nearly as whole numbers of them fill the repeat.
"""

from __future__ import annotations

import math
from typing import Annotated

import numpy as np

from ...kernels.mosaic import Mosaic
from ...lattice import is_earlier, units_many, whole_periods
from ...operation import Choice, Fraction, Length, Pieces, Seed, Sizes, Whole, operation, sizes_of
from ...sheet import Grid
from ..set_out import Pitch, SetOut, Values, mosaic, runs_as, strips

_F = np.typing.NDArray[np.float64]
Joint = Annotated[float, Length(0, 30, least=0, most=200, help="Gap between units.")]


def _herringbone_repeat(length: float, width: float, laid: str) -> tuple[float, float]:
    return (math.sqrt(2) * width, math.sqrt(2) * length) if laid == "45" else (2 * length, 2 * length)


def box(x: float, y: float, width: float, height: float) -> _F:
    """A rectangle from its lower left corner, anticlockwise."""
    return np.array([(x, y), (x + width, y), (x + width, y + height), (x, y + height)])


def _luck(a: int, b: int, seed: int) -> float:
    return float(units_many([a], [b], seed)[0])


@mosaic("hexagons", label="Hexagons", closes=lambda v: (v["width"], math.sqrt(3) * v["width"]))
def hexagons(
    grid: Grid,
    *,
    width: Annotated[float, Length(5, 600, log=True, least=0.5, help="Width over the flats, with its joint.")] = 120.0,
    joint: Joint = 3.0,
) -> Mosaic:
    """Hexagons standing on a point; the repeat is W × √3 W (W over the flats)."""
    across = whole_periods(grid.width_mm, width)
    up = whole_periods(grid.height_mm, math.sqrt(3) * width)
    w, rise = grid.width_mm / across, grid.height_mm / up
    made = []
    for row in range(2 * up):
        for column in range(across):
            x, y = (column + 0.5 * (row % 2) + 0.5) * w, (row + 0.5) * rise / 2
            tall = rise / 3
            made.append(
                np.array(
                    [
                        (x, y + tall),
                        (x - w / 2, y + tall / 2),
                        (x - w / 2, y - tall / 2),
                        (x, y - tall),
                        (x + w / 2, y - tall / 2),
                        (x + w / 2, y + tall / 2),
                    ]
                )
            )
    return Mosaic(made, joint)


@mosaic(
    "octagons",
    label="Octagons and dots",
    closes=lambda v: (v["pitch"], v["pitch"]),
    courses=lambda v: Pitch(v["pitch"], v["joint"]),
    units=lambda v: Pitch(v["pitch"], v["joint"]),
)
def octagons(
    grid: Grid,
    *,
    pitch: Annotated[float, Length(10, 800, log=True, least=1, help="Distance of two octagons' middles.")] = 150.0,
    joint: Joint = 2.0,
) -> Mosaic:
    """Regular octagons with square dots between; a dot's side is P(√2 − 1)."""
    across, up = whole_periods(grid.width_mm, pitch), whole_periods(grid.height_mm, pitch)
    w, h = grid.width_mm / across, grid.height_mm / up
    a = 0.5 * (math.sqrt(2) - 1)
    shape = np.array([(0.5, -a), (0.5, a), (a, 0.5), (-a, 0.5), (-0.5, a), (-0.5, -a), (-a, -0.5), (a, -0.5)])
    b = 0.5 - a
    dot = np.array([(b, 0), (0, b), (-b, 0), (0, -b)])
    made = []
    for row in range(up):
        for column in range(across):
            made.append((shape + (column + 0.5, row + 0.5)) * (w, h))
            made.append((dot + (column, row)) * (w, h))
    turns = np.tile([0.0, 45.0], across * up)
    return Mosaic(made, joint, turns)


@mosaic(
    "herringbone",
    label="Herringbone",
    closes=lambda v: _herringbone_repeat(v["length"] + v["joint"], v["width"] + v["joint"], v["laid"]),
)
def herringbone(
    grid: Grid,
    *,
    length: Annotated[float, Length(20, 1200, log=True, least=2, help="Length of a unit without its joint.")] = 215.0,
    width: Annotated[float, Length(10, 600, log=True, least=1, help="Width of a unit without its joint.")] = 102.5,
    joint: Joint = 10.0,
    laid: Annotated[str, Choice("90", "45", help="Units along the edges, or zigzags running up.")] = "90",
) -> Mosaic:
    """Herringbone of whole units. At 90° the coordinating length is taken as a whole multiple of the width; at 45° any
    proportion closes, with a repeat of √2 W × √2 L.
    """
    full_length, full_width = length + joint, width + joint
    if laid == "45":
        return _herringbone_45(grid, full_length, full_width, joint)
    n = max(1, round(full_length / full_width))
    across = whole_periods(grid.width_mm, 2 * full_length)
    up = whole_periods(grid.height_mm, 2 * full_length)
    ux, uy = grid.width_mm / across / (2 * n), grid.height_mm / up / (2 * n)
    made, turns = [], []
    for k in range(2 * n * across):
        for m in range(up):
            # Horizontal unit [0, L] × [0, W], upright one [L, L + W] × [W − L, W]; translations (W, W) and (L, −L).
            x, y = k, k + 2 * n * m
            made.append(box(x * ux, y * uy, n * ux, uy))
            made.append(box((x + n) * ux, (y + 1 - n) * uy, ux, n * uy))
            turns += [0.0, 90.0]
    return Mosaic(made, joint, turns)


def _herringbone_45(grid: Grid, length: float, width: float, joint: float) -> Mosaic:
    root = math.sqrt(2)
    across = whole_periods(grid.width_mm, root * width)
    up = whole_periods(grid.height_mm, root * length)
    sx, sy = grid.width_mm / across / (root * width), grid.height_mm / up / (root * length)
    turn = math.radians(45)
    rotate = np.array([[math.cos(turn), math.sin(turn)], [-math.sin(turn), math.cos(turn)]])
    pair = (box(0, 0, length, width), box(length, width - length, width, length))
    made, turns = [], []
    for k in range(across):
        for m in range(up):
            # (W, W) turned by 45° is upright and (L, −L) level: as units run up, axes are exchanged.
            for index, unit in enumerate(pair):
                turned = unit @ rotate
                place = np.array([turned[:, 1], turned[:, 0]]).T[::-1]
                made.append((place + (k * root * width, m * root * length)) * (sx, sy))
                turns.append(45.0 if index == 0 else -45.0)
    return Mosaic([_anticlockwise(polygon) for polygon in made], joint, turns)


def _anticlockwise(polygon: _F) -> _F:
    x, y = polygon[:, 0], polygon[:, 1]
    area = float((x * np.roll(y, -1) - np.roll(x, -1) * y).sum())
    return polygon if area > 0 else polygon[::-1].copy()


@mosaic(
    "basketweave",
    label="Basketweave",
    closes=lambda v: (2 * v["length"], 2 * v["length"]),
    courses=lambda v: Pitch(v["length"], v["joint"]),
    units=lambda v: Pitch(v["length"], v["joint"]),
)
def basketweave(
    grid: Grid,
    *,
    length: Annotated[float, Length(20, 1200, log=True, least=2, help="Length of a unit with its joint.")] = 225.0,
    units: Annotated[int, Whole(2, 5, most=12, help="How many units lie side by side in a block.")] = 2,
    joint: Joint = 10.0,
) -> Mosaic:
    """Blocks of units lying and standing by turns; the repeat is 2L × 2L."""
    across, up = whole_periods(grid.width_mm, 2 * length), whole_periods(grid.height_mm, 2 * length)
    w, h = grid.width_mm / across / 2, grid.height_mm / up / 2
    made, turns = [], []
    for row in range(2 * up):
        for column in range(2 * across):
            for unit in range(units):
                lying = (row + column) % 2 == 0
                made.append(
                    box(column * w, row * h + unit * h / units, w, h / units)
                    if lying
                    else box(column * w + unit * w / units, row * h, w / units, h)
                )
                turns.append(0.0 if lying else 90.0)
    return Mosaic(made, joint, turns)


@mosaic(
    "planks",
    label="Planks",
    closes=lambda v: (0.0, v["width"]) if v["runs"] == "across" else (v["width"], 0.0),
    courses=lambda v: runs_as(v, "across", "width", "joint"),
    units=lambda v: runs_as(v, "upright", "width", "joint"),
    rehashed=True,
)
def planks(
    grid: Grid,
    *,
    width: Annotated[float, Length(20, 400, log=True, least=2, help="Width of a board with its gap.")] = 144.0,
    length: Annotated[float, Length(300, 6000, log=True, least=20, help="Mean length of a board.")] = 1800.0,
    joint: Annotated[float, Length(0, 12, least=0, most=100, help="Gap between boards.")] = 5.0,
    runs: Annotated[str, Choice("across", "upright", help="Which way the boards run.")] = "across",
    seed: Annotated[int, Seed()] = 1,
) -> Mosaic:
    """Boards side by side whose ends are staggered at random; boards longer than the repeat run through it."""
    along, over = (grid.width_mm, grid.height_mm) if runs == "across" else (grid.height_mm, grid.width_mm)
    rows = whole_periods(over, width)
    rise = over / rows
    per_row = whole_periods(along, length)
    made = []
    for row in range(rows):
        shift = _luck(row, 5, seed) * along
        cuts = [shift + along * (k + 0.5 * (_luck(row, 10 + k, seed) - 0.5)) / per_row for k in range(per_row)]
        for k, start in enumerate(cuts):
            end = cuts[k + 1] if k + 1 < per_row else cuts[0] + along
            piece = box(start, row * rise, end - start, rise)
            made.append(piece if runs == "across" else _anticlockwise(piece[:, ::-1].copy()))
    return Mosaic(made, joint, 0.0 if runs == "across" else 90.0, any_length=True)


@mosaic("ashlar", label="Random ashlar", rehashed=True)
def ashlar(
    grid: Grid,
    *,
    height: Annotated[float, Length(40, 600, log=True, least=4, help="Mean height of a course.")] = 180.0,
    heights: Annotated[float, Fraction(help="How far courses differ in height.")] = 0.4,
    length: Annotated[float, Fraction(1, 4, least=0.5, most=10, help="Mean length of a stone, in heights.")] = 1.8,
    split: Annotated[
        float, Fraction(help="Share of stones that are two smaller ones instead; above 0 the courses break.")
    ] = 0.35,
    joint: Joint = 8.0,
    seed: Annotated[int, Seed()] = 1,
) -> Mosaic:
    """Squared stones of random length in courses of random height, some split in two."""
    rows = whole_periods(grid.height_mm, height)
    tall = np.array([1 + heights * (2 * _luck(row, 1, seed) - 1) for row in range(rows)])
    levels = np.concatenate([[0], np.cumsum(tall / tall.sum() * grid.height_mm)])
    made = []
    for row in range(rows):
        low, rise = float(levels[row]), float(levels[row + 1] - levels[row])
        count = whole_periods(grid.width_mm, length * height)
        long = np.array([0.55 + 0.9 * _luck(row, 100 + k, seed) for k in range(count)])
        ends = np.concatenate([[0], np.cumsum(long / long.sum() * grid.width_mm)]) + _luck(row, 7, seed) * grid.width_mm
        for k in range(count):
            start, size = float(ends[k]), float(ends[k + 1] - ends[k])
            made += _split(start, low, size, rise, _luck(row, 300 + k, seed) < split, _luck(row, 500 + k, seed))
    return Mosaic(made, joint)


@mosaic("uncoursed", label="Ashlar without courses", rehashed=True)
def uncoursed(
    grid: Grid,
    *,
    sizes: Annotated[
        str, Sizes(help="Sizes of the stones with their joint; the smallest is the module that all are multiples of.")
    ] = "400×300, 300×300, 300×150, 200×150, 150×150",
    joint: Joint = 8.0,
    seed: Annotated[int, Seed()] = 1,
) -> Mosaic:
    """Squared stones of a few sizes set without courses: no joint runs through for long where another stone fits."""
    asked = sizes_of(sizes)
    module_x, module_y = min(width for width, _ in asked), min(height for _, height in asked)
    # A module may be halved, so that sizes such as 300 and 200 both come out.
    half_x = any(abs(width / module_x - round(width / module_x)) > 0.2 for width, _ in asked)
    half_y = any(abs(height / module_y - round(height / module_y)) > 0.2 for _, height in asked)
    module_x, module_y = module_x / (2 if half_x else 1), module_y / (2 if half_y else 1)
    nx, ny = whole_periods(grid.width_mm, module_x), whole_periods(grid.height_mm, module_y)
    spans = sorted(
        {(min(nx, max(1, round(w / module_x))), min(ny, max(1, round(h / module_y)))) for w, h in asked},
        key=lambda s: -s[0] * s[1],
    )
    made = [
        box(c * grid.width_mm / nx, r * grid.height_mm / ny, w * grid.width_mm / nx, h * grid.height_mm / ny)
        for c, r, w, h in _unbroken(nx, ny, spans, seed)
    ]
    return Mosaic(made, joint)


_TRIES = 12


def _unbroken(nx: int, ny: int, spans: list[tuple[int, int]], seed: int) -> list[tuple[int, int, int, int]]:
    """Stones among which no joint runs from edge to edge, of several ways to set them; where all have one, the last."""
    stones = _set_stones(nx, ny, spans, seed)
    for luck in range(1, 1 if is_earlier() else _TRIES):
        if not _runs_through(stones, nx, ny):
            break
        stones = _set_stones(nx, ny, spans, seed + 7919 * luck)
    return stones


def _runs_through(stones: list[tuple[int, int, int, int]], nx: int, ny: int) -> bool:
    level, upright = np.zeros((2, ny, nx), bool)
    for column, row, wide, tall in stones:
        level[(row + tall) % ny, np.arange(column, column + wide) % nx] = True
        upright[np.arange(row, row + tall) % ny, (column + wide) % nx] = True
    return bool(level.all(1).any() or upright.all(0).any())


def _set_stones(nx: int, ny: int, spans: list[tuple[int, int]], seed: int) -> list[tuple[int, int, int, int]]:
    """Column, row, width and height in modules of stones that fill a wrapped lattice; single modules fill what is
    left.
    """
    taken = np.full((ny, nx), -1, np.int64)
    stones: list[tuple[int, int, int, int]] = []

    def lay(column: int, row: int, choices: list[tuple[int, int]], salt: int) -> None:
        ranked = []
        for k, (wide, tall) in enumerate(choices):
            rows, columns = np.arange(row, row + tall) % ny, np.arange(column, column + wide) % nx
            if (taken[np.ix_(rows, columns)] >= 0).any():
                continue
            # A stone whose top runs on in line with its left neighbour's makes a long joint.
            left = taken[rows[-1], (column - 1) % nx]
            runs_on = left >= 0 and (stones[left][1] + stones[left][3] - row - tall) % ny == 0
            filler = 0.9 if (wide, tall) not in spans else 0.0
            ranked.append((_luck(row * nx + column, salt + k, seed) + 0.7 * runs_on + filler + 0.08 * k, wide, tall))
        if ranked:
            _, wide, tall = min(ranked)
            taken[np.ix_(np.arange(row, row + tall) % ny, np.arange(column, column + wide) % nx)] = len(stones)
            stones.append((column, row, wide, tall))

    # Some stones anywhere first, so that no joint follows the edge of the sheet.
    anchors = [(int(_luck(n, 71, seed) * ny), int(_luck(n, 72, seed) * nx)) for n in range(nx * ny // 9)]
    tall = [span for span in spans if span[1] > 1] or spans
    for n, (row, column) in enumerate([*((ny - 1, k) for k in range(0, nx, 5)), *anchors]):
        if taken[row, column] < 0:
            lay(column, row, tall if n * 5 < nx else spans[: max(1, len(spans) * 2 // 3)], 90)
    for cell in range(nx * ny):
        row, column = divmod(cell, nx)
        if taken[row, column] < 0:
            lay(column, row, [*spans, (1, 1)], 0)
    return stones


def _split(x: float, y: float, width: float, height: float, two: bool, share: float) -> list[_F]:
    if not two:
        return [box(x, y, width, height)]
    part = 0.35 + 0.3 * share
    if share < 0.6:
        return [box(x, y, width, height * part), box(x, y + height * part, width, height * (1 - part))]
    return [box(x, y, width * part, height), box(x + width * part, y, width * (1 - part), height)]


def _gauge(v: Values) -> Pitch:
    """A slate's gauge: its lap may grow, and shrinks by a tenth at most."""
    gauge = max(1.0, (float(v["length"]) - float(v["headlap"])) / 2)
    return Pitch(gauge, unit_dial="headlap", rate=-0.5, start=0.5, allowed=(0.15 * gauge, 0.05 * float(v["headlap"])))


@mosaic(
    "slates",
    label="Slates",
    closes=lambda v: (v["width"], v["length"] - v["headlap"]),
    courses=_gauge,
    units=lambda v: Pitch(v["width"], v["joint"], unit_dial="width", start=0.25, steps=(0.0, 0.5), allowed=(2.0, 2.0)),
    square={"ragged": 0.0},
    rehashed=True,
)
def slates(
    grid: Grid,
    *,
    length: Annotated[
        float, Length(100, 800, log=True, least=10, help="Whole length of a slate or plain tile.")
    ] = 500.0,
    width: Annotated[float, Length(50, 500, log=True, least=5, help="Width of a slate.")] = 250.0,
    headlap: Annotated[
        float, Length(20, 150, least=0, most=400, help="How far a slate covers the second one below it.")
    ] = 100.0,
    joint: Annotated[float, Length(0, 10, least=0, most=50, help="Gap between neighbours.")] = 3.0,
    ragged: Annotated[float, Length(0, 20, least=0, most=100, help="How far their lower edges vary.")] = 4.0,
    seed: Annotated[int, Seed()] = 1,
) -> Mosaic:
    """Slates or plain tiles in half bond: what is seen of each is its gauge, (length − headlap) / 2 (BS 5534)."""
    gauge = max(1.0, (length - headlap) / 2)
    across = whole_periods(grid.width_mm, width)
    up = 2 * whole_periods(grid.height_mm, 2 * gauge)
    w, h = grid.width_mm / across, grid.height_mm / up
    slack = min(ragged, 0.4 * h)
    made = []
    for row in range(up):
        for column in range(across):
            # The upper edge is the lower one of the course above, which may hang a little further down.
            # Half a course up, so that the join of the sheet lies within slates and not along their edges.
            low = (row + 0.5) * h - slack * (_luck(row, column, seed) - 0.5)
            made.append(box((column + 0.5 * (row % 2) + 0.25) * w, low, w, (row + 1.5) * h - low))
    return Mosaic(made, joint)


@mosaic(
    "fan",
    label="Fan of setts",
    closes=lambda v: (v["width"], v["sett"]),
    courses=lambda v: Pitch(v["sett"], v["joint"], unit_dial="sett", allowed=(0.1 * v["sett"], 0.1 * v["sett"])),
    units=lambda v: Pitch(v["width"], 0.0, unit_dial="width", allowed=(0.05 * v["width"], 0.05 * v["width"])),
    rehashed=True,
)
def fan(
    grid: Grid,
    *,
    width: Annotated[float, Length(300, 3000, log=True, least=50, help="Width of a fan.")] = 1200.0,
    sett: Annotated[float, Length(40, 200, log=True, least=5, help="Size of a sett with its joint.")] = 100.0,
    joint: Joint = 8.0,
    seed: Annotated[int, Seed()] = 1,
) -> Mosaic:
    """Setts in segmental arcs side by side: each arc spans a fan's width and rises by a fifth of it."""
    across = whole_periods(grid.width_mm, width)
    w = grid.width_mm / across
    rows = whole_periods(grid.height_mm, sett)
    h = grid.height_mm / rows
    sagitta = 0.2 * w
    radius = (w * w / 4 + sagitta * sagitta) / (2 * sagitta)
    half = math.asin(w / 2 / radius)
    count = max(2, round(2 * half * radius / sett))
    made, turns = [], []
    for row in range(rows):
        for column in range(across):
            for k in range(count):
                wobble = [
                    0.12 * (_luck(row * 97 + column, k + e, seed) - 0.5) if 0 < k + e < count else 0.0 for e in (0, 1)
                ]
                a = [-half + 2 * half * (k + e + wobble[e]) / count for e in (0, 1)]
                x = [(column + 0.5) * w + radius * math.sin(angle) for angle in a]
                y = [row * h + radius * math.cos(angle) - radius for angle in a]
                made.append(np.array([(x[0], y[0]), (x[1], y[1]), (x[1], y[1] + h), (x[0], y[0] + h)]))
                turns.append(-math.degrees(0.5 * (a[0] + a[1])))
    return Mosaic(made, joint, turns)


@operation(
    "pattern.boards",
    label="Tongue and groove",
    closes=lambda v: (v["width"], 0.0) if v["runs"] == "upright" else (0.0, v["width"]),
    sets_out=SetOut(
        courses=lambda v: runs_as(v, "across", "width", "joint"),
        units=lambda v: runs_as(v, "upright", "width", "joint"),
        outlines=lambda grid, width, joint, runs: strips(grid, width, joint, upright=runs == "upright"),
    ),
)
def boards(
    grid: Grid,
    *,
    width: Annotated[float, Length(20, 300, log=True, least=2, help="Face width of a board.")] = 90.0,
    joint: Annotated[float, Length(0, 10, least=0, most=50, help="Width of the groove.")] = 4.0,
    runs: Annotated[str, Choice("upright", "across", help="Which way the boards run.")] = "upright",
) -> Pieces:
    """Boards without ends, groove beside groove."""
    upright = runs == "upright"
    whole, at = grid.across(upright=upright)
    count = whole_periods(whole, width)
    w = whole / count
    inside = np.minimum(at % w, w - at % w) - 0.5 * joint
    number = np.where(inside >= 0, at // w, -1).astype(np.int32)
    off = ((at % w) / w * 2 - 1).astype(np.float32)
    still = np.zeros_like(off)
    lines = (number, inside.astype(np.float32), off if upright else still, still if upright else off)
    index, inner, u, v = (grid.spread(line, upright=upright) for line in lines)
    return Pieces(index, inner, u, v, count)
