"""What an elevation says beside the pattern: cut pieces, pieces under a third, and the chosen part's widths."""

from __future__ import annotations

import itertools
from dataclasses import dataclass

import numpy as np
import shapely
from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen, QPolygonF

from ....core.place.elevation import Drawn, Elevation
from ....core.place.regions import Region, edges_of, regions_of, union
from ....core.place.schedule import Sliver, pieces_of, schedule_of
from ....core.quantity import format_number
from ... import theme
from ...words import tr

MOST = 600
FLAT = 0.9999


@dataclass(frozen=True, eq=False)
class Mark:
    """A piece under a third: where it is on the drawing, mm, and what it is."""

    x: float
    y: float
    sliver: Sliver


@dataclass(frozen=True, eq=False)
class Marks:
    """``cuts`` are outlines of cut pieces on the drawing (N, 2) mm; ``sides`` places along of a chain of widths."""

    cuts: tuple[np.ndarray, ...] = ()  # type: ignore[type-arg]
    slivers: tuple[Mark, ...] = ()
    sides: tuple[float, ...] = ()
    foot: float = 0.0


NO_MARKS = Marks()


def marks_of(elevation: Elevation, part: str) -> Marks:
    """What is marked of a part; worked out off the window's thread."""
    mine = [face for face in elevation.faces if face.facet.standing.part.id == part]
    if not mine:
        return NO_MARKS
    standing = mine[0].facet.standing
    cuts: list[np.ndarray] = []  # type: ignore[type-arg]
    slivers: list[Mark] = []
    for row in sorted({face.row for face in mine if face.row >= 0}):
        regions = regions_of(elevation.site, standing, row)
        for region in regions:
            drawn = [face for face in mine if face.row == row and np.isin(face.facet.faces, region.faces).any()]
            if not drawn:
                continue
            if len(drawn) == 1:
                cuts += _cuts(elevation, region, drawn[0])
            slivers += _slivers(elevation, region, drawn)
    shape = union(np.concatenate([face.corners for face in mine]))
    sides = sorted({round(edge.at, 1) for edge in edges_of(shape, upright=True)})
    sides = sides if 2 <= len(sides) <= 24 else []
    return Marks(tuple(cuts[:MOST]), tuple(slivers[:MOST]), tuple(sides), min(face.bounds[1] for face in mine))


def _cuts(elevation: Elevation, region: Region, face: Drawn) -> list[np.ndarray]:  # type: ignore[type-arg]
    found = pieces_of(elevation.site, region)
    if found is None or found.whole.all():
        return []
    mine = np.isin(face.facet.faces, region.faces)
    pattern = region.places[np.searchsorted(region.faces, face.facet.faces[mine])].reshape(-1, 2)
    held = np.concatenate([pattern, np.ones((len(pattern), 1))], 1)
    turn, *_ = np.linalg.lstsq(held, face.corners[mine].reshape(-1, 2), rcond=None)
    out = []
    for piece in shapely.get_parts(found.shapes[~found.whole][:MOST]):
        if piece.geom_type == "Polygon":
            ring = np.asarray(piece.exterior.coords)
            out.append(ring @ turn[:2] + turn[2])
    return out


def _slivers(elevation: Elevation, region: Region, drawn: list[Drawn]) -> list[Mark]:
    schedule = schedule_of(elevation.site, [region])
    out = []
    for one in schedule.slivers if schedule else ():
        point = np.array(one.place)
        face = min(drawn, key=lambda each: _off(each, point))
        x, y = place_of(face, point)
        out.append(Mark(x, y, one))
    return out


def place_of(face: Drawn, point: np.ndarray) -> tuple[float, float]:  # type: ignore[type-arg]
    """Where a point of the scene is on a drawn face, mm."""
    facet = face.facet
    if face.flat is None:
        return float(point @ facet.along) + face.shift, float(point @ facet.up)
    corners = facet.standing.mesh.corners[facet.faces]
    p, e, f = corners[:, 0], corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    away = point - p
    ee, ef, ff = (e * e).sum(1), (e * f).sum(1), (f * f).sum(1)
    ae, af = (away * e).sum(1), (away * f).sum(1)
    whole = np.maximum(ee * ff - ef * ef, 1e-12)
    s, t = (ff * ae - ef * af) / whole, (ee * af - ef * ae) / whole
    off = np.linalg.norm(away - s[:, None] * e - t[:, None] * f, axis=1)
    out = np.maximum.reduce([-s, -t, s + t - 1, np.zeros(len(s))])
    k = int((off + 1000.0 * out).argmin())
    a, b, c = face.flat[k]
    x, y = a + s[k] * (b - a) + t[k] * (c - a)
    return float(x), float(y)


def point_of(face: Drawn, x: float, y: float) -> tuple[float, float, float] | None:
    """The point of the scene, mm, at a place of a drawn face; None beside it."""
    flat = face.corners
    a, e, f = flat[:, 0], flat[:, 1] - flat[:, 0], flat[:, 2] - flat[:, 0]
    whole = e[:, 0] * f[:, 1] - e[:, 1] * f[:, 0]
    whole = np.where(np.abs(whole) < 1e-9, 1e-9, whole)
    away = np.array([x, y]) - a
    s = (away[:, 0] * f[:, 1] - away[:, 1] * f[:, 0]) / whole
    t = (e[:, 0] * away[:, 1] - e[:, 1] * away[:, 0]) / whole
    inside = np.minimum(np.minimum(s, t), 1 - s - t)
    k = int(inside.argmax())
    if inside[k] < -0.01:
        return None
    p, q, r = face.facet.standing.mesh.corners[face.facet.faces[k]]
    found = p + s[k] * (q - p) + t[k] * (r - p)
    return float(found[0]), float(found[1]), float(found[2])


def _off(face: Drawn, point: np.ndarray) -> float:  # type: ignore[type-arg]
    facet = face.facet
    if face.flat is not None:
        return 0.0
    depth = float(facet.standing.mesh.corners[facet.faces[0], 0] @ facet.normal)
    along = float(point @ facet.along)
    return abs(float(point @ facet.normal) - depth) + float(max(facet.low[0] - along, along - facet.high[0], 0.0))


def paint_cuts(painter: QPainter, marks: Marks, at: object) -> None:
    """Cut pieces, tinted."""
    shade = theme.colour("ochre")
    shade.setAlpha(110)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(shade)
    for ring in marks.cuts:
        painter.drawPolygon(QPolygonF([at(x, y) for x, y in ring]))  # type: ignore[operator]


def paint_slivers(painter: QPainter, marks: Marks, at: object, over: Mark | None) -> None:
    """Pieces under a third, each in a square; the one under the pointer with its size."""
    painter.setBrush(Qt.BrushStyle.NoBrush)
    half = theme.px(4)
    for mark in marks.slivers:
        spot = at(mark.x, mark.y)  # type: ignore[operator]
        painter.setPen(QPen(theme.colour("oxide"), 2.2 if mark is over else 1.3))
        painter.drawRect(QRectF(spot.x() - half, spot.y() - half, 2 * half, 2 * half))
    if over is not None:
        spot = at(over.x, over.y)  # type: ignore[operator]
        text = tr("{wide} × {tall} mm; click to see it", wide=format_number(over.sliver.wide, decimals=0),
                  tall=format_number(over.sliver.tall, decimals=0))  # fmt: skip
        painter.setFont(theme.font(11))
        width = painter.fontMetrics().horizontalAdvance(text) + theme.px(12)
        left = min(max(2.0, spot.x() - width / 2), painter.window().width() - width - 2.0)
        box = QRectF(left, spot.y() - theme.px(28), width, theme.px(18))
        painter.setPen(theme.colour("line"))
        painter.setBrush(theme.colour("white"))
        painter.drawRect(box)
        painter.setPen(theme.colour("ink"))
        painter.drawText(box, int(Qt.AlignmentFlag.AlignCenter), text)


def paint_sides(painter: QPainter, marks: Marks, at: object) -> bool:
    """A chain of widths under the chosen part; whether there was one."""
    if len(marks.sides) < 2:
        return False
    painter.setFont(theme.font(10, mono=True))
    metrics = painter.fontMetrics()
    y = at(marks.sides[0], marks.foot).y() + theme.px(10)  # type: ignore[operator]
    painter.setPen(QPen(theme.colour("ink_2"), 1.0))
    spots = [at(side, marks.foot).x() for side in marks.sides]  # type: ignore[operator]
    painter.drawLine(QPointF(spots[0], y), QPointF(spots[-1], y))
    for x in spots:
        painter.drawLine(QPointF(x - 3, y + 3), QPointF(x + 3, y - 3))
    for (a, b), (x, z) in zip(itertools.pairwise(marks.sides), itertools.pairwise(spots), strict=True):
        text = format_number(b - a, decimals=0)
        if metrics.horizontalAdvance(text) < z - x - 6:
            painter.drawText(QRectF(x, y + 1, z - x, theme.px(14)), int(Qt.AlignmentFlag.AlignHCenter), text)
    return True
