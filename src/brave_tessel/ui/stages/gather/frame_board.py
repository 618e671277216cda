"""The photo with its straightening frame; what the left button does is the tool taken up."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QPainter, QPainterPath, QPen, QPixmap, QPolygonF

from ....core.errors import TesselError
from ....core.gather.lens import rebend
from ....core.gather.straighten import Corners, homography, straight_corners
from ....core.job.document import Source
from ....core.sheet import Raster
from ... import theme
from ...board import Board
from ...desk import Desk
from ...words import tr
from .frame_tools import (
    FrameTool,
    GreyTool,
    LightTool,
    MeasureTool,
    PaletteAreaTool,
    PaletteLineTool,
    PhotoTool,
    SpotTool,
    StraightTool,
)

Point = tuple[float, float]
_BENT_STEPS = 24


class FrameBoard(Board):
    """World coordinates are photo pixels, y down."""

    measured = pyqtSignal()
    tool_changed = pyqtSignal(str)
    colours_found = pyqtSignal(object)

    def __init__(self, desk: Desk) -> None:
        super().__init__(tr("Photo with its straightening frame"), y_up=False, rulers=False)
        self.desk = desk
        self.source: Source | None = None
        self.photo: list[QPixmap] = []
        self.line: tuple[Point, Point] | None = None
        self.pointer: Point | None = None
        self.stops = 6
        self.framing = FrameTool(desk)
        self.tools: dict[str, PhotoTool] = {
            "frame": self.framing,
            "measure": MeasureTool(desk),
            "straight": StraightTool(desk),
            "grey": GreyTool(desk),
            "light": LightTool(desk),
            "lit": SpotTool(desk, "lit"),
            "dark": SpotTool(desk, "dark"),
            "line": PaletteLineTool(desk),
            "area": PaletteAreaTool(desk),
        }
        self.name = "frame"

    @property
    def tool(self) -> PhotoTool:
        return self.tools[self.name]

    def use(self, name: str) -> None:
        """Take up a tool; its hint is told."""
        if name == self.name:
            return
        self.name = name
        self.setCursor(Qt.CursorShape.ArrowCursor if name == "frame" else self.tool.cursor)
        self.desk.tell(self.tool.hint)
        self.tool_changed.emit(name)
        self.update()

    def told_length(self) -> None:
        """A line of known length was drawn."""
        self.measured.emit()

    def ask_pixels(self, look: Callable[[Raster], Any], put: Callable[[Any], None]) -> None:
        """Ask something of the photo's linear pixels, off the window's thread."""
        source, snapshot = self.source, self.desk.session.snapshot()
        if source is not None:
            self.desk.work.ask("pixels", lambda _current: look(snapshot.load_pixels(source.blob)), put)

    def ask_colours(self, find: Callable[[Raster], tuple[str, ...]]) -> None:
        self.ask_pixels(find, self.colours_found.emit)

    def extent(self) -> tuple[float, float, float, float]:
        if self.source is None:
            return super().extent()
        return 0.0, 0.0, float(self.source.width_px), float(self.source.height_px)

    def show_source(self, source: Source | None) -> None:
        another = (source.id if source else "") != (self.source.id if self.source else "")
        photo = (source.blob if source else "") != (self.source.blob if self.source else "")
        self.source = source
        if another:
            self.line = None
            self.use("frame")
            self.framing.corner = self.framing.side = -1
            self.photo = self.photo if not photo else []
            self.fit()
        self.update()

    def show_photo(self, mips: list[QPixmap]) -> None:
        self.photo = mips
        if self.fitted:
            self.fit()
        self.update()

    @property
    def corners(self) -> Corners | None:
        return self.source.straightening.corners if self.source else None

    # The mouse and keys --------------------------------------------------------------------------

    def press(self, at: QPointF, modifiers: Qt.KeyboardModifier) -> None:
        if self.source is not None:
            self.tool.press(self, self.to_world(at))
            self.update()

    def drag(self, at: QPointF, modifiers: Qt.KeyboardModifier) -> None:
        self.tool.drag(self, self.to_world(at))

    def release(self, at: QPointF) -> None:
        self.tool.release(self)
        self.update()

    def hover(self, at: QPointF) -> None:
        self.pointer = self.to_world(at)
        self.setCursor(self.tool.shape(self, self.pointer))
        if self.tool.loupe:
            self.update()

    def leaveEvent(self, event: object) -> None:
        self.pointer = None
        self.update()
        super().leaveEvent(event)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        if event.key() == Qt.Key.Key_Escape:
            self.leave_tool()
        elif not self.tool.key(self, event):
            super().keyPressEvent(event)

    def leave_tool(self) -> None:
        """Back to the frame."""
        self.use("frame")
        self.line = None
        self.framing.corner = self.framing.side = -1
        self.update()

    # Painting ------------------------------------------------------------------------------------

    def paint_picture(self, painter: QPainter) -> None:
        if self.source is None:
            painter.setPen(Qt.GlobalColor.white)
            painter.setFont(theme.font(13))
            painter.drawText(
                self.rect(), Qt.AlignmentFlag.AlignCenter, tr("Drop a photo here, or add one at the left.")
            )
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
        self.tool.paint(self, painter)

    def _paint_frame(self, painter: QPainter) -> None:
        if self.corners is None:
            return
        points = [self.to_screen(*corner) for corner in self.corners]
        outline = QPolygonF([self.to_screen(x, y) for x, y in self._outline()])
        outside = QPainterPath()
        outside.addRect(QRectF(self.rect()))
        outside.addPolygon(outline)
        shade = theme.colour("board")
        shade.setAlpha(120)
        painter.fillPath(outside, shade)
        self._paint_grid(painter)
        for width, token in ((3.0, "white"), (1.6, "chalk_line")):
            painter.setPen(QPen(theme.colour(token), width))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawPolyline(outline)
        for index, point in enumerate(points):
            painter.setPen(QPen(theme.colour("white"), 2))
            painter.setBrush(theme.colour("chalk_line"))
            radius = theme.px(7 if index == self.framing.corner else 5)
            painter.drawEllipse(point, radius, radius)

    def _bent(self, points: Any) -> list[Point]:
        """Where places of the straight picture lie on the photo."""
        assert self.source is not None
        size = (self.source.width_px, self.source.height_px)
        lens = self.source.straightening.lens
        return [(float(x), float(y)) for x, y in (rebend(points, lens, size) if any(lens) else np.asarray(points))]

    def _flat_corners(self) -> Corners:
        assert self.source is not None
        frame = self.source.straightening
        return straight_corners(frame.corners, frame.lens, (self.source.width_px, self.source.height_px))

    def _outline(self) -> list[Point]:
        """The frame, closed, its sides bent as the lens bends them."""
        flat = np.asarray(self._flat_corners())
        steps = _BENT_STEPS if self.source and any(self.source.straightening.lens) else 1
        share = np.arange(steps)[:, None] / steps
        sides = [flat[k] + (flat[(k + 1) % 4] - flat[k]) * share for k in range(4)]
        return self._bent(np.concatenate([*sides, flat[:1]]))

    def _paint_grid(self, painter: QPainter) -> None:
        """Quarters of the rectangle in the view: they tell whether the frame lies true."""
        try:
            back = np.linalg.inv(homography(self._flat_corners(), 4, 4))
        except TesselError:
            return
        line = theme.colour("chalk_line")
        line.setAlpha(110)
        painter.setPen(QPen(line, 1, Qt.PenStyle.DashLine))
        run = np.linspace(0, 4, _BENT_STEPS + 1)
        for k in (1.0, 2.0, 3.0):
            for x, y in ((np.full_like(run, k), run), (run, np.full_like(run, k))):
                seen = np.column_stack([x, y, np.ones_like(run)]) @ back.T
                places = self._bent(seen[:, :2] / seen[:, 2:])
                painter.drawPolyline(QPolygonF([self.to_screen(*place) for place in places]))

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

    def paint_loupe(self, painter: QPainter, corner: Point) -> None:
        """A piece of the photo about a place, pixel by pixel."""
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
        painter.drawText(
            plate,
            Qt.AlignmentFlag.AlignCenter,
            tr("{corner:.1f}, {corner_2:.1f} px", corner=corner[0], corner_2=corner[1]),
        )
