"""Bands cut from a strip: a surface's picture on its side, on which bands are drawn by dragging, named and sized."""

from __future__ import annotations

from functools import partial

import msgspec
import numpy as np
from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QImage, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QLineEdit, QVBoxLayout, QWidget

from ....core.job.layers import Band, Surface
from ....core.job.nodes import new_id
from ....core.quantity import format_number
from ....core.sheet import AnyArray
from ....engine.intents import scene as intents
from ... import theme
from ...board import to_image
from ...controls.panels import Section, button, words
from ...desk import Desk
from ...words import tr
from .cards import length_field

LEAST_MM = 2.0
GRIP_PX = 6


class BandBoard(QWidget):
    """Drag up or down to cut a band, drag an edge to move it; Delete takes the chosen one out."""

    changed = pyqtSignal(object)
    chosen_changed = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setFixedHeight(theme.px(190))
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Bands of the surface"))
        self.surface: Surface | None = None
        self.image: QImage | None = None
        self.chosen = ""
        self.drawn: tuple[str, float, float] | None = None
        """What is being drawn: a band of that id or a new one, from and to, mm."""

    def show_surface(self, surface: Surface, picture: AnyArray | None, chosen: str) -> None:
        """Show a surface with its bands; sends nothing."""
        self.surface, self.chosen = surface, chosen
        self.image = to_image(np.ascontiguousarray(picture)) if picture is not None else None
        self.update()

    def _area(self) -> QRectF:
        assert self.surface is not None
        room = QRectF(self.rect()).adjusted(1, 1, -theme.px(52), -1)
        scale = room.height() / self.surface.height_mm
        wide = min(room.width(), max(self.surface.width_mm * scale, theme.px(60)))
        return QRectF(room.left(), room.top(), wide, room.height())

    def _y(self, mm: float) -> float:
        assert self.surface is not None
        area = self._area()
        return area.bottom() - mm / self.surface.height_mm * area.height()

    def _mm(self, y: float) -> float:
        assert self.surface is not None
        area = self._area()
        mm = (area.bottom() - y) / area.height() * self.surface.height_mm
        return round(min(max(mm, 0.0), self.surface.height_mm), 1)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        if self.surface is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        area = self._area()
        painter.fillRect(area, theme.colour("board"))
        if self.image is not None:
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
            painter.drawImage(area, self.image)
        painter.setFont(theme.font(10))
        for band in self.surface.bands:
            mine = band.id == self.chosen
            box = QRectF(QPointF(area.left(), self._y(band.high)), QPointF(area.right(), self._y(band.low)))
            painter.setPen(QPen(theme.colour("white"), 3.4 if mine else 2.6))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(box)
            painter.setPen(QPen(theme.colour("verdigris" if mine else "chalk_line"), 1.8 if mine else 1.2))
            painter.drawRect(box)
            if box.height() > theme.px(13):
                text, metrics = band.name, painter.fontMetrics()
                tag = QRectF(box.left() + 3, box.top() + 2, metrics.horizontalAdvance(text) + 8, theme.px(14))
                painter.fillRect(tag, theme.colour("verdigris" if mine else "chalk_line"))
                painter.setPen(theme.colour("on_ink"))
                painter.drawText(tag, int(Qt.AlignmentFlag.AlignCenter), text)
            painter.setPen(theme.colour("ink_2"))
            for mm in (band.low, band.high):
                painter.drawText(QPointF(area.right() + 4, self._y(mm) + 4), format_number(mm, decimals=0))

        if self.drawn is not None:
            shade = theme.colour("verdigris")
            shade.setAlpha(90)
            low, high = sorted(self.drawn[1:])
            box = QRectF(QPointF(area.left(), self._y(high)), QPointF(area.right(), self._y(low)))
            painter.fillRect(box, shade)
            painter.setPen(theme.colour("ink"))
            painter.drawText(QPointF(area.right() + 4, box.center().y() + 4), format_number(high - low, decimals=1))

    # The mouse and keys ------------------------------------------------------------------------------

    def _grip_at(self, y: float) -> tuple[str, str] | None:
        for band in self.surface.bands if self.surface else ():
            for end in ("low", "high"):
                if abs(self._y(getattr(band, end)) - y) <= theme.px(GRIP_PX):
                    return band.id, end
        return None

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self.surface is None:
            return
        mm = self._mm(event.position().y())
        grip = self._grip_at(event.position().y())
        band = next((one for one in self.surface.bands if grip and one.id == grip[0]), None)
        inside = next((one for one in self.surface.bands if one.low < mm < one.high), None)
        if grip is not None and band is not None:
            # The other edge stays where it is.
            self.drawn = (band.id, band.high if grip[1] == "low" else band.low, mm)
        elif inside is not None:
            self._choose(inside.id)
        else:
            self.drawn = ("", mm, mm)
        self.update()

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self.surface is None:
            return
        if self.drawn is not None:
            self.drawn = (self.drawn[0], self.drawn[1], self._mm(event.position().y()))
            self.update()
        else:
            over = self._grip_at(event.position().y())
            self.setCursor(Qt.CursorShape.SizeVerCursor if over else Qt.CursorShape.CrossCursor)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """What was drawn is cut; the card is made anew by it, so that nothing of this board is used afterwards."""
        drawn, self.drawn = self.drawn, None
        if drawn is None or self.surface is None:
            return
        id, low, high = drawn[0], *sorted(drawn[1:])
        if high - low < LEAST_MM:
            self.update()
            return
        if id:
            bands = tuple(
                msgspec.structs.replace(one, low=low, high=high) if one.id == id else one for one in self.surface.bands
            )
            self.changed.emit(bands)
            return
        name = tr("Band {number}", number=len(self.surface.bands) + 1)
        band = Band(id=new_id("band"), name=name, low=low, high=high)
        taken = self.chosen_changed
        self.changed.emit((*self.surface.bands, band))
        taken.emit(band.id)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None or self.surface is None or not self.chosen:
            return
        step = 1.0 if event.key() == Qt.Key.Key_Up else -1.0 if event.key() == Qt.Key.Key_Down else None
        band = next((one for one in self.surface.bands if one.id == self.chosen), None)
        if band is None:
            return
        if event.key() in {Qt.Key.Key_Delete, Qt.Key.Key_Backspace}:
            self.changed.emit(tuple(one for one in self.surface.bands if one.id != band.id))
        elif step is not None and band.low + step >= 0 and band.high + step <= self.surface.height_mm:
            moved = msgspec.structs.replace(band, low=band.low + step, high=band.high + step)
            self.changed.emit(tuple(moved if one.id == band.id else one for one in self.surface.bands))

    def _choose(self, id: str) -> None:
        if id != self.chosen:
            self.chosen = id
            self.chosen_changed.emit(id)
            self.update()


def band_section(desk: Desk, surface: Surface, band: Band | None, board: BandBoard, take: object) -> Section:
    """The section of a card on bands: the strip, the chosen band's name and edges."""
    section = Section(tr("Bands"), band.name if band else tr("whole sheet"), unfolded=True)
    section.add(words(tr("Drag on the strip to cut a band.")))
    section.add(board)
    board.changed.connect(lambda bands: desk.dispatch(intents.set_bands(desk.job, surface.id, bands)))
    board.chosen_changed.connect(take)  # type: ignore[arg-type]
    if band is None:
        return section
    holder = QWidget()
    column = QVBoxLayout(holder)
    column.setContentsMargins(0, 0, 0, 0)
    name = QLineEdit(band.name)
    name.setAccessibleName(tr("Name of the band"))

    def put(field: str, value: object) -> None:
        now = next((one for one in desk.job.surface(surface.id).bands if one.id == band.id), None)
        if now is not None and getattr(now, field) != value:
            moved = msgspec.structs.replace(now, **{field: value})
            bands = tuple(moved if one.id == band.id else one for one in desk.job.surface(surface.id).bands)
            if not 0 <= moved.low < moved.high <= surface.height_mm:
                desk.tell(tr("A band lies within its surface, its lower edge under its upper one."), "fault")
                return
            desk.dispatch(intents.set_bands(desk.job, surface.id, bands))

    name.editingFinished.connect(lambda: put("name", name.text().strip() or band.name))
    column.addWidget(name)
    for field, label in (("low", tr("From")), ("high", tr("To"))):
        column.addWidget(
            length_field(label, tr("From the surface's lower edge"), getattr(band, field), partial(put, field),
                         lambda text: desk.tell(text, "fault"))
        )  # fmt: skip
    column.addWidget(button(tr("Whole sheet"), lambda: take(""), tip=tr("Take no band")))  # type: ignore[operator]
    section.add(holder)
    return section
