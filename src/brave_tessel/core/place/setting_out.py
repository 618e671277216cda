"""The setting-out sheet of a part: its faces unrolled to scale, with courses, cuts, levels, dimensions, a schedule."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
import shapely

from ..errors import MissingError
from ..phrases import say
from ..quantity import format_level, format_number
from .gauge import Gauge
from .paper import BRICK, CHALK, INK, OCHRE, PALE, SOFT, WASH, Paper, Points
from .regions import Region, Shape, edges_of, main_region, regions_of
from .schedule import Pieces, Schedule, pieces_of, schedule_of
from .site import Site

SCALES = (1, 2, 5, 10, 20, 25, 50, 100, 200, 500)
WIDTH, HEIGHT, MARGIN, COLUMN = 420.0, 297.0, 12.0, 84.0
GAP, LEFT, RIGHT, BELOW = 8.0, 24.0, 16.0, 26.0
"""Between faces on the paper, and room for dimensions and levels beside and below them, mm."""
WORTH, MOST_FACES, MOST_DRAWN = 0.04, 8, 6000
LEAST_DIMENSION = 5.0
"""Shorter ones on the paper have no words between their ends."""
Say = Callable[[str], str]


@dataclass(frozen=True, eq=False)
class Face:
    """A region turned so that up is up, mm: its outline, the matrix from the pattern and its height in the scene."""

    region: Region
    shape: Shape
    matrix: Points
    pieces: Pieces | None
    foot: float | None

    @property
    def bounds(self) -> tuple[float, float, float, float]:
        """Left, low, right and high."""
        found: tuple[float, float, float, float] = self.shape.bounds
        return found

    def moved(self, shape: Shape) -> Shape:
        """A shape of the pattern, or an array of them, as it lies on the face."""
        (a, b), (d, e) = self.matrix
        return shapely.transform(shape, lambda p: p @ np.array([[a, d], [b, e]]))


def faces_of(site: Site, part: str, row: int) -> list[Face]:
    """The faces of something laid that a sheet shows, the one looked at first.

    Raises
    ------
    MissingError
        when nothing lies there that runs evenly.
    """
    one = site.of_part(part)
    regions = regions_of(site, one, row) if one is not None and 0 <= row < len(one.part.laid) else []
    if one is None or not regions:
        raise MissingError("part", value=one.part.name if one else part, remedy="Nothing is laid on it that unrolls.")
    main = main_region(regions)
    kept = [r for r in regions if r is main or r.shape.area > WORTH * main.shape.area]
    kept.sort(key=lambda region: region is not main)
    return [_face(site, region) for region in kept[:MOST_FACES]]


def _face(site: Site, region: Region) -> Face:
    matrix = np.asarray(np.linalg.inv(site.coordinates(region.standing, region.row).finish.matrix), np.float64)
    pieces = pieces_of(site, region)
    made = Face(region, region.shape, matrix, pieces, None)
    shape = made.moved(region.shape)
    z = region.standing.mesh.corners[region.faces][..., 2].ravel()
    y = (region.places.reshape(-1, 2) @ matrix.T)[:, 1]
    level = np.ptp(z) > 1.0 and np.ptp(z - y) < 0.5
    return Face(region, shape, matrix, pieces, float((y - z).mean()) if level else None)


def setting_out(site: Site, part: str, row: int, *, tr: Say = str) -> Paper:
    """The sheet of something laid on a part, on paper of 420 × 297 mm. ``tr`` says words in another language."""
    faces = faces_of(site, part, row)
    standing = faces[0].region.standing
    laid = standing.part.laid[row]
    surface = site.surface(laid)
    name = standing.part.name
    paper = Paper(WIDTH, HEIGHT, f"{tr('Setting out')}: {name}")
    scale, places = _arranged(faces)
    _frame(paper)
    for number, (face, at) in enumerate(zip(faces, places, strict=True)):
        _draw(paper, face, at, scale)
        _dimensions(paper, face, at, scale, main=number == 0)
        _stretch(paper, face, at, scale, tr)
        if face.foot is not None:
            _levels(paper, site, face, at, scale, tr)
    regions = [face.region for face in faces]
    gauge = site.gauge(laid)
    told = [
        tr("Setting out"), name, surface.name if surface else tr("bare"), site.job.name,
        tr(say("Scale 1:{scale} on A3", scale=scale)),
    ]  # fmt: skip
    _column(paper, told, _counted(faces[0], gauge, tr), schedule_of(site, regions), tr)
    return paper


def _arranged(faces: Sequence[Face]) -> tuple[int, list[tuple[float, float]]]:
    """The largest scale at which all faces find room, in rows from the top, and where the lower left of each is."""
    for scale in SCALES:
        places = _in_rows(faces, scale)
        if places is not None:
            return scale, places
    return SCALES[-1], [(MARGIN + LEFT, MARGIN + BELOW)] * len(faces)


def _in_rows(faces: Sequence[Face], scale: int) -> list[tuple[float, float]] | None:
    end, top = WIDTH - MARGIN - COLUMN - 4.0, HEIGHT - MARGIN - 8.0
    x, y, tallest = MARGIN + LEFT, top, 0.0
    rows: list[list[tuple[int, float]]] = [[]]
    feet: list[float] = []
    for number, face in enumerate(faces):
        left, low, right, high = face.bounds
        wide, tall = (right - left) / scale + (RIGHT if face.foot is not None else 4.0), (high - low) / scale
        if x + wide > end and rows[-1]:
            y -= tallest + BELOW
            feet.append(y)
            rows.append([])
            x, tallest = MARGIN + LEFT, 0.0
        if x + wide > end:
            return None
        rows[-1].append((number, x))
        x, tallest = x + wide + GAP, max(tallest, tall)
    y -= tallest + BELOW
    feet.append(y)
    if y < MARGIN:
        return None
    # What room is left is shared out above and between the rows.
    spare = min((y - MARGIN) / (len(rows) + 1), 40.0)
    out = [(0.0, 0.0)] * len(faces)
    for k, row in enumerate(rows):
        for number, at in row:
            out[number] = (at, feet[k] + BELOW - spare * (k + 1))
    return out


def _frame(paper: Paper) -> None:
    left, right, low, high = MARGIN, WIDTH - MARGIN, MARGIN, HEIGHT - MARGIN
    paper.area([np.array([(left, low), (right, low), (right, high), (left, high)])], width=0.35)
    paper.line(right - COLUMN, low, right - COLUMN, high, width=0.35)


def _rings(shape: Shape, at: tuple[float, float], origin: tuple[float, float], scale: float) -> list[list[Points]]:
    out = []
    for polygon in shapely.get_parts(shape):
        if polygon.geom_type != "Polygon" or polygon.is_empty:
            continue
        rings = [np.asarray(ring.coords)[:-1] for ring in (polygon.exterior, *polygon.interiors)]
        out.append([(ring - origin) / scale + at for ring in rings])
    return out


def _draw(paper: Paper, face: Face, at: tuple[float, float], scale: float) -> None:
    """The units, the cut ones shaded and what is under a third marked, and the outline over them."""
    left, low, _, _ = face.bounds
    pieces = face.pieces
    if pieces is not None:
        order = np.argsort(pieces.whole, kind="stable")[:MOST_DRAWN]
        shapes = dict(zip(order.tolist(), face.moved(pieces.shapes[order]), strict=True))
        for k in order[::-1].tolist():
            fill = "" if pieces.whole[k] else OCHRE if pieces.small[k] else WASH
            line = PALE if pieces.whole[k] else OCHRE
            for rings in _rings(shapes[k], at, (left, low), scale):
                paper.area(rings, line=line, width=0.07, fill=fill)
        for k in [k for k in shapes if pieces.small[k]][:200]:
            x, y = (np.array(shapes[k].representative_point().coords[0]) - (left, low)) / scale + at
            paper.area([np.array([(x - 1.1, y - 1.1), (x + 1.1, y - 1.1), (x + 1.1, y + 1.1), (x - 1.1, y + 1.1)])],
                       line=BRICK, width=0.25)  # fmt: skip
    for rings in _rings(face.shape, at, (left, low), scale):
        paper.area(rings, width=0.4)


def _chain(values: Sequence[float], least: float) -> list[float]:
    """Places of a chain of dimensions; those nearer than so much fall together."""
    out: list[float] = []
    for value in sorted(values):
        if not out or value - out[-1] > least:
            out.append(value)
    return out


def _dimensions(paper: Paper, face: Face, at: tuple[float, float], scale: float, *, main: bool) -> None:
    left, low, right, high = face.bounds
    x0, y0 = at
    sides = _chain([left, right, *(edge.at for edge in edges_of(face.shape, upright=True))], 0.5)
    heights = _chain([low, high, *(edge.at for edge in edges_of(face.shape, upright=False))], 0.5)
    for row, values in enumerate((sides if 2 < len(sides) <= 16 else [], [left, right])):
        y = y0 - 8.0 - 7.0 * row
        for a, b in itertools.pairwise(values):
            short = (b - a) / scale < LEAST_DIMENSION
            paper.level_dimension(x0 + (a - left) / scale, x0 + (b - left) / scale, y, "" if short else _mm(b - a))
    if not main:
        return
    for row, values in enumerate((heights if 2 < len(heights) <= 12 else [], [low, high])):
        x = x0 - 7.0 - 7.0 * row
        for a, b in itertools.pairwise(values):
            short = (b - a) / scale < LEAST_DIMENSION
            paper.upright_dimension(x, y0 + (a - low) / scale, y0 + (b - low) / scale, "" if short else _mm(b - a))


def _mm(value: float) -> str:
    return format_number(value, decimals=1) if abs(value - round(value)) > 0.05 else format_number(value, decimals=0)


def _levels(paper: Paper, site: Site, face: Face, at: tuple[float, float], scale: float, tr: Say) -> None:
    """Named levels as dotted lines, each with its height."""
    left, low, right, high = face.bounds
    assert face.foot is not None
    taken: list[float] = []
    for level in sorted(site.scene.levels, key=lambda one: one.height):
        y = at[1] + (level.height + face.foot - low) / scale
        if not at[1] - 0.1 <= y <= at[1] + (high - low) / scale + 0.1 or any(abs(y - one) < 3.2 for one in taken):
            continue
        taken.append(y)
        end = at[0] + (right - left) / scale
        paper.line(at[0] - 2.0, y, end + 2.0, y, colour=CHALK, width=0.18, dashes=(1.2, 0.8))
        paper.words(end + 2.6, y - 0.8, format_level(level.height), size=2.2, colour=CHALK, mono=True)
        paper.words(end + 2.6, y + 1.6, tr(level.name), size=1.9, colour=CHALK)


def _counted(face: Face, gauge: Gauge | None, tr: Say) -> list[str]:
    """Courses of the face looked at."""
    if gauge is None:
        return [tr("No courses to count here.")]
    out = []
    shape = face.region.shape
    size = np.linalg.norm(face.matrix, axis=0)
    for pitch, axis, word in ((gauge.courses, 1, say("Course {mm} mm, joint {joint} mm")),
                              (gauge.units, 0, say("Unit {mm} mm along, joint {joint} mm"))):  # fmt: skip
        if pitch is not None:
            mm, joint = pitch.mm * size[axis], pitch.joint * size[axis]
            out.append(tr(say(word.pattern, mm=format_number(mm), joint=format_number(joint))))
    if gauge.courses is not None:
        whole, cut = courses_in(shape.bounds[1], shape.bounds[3], gauge, float(size[1]))
        rests = " + ".join(f"{_mm(rest)} mm" for rest in cut) or tr("none")
        out.append(tr(say("{whole} whole courses, cut: {rests}", whole=whole, rests=rests)))
    return out


def courses_in(low: float, high: float, gauge: Gauge, size: float = 1.0) -> tuple[int, tuple[float, ...]]:
    """Whole courses between two places up a pattern, and the heights of the cut ones below and above, mm as laid."""
    assert gauge.courses is not None
    mm = gauge.courses.mm
    first = np.ceil((low - gauge.courses.start * mm) / mm - 0.5 / mm / size)
    last = np.floor((high - gauge.courses.start * mm) / mm + 0.5 / mm / size)
    if last < first:
        return 0, (round((high - low) * size, 3),)
    at = gauge.courses.start * mm
    rests = ((at + first * mm - low) * size, (high - at - last * mm) * size)
    return int(last - first), tuple(round(float(rest), 3) for rest in rests if rest > 0.5)


def _stretch(paper: Paper, face: Face, at: tuple[float, float], scale: float, tr: Say) -> None:
    """A word beside a face on which the surface is not laid true: it is drawn as the surface sees it."""
    real = float(face.region.standing.mesh.areas[face.region.faces].sum())
    drawn = float(face.shape.area)
    if abs(real / drawn - 1) > 0.01:
        _, low, _, high = face.bounds
        text = tr(say("laid stretched by {percent:+.0f} %", percent=100 * (real / drawn - 1)))
        paper.words(at[0], at[1] + (high - low) / scale + 2.0, text, size=2.2, colour=BRICK)


def _column(paper: Paper, told: list[str], counted: list[str], schedule: Schedule | None, tr: Say) -> None:
    """The title, what is counted, and the schedule."""
    x, y = WIDTH - MARGIN - COLUMN + 5.0, HEIGHT - MARGIN - 11.0
    paper.words(x, y, told[0], size=3.0, colour=SOFT)
    paper.words(x, y - 7.5, _short(told[1], 30), size=5.2, bold=True)
    for k, line in enumerate(told[2:]):
        paper.words(x, y - 14.0 - 4.6 * k, _short(line, 46), size=2.9, colour=INK if k == 0 else SOFT)
    y -= 32.0
    paper.line(x - 5.0, y, WIDTH - MARGIN, y, width=0.18)
    for line in counted:
        y -= 5.4
        paper.words(x, y, _short(line, 50), size=2.8)
    y -= 4.0
    paper.line(x - 5.0, y, WIDTH - MARGIN, y, width=0.18)
    y -= 7.0
    paper.words(x, y, tr("Schedule"), size=3.4, bold=True)
    if schedule is None:
        paper.words(x, y - 6.0, tr("This surface has no units to be cut."), size=2.8, colour=SOFT)
        return
    end = WIDTH - MARGIN - 5.0
    paper.words(x, y - 6.0, tr("Along × up, mm"), size=2.4, colour=SOFT)
    paper.words(end, y - 6.0, tr("pieces"), size=2.4, colour=SOFT, anchor="end")
    y -= 6.0
    room = max(1, int((y - MARGIN - 34.0) / 4.4))
    rows = list(schedule.by_size)
    shown, rest = rows[:room], rows[room:]
    if rest:
        shown.append((tr(say("{count} more sizes", count=len(rest))), sum(n for _, n in rest)))
    for k, (size, count) in enumerate(shown):
        y -= 4.4
        whole = k == 0 and schedule.whole > 0
        words = size.replace("x", " × ").replace(" shaped", f" {tr('notched or slanted')}")
        paper.words(x, y, words, size=2.7, mono=True, bold=whole)
        paper.words(end, y, str(count), size=2.7, mono=True, bold=whole, anchor="end")
    _sums(paper, schedule, x, end, tr)


def _sums(paper: Paper, schedule: Schedule, x: float, end: float, tr: Say) -> None:
    y = MARGIN + 29.0
    paper.line(x - 5.0, y, WIDTH - MARGIN, y, width=0.18)
    area = format_number(schedule.area_mm2 / 1e6)
    for label, value, colour in (
        (tr("whole"), str(schedule.whole), INK),
        (tr("cut"), str(schedule.cut), OCHRE if schedule.cut else INK),
        (tr("under a third"), str(len(schedule.slivers)), BRICK if schedule.slivers else INK),
        (tr("face of units"), f"{area} m²", INK),
        (tr("cut off and lost"), f"{format_number(100 * schedule.waste, decimals=1)} %", INK),
    ):
        y -= 5.0
        paper.words(x, y, label, size=2.8, colour=SOFT)
        paper.words(end, y, value, size=2.8, colour=colour, anchor="end", mono=True)


def _short(text: str, most: int) -> str:
    return text if len(text) <= most else text[: most - 1] + "…"
