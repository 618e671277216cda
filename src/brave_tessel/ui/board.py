"""The board: a picture on neutral grey, with rulers, zoomed as drawings are."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
from PyQt6.QtCore import QPointF, QRect, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QBrush,
    QImage,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QPixmap,
    QResizeEvent,
    QTransform,
    QWheelEvent,
)
from PyQt6.QtWidgets import QWidget

from ..core.quantity import format_number
from ..core.sheet import AnyArray
from . import theme

SCALES = (1, 2, 5, 10, 20, 50, 100)


def to_image(codes: AnyArray) -> QImage:
    """A picture (H, W, 3) uint8 as an image that owns its pixels."""
    rows, columns = codes.shape[:2]
    data = np.ascontiguousarray(codes)
    return QImage(data.tobytes(), columns, rows, 3 * columns, QImage.Format.Format_RGB888).copy()


def to_pixmaps(mips: Sequence[AnyArray]) -> list[QPixmap]:
    """A chain of pictures as pixmaps."""
    return [QPixmap.fromImage(to_image(codes)) for codes in mips]


def lay_wrapped(pixmap: QPixmap, part: QImage, x: int, y: int, times: int = 1) -> None:
    """Lay a part into a picture that wraps, enlarged so many ``times``; ``x`` and ``y`` may lie outside it."""
    width, height = pixmap.width(), pixmap.height()
    wide, high = times * part.width(), times * part.height()
    painter = QPainter(pixmap)
    painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform, times > 1)
    painter.setCompositionMode(QPainter.CompositionMode.CompositionMode_Source)
    for left in range(x % width - width, width, width):
        for top in range(y % height - height, height, height):
            if left + wide > 0 and top + high > 0:
                painter.drawImage(QRect(left, top, wide, high), part)
    painter.end()


def tile(painter: QPainter, mips: Sequence[QPixmap], target: QRectF, cell: QRectF, *, smooth: bool = True) -> None:
    """Fill ``target`` with repeats of a picture of which one fills ``cell``, all in screen pixels.

    The smaller version is taken that has at least one pixel a screen pixel, so nothing shimmers.
    """
    if not mips or cell.width() < 1 or cell.height() < 1:
        return
    mip = 0
    while mip + 1 < len(mips) and mips[mip + 1].width() >= cell.width():
        mip += 1
    pixmap = mips[mip]
    brush = QBrush(pixmap)
    place = QTransform.fromTranslate(cell.left(), cell.top())
    place.scale(cell.width() / pixmap.width(), cell.height() / pixmap.height())
    brush.setTransform(place)
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform, smooth and cell.width() < 6 * pixmap.width())
    painter.fillRect(target, brush)
    painter.restore()


class Board(QWidget):
    """World coordinates are mm, y up (or photo pixels, y down). Subclasses paint and handle the left button.

    Wheel zooms about the pointer, the middle button or Space pans, the right button turns the light.
    """

    probed = pyqtSignal(float, float)
    left_board = pyqtSignal()
    light_turned = pyqtSignal(float, float)
    view_changed = pyqtSignal()

    def __init__(self, name: str, *, y_up: bool = True, rulers: bool = True) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)
        self.y_up = y_up
        self.rulers = rulers
        self.scale = 1.0
        self.centre = (0.0, 0.0)
        self.fitted = True
        self._pan_from: QPointF | None = None
        self._light_from: QPointF | None = None
        self._space = False
        self._rulers: tuple[tuple[object, ...], list[QPixmap]] | None = None

    def sizeHint(self) -> QSize:
        return QSize(theme.px(640), theme.px(480))

    # Coordinates ---------------------------------------------------------------------------------

    def inset(self) -> float:
        """Width of the rulers."""
        return theme.px(19) if self.rulers else 0.0

    def picture_area(self) -> QRectF:
        inset = self.inset()
        return QRectF(inset, inset, max(1.0, self.width() - inset), max(1.0, self.height() - inset))

    def to_screen(self, x: float, y: float) -> QPointF:
        middle = self.picture_area().center()
        sign = -1 if self.y_up else 1
        return QPointF(
            middle.x() + (x - self.centre[0]) * self.scale, middle.y() + sign * (y - self.centre[1]) * self.scale
        )

    def to_world(self, point: QPointF) -> tuple[float, float]:
        middle = self.picture_area().center()
        sign = -1 if self.y_up else 1
        return (
            self.centre[0] + (point.x() - middle.x()) / self.scale,
            self.centre[1] + sign * (point.y() - middle.y()) / self.scale,
        )

    def world_rect(self, left: float, low: float, width: float, height: float) -> QRectF:
        """Screen rectangle of a world rectangle given by its smallest corner."""
        a, b = self.to_screen(left, low), self.to_screen(left + width, low + height)
        return QRectF(a, b).normalized()

    def extent(self) -> tuple[float, float, float, float]:
        """What fitting shows: left, low, width, height. Subclasses say."""
        return 0.0, 0.0, 100.0, 100.0

    def reference_place(self) -> tuple[QPointF, float] | None:
        """Where the sheet's lower left corner lies and how large a millimetre is; None without a scale."""
        return (self.to_screen(0, 0), self.scale) if self.y_up else None

    def fit(self) -> None:
        """Show everything."""
        left, low, width, height = self.extent()
        area = self.picture_area()
        margin = theme.px(16)
        self.scale = max(
            1e-4, min((area.width() - 2 * margin) / max(width, 1e-6), (area.height() - 2 * margin) / max(height, 1e-6))
        )
        self.centre = (left + width / 2, low + height / 2)
        self.fitted = True
        self.view_changed.emit()
        self.update()

    def px_per_mm_at(self, one_to: float) -> float:
        """Screen pixels a millimetre at a drawing scale, by the monitor's true density."""
        screen = self.screen()
        return (screen.physicalDotsPerInch() if screen else 96.0) / 25.4 / one_to

    def set_scale(self, px_per_unit: float) -> None:
        self.scale = px_per_unit
        self.fitted = False
        self.view_changed.emit()
        self.update()

    def scale_name(self) -> str:
        """``1 : 5`` by the monitor's true density."""
        ratio = self.px_per_mm_at(1) / self.scale
        if ratio < 1:
            return f"{format_number(1 / ratio, decimals=1)} : 1"
        return f"1 : {format_number(ratio, decimals=1 if ratio < 10 else 0)}"

    # Events --------------------------------------------------------------------------------------

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        if self.fitted:
            self.fit()

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is None:
            return
        before = self.to_world(event.position())
        factor = 1.0015 ** event.angleDelta().y()
        self.scale = min(400.0, max(1e-3, self.scale * factor))
        after = self.to_world(event.position())
        self.centre = (self.centre[0] + before[0] - after[0], self.centre[1] + before[1] - after[1])
        self.fitted = False
        self.view_changed.emit()
        self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        self.setFocus()
        if event.button() == Qt.MouseButton.MiddleButton or (
            event.button() == Qt.MouseButton.LeftButton and self._space
        ):
            self._pan_from = event.position()
            self.setCursor(Qt.CursorShape.ClosedHandCursor)
        elif event.button() == Qt.MouseButton.RightButton:
            self._light_from = event.position()
        elif event.button() == Qt.MouseButton.LeftButton:
            self.press(event.position(), event.modifiers())

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        here = event.position()
        if self._pan_from is not None:
            before, after = self.to_world(self._pan_from), self.to_world(here)
            self.centre = (self.centre[0] + before[0] - after[0], self.centre[1] + before[1] - after[1])
            self._pan_from = here
            self.fitted = False
            self.view_changed.emit()
            self.update()
        elif self._light_from is not None:
            moved = here - self._light_from
            self._light_from = here
            self.light_turned.emit(moved.x(), moved.y())
        elif event.buttons() & Qt.MouseButton.LeftButton:
            self.drag(here, event.modifiers())
        else:
            self.hover(here)
        self.probed.emit(*self.to_world(here))

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self._pan_from is not None:
            self._pan_from = None
            self.unsetCursor()
        elif self._light_from is not None:
            self._light_from = None
        elif event and event.button() == Qt.MouseButton.LeftButton:
            self.release(event.position())

    def leaveEvent(self, event: object) -> None:
        self.left_board.emit()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        if event.key() == Qt.Key.Key_Space and not event.isAutoRepeat():
            self._space = True
            self.setCursor(Qt.CursorShape.OpenHandCursor)
        else:
            super().keyPressEvent(event)

    def keyReleaseEvent(self, event: QKeyEvent | None) -> None:
        if event and event.key() == Qt.Key.Key_Space and not event.isAutoRepeat():
            self._space = False
            self.unsetCursor()

    def press(self, at: QPointF, modifiers: Qt.KeyboardModifier) -> None:
        """Left button down."""

    def drag(self, at: QPointF, modifiers: Qt.KeyboardModifier) -> None:
        """Moved with the left button down."""

    def release(self, at: QPointF) -> None:
        """Left button up."""

    def hover(self, at: QPointF) -> None:
        """Moved with no button."""

    # Painting ------------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), theme.colour("board"))
        painter.save()
        painter.setClipRect(self.picture_area())
        self.paint_picture(painter)
        painter.restore()
        if self.rulers:
            self._paint_rulers(painter)
        self.paint_over(painter)

    def paint_picture(self, painter: QPainter) -> None:
        """The picture, clipped to the picture area."""

    def paint_over(self, painter: QPainter) -> None:
        """What lies over the rulers."""

    def ruler_factor(self) -> float:
        """World units in one millimetre on the ruler."""
        return 1.0

    def _paint_rulers(self, painter: QPainter) -> None:
        """Both rulers, drawn anew only where the view has moved: a stroke paints the board many times a second."""
        ratio, inset = self.devicePixelRatioF(), math.ceil(self.inset())
        seen = (self.width(), self.height(), ratio, self.scale, self.centre, self.ruler_factor(), id(theme.tokens()))
        if self._rulers is None or self._rulers[0] != seen:
            strips = []
            for width, height in ((self.width(), inset), (inset, self.height())):
                strip = QPixmap(math.ceil(width * ratio), math.ceil(height * ratio))
                strip.setDevicePixelRatio(ratio)
                on_strip = QPainter(strip)
                self._draw_rulers(on_strip)
                on_strip.end()
                strips.append(strip)
            self._rulers = (seen, strips)
        for strip in self._rulers[1]:
            painter.drawPixmap(0, 0, strip)

    def _draw_rulers(self, painter: QPainter) -> None:
        inset = self.inset()
        painter.fillRect(QRectF(0, 0, self.width(), inset), theme.colour("panel"))
        painter.fillRect(QRectF(0, 0, inset, self.height()), theme.colour("panel"))
        painter.setPen(QPen(theme.colour("line"), 1))
        painter.drawLine(QPointF(0, inset - 0.5), QPointF(self.width(), inset - 0.5))
        painter.drawLine(QPointF(inset - 0.5, 0), QPointF(inset - 0.5, self.height()))
        painter.setFont(theme.font(9, mono=True))
        painter.setPen(QPen(theme.colour("ink_2"), 1))
        step = self._ruler_step()
        self._ruler(painter, step, upright=False)
        self._ruler(painter, step, upright=True)
        painter.fillRect(QRectF(0, 0, inset - 1, inset - 1), theme.colour("panel"))

    def _ruler_step(self) -> float:
        wanted = theme.px(64) / self.scale
        power = 10 ** math.floor(math.log10(max(wanted, 1e-9)))
        return float(next(power * factor for factor in (1, 2, 5, 10) if power * factor >= wanted))

    def _ruler(self, painter: QPainter, step: float, *, upright: bool) -> None:
        inset = self.inset()
        area = self.picture_area()
        first, last = self.to_world(area.topLeft()), self.to_world(area.bottomRight())
        low, high = sorted((first[1], last[1]) if upright else (first[0], last[0]))
        fine = step / 10
        metres = step >= 1000
        for index in range(math.floor(low / fine), math.ceil(high / fine) + 1):
            value = index * fine
            whole = index % 10 == 0
            length = inset * (0.6 if whole else 0.36 if index % 5 == 0 else 0.2)
            point = self.to_screen(value, value)
            if upright:
                y = round(point.y()) + 0.5
                if y > inset:
                    painter.drawLine(QPointF(inset - length, y), QPointF(inset - 1, y))
            else:
                x = round(point.x()) + 0.5
                if x > inset:
                    painter.drawLine(QPointF(x, inset - length), QPointF(x, inset - 1))
            if whole:
                self._ruler_number(painter, value / 1000 if metres else value, point, upright=upright)

    def _ruler_number(self, painter: QPainter, value: float, at: QPointF, *, upright: bool) -> None:
        inset = self.inset()
        text = format_number(value, decimals=1)
        if not upright and at.x() > inset:
            painter.drawText(QPointF(at.x() + 3, theme.px(9)), text)
        elif upright and at.y() > inset + theme.px(20):
            painter.save()
            painter.translate(theme.px(9), at.y() - 3)
            painter.rotate(-90)
            painter.drawText(QPointF(0, 0), text)
            painter.restore()
