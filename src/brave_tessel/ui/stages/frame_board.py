"""The photo with its straightening frame, corner loupe and dimension line."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QPainter, QPainterPath, QPen, QPixmap, QPolygonF

from ...core.document import Source
from ...core.errors import TesselError
from ...core.gather.straighten import Corners, homography
from ...engine import intents
from .. import theme
from ..board import Board
from ..desk import Desk

Point = tuple[float, float]


class FrameBoard(Board):
    """World coordinates are photo pixels, y down."""

    measured = pyqtSignal()

    def __init__(self, desk: Desk) -> None:
        super().__init__("Photo with its straightening frame", y_up=False, rulers=False)
        self.desk = desk
        self.source: Source | None = None
        self.photo: list[QPixmap] = []
        self.line: tuple[Point, Point] | None = None
        self.measuring = False
        self.grip = -1
        self.dragging = False

    def extent(self) -> tuple[float, float, float, float]:
        if self.source is None:
            return super().extent()
        return 0.0, 0.0, float(self.source.width_px), float(self.source.height_px)

    def show_source(self, source: Source | None) -> None:
        another = (source.id if source else "") != (self.source.id if self.source else "")
        self.source = source
        if another:
            self.line = None
            self.photo = []
            self.fit()
        self.update()

    def show_photo(self, mips: list[QPixmap]) -> None:
        self.photo = mips
        if self.fitted:
            self.fit()
        self.update()

    def set_measuring(self, on: bool) -> None:
        self.measuring = on
        self.setCursor(Qt.CursorShape.CrossCursor if on else Qt.CursorShape.ArrowCursor)

    @property
    def corners(self) -> Corners | None:
        return self.source.straightening.corners if self.source else None

    # The mouse and keys --------------------------------------------------------------------------

    def _corner_at(self, at: QPointF) -> int:
        if self.corners is None:
            return -1
        away = [math.dist((p.x(), p.y()), (at.x(), at.y())) for p in (self.to_screen(*c) for c in self.corners)]
        nearest = min(range(4), key=away.__getitem__)
        return nearest if away[nearest] < theme.px(14) else -1

    def press(self, at: QPointF, modifiers: Qt.KeyboardModifier) -> None:
        if self.measuring:
            start = self.to_world(at)
            self.line = (start, start)
            return
        self.grip = self._corner_at(at)
        self.dragging = self.grip >= 0
        self.update()

    def drag(self, at: QPointF, modifiers: Qt.KeyboardModifier) -> None:
        if self.measuring and self.line:
            self.line = (self.line[0], self.to_world(at))
            self.update()
        elif self.dragging:
            self._put(self.to_world(at), gesture=f"corner-{self.grip}")

    def release(self, at: QPointF) -> None:
        if self.measuring and self.line:
            self.set_measuring(False)
            if math.dist(*self.line) * self.scale < 4:
                self.line = None
            else:
                self.measured.emit()
        elif self.dragging:
            self.dragging = False
            self.desk.end_gesture()
        self.update()

    def hover(self, at: QPointF) -> None:
        if not self.measuring:
            over = self._corner_at(at) >= 0
            self.setCursor(Qt.CursorShape.SizeAllCursor if over else Qt.CursorShape.ArrowCursor)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        step = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1)}
        by = step.get(Qt.Key(event.key()))
        if by and self.grip >= 0 and self.corners:
            size: float = 10 if event.modifiers() & Qt.KeyboardModifier.ControlModifier else 1
            size = 0.25 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else size
            x, y = self.corners[self.grip]
            self._put((x + by[0] * size, y + by[1] * size), gesture="")
        elif event.key() == Qt.Key.Key_Escape:
            self.set_measuring(False)
            self.line = None
            self.grip = -1
            self.update()
        else:
            super().keyPressEvent(event)

    def _put(self, point: Point, *, gesture: str) -> None:
        if self.source is None or self.corners is None:
            return
        width, height = self.source.width_px, self.source.height_px
        inside = (min(max(point[0], 0.0), float(width)), min(max(point[1], 0.0), float(height)))
        corners = list(self.corners)
        corners[self.grip] = inside
        try:
            command = intents.set_frame(self.source, tuple(corners), gesture=gesture)  # type: ignore[arg-type]
        except TesselError:
            return
        self.desk.dispatch(command)

    # Painting ------------------------------------------------------------------------------------

    def paint_picture(self, painter: QPainter) -> None:
        if self.source is None:
            painter.setPen(Qt.GlobalColor.white)
            painter.setFont(theme.font(13))
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, "Drop a photo here, or add one at the left.")
            return
        if self.photo:
            whole = self.world_rect(0, 0, self.source.width_px, self.source.height_px)
            level = 0
            while level + 1 < len(self.photo) and self.photo[level + 1].width() >= whole.width():
                level += 1
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform, self.scale < 4)
            painter.drawPixmap(whole, self.photo[level], QRectF(self.photo[level].rect()))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        self._paint_frame(painter)
        self._paint_line(painter)
        if self.dragging and self.corners:
            self._paint_loupe(painter, self.corners[self.grip])

    def _paint_frame(self, painter: QPainter) -> None:
        if self.corners is None:
            return
        points = [self.to_screen(*corner) for corner in self.corners]
        outside = QPainterPath()
        outside.addRect(QRectF(self.rect()))
        outside.addPolygon(QPolygonF([*points, points[0]]))
        shade = theme.colour("board")
        shade.setAlpha(120)
        painter.fillPath(outside, shade)
        self._paint_grid(painter)
        for width, token in ((3.0, "white"), (1.6, "chalk_line")):
            painter.setPen(QPen(theme.colour(token), width))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawPolygon(QPolygonF(points))
        for index, point in enumerate(points):
            painter.setPen(QPen(theme.colour("white"), 2))
            painter.setBrush(theme.colour("chalk_line"))
            radius = theme.px(7 if index == self.grip else 5)
            painter.drawEllipse(point, radius, radius)

    def _paint_grid(self, painter: QPainter) -> None:
        """Quarters of the rectangle in the view: they tell whether the frame lies true."""
        try:
            back = homography(self.corners, 4, 4)  # type: ignore[arg-type]
        except TesselError:
            return
        import numpy as np

        inverse = np.linalg.inv(back)
        line = theme.colour("chalk_line")
        line.setAlpha(110)
        painter.setPen(QPen(line, 1, Qt.PenStyle.DashLine))
        for k in (1, 2, 3):
            for a, b in (((k, 0), (k, 4)), ((0, k), (4, k))):
                ends = []
                for x, y in (a, b):
                    u, v, w = inverse @ np.array([x, y, 1.0])
                    ends.append(self.to_screen(float(u / w), float(v / w)))
                painter.drawLine(*ends)

    def _paint_line(self, painter: QPainter) -> None:
        if self.line is None:
            return
        a, b = (self.to_screen(*end) for end in self.line)
        for width, token in ((3.0, "white"), (1.6, "chalk_line")):
            painter.setPen(QPen(theme.colour(token), width))
            painter.drawLine(a, b)
            angle = math.atan2(b.y() - a.y(), b.x() - a.x()) + math.pi / 2
            tick = QPointF(math.cos(angle), math.sin(angle)) * theme.px(8)
            for end in (a, b):
                painter.drawLine(end - tick, end + tick)

    def _paint_loupe(self, painter: QPainter, corner: Point) -> None:
        if not self.photo:
            return
        side = theme.px(132)
        at = self.to_screen(*corner)
        left = at.x() + theme.px(24) if at.x() + side + theme.px(40) < self.width() else at.x() - side - theme.px(24)
        top = min(max(at.y() - side / 2, theme.px(8)), self.height() - side - theme.px(8))
        target = QRectF(left, top, side, side)
        reach = 14.0
        painter.save()
        painter.fillRect(target, theme.colour("board"))
        painter.setClipRect(target)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform, False)
        painter.drawPixmap(target, self.photo[0], QRectF(corner[0] - reach, corner[1] - reach, 2 * reach, 2 * reach))
        painter.setPen(QPen(theme.colour("chalk_line"), 1))
        painter.drawLine(QPointF(target.center().x(), top), QPointF(target.center().x(), target.bottom()))
        painter.drawLine(QPointF(left, target.center().y()), QPointF(target.right(), target.center().y()))
        painter.restore()
        painter.setPen(QPen(theme.colour("white"), 2))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(target)
        plate = QRectF(left, target.bottom() - theme.px(18), side, theme.px(18))
        painter.fillRect(plate, theme.colour("white"))
        painter.setPen(theme.colour("ink"))
        painter.setFont(theme.font(11, mono=True))
        painter.drawText(plate, Qt.AlignmentFlag.AlignCenter, f"{corner[0]:.1f}, {corner[1]:.1f} px")
