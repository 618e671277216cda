"""Handles as they are drawn on the build board: white with a dark line, chalk blue for what lines up."""

from __future__ import annotations

import itertools

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen

from ... import theme
from ...board import Board
from .surface_handles import Handle, Handles


def paint_handles(painter: QPainter, board: Board, shown: Handles, chosen: str) -> None:
    """Lines first, handles over them."""
    for points in shown.lines:
        for a, b in itertools.pairwise([board.to_screen(*p) for p in points]):
            painter.setPen(QPen(theme.colour("white"), 2.2))
            painter.drawLine(a, b)
            painter.setPen(QPen(theme.colour("chalk_line"), 1.1))
            painter.drawLine(a, b)
    for handle in shown.handles:
        _paint(painter, board.to_screen(handle.x, handle.y), handle, handle.name == chosen)


def _paint(painter: QPainter, at: QPointF, handle: Handle, chosen: bool) -> None:
    painter.setPen(QPen(theme.colour("ink"), 1.2))
    painter.setBrush(theme.colour("chalk_line" if chosen else "white"))
    half = theme.px(4)
    if handle.kind == "corner":
        painter.drawRect(QRectF(at.x() - half, at.y() - half, 2 * half, 2 * half))
    elif handle.kind == "middle":
        painter.drawEllipse(at, half + 1, half + 1)
        painter.drawLine(at - QPointF(half, 0), at + QPointF(half, 0))
        painter.drawLine(at - QPointF(0, half), at + QPointF(0, half))
    else:
        painter.drawEllipse(at, half, half)
    painter.setBrush(Qt.BrushStyle.NoBrush)
