"""The elevation: the walls unrolled, with the pattern as it lies on them and its courses counted."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen, QPixmap
from PyQt6.QtWidgets import QWidget

from ....core.job.document import Job
from ....core.place.elevation import Elevation, ElevationFace, unroll
from ....core.place.pieces.corner import CORNER
from ....core.quantity import format_level, format_number
from ....core.relief.pictures import mip_chain
from ....engine.pictures.results import SceneTextures
from ... import theme
from ...board import tile, to_pixmaps
from ...words import tr


class ElevationStrip(QWidget):
    """Drag the pattern along or up; it moves in millimetres and says how far."""

    part_chosen = pyqtSignal(str)
    dragged = pyqtSignal(str, float, float)
    released = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self.setMinimumHeight(theme.px(150))
        self.setMouseTracking(True)
        self.setAccessibleName(tr("Elevation, unrolled"))
        self.elevation: Elevation | None = None
        self.pictures: dict[str, tuple[bytes, list[QPixmap]]] = {}
        self.chosen = ""
        self._grip: tuple[ElevationFace, QPointF, float, float] | None = None

    def show_job(self, job: Job, chosen: str) -> None:
        self.elevation = unroll(job) if job.scene.parts else None
        self.chosen = chosen
        self.update()

    def show_textures(self, textures: SceneTextures) -> None:
        for surface, (key, base, _, _) in textures.surfaces.items():
            known = self.pictures.get(surface)
            if known is None or known[0] != key:
                self.pictures[surface] = (key, to_pixmaps(mip_chain(base)))
        self.update()

    # Where things lie ----------------------------------------------------------------------------

    def _frame(self) -> tuple[QRectF, float]:
        assert self.elevation is not None
        width, height = self.elevation.size
        area = QRectF(theme.px(14), theme.px(32), self.width() - theme.px(96), self.height() - theme.px(54))
        scale = min(area.width() / width, area.height() / height)
        left = area.left() + (area.width() - width * scale) / 2
        return QRectF(left, area.bottom() - height * scale, width * scale, height * scale), scale

    def _rect(self, sides: tuple[float, float, float, float], frame: QRectF, scale: float) -> QRectF:
        a, low, b, high = sides
        return QRectF(
            QPointF(frame.left() + a * scale, frame.bottom() - high * scale),
            QPointF(frame.left() + b * scale, frame.bottom() - low * scale),
        )

    # Painting ------------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setFont(theme.font(12, weight=600))
        painter.setPen(theme.colour("ink"))
        painter.drawText(
            QRectF(theme.px(12), theme.px(6), 300, theme.px(18)), Qt.AlignmentFlag.AlignVCenter, tr("Elevation")
        )
        if self.elevation is None or not self.elevation.faces:
            return
        frame, scale = self._frame()
        self._paint_notes(painter)
        for face in self.elevation.faces:
            self._paint_face(painter, face, frame, scale)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        self._paint_opening(painter, frame, scale)
        self._paint_lines(painter, frame, scale)

    def _paint_notes(self, painter: QPainter) -> None:
        assert self.elevation is not None
        painter.setFont(theme.font(11))
        painter.setPen(theme.colour("ink_2"))
        box = QRectF(theme.px(82), theme.px(6), self.width() - theme.px(96), theme.px(18))
        painter.drawText(
            box,
            Qt.AlignmentFlag.AlignVCenter,
            tr("north wall → corner → east wall, unrolled; drag the pattern along the chalk line"),
        )
        face = next((f for f in self.elevation.faces if f.part.id == self.chosen), None)
        if face is None or face.courses is None:
            return
        courses = face.courses
        cut = ", ".join(tr("{rest:.0f} mm", rest=rest) for rest in courses.cut_mm) or "none"
        painter.setFont(theme.font(11, mono=True))
        painter.setPen(theme.colour("ochre" if courses.cut_mm else "verdigris"))
        text = tr("whole courses {whole}   cut {cut}", whole=courses.whole, cut=cut)
        painter.drawText(box, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight, text)

    def _paint_face(self, painter: QPainter, face: ElevationFace, frame: QRectF, scale: float) -> None:
        known = self.pictures.get(face.surface.id) if face.surface else None
        for sides in face.rectangles:
            target = self._rect(sides, frame, scale)
            if known is None or face.surface is None:
                painter.fillRect(target, theme.colour("chalk"))
                continue
            wide, high = face.surface.width_mm * scale, face.surface.height_mm * scale
            left = frame.left() + face.from_along * scale
            bottom = frame.bottom() - face.from_level * scale
            tile(painter, known[1], target, QRectF(left, bottom - high, wide, high))
        if face.part.id == self.chosen:
            painter.setPen(QPen(theme.colour("verdigris"), 2))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(self._rect(face.bounds, frame, scale))
        if face.courses and face.courses.cut_mm:
            self._paint_cut_rows(painter, face, frame, scale)

    def _paint_cut_rows(self, painter: QPainter, face: ElevationFace, frame: QRectF, scale: float) -> None:
        """Cut courses in ochre, hatched, at the foot or the top."""
        assert face.courses is not None
        left, low, right, high = face.bounds
        course = face.courses.course_mm
        foot = (face.from_level - low) % course
        top = (high - face.from_level) % course
        shade = theme.colour("ochre")
        shade.setAlpha(150)
        for rest, sides in ((foot, (left, low, right, low + foot)), (top, (left, high - top, right, high))):
            if 0.5 < rest < course - 0.5:
                painter.fillRect(self._rect(sides, frame, scale), shade)

    def _paint_opening(self, painter: QPainter, frame: QRectF, scale: float) -> None:
        m = CORNER
        hole = self._rect((m.window_left, m.sill, m.window_left + m.window_width, m.head), frame, scale)
        painter.fillRect(hole, theme.colour("panel"))
        painter.setPen(QPen(theme.colour("ink_3"), 1))
        painter.drawLine(hole.topLeft(), hole.bottomRight())
        painter.drawLine(hole.topRight(), hole.bottomLeft())
        painter.setPen(QPen(theme.colour("ink"), 1.2))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(hole)
        painter.drawRect(frame)

    def _paint_lines(self, painter: QPainter, frame: QRectF, scale: float) -> None:
        assert self.elevation is not None
        painter.setPen(QPen(theme.colour("ink"), 1.6))
        for corner in self.elevation.corners:
            x = frame.left() + corner * scale
            painter.drawLine(QPointF(x, frame.top()), QPointF(x, frame.bottom()))
        chalk = theme.colour("chalk_line")
        datum_y = frame.bottom() - self.elevation.datum_level * scale
        datum_x = frame.left() + self.elevation.datum_along * scale
        painter.setPen(QPen(chalk, 1.8))
        painter.drawLine(QPointF(frame.left() - theme.px(8), datum_y), QPointF(frame.right() + theme.px(8), datum_y))
        painter.setPen(QPen(chalk, 1.2, Qt.PenStyle.DashLine))
        painter.drawLine(QPointF(datum_x, frame.top() - theme.px(6)), QPointF(datum_x, frame.bottom() + theme.px(8)))
        painter.setPen(QPen(theme.colour("white"), 1.5))
        painter.setBrush(chalk)
        painter.drawEllipse(QPointF(datum_x, datum_y), theme.px(4), theme.px(4))
        painter.setFont(theme.font(10, mono=True))
        painter.setPen(chalk)
        rise = CORNER.dado
        for level in (self.elevation.datum_level, rise):
            y = frame.bottom() - level * scale
            painter.drawText(QPointF(frame.right() + theme.px(12), y + theme.px(4)), format_level(level))
        y = frame.bottom() - rise * scale
        painter.setPen(QPen(chalk, 1, Qt.PenStyle.DotLine))
        painter.drawLine(QPointF(frame.left(), y), QPointF(frame.right() + theme.px(8), y))
        painter.setPen(theme.colour("ink_2"))
        painter.setFont(theme.font(10))
        unit = tr("{number} m unrolled", number=format_number(self.elevation.size[0] / 1000, decimals=2))
        painter.drawText(QPointF(frame.left(), frame.bottom() + theme.px(16)), unit)

    # The mouse -----------------------------------------------------------------------------------

    def _face_at(self, at: QPointF) -> ElevationFace | None:
        if self.elevation is None:
            return None
        frame, scale = self._frame()
        for face in self.elevation.faces:
            if any(self._rect(sides, frame, scale).contains(at) for sides in face.rectangles):
                return face
        return None

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        face = self._face_at(event.position()) if event else None
        if event and face:
            self.part_chosen.emit(face.part.id)
            laying = face.part.laying
            self._grip = (face, event.position(), laying.number("across"), laying.number("up"))

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        if self._grip is None:
            self.setCursor(
                Qt.CursorShape.OpenHandCursor if self._face_at(event.position()) else Qt.CursorShape.ArrowCursor
            )
            return
        face, start, across, up = self._grip
        _, scale = self._frame()
        by = (event.position() - start) / scale
        self.dragged.emit(face.part.id, round(across + by.x(), 1), round(up - by.y(), 1))

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self._grip is not None:
            self._grip = None
            self.released.emit()
