"""Small line drawings of the layings and of made pieces, in the weight of the section's lines."""

from __future__ import annotations

import math
from functools import cache

import numpy as np
import numpy.typing as npt
from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QIcon, QPainter, QPainterPath, QPen, QPixmap, QPolygonF

from ....core.job.scene import Opening
from ....core.operation import find
from ....core.place.mesh import Mesh, Vector
from ....core.place.piece import Drawn
from ....core.place.snapping import edges
from ... import theme
from ...theme import ASSETS


@cache
def laying_icon(op: str, side: int = 28) -> QIcon:
    """A laying as a picture: what it is laid on, and how its lines run."""
    picture = QPixmap(side * 2, side * 2)
    picture.setDevicePixelRatio(2)
    picture.fill(Qt.GlobalColor.transparent)
    painter = QPainter(picture)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(QPen(theme.colour("ink"), 1.2))
    painter.translate(side / 2, side / 2)
    _LAYINGS.get(op, _flat)(painter)
    painter.end()
    return QIcon(picture)


def _flat(painter: QPainter) -> None:
    painter.drawRect(QRectF(-11, -8, 22, 16))
    painter.drawLine(QPointF(-11, 0), QPointF(11, 0))
    for x, y in ((-4, -8), (4, 0)):
        painter.drawLine(QPointF(x, y), QPointF(x, y + 8))


def _box(painter: QPainter) -> None:
    top = [(-10, -5), (0, -10), (10, -5), (0, 0)]
    painter.drawPolygon(QPolygonF([QPointF(*p) for p in top]))
    painter.drawPolyline(QPolygonF([QPointF(*p) for p in ((-10, -5), (-10, 6), (0, 11), (10, 6), (10, -5))]))
    painter.drawLine(QPointF(0, 0), QPointF(0, 11))


def _all_round(painter: QPainter) -> None:
    painter.drawEllipse(QPointF(0, 0), 9, 9)
    for dx, dy in ((1, 0), (0, 1), (-0.7, 0.7)):
        painter.drawLine(QPointF(-13 * dx, -13 * dy), QPointF(13 * dx, 13 * dy))


def _around(painter: QPainter) -> None:
    painter.drawEllipse(QPointF(0, -8), 9, 3)
    painter.drawLine(QPointF(-9, -8), QPointF(-9, 8))
    painter.drawLine(QPointF(9, -8), QPointF(9, 8))
    for y in (0, 8):
        painter.drawArc(QRectF(-9, y - 3, 18, 6), 180 * 16, 180 * 16)


def _path(painter: QPainter) -> None:
    for shift in (-4, 4):
        line = QPainterPath(QPointF(-12, 5 + shift))
        line.cubicTo(QPointF(-4, -12 + shift), QPointF(4, 14 + shift), QPointF(12, -4 + shift))
        painter.drawPath(line)
    for x, y in ((-6, -1), (1, 0.5), (7, 3)):
        painter.drawLine(QPointF(x - 1, y - 4), QPointF(x + 1, y + 4))


def _unwrapped(painter: QPainter) -> None:
    painter.drawPolygon(QPolygonF([QPointF(*p) for p in ((-12, -2), (-4, -9), (2, -2), (-5, 5))]))
    painter.drawPolygon(QPolygonF([QPointF(*p) for p in ((4, -8), (12, -8), (12, 0), (4, 0))]))
    painter.drawPolygon(QPolygonF([QPointF(*p) for p in ((0, 10), (3, 3), (12, 5), (9, 11))]))


def _pinned(painter: QPainter) -> None:
    corners = [QPointF(*p) for p in ((-11, -6), (9, -10), (12, 8), (-9, 10))]
    painter.drawPolygon(QPolygonF(corners))
    painter.setBrush(theme.colour("ink"))
    for corner in corners:
        painter.drawEllipse(corner, 1.8, 1.8)


_LAYINGS = {
    "laying.flat": _flat,
    "laying.box": _box,
    "laying.all_round": _all_round,
    "laying.around": _around,
    "laying.path": _path,
    "laying.unwrapped": _unwrapped,
    "laying.pinned": _pinned,
}


PIECES = ASSETS / "pieces"
"""Drawings of all made pieces as they ship: to draw a figure or a cloth takes seconds. Written by ``./dev docs``."""


@cache
def piece_icon(op: str) -> QIcon:
    """The drawing of a made piece; drawn here and now where none ships."""
    path = PIECES / f"{op.removeprefix('made.')}.png"
    if not path.is_file():
        return QIcon(piece_picture(op))
    picture = QPixmap(str(path))
    picture.setDevicePixelRatio(2)
    return QIcon(picture)


@cache
def piece_picture(op: str, width: int = 92, height: int = 64) -> QPixmap:
    """A made piece as a line drawing: its own edges, seen from the south-east above, those behind left out."""
    picture = QPixmap(width * 2, height * 2)
    picture.setDevicePixelRatio(2)
    picture.fill(Qt.GlobalColor.transparent)
    operation = find(op)
    if not operation.known:
        return picture
    made = operation.run(_sample(op), **operation.bind(_SAMPLES.get(op, {})))
    painter = QPainter(picture)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    _draw(painter, made.mesh, width, height)
    painter.end()
    return picture


_SAMPLES: dict[str, dict[str, float | int | str | bool]] = {
    "made.wall": {"length": 3200.0, "height": 2600.0},
    "made.cloth": {"folds": 4.0},
    "made.tube": {"diameter": 90.0},
    "made.kerb": {"length": 1200.0},
    "made.moulding": {"length": 700.0, "profile": "cornice", "height": 260.0},
    "made.road": {"length": 6000.0},
    "made.parapet": {"length": 2600.0},
    "made.known": {"thing": "flat pallet"},
}


def _sample(op: str) -> Drawn:
    if op == "made.wall":
        return Drawn(openings=(Opening(id="a", left=1100.0, width=1000.0, sill=800.0, height=1300.0),))
    if op == "made.tube":
        return Drawn(path=((0.0, 0.0, 0.0), (0.0, 0.0, 900.0), (1200.0, 0.0, 900.0), (1200.0, 0.0, 0.0)))
    return Drawn()


def _draw(painter: QPainter, mesh: Mesh, width: int, height: int) -> None:
    """Faces that look to the eye filled with paper, from far to near, and their seen edges over them."""
    a, b = math.radians(-32), math.radians(24)
    right = np.array([math.cos(a), math.sin(a), 0.0])
    ahead = np.array([-math.sin(a) * math.cos(b), math.cos(a) * math.cos(b), -math.sin(b)])
    up = np.cross(right, ahead)
    flat = np.stack([mesh.points @ right, mesh.points @ up], 1)
    low, high = flat.min(0), flat.max(0)
    scale = float(min((width - 10) / max(high[0] - low[0], 1e-6), (height - 10) / max(high[1] - low[1], 1e-6)))
    middle = (low + high) / 2

    def at(point: Vector) -> QPointF:
        x, y = (np.array([point @ right, point @ up]) - middle) * scale
        return QPointF(width / 2 + float(x), height / 2 - float(y))

    seen = np.flatnonzero(mesh.normals @ ahead < -1e-6).astype(np.int64)
    order = seen[np.argsort(-(mesh.corners[seen].mean(1) @ ahead))]
    light = np.array([0.35, -0.6, 0.72])
    for face in order[:6000]:
        shade = float(np.clip(mesh.normals[face] @ light, 0, 1))
        tone = theme.colour("white")
        tone = tone.darker(int(100 + 26 * (1 - shade)))
        painter.setPen(QPen(tone, 0.7))
        painter.setBrush(tone)
        painter.drawPolygon(QPolygonF([at(point) for point in mesh.corners[face]]))
    painter.setPen(QPen(theme.colour("ink"), 1.0))
    for start, end in edges(mesh):
        middle_of = (start + end) / 2
        if _is_seen(mesh, seen, middle_of, ahead):
            painter.drawLine(at(start), at(end))


def _is_seen(mesh: Mesh, seen: npt.NDArray[np.int64], point: Vector, ahead: Vector) -> bool:
    """Whether no face that looks to the eye lies before a point."""
    a, b, c = (mesh.corners[seen, k] for k in range(3))
    eye = -ahead
    e1, e2 = b - a, c - a
    p = np.cross(eye, e2)
    determinant = np.einsum("ij,ij->i", e1, p)
    safe = np.where(np.abs(determinant) < 1e-9, np.nan, determinant)
    t = point + eye * 0.5 - a
    with np.errstate(invalid="ignore"):
        u = np.einsum("ij,ij->i", t, p) / safe
        q = np.cross(t, e1)
        v = (q @ eye) / safe
        away = np.einsum("ij,ij->i", e2, q) / safe
        return not bool(((u > 1e-4) & (v > 1e-4) & (u + v < 1 - 1e-4) & (away > 0.5)).any())
