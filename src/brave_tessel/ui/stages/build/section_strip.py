"""The section along the chalk line: each layer's own body with its hatch, heights drawn steeper."""

from __future__ import annotations

import math

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen, QPixmap, QPolygonF
from PyQt6.QtWidgets import QWidget

from ....core.buildup.kind import kind_of
from ....core.job.layers import Layer
from ....core.quantity import format_length, format_number
from ....core.relief.section import Section, cut_along
from ....core.sheet import AnyArray
from ....engine.pictures.results import SurfacePicture
from ... import theme
from ...controls.hatch import brush
from ...words import tr


class SectionStrip(QWidget):
    """Draws; the heights come with the evaluated surface."""

    def __init__(self) -> None:
        super().__init__()
        self.setMinimumHeight(theme.px(120))
        self.setMouseTracking(True)
        self.done: SurfacePicture | None = None
        self.section: Section | None = None
        self.pointer: float | None = None
        self.angle = 0.0
        self.times = 0
        self.measure: list[tuple[float, float]] = []
        self._bodies: tuple[object, QPixmap] | None = None
        self.setAccessibleName(tr("Section along the cut"))

    def show_picture(self, done: SurfacePicture | None, y_mm: float, angle: float = 0.0) -> None:
        self.done, self.angle = done, angle
        self.section = cut_along(done.beds, y_mm, angle) if done else None
        self._bodies = None
        self.update()

    def _frame(self) -> QRectF:
        return QRectF(
            theme.px(44), theme.px(30), max(10, self.width() - theme.px(58)), max(10, self.height() - theme.px(46))
        )

    def _exaggeration(self, frame: QRectF) -> int:
        """How much steeper heights are drawn: a round number that uses the strip's height."""
        assert self.section is not None
        assert self.done is not None
        per_mm = frame.width() / self.done.grid.width_mm
        spread = max(self.section.high - self.section.low, 0.05) * 1.35
        wanted = frame.height() / (per_mm * spread)
        if self.times:
            return self.times
        steps = [1, 2, 4, 5, 8, 10, 16, 20, 30, 40]
        return max((step for step in steps if step <= wanted), default=1)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setFont(theme.font(12, weight=600))
        painter.setPen(theme.colour("ink"))
        painter.drawText(
            QRectF(theme.px(12), theme.px(6), 200, theme.px(18)), Qt.AlignmentFlag.AlignVCenter, tr("Section A")
        )
        if self.section is None or self.done is None or len(self.section.heights) < 2:
            return
        frame = self._frame()
        times = self._exaggeration(frame)
        painter.setFont(theme.font(11))
        painter.setPen(theme.colour("ink_2"))
        box = QRectF(theme.px(82), theme.px(6), 300, theme.px(18))
        painter.drawText(
            box,
            Qt.AlignmentFlag.AlignVCenter,
            tr("heights ×{times} · click to change", times=times)
            if self.times
            else tr("heights ×{times}, as fits · click to change", times=times),
        )
        right = QRectF(frame.left(), theme.px(6), frame.width(), theme.px(18))
        told = "at {place} turned {angle:g}° · {width} wide" if self.angle else "at {place} · {width} wide"
        place, width = format_length(self.section.y_mm), format_length(self.done.grid.width_mm)
        note = tr(told, place=place, angle=self.angle, width=width)
        painter.setFont(theme.font(11, mono=True))
        painter.drawText(right, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight, note)
        painter.drawPixmap(0, 0, self._drawn_bodies(frame, times))
        self._paint_scale(painter, frame, times)
        self._paint_water_level(painter, frame, times)
        self._paint_pointer(painter, frame)
        self._paint_measure(painter, frame, times)

    def _y(self, frame: QRectF, times: int, mm: float) -> float:
        assert self.section is not None
        assert self.done is not None
        per_mm = frame.width() / self.done.grid.width_mm * times
        middle = (self.section.high + self.section.low) / 2
        return float(frame.center().y() - (mm - middle) * per_mm)

    def _drawn_bodies(self, frame: QRectF, times: int) -> QPixmap:
        """The layers, drawn once for a section, a size and a face; the pointer and the measure move over them."""
        ratio = self.devicePixelRatioF()
        key = (self.width(), self.height(), times, ratio, theme.colour("panel").name())
        if self._bodies is None or self._bodies[0] != key:
            made = QPixmap(round(self.width() * ratio), round(self.height() * ratio))
            made.setDevicePixelRatio(ratio)
            made.fill(Qt.GlobalColor.transparent)
            painter = QPainter(made)
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            self._paint_bodies(painter, frame, times)
            painter.end()
            self._bodies = (key, made)
        return self._bodies[1]

    def _paint_bodies(self, painter: QPainter, frame: QRectF, times: int) -> None:
        assert self.section is not None
        assert self.done is not None
        section, width = self.section, self.done.grid.width_mm
        index = np.arange(0, section.x_mm.size, max(1, math.floor(section.x_mm.size / (2 * frame.width()))))
        xs = frame.left() + section.x_mm[index] / width * frame.width()
        middle, per_mm = (section.high + section.low) / 2, frame.width() / width * times
        lines = frame.center().y() - (section.heights[:, index].astype(np.float64) - middle) * per_mm
        painter.setClipRect(frame.adjusted(0, -theme.px(4), 0, theme.px(5)))
        for body in range(1, len(lines)):
            lower = lines[body - 1] if body > 1 else None
            self._paint_body(
                painter, frame, times, xs, lines[body], lower, self.done.surface.layers[section.numbers[body - 1]]
            )

    def _paint_body(
        self,
        painter: QPainter,
        frame: QRectF,
        times: int,
        xs: AnyArray,
        own: AnyArray,
        lower: AnyArray | None,
        layer: Layer,
    ) -> None:
        """One layer: hatched where it lies on what was there, void where it is cut into it."""
        water = kind_of(layer.what).fills
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(brush("waves" if water and lower is not None else layer.hatch))
        if lower is None:
            floor = np.full_like(own, frame.bottom() + theme.px(4))
            painter.drawPolygon(_between(xs, own, floor))
        else:
            painter.drawPolygon(_between(xs, np.minimum(own, lower), lower))
            if (own > lower + 0.5).any():
                painter.setBrush(theme.colour("panel"))
                painter.drawPolygon(_between(xs, np.maximum(own, lower), lower))
        painter.setPen(QPen(theme.colour("ink"), 1))
        if kind_of(layer.what).fills:
            self._paint_water(painter, frame, kind_of(layer.what).level(layer), times)
        else:
            painter.drawPolyline(QPolygonF(list(map(QPointF, xs.tolist(), own.tolist()))))

    def _paint_water(self, painter: QPainter, frame: QRectF, level: float, times: int) -> None:
        """The water's level as a dashed line."""
        y = self._y(frame, times, level)
        painter.setPen(QPen(theme.colour("ink_2"), 1, Qt.PenStyle.DashLine))
        painter.drawLine(QPointF(frame.left(), y), QPointF(frame.right(), y))
        painter.setPen(QPen(theme.colour("ink"), 1))

    def _paint_water_level(self, painter: QPainter, frame: QRectF, times: int) -> None:
        """The height of the water, over the ground at the right end."""
        assert self.section is not None
        assert self.done is not None
        layers = [self.done.surface.layers[number] for number in self.section.numbers]
        levels = [kind_of(layer.what).level(layer) for layer in layers if kind_of(layer.what).fills]
        if not levels:
            return
        painter.setFont(theme.font(10, mono=True))
        told = tr("water {names} mm", names=" and ".join(format_number(level, decimals=2) for level in levels))
        wide = painter.fontMetrics().horizontalAdvance(told) + theme.px(8)
        under = self.section.heights[:, int((1 - wide / frame.width()) * self.section.x_mm.size) :]
        top = self._y(frame, times, max(float(under.max()), *levels, 0.0))
        tag = QRectF(frame.right() - wide, max(top - theme.px(18), frame.top() - theme.px(4)), wide, theme.px(15))
        painter.fillRect(tag, theme.colour("panel"))
        painter.setPen(theme.colour("ink"))
        painter.drawText(tag, Qt.AlignmentFlag.AlignCenter, told)

    def _paint_measure(self, painter: QPainter, frame: QRectF, times: int) -> None:
        """The dimension between two clicks."""
        if not self.measure or self.done is None:
            return
        places = [
            QPointF(frame.left() + x / self.done.grid.width_mm * frame.width(), self._y(frame, times, z))
            for x, z in self.measure
        ]
        painter.setPen(QPen(theme.colour("chalk_line"), 1.4))
        for at in places:
            painter.drawEllipse(at, 3, 3)
        if len(places) < 2:
            return
        painter.drawLine(places[0], places[1])
        (x0, z0), (x1, z1) = self.measure
        told = tr(
            "{number} mm · across {number_2} · up {number_3}",
            number=format_number(math.hypot(x1 - x0, z1 - z0)),
            number_2=format_number(abs(x1 - x0)),
            number_3=format_number(z1 - z0),
        )
        painter.setFont(theme.font(10, mono=True))
        width = painter.fontMetrics().horizontalAdvance(told) + theme.px(10)
        middle = (places[0] + places[1]) / 2
        box = QRectF(
            min(max(middle.x() - width / 2, frame.left()), frame.right() - width),
            max(middle.y() - theme.px(24), frame.top()),
            width,
            theme.px(17),
        )
        painter.setBrush(theme.colour("white"))
        painter.drawRect(box)
        painter.setPen(theme.colour("ink"))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, told)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """A click on the words changes how steep heights are drawn; two clicks in the section measure."""
        if event is None or self.section is None or self.done is None:
            return
        frame = self._frame()
        if event.position().y() < frame.top():
            steps = [0, 1, 2, 5, 10, 20, 40]
            self.times = steps[(steps.index(self.times) + 1) % len(steps)]
            self.update()
            return
        x = (event.position().x() - frame.left()) / frame.width() * self.done.grid.width_mm
        if not 0 <= x < self.done.grid.width_mm:
            return
        column = int(x / self.done.grid.width_mm * self.section.x_mm.size)
        # A click near the surface takes the surface; elsewhere the place itself.
        here, times = float(self.section.heights[-1][column]), self._exaggeration(frame)
        per_mm = frame.width() / self.done.grid.width_mm * times
        free = (self.section.high + self.section.low) / 2 - (event.position().y() - frame.center().y()) / per_mm
        place = (x, here if abs(free - here) * per_mm < theme.px(10) else free)
        self.measure = [place] if len(self.measure) != 1 else [self.measure[0], place]
        self.update()

    def _paint_scale(self, painter: QPainter, frame: QRectF, times: int) -> None:
        """Levels at the left, in mm, and the zero line."""
        assert self.section is not None
        spread = self.section.high - self.section.low
        per_mm = abs(self._y(frame, times, 1) - self._y(frame, times, 0))
        # Far enough apart to be read.
        step = next(
            (s for s in (0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50) if s >= spread / 4 and s * per_mm >= theme.px(14)), 100
        )
        painter.setFont(theme.font(9, mono=True))
        low = math.ceil(self.section.low / step)
        for k in range(low, math.floor(self.section.high / step) + 1):
            y = self._y(frame, times, k * step)
            painter.setPen(theme.colour("ink_2"))
            text = format_number(k * step, decimals=1)
            box = QRectF(0, y - theme.px(7), frame.left() - theme.px(8), theme.px(14))
            painter.drawText(box, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, text)
            painter.setPen(QPen(theme.colour("ink_3"), 1))
            painter.drawLine(QPointF(frame.left() - theme.px(5), y), QPointF(frame.left(), y))
            if k == 0:
                painter.setPen(QPen(theme.colour("chalk_line"), 1, Qt.PenStyle.DashLine))
                painter.drawLine(QPointF(frame.left(), y), QPointF(frame.right(), y))
        painter.setPen(QPen(theme.colour("ink"), 1))
        painter.drawLine(frame.topLeft(), frame.bottomLeft())

    def _paint_pointer(self, painter: QPainter, frame: QRectF) -> None:
        if self.pointer is None or self.section is None or self.done is None:
            return
        x = frame.left() + self.pointer / self.done.grid.width_mm * frame.width()
        painter.setPen(QPen(theme.colour("chalk_line"), 1))
        painter.drawLine(QPointF(x, frame.top()), QPointF(x, frame.bottom()))

    def show_pointer(self, x_mm: float | None) -> None:
        """Mark where the pointer is on the board."""
        self.pointer = None if x_mm is None or self.done is None else x_mm % self.done.grid.width_mm
        self.update()

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self.section is None or self.done is None:
            return
        frame = self._frame()
        share = (event.position().x() - frame.left()) / frame.width()
        if 0 <= share < 1:
            column = int(share * self.section.x_mm.size)
            x, height = self.section.x_mm[column], self.section.heights[-1][column]
            self.setToolTip(tr("x {x:.1f} mm, height {height:.2f} mm", x=x, height=height))


def _between(xs: AnyArray, upper: AnyArray, lower: AnyArray) -> QPolygonF:
    """The ground between two lines over the same places."""
    if np.array_equal(upper, lower):
        return QPolygonF()
    there = list(map(QPointF, xs.tolist(), upper.tolist()))
    back = list(map(QPointF, xs[::-1].tolist(), lower[::-1].tolist()))
    return QPolygonF([*there, *back])
