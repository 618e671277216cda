"""Hatches, as on a construction drawing: each layer owns one."""

from __future__ import annotations

import math
from collections.abc import Callable
from functools import lru_cache

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QBrush, QColor, QIcon, QPainter, QPainterPath, QPen, QPixmap

from ...core.buildup.hatches import HATCH_GROUNDS, hatch_ground
from .. import theme

_SIDE = 12
_Lines = Callable[[QPainter], None]


def _slant(painter: QPainter) -> None:
    for offset in (-12, -6, 0, 6, 12):
        painter.drawLine(QPointF(offset, 12), QPointF(offset + 12, 0))


def _upright(painter: QPainter) -> None:
    for x in (2, 6, 10):
        painter.drawLine(QPointF(x, 0), QPointF(x, 12))


def _level(painter: QPainter) -> None:
    for y in (2, 6, 10):
        painter.drawLine(QPointF(0, y), QPointF(12, y))


def _grid(painter: QPainter) -> None:
    for at in (3, 9):
        painter.drawLine(QPointF(at, 0), QPointF(at, 12))
        painter.drawLine(QPointF(0, at), QPointF(12, at))


def _cross(painter: QPainter) -> None:
    for offset in (-12, 0, 12):
        painter.drawLine(QPointF(offset, 12), QPointF(offset + 12, 0))
        painter.drawLine(QPointF(offset, 0), QPointF(offset + 12, 12))


def _dots(painter: QPainter) -> None:
    for x, y in ((2, 3), (8, 1), (5, 7), (10, 9), (1, 10)):
        painter.drawEllipse(QPointF(x, y), 0.7, 0.7)


def _stones(painter: QPainter) -> None:
    for x, y, w, h in ((1, 1, 5, 4), (7, 2, 4, 5), (2, 7, 6, 4)):
        painter.drawEllipse(QRectF(x, y, w, h))


def _waves(painter: QPainter) -> None:
    for y in (3, 9):
        path = QPainterPath(QPointF(0, y))
        path.cubicTo(QPointF(2, y - 3), QPointF(4, y - 3), QPointF(6, y))
        path.cubicTo(QPointF(8, y + 3), QPointF(10, y + 3), QPointF(12, y))
        painter.drawPath(path)


_LINES: dict[str, _Lines] = {
    "slant": _slant,
    "dots": _dots,
    "upright": _upright,
    "stones": _stones,
    "grid": _grid,
    "cross": _cross,
    "waves": _waves,
    "level": _level,
}
HATCHES = tuple(HATCH_GROUNDS)
assert set(HATCHES) == set(_LINES)


def hatch_word(name: str) -> str:
    """A hatch in words: a level is only a height."""
    return "across" if name == "level" else name


def next_hatch(taken: set[str]) -> str:
    """The first hatch no other layer has, or the first of all."""
    return next((name for name in HATCHES if name not in taken), next(iter(HATCHES)))


@lru_cache(maxsize=64)
def brush(name: str, ink: str = theme.LIGHT.ink) -> QBrush:
    """A hatch as a fill."""
    lines, ground = _LINES.get(name, _slant), hatch_ground(name)
    pixmap = QPixmap(_SIDE * 2, _SIDE * 2)
    pixmap.setDevicePixelRatio(2)
    pixmap.fill(QColor(ground))
    painter = QPainter(pixmap)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    shade = QColor(ink)
    shade.setAlpha(150)
    painter.setPen(QPen(shade, 0.9))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    lines(painter)
    painter.end()
    return QBrush(pixmap)


@lru_cache(maxsize=256)
def _field(name: str, width: int, height: int, ratio: float) -> QPixmap:
    """A field of a hatch, drawn once: filling with a pattern is slow, and lists are painted often."""
    made = QPixmap(math.ceil(width * ratio), math.ceil(height * ratio))
    made.setDevicePixelRatio(ratio)
    painter = QPainter(made)
    painter.fillRect(QRectF(0, 0, width, height), brush(name))
    painter.end()
    return made


def paint_key(painter: QPainter, rect: QRectF, name: str) -> None:
    """The hatch key of a layer: a small framed field."""
    device = painter.device()
    ratio = device.devicePixelRatio() if device is not None else 1.0
    painter.drawPixmap(rect.topLeft(), _field(name, math.ceil(rect.width()), math.ceil(rect.height()), ratio))
    painter.setPen(QPen(theme.colour("ink_2"), 1))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawRect(rect)


def hatch_icon(name: str) -> QIcon:
    """A hatch as an icon."""
    side = theme.px(16)
    pixmap = QPixmap(side * 2, side * 2)
    pixmap.setDevicePixelRatio(2)
    painter = QPainter(pixmap)
    paint_key(painter, QRectF(0.5, 0.5, side - 1, side - 1), name)
    painter.end()
    return QIcon(pixmap)
