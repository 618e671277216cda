"""All maps of a surface side by side."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QImage, QMouseEvent, QPainter, QPaintEvent, QPen, QPixmap
from PyQt6.QtWidgets import QWidget

from ....core.maps import TRAITS, MapKind
from ....core.quantity import format_number
from ....engine.pictures.placed import CONTACT
from ....engine.pictures.results import SurfacePicture
from ... import theme
from ...board import tile, to_pixmaps
from ...words import tr
from ..stage import caption

_COLUMNS, _ROWS = 4, 2


class ContactSheet(QWidget):
    """All maps of a surface side by side, each two by two repeats, with the probe in every one."""

    probed = pyqtSignal(float, float)

    def __init__(self) -> None:
        super().__init__()
        self.setMouseTracking(True)
        self.setAccessibleName(tr("All maps"))
        self.done: SurfacePicture | None = None
        self.pictures: dict[MapKind, list[QPixmap]] = {}
        self.lit: list[QPixmap] = []
        self.placed: QImage | None = None
        self.pointer: tuple[float, float] | None = None
        self.spot: tuple[float, float] | None = None

    def show_picture(self, done: SurfacePicture | None) -> None:
        if done is not None and (self.done is None or done.maps is not self.done.maps):
            self.pictures = {kind: to_pixmaps(mips) for kind, mips in done.contact.items()}
        self.lit = to_pixmaps(done.mips) if done else []
        self.done = done
        self.update()

    def show_placed(self, image: QImage) -> None:
        """The model as it was last drawn."""
        self.placed = image
        self.update()

    def _boxes(self) -> list[QRectF]:
        """Six maps, the lit surface and the placed picture, in reading order."""
        gap, title = theme.px(12), theme.px(22)
        wide = (self.width() - gap * (_COLUMNS + 1)) / _COLUMNS
        high = (self.height() - gap - _ROWS * (title + gap)) / _ROWS
        return [
            QRectF(
                gap + (i % _COLUMNS) * (wide + gap), gap + title + (i // _COLUMNS) * (high + title + gap), wide, high
            )
            for i in range(_COLUMNS * _ROWS)
        ]

    def _cells(self) -> list[tuple[str, list[QPixmap], QRectF]]:
        boxes = self._boxes()
        cells = [(tr(TRAITS[kind].label), self.pictures[kind], box) for kind, box in zip(CONTACT, boxes, strict=False)]
        return [*cells, (tr("Lit"), self.lit, boxes[len(CONTACT)])]

    def _scale(self, cell: QRectF) -> float:
        assert self.done is not None
        return max(cell.width() / self.done.grid.width_mm, cell.height() / self.done.grid.height_mm) / 1.0

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), theme.colour("board"))
        if self.done is None:
            painter.setPen(Qt.GlobalColor.white)
            painter.drawText(
                self.rect(), Qt.AlignmentFlag.AlignCenter, tr("No surface to hand over yet; make one in Build.")
            )
            return
        grid = self.done.grid
        height = self.done.maps[MapKind.HEIGHT]
        for label, picture, cell in self._cells():
            scale = self._scale(cell)
            note = (
                tr(
                    "{number} … {number_2} mm",
                    number=format_number(float(height.min()), decimals=1),
                    number_2=format_number(float(height.max()), decimals=1),
                )
                if label == tr(TRAITS[MapKind.HEIGHT].label)
                else ""
            )
            self._title(painter, cell, label, note)
            one = QRectF(
                cell.left(), cell.bottom() - grid.height_mm * scale, grid.width_mm * scale, grid.height_mm * scale
            )
            tile(painter, picture, cell, one)
            painter.setPen(QPen(theme.colour("ink"), 1))
            painter.drawRect(cell)
            for point, token in ((self.spot, "ochre"), (self.pointer, "chalk_line")):
                if point is not None:
                    self._mark(painter, cell, one, scale, point, token)

        self._paint_placed(painter, self._boxes()[-1])

    def _title(self, painter: QPainter, cell: QRectF, label: str, note: str = "") -> None:
        caption(painter, QRectF(cell.left(), cell.top() - theme.px(22), cell.width(), theme.px(22)), label, note)

    def _paint_placed(self, painter: QPainter, cell: QRectF) -> None:
        """The placed picture, filling its cell from the middle."""
        self._title(painter, cell, tr("Placed"))
        if self.placed is not None:
            wide = min(self.placed.width(), self.placed.height() * cell.width() / cell.height())
            high = wide * cell.height() / cell.width()
            left, top = (self.placed.width() - wide) / 2, (self.placed.height() - high) / 2
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
            painter.drawImage(cell, self.placed, QRectF(left, top, wide, high))
        painter.setPen(QPen(theme.colour("ink"), 1))
        painter.drawRect(cell)

    def _mark(
        self, painter: QPainter, cell: QRectF, one: QRectF, scale: float, point: tuple[float, float], token: str
    ) -> None:
        at = QPointF(one.left() + point[0] * scale, one.bottom() - point[1] * scale)
        if not cell.contains(at):
            return
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for width, name in ((3.0, "white"), (1.6, token)):
            painter.setPen(QPen(theme.colour(name), width))
            painter.drawEllipse(at, theme.px(7), theme.px(7))
        painter.restore()

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self.done is None:
            return
        for _, _, cell in self._cells():
            if cell.contains(event.position()):
                scale = self._scale(cell)
                x = (event.position().x() - cell.left()) / scale % self.done.grid.width_mm
                y = (cell.bottom() - event.position().y()) / scale % self.done.grid.height_mm
                self.pointer = (x, y)
                self.probed.emit(x, y)
                self.update()
                return
