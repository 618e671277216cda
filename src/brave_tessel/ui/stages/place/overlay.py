"""What is drawn over the model: datum, levels, measured lines, handles, and what the tool says."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QPainter, QPen

from ....core.job.scene import Line
from ....core.place.elevation import facets_of
from ....core.place.mesh import Vector
from ....core.quantity import format_length, format_level
from ... import theme
from ...words import tr

if TYPE_CHECKING:
    from .scene_view import SceneView


@dataclass(frozen=True, slots=True)
class Mark:
    """A point of the tool: where it lies, mm, and what is said beside it."""

    at: Vector
    text: str = ""


@dataclass(frozen=True, slots=True)
class Grip:
    """A handle as it is shown: which one, where it is and which way it is pulled, mm of the scene, and its size."""

    key: str
    at: Vector
    along: Vector
    text: str


class Overlay:
    """Chalk lines over the picture. Whoever owns it sets what is shown."""

    def __init__(self, view: SceneView) -> None:
        self.view = view
        self.mark: Mark | None = None
        self.trail: tuple[Vector, ...] = ()
        self.trail_text = ""
        self.closed = False
        self.grips: tuple[Grip, ...] = ()
        self.held = ""
        self.datum: tuple[Vector, Vector, str] | None = None
        self.levels: bool = True
        self.pins: tuple[tuple[Vector, str], ...] = ()
        self.note = ""
        self.spot: Vector | None = None

    def paint(self, painter: QPainter) -> None:
        """Everything, over the frame."""
        if self.view.site is None:
            return
        if self.levels:
            self._paint_levels(painter)
        self._paint_datum(painter)
        for line in self.view.site.scene.lines:
            self._paint_measure(painter, line)
        self._paint_grips(painter)
        self._paint_trail(painter)
        for at, text in self.pins:
            self._paint_point(painter, at, text, "ochre")
        if self.spot is not None:
            self._paint_spot(painter, self.spot)
        if self.mark is not None:
            self._paint_point(painter, self.mark.at, self.mark.text, "chalk_line")
        if self.note:
            self._paint_note(painter)

    def _paint_spot(self, painter: QPainter, spot: Vector) -> None:
        """A place that is looked at: a ring round it, and nothing over it."""
        at = self.view.on_screen(spot)
        if at is None:
            return
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for width, name in ((4.0, "white"), (2.0, "oxide")):
            painter.setPen(QPen(theme.colour(name), width))
            painter.drawEllipse(at, theme.px(16), theme.px(16))

    def _line(self, painter: QPainter, points: Sequence[Vector], width: float = 1.6, *, dashed: bool = False) -> None:
        places = [self.view.on_screen(point) for point in points]
        for a, b in itertools.pairwise(places):
            if a is None or b is None:
                continue
            painter.setPen(QPen(theme.colour("white"), width + 1.0))
            painter.drawLine(a, b)
            style = Qt.PenStyle.DashLine if dashed else Qt.PenStyle.SolidLine
            painter.setPen(QPen(theme.colour("chalk_line"), width, style))
            painter.drawLine(a, b)

    def _paint_levels(self, painter: QPainter) -> None:
        """Each named level as a dashed chalk line on the chosen part's upright faces."""
        site = self.view.site
        assert site is not None
        one = next((s for s in site.standing if s.part.id in self.view.chosen), None)
        if one is None:
            return
        upright = [f for f in facets_of(one)[:16] if abs(f.normal[2]) < 0.02 and f.normal @ self._toward(f) > 0]
        painter.setFont(theme.font(10, mono=True))
        for level in site.scene.levels:
            facing = [f for f in upright if f.low[1] - 1 <= level.height <= f.high[1] + 1]
            if not facing:
                continue
            for facet in facing:
                depth = float(one.mesh.corners[facet.faces[0], 0] @ facet.normal)
                start, end = (
                    facet.normal * depth + facet.along * s + np.array([0, 0, level.height])
                    for s in (facet.low[0], facet.high[0])
                )
                self._line(painter, (start, end), 1.0, dashed=True)
            shown = [at for at in map(self.view.on_screen, (start, end)) if at and self._in_sight(at)]
            if shown:
                at = min(shown, key=lambda place: place.x())
                self._tag(painter, at + QPointF(6, -4), f"{level.name} {format_level(level.height)}", "chalk_line")

    def _in_sight(self, at: QPointF) -> bool:
        return 0 <= at.x() <= self.view.width() - 60 and 90 <= at.y() <= self.view.height() - 10

    def _toward(self, facet: object) -> Vector:
        eye = self.view.camera.eye * 1000
        return np.asarray(eye - facet.standing.mesh.corners[facet.faces[0], 0])  # type: ignore[attr-defined]

    def _paint_datum(self, painter: QPainter) -> None:
        if self.datum is None:
            return
        point, along, _ = self.datum
        reach = 40 * self.view.mm_per_px(point)
        self._line(painter, (point - along * reach, point + along * reach), 2.0)
        self._line(painter, (point, point + np.array([0, 0, reach * 1.2])), 2.0)
        at = self.view.on_screen(point)
        if at is None:
            return
        painter.setPen(QPen(theme.colour("white"), 2))
        painter.setBrush(theme.colour("chalk_line"))
        painter.drawEllipse(at, theme.px(6), theme.px(6))
        painter.setFont(theme.font(11, mono=True))
        text = tr("datum  {level}", level=format_level(float(point[2])))
        self._tag(painter, at + QPointF(theme.px(12), theme.px(18)), text, "chalk_line")

    def _paint_measure(self, painter: QPainter, line: Line) -> None:
        start, end = np.array(line.start), np.array(line.end)
        self._measured(painter, start, end)

    def _measured(self, painter: QPainter, start: Vector, end: Vector) -> None:
        """A dimension line with oblique ticks and its length."""
        self._line(painter, (start, end), 1.4)
        a, b = self.view.on_screen(start), self.view.on_screen(end)
        if a is None or b is None:
            return
        painter.setPen(QPen(theme.colour("chalk_line"), 2.2))
        for at in (a, b):
            painter.drawLine(at + QPointF(-4, 4), at + QPointF(4, -4))
        painter.setFont(theme.font(11, mono=True))
        self._tag(
            painter, (a + b) / 2 + QPointF(6, -6), format_length(float(np.linalg.norm(end - start))), "chalk_line"
        )

    def _paint_trail(self, painter: QPainter) -> None:
        points = list(self.trail)
        if self.mark is not None and points:
            points.append(self.mark.at)
        if self.closed and len(points) > 2:
            points.append(points[0])
        if len(points) >= 2:
            self._line(painter, points, 1.8)
            if self.trail_text == "measure":
                self._measured(painter, points[0], points[-1])
        for at in self.trail:
            self._paint_point(painter, at, "", "chalk_line")

    def _paint_grips(self, painter: QPainter) -> None:
        painter.setFont(theme.font(10, mono=True))
        for grip in self.grips:
            at = self.view.on_screen(grip.at)
            if at is None:
                continue
            ahead = self.view.on_screen(grip.at + grip.along * 10 * self.view.mm_per_px(grip.at))
            held = grip.key == self.held
            painter.setPen(QPen(theme.colour("white"), 1.6))
            painter.setBrush(theme.colour("verdigris" if held else "chalk_line"))
            painter.drawRect(QRectF(at.x() - 4, at.y() - 4, 8, 8))
            if ahead is not None:
                painter.setPen(QPen(theme.colour("chalk_line"), 1.6))
                painter.drawLine(at, ahead)
            if held and grip.text:
                self._tag(painter, at + QPointF(9, -7), grip.text, "verdigris" if held else "chalk_line")

    def _paint_point(self, painter: QPainter, point: Vector, text: str, token: str) -> None:
        at = self.view.on_screen(point)
        if at is None:
            return
        painter.setPen(QPen(theme.colour("white"), 1.6))
        painter.setBrush(theme.colour(token))
        painter.drawEllipse(at, theme.px(4), theme.px(4))
        if text:
            painter.setFont(theme.font(11))
            self._tag(painter, at + QPointF(theme.px(10), -theme.px(8)), text, token)

    def _tag(self, painter: QPainter, at: QPointF, text: str, token: str) -> None:
        """Words on a small sign, its lower left corner at a place."""
        metrics = painter.fontMetrics()
        wide, tall = metrics.horizontalAdvance(text) + theme.px(12), metrics.height() + theme.px(3)
        left = min(max(at.x(), 2.0), self.view.width() - wide - 2.0)
        box = QRectF(left, min(max(at.y() - tall, 2.0), self.view.height() - tall - 2.0), wide, tall)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(theme.colour(token)))
        painter.drawRoundedRect(box, 3, 3)
        painter.setPen(theme.colour("on_ink"))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)

    def _paint_note(self, painter: QPainter) -> None:
        """One line at the lower left: what a click or a drop would do."""
        painter.setFont(theme.font(12))
        metrics = painter.fontMetrics()
        wide = min(metrics.horizontalAdvance(self.note) + theme.px(20), self.view.width() - theme.px(24))
        box = QRectF(theme.px(12), self.view.height() - theme.px(40), wide, theme.px(26))
        painter.setPen(QPen(theme.colour("line"), 1))
        painter.setBrush(theme.colour("white"))
        painter.drawRoundedRect(box, 3, 3)
        painter.setPen(theme.colour("ink"))
        text = metrics.elidedText(self.note, Qt.TextElideMode.ElideRight, int(wide - theme.px(16)))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
