"""Surfaces to lay: tiles to drag onto the model, or to click for the chosen part."""

from __future__ import annotations

from PyQt6.QtCore import QByteArray, QMimeData, QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QDrag, QMouseEvent, QPainter, QPaintEvent, QPen, QPixmap
from PyQt6.QtWidgets import QAbstractButton, QApplication, QFrame, QGridLayout, QScrollArea, QWidget

from ....core.job.document import Job
from ....core.job.scene import Part
from ... import theme
from ...words import tr
from .scene_view import SURFACE_MIME


class SwatchTile(QAbstractButton):
    """A surface to drag onto a part; a click lays it on the chosen one."""

    def __init__(self, surface: str, name: str) -> None:
        super().__init__()
        self.surface, self.name = surface, name
        self.picture: QPixmap | None = None
        self.chosen = False
        self.setAccessibleName(tr("Lay {name}", name=name))
        self.setToolTip(
            tr(
                "{name}: drag it onto faces, with Shift onto a whole part; or click to lay it on what is chosen",
                name=name,
            )
        )
        self._from: QPointF | None = None

    def sizeHint(self) -> QSize:
        return QSize(theme.px(62), theme.px(80))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        side = min(self.width() - 2, theme.px(62))
        square = QRectF(1, 1, side, side)
        if self.picture:
            painter.drawPixmap(square, self.picture, QRectF(self.picture.rect()))
        else:
            painter.fillRect(square, theme.colour("chalk"))
        painter.setPen(
            QPen(theme.colour("verdigris" if self.chosen or self.hasFocus() else "line"), 2 if self.chosen else 1)
        )
        painter.drawRect(square)
        painter.setFont(theme.font(10))
        painter.setPen(theme.colour("ink"))
        text = painter.fontMetrics().elidedText(self.name, Qt.TextElideMode.ElideRight, self.width())
        painter.drawText(QRectF(0, side + 2, self.width(), theme.px(16)), Qt.AlignmentFlag.AlignLeft, text)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self._from = event.position() if event else None
        super().mousePressEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or not event.buttons() & Qt.MouseButton.LeftButton or self._from is None:
            return
        if (event.position() - self._from).manhattanLength() < QApplication.startDragDistance():
            return
        drag = QDrag(self)
        data = QMimeData()
        data.setData(SURFACE_MIME, QByteArray(self.surface.encode()))
        drag.setMimeData(data)
        if self.picture:
            drag.setPixmap(self.picture.scaled(theme.px(48), theme.px(48)))
        drag.exec(Qt.DropAction.CopyAction)
        self.setDown(False)


class SurfaceTiles(QScrollArea):
    """All surfaces of the job, three in a row."""

    laid = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setWidgetResizable(True)
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.holder = QWidget()
        self.holder.setObjectName("panel")
        self.grid = QGridLayout(self.holder)
        self.grid.setContentsMargins(theme.px(12), 0, theme.px(8), theme.px(4))
        self.grid.setSpacing(theme.px(8))
        self.grid.setAlignment(Qt.AlignmentFlag.AlignTop | Qt.AlignmentFlag.AlignLeft)
        self.setWidget(self.holder)
        self.tiles: dict[str, SwatchTile] = {}

    def show_job(self, job: Job, part: Part | None, chosen: str) -> None:
        """Show the surfaces; which lies on the part is marked."""
        wanted = [surface.id for surface in job.surfaces]
        if list(self.tiles) != wanted:
            for old in self.tiles.values():
                old.deleteLater()
            self.tiles = {}
            for index, surface in enumerate(job.surfaces):
                made = SwatchTile(surface.id, surface.name)
                made.clicked.connect(lambda _checked=False, id=surface.id: self.laid.emit(id))
                self.tiles[surface.id] = made
                self.grid.addWidget(made, index // 3, index % 3)
        for surface in job.surfaces:
            made = self.tiles[surface.id]
            made.name = surface.name
            made.chosen = bool(part and chosen == surface.id)
            made.update()
