"""The build board: a surface as cell, field or wall, with the chalk line of the section and the brush."""

from __future__ import annotations

import itertools
import math
from functools import cache

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import (
    QDragEnterEvent,
    QDropEvent,
    QImage,
    QKeyEvent,
    QPainter,
    QPainterPath,
    QPen,
    QPixmap,
    QPolygonF,
    QTabletEvent,
    QTransform,
)

from ....core.place.figure import FIGURE_MM, silhouette
from ....core.plan.area import Area
from ....core.quantity import format_number
from ....core.relief.pictures import mip_chain
from ....core.sheet import AnyArray
from ....engine.pictures.results import SurfaceParts, SurfacePicture
from ....engine.previews import Stored
from ... import theme
from ...board import Board, lay_wrapped, tile, to_image, to_pixmaps
from ...words import tr
from .comparison import Comparison
from .handles_paint import paint_handles
from .surface_handles import Handles

Point = tuple[float, float]
_MOST_PARTS = 40
"""Of so many repeats in view each part is painted anew by itself; of more the whole board is."""
ITEM_MIME = "application/x-brave-tessel-item"


@cache
def _figure_path() -> QPainterPath:
    """The scale figure as one shape, mm and y up."""
    path = QPainterPath()
    for outline in silhouette():
        limb = QPainterPath()
        limb.addPolygon(QPolygonF([QPointF(x, y) for x, y in outline]))
        path = path.united(limb)
    return path


class SurfaceBoard(Board):
    """World coordinates are mm on the sheet, y up from its lower edge."""

    cut_moved = pyqtSignal(float)
    stroke_changed = pyqtSignal(object)
    stroke_done = pyqtSignal(object)
    brush_sized = pyqtSignal(float)
    pinned = pyqtSignal(float, float)
    handle_moved = pyqtSignal(str, float, float, bool)
    handle_done = pyqtSignal()
    handle_removed = pyqtSignal(str)
    path_clicked = pyqtSignal(float, float)
    picked = pyqtSignal(float, float)
    item_dropped = pyqtSignal(str, float, float)

    def __init__(self) -> None:
        super().__init__(tr("Surface"))
        self.done: SurfacePicture | None = None
        self.mips: list[QPixmap] = []
        self.extent_name = tr("Field 3×3")
        self.cut_y = 0.0
        self.painting = False
        self.brush_mm = 40.0
        self.path: list[Point] = []
        self.pins: list[tuple[float, float, str]] = []
        self._moving_cut = False
        self._turning_cut = False
        self._pointer: QPointF | None = None
        self.cut_angle = 0.0
        self.wall_m = 6
        self.stored_mm = (600.0, 600.0)
        self.handles = Handles()
        self.held = ""
        self.chosen_handle = ""
        self.picking = False
        self.pressure: list[float] = []
        self._pen = 0.0
        self.compared = Comparison(self)
        self.legend: tuple[QImage, tuple[str, str]] | None = None
        self._wiping = False
        self.setAcceptDrops(True)

    # What is shown -------------------------------------------------------------------------------

    def size_mm(self) -> tuple[float, float]:
        if self.done is None:
            return self.stored_mm
        return self.done.grid.width_mm, self.done.grid.height_mm

    def extent(self) -> tuple[float, float, float, float]:
        width, height = self.size_mm()
        if self.extent_name == "Field 3×3":
            return -width, -height, 3 * width, 3 * height
        if self.extent_name.startswith("Wall"):
            return 0.0, 0.0, 1000.0 * self.wall_m, 500.0 * self.wall_m
        return 0.0, 0.0, width, height

    def show_extent(self, name: str) -> None:
        self.extent_name = name
        if name == "Field 3×3":
            # Fill the board with the field: one cell across the middle, its neighbours around it.
            width, height = self.size_mm()
            self.fit()
            area = self.picture_area()
            self.scale = max(area.width() / (1.35 * width), area.height() / (2.6 * height))
            self.fitted = False
            self.view_changed.emit()
            self.update()
            return
        self.fit()

    def show_picture(self, done: SurfacePicture | None) -> None:
        first = self.done is None or done is None or self.done.surface.id != done.surface.id
        resized = not first and done is not None and self.size_mm() != (done.grid.width_mm, done.grid.height_mm)
        self.done = done
        self.mips = to_pixmaps(done.mips) if done else []
        if first and done is not None:
            self.cut_y = 0.44 * done.grid.height_mm
            self.pins = []
            self.show_extent(self.extent_name)
        elif resized and self.fitted:
            self.fit()
        self.update()

    def show_stored(self, stored: Stored) -> None:
        """Show a surface as it was last seen; it is only to be looked at."""
        self.done = None
        self.stored_mm = stored.grid.width_mm, stored.grid.height_mm
        self.mips = to_pixmaps(mip_chain(stored.codes))
        self.cut_y = 0.44 * stored.grid.height_mm
        self.pins = []
        self.show_extent(self.extent_name)
        self.update()

    def show_parts(self, done: SurfaceParts) -> None:
        """Lay what a stroke changed into the picture, at every size it is kept in."""
        for area, mips in done.parts:
            sizes = [(pixmap.height(), pixmap.width()) for pixmap in self.mips]
            if area.grid.shape not in sizes:
                continue
            first = sizes.index(area.grid.shape)
            for finer in range(first):
                # Worked out on a coarser sheet than is shown: enlarged until the whole picture comes.
                times = 1 << (first - finer)
                lay_wrapped(self.mips[finer], to_image(mips[0]), area.column * times, area.row * times, times)
            for mip, (pixmap, codes) in enumerate(zip(self.mips[first:], mips, strict=False)):
                if mip and area.row % (1 << mip) + area.rows % (1 << mip):
                    break
                lay_wrapped(pixmap, to_image(codes), area.column >> mip, area.row >> mip)
            self._update_part(area)

    def _update_part(self, area: Area) -> None:
        """Paint a part of the picture anew wherever its repeats are seen."""
        (left, low), (wide, high) = area.corner_mm(), (area.own.width_mm, area.own.height_mm)
        width, height = self.size_mm()
        seen = self.picture_area()
        (x0, y0), (x1, y1) = self.to_world(seen.bottomLeft()), self.to_world(seen.topRight())
        across = range(math.floor((x0 - left - wide) / width), math.ceil((x1 - left) / width) + 1)
        up = range(math.floor((y0 - low - high) / height), math.ceil((y1 - low) / height) + 1)
        if len(across) * len(up) > _MOST_PARTS:
            self.update()
            return
        for i in across:
            for j in up:
                here = self.world_rect(left + i * width, low + j * height, wide, high)
                self.update(here.toAlignedRect().adjusted(-2, -2, 2, 2))

    # The mouse and keys --------------------------------------------------------------------------

    def _on_cut(self, at: QPointF) -> bool:
        height = self.size_mm()[1]
        _, y = self.to_world(at)
        lap = round((y - self.cut_y) / height)
        return abs(self.to_screen(0, self.cut_y + lap * height).y() - at.y()) < theme.px(5)

    def press(self, at: QPointF, modifiers: Qt.KeyboardModifier) -> None:
        handle = self.handle_at(at)
        if self.compared.holds(at):
            self._wiping = True
        elif self.picking:
            self.picked.emit(*self.to_world(at))
        elif self.painting:
            self.path, self.pressure = [self.to_world(at)], [self._pen] if self._pen else []
            self.stroke_changed.emit(self.path)
        elif handle:
            self.held = self.chosen_handle = handle
        elif self._on_cut(at):
            self._moving_cut = not modifiers & Qt.KeyboardModifier.ShiftModifier
            self._turning_cut = not self._moving_cut
        elif self.handles.path and self._on_path(at):
            self.path_clicked.emit(*self.to_world(at))

    def _update_brush(self, at: QPointF | None) -> None:
        """Paint anew where the brush's ring is, and its size beside it."""
        if at is not None:
            reach = math.ceil(0.5 * self.brush_mm * self.scale) + 4
            ring = QRectF(at.x() - reach, at.y() - reach, 2 * reach, 2 * reach).toAlignedRect()
            self.update(ring.adjusted(0, -theme.px(16), theme.px(70), 0))

    def drag(self, at: QPointF, modifiers: Qt.KeyboardModifier) -> None:
        before, self._pointer = self._pointer, at
        if self._wiping:
            self.compared.drag(at)
        elif self.held:
            self.handle_moved.emit(self.held, *self.to_world(at), bool(modifiers & Qt.KeyboardModifier.ShiftModifier))
        elif self._turning_cut:
            middle = self.to_screen(self.size_mm()[0] / 2, self.cut_y)
            self.turn_cut(math.degrees(math.atan2(middle.y() - at.y(), at.x() - middle.x())))
        elif self.path:
            here = self.to_world(at)
            if modifiers & Qt.KeyboardModifier.ShiftModifier:
                self.path = [self.path[0], here]
            elif math.dist(here, self.path[-1]) > 0.08 * self.brush_mm:
                self.path.append(here)
                if self._pen:
                    self.pressure.append(self._pen)
            self.stroke_changed.emit(self.path)
            self._update_brush(before)
            self._update_brush(at)
            return
        elif self._moving_cut:
            height = self.size_mm()[1]
            self.cut_y = self.to_world(at)[1] % height
            self.cut_moved.emit(self.cut_y)
        self.update()

    def release(self, at: QPointF) -> None:
        self._moving_cut = self._turning_cut = self._wiping = False
        if self.held:
            self.held = ""
            self.handle_done.emit()
        if self.path:
            path, self.path = self.path, []
            self.stroke_done.emit(path)
        self.update()

    def hover(self, at: QPointF) -> None:
        before, self._pointer = self._pointer, at
        if self.painting or self.picking:
            self.setCursor(Qt.CursorShape.CrossCursor)
            self._update_brush(before)
            self._update_brush(at)
        elif self.handle_at(at):
            self.setCursor(Qt.CursorShape.SizeAllCursor)
        else:
            self.setCursor(Qt.CursorShape.SizeVerCursor if self._on_cut(at) else Qt.CursorShape.ArrowCursor)

    def leaveEvent(self, event: object) -> None:
        self._pointer = None
        self.update()
        super().leaveEvent(event)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        if event.key() in {Qt.Key.Key_BracketLeft, Qt.Key.Key_BracketRight}:
            factor = 1.15 if event.key() == Qt.Key.Key_BracketRight else 1 / 1.15
            self.brush_mm = min(2000.0, max(0.5, self.brush_mm * factor))
            self.brush_sized.emit(self.brush_mm)
            self.update()
        elif event.key() == Qt.Key.Key_Delete and self.chosen_handle:
            self.handle_removed.emit(self.chosen_handle)
        elif event.key() in {Qt.Key.Key_Comma, Qt.Key.Key_Period} and not self.painting:
            self.turn_cut(self.cut_angle + (5 if event.key() == Qt.Key.Key_Period else -5))
        elif event.key() == Qt.Key.Key_P and self._pointer is not None:
            self.pinned.emit(*self.to_world(self._pointer))
        elif event.key() in {Qt.Key.Key_Up, Qt.Key.Key_Down} and not self.painting:
            step = 0.1 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1.0
            step *= 1 if event.key() == Qt.Key.Key_Up else -1
            self.cut_y = (self.cut_y + step) % self.size_mm()[1]
            self.cut_moved.emit(self.cut_y)
            self.update()
        else:
            super().keyPressEvent(event)

    # Painting ------------------------------------------------------------------------------------

    def paint_picture(self, painter: QPainter) -> None:
        if self.done is None:
            painter.setPen(Qt.GlobalColor.white)
            painter.setFont(theme.font(13))
            painter.drawText(
                self.rect(),
                Qt.AlignmentFlag.AlignCenter,
                tr("No surface yet: make one at the left, or from a source in Repeat."),
            )
            return
        width, height = self.size_mm()
        cell = self.world_rect(0, 0, width, height)
        left, low, wide, high = self.extent()
        whole = self.world_rect(left, low, wide, high)
        target = (
            cell
            if self.extent_name == "Cell"
            else whole
            if self.extent_name.startswith("Wall")
            else self.picture_area()
        )
        tile(painter, self.mips, target.intersected(self.picture_area()), cell)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self.extent_name.startswith("Wall"):
            self._paint_figure(painter)
        elif self.extent_name != "Cell":
            self._paint_cell_marks(painter, cell)
        if self.compared.pictures:
            self.compared.paint(painter, target)
        self._paint_cut(painter)
        paint_handles(painter, self, self.handles, self.chosen_handle)
        self._paint_pins(painter)
        self._paint_legend(painter)
        if self.painting and self._pointer is not None:
            self._paint_brush(painter, self._pointer)

    def _paint_cell_marks(self, painter: QPainter, cell: QRectF) -> None:
        """Small corner marks, as printers set them, where one repeat ends."""
        painter.setPen(QPen(theme.colour("white"), 1.4))
        size = theme.px(9)
        for corner in (cell.topLeft(), cell.topRight(), cell.bottomLeft(), cell.bottomRight()):
            painter.drawLine(corner + QPointF(-size, 0), corner + QPointF(size, 0))
            painter.drawLine(corner + QPointF(0, -size), corner + QPointF(0, size))

    def _paint_figure(self, painter: QPainter) -> None:
        """The scale figure, 1.75 m, before the wall."""
        base = self.to_screen(1100, 0)
        mm = self.scale
        path = QTransform(mm, 0, 0, -mm, base.x(), base.y()).map(_figure_path())
        shade = theme.colour("ink")
        shade.setAlpha(190)
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillPath(path, shade)
        painter.restore()
        painter.setFont(theme.font(10, mono=True))
        tag = QRectF(base.x() + 300 * mm, base.y() - FIGURE_MM * mm, theme.px(52), theme.px(17))
        painter.setPen(QPen(theme.colour("ink"), 1))
        painter.setBrush(theme.colour("white"))
        painter.drawRect(tag)
        painter.drawText(tag, Qt.AlignmentFlag.AlignCenter, "1.75 m")

    def _paint_cut(self, painter: QPainter) -> None:
        area = self.picture_area()
        width, height = self.size_mm()
        if self.cut_angle == 0:
            low, high = self.to_world(area.bottomLeft())[1], self.to_world(area.topLeft())[1]
            first = math.ceil((low - self.cut_y) / height)
            laps = range(first, math.floor((high - self.cut_y) / height) + 1)
            shown = ([lap for lap in laps if lap == 0] or list(laps)[:1])[:1]
            if not shown:
                return
            y = round(self.to_screen(0, self.cut_y + shown[0] * height).y()) + 0.5
            ends = QPointF(area.left(), y), QPointF(area.right(), y)
        else:
            a = math.radians(self.cut_angle)
            half = (math.cos(a) * width / 2, math.sin(a) * width / 2)
            ends = (
                self.to_screen(width / 2 - half[0], self.cut_y - half[1]),
                self.to_screen(width / 2 + half[0], self.cut_y + half[1]),
            )
            y = min(max(ends[0].y(), area.top()), area.bottom())
        painter.setPen(QPen(theme.colour("white"), 2.6))
        painter.drawLine(*ends)
        painter.setPen(QPen(theme.colour("chalk_line"), 1.4, Qt.PenStyle.DashLine))
        painter.drawLine(*ends)
        tag = QRectF(max(ends[0].x(), area.left()) + theme.px(10), y - theme.px(9), theme.px(52), theme.px(18))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(theme.colour("chalk_line"))
        painter.drawRoundedRect(tag, theme.px(9), theme.px(9))
        painter.setPen(theme.colour("on_ink"))
        painter.setFont(theme.font(11, weight=600))
        painter.drawText(tag, Qt.AlignmentFlag.AlignCenter, tr("A  cut"))

    def turn_cut(self, degrees: float) -> None:
        """Turn the cut line about the middle of the sheet; near a level or a quarter turn it snaps."""
        turned = (degrees + 90) % 180 - 90
        near = round(turned / 45) * 45
        self.cut_angle = float(near if abs(turned - near) < 2.5 else round(turned, 1))
        self.cut_moved.emit(self.cut_y)
        self.update()

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        mime = event.mimeData() if event else None
        if event and mime and mime.hasFormat(ITEM_MIME):
            event.acceptProposedAction()
        elif event:
            event.ignore()

    def dropEvent(self, event: QDropEvent | None) -> None:
        """Something of the library dropped on the surface."""
        mime = event.mimeData() if event else None
        if event and mime and mime.hasFormat(ITEM_MIME):
            event.acceptProposedAction()
            self.item_dropped.emit(bytes(mime.data(ITEM_MIME).data()).decode(), *self.to_world(event.position()))

    # Handles -------------------------------------------------------------------------------------

    def handle_at(self, at: QPointF) -> str:
        """The handle under a place, the last drawn first."""
        for handle in reversed(self.handles.handles):
            there = self.to_screen(handle.x, handle.y)
            if math.hypot(there.x() - at.x(), there.y() - at.y()) < theme.px(8):
                return handle.name
        return ""

    def _on_path(self, at: QPointF) -> bool:
        points = [self.to_screen(*p) for p in self.handles.path]
        for a, b in itertools.pairwise(points):
            dx, dy = b.x() - a.x(), b.y() - a.y()
            t = min(1.0, max(0.0, ((at.x() - a.x()) * dx + (at.y() - a.y()) * dy) / max(dx * dx + dy * dy, 1e-9)))
            if math.hypot(at.x() - a.x() - t * dx, at.y() - a.y() - t * dy) < theme.px(6):
                return True
        return False

    def show_handles(self, handles: Handles) -> None:
        self.handles = handles
        if self.chosen_handle not in {handle.name for handle in handles.handles}:
            self.chosen_handle = ""
        self.update()

    def tabletEvent(self, event: QTabletEvent | None) -> None:
        """A pen's pressure goes with the stroke; the rest is as with the mouse."""
        if event is None:
            return
        self._pen = event.pressure() if event.pressure() > 0 else 0.0
        event.ignore()

    def show_legend(self, legend: tuple[AnyArray, tuple[str, str]] | None) -> None:
        """What the colours of the view mean: from left to right, and what stands at their ends."""
        self.legend = None if legend is None else (to_image(legend[0][None].repeat(8, 0)), legend[1])
        self.update()

    def _paint_legend(self, painter: QPainter) -> None:
        if self.legend is None:
            return
        image, ends = self.legend
        area = self.picture_area()
        box = QRectF(area.left() + theme.px(10), area.top() + theme.px(56), theme.px(300), theme.px(38))
        painter.setPen(QPen(theme.colour("line"), 1))
        painter.setBrush(theme.colour("panel"))
        painter.drawRect(box)
        inner = box.adjusted(theme.px(8), theme.px(6), -theme.px(8), -theme.px(22))
        painter.drawImage(inner, image)
        painter.setPen(theme.colour("ink"))
        painter.setFont(theme.font(10, mono=True))
        words = box.adjusted(theme.px(8), theme.px(18), -theme.px(8), 0)
        painter.drawText(words, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, tr(ends[0]))
        painter.drawText(words, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, tr(ends[1]))

    def _paint_pins(self, painter: QPainter) -> None:
        painter.setFont(theme.font(10, mono=True))
        for x, y, text in self.pins:
            at = self.to_screen(x, y)
            width = painter.fontMetrics().horizontalAdvance(text) + theme.px(12)
            box = QRectF(at.x() + theme.px(10), at.y() - theme.px(24), width, theme.px(18))
            painter.setPen(QPen(theme.colour("ink"), 1))
            painter.setBrush(theme.colour("white"))
            painter.drawLine(at, box.bottomLeft())
            painter.drawRect(box)
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
            painter.drawEllipse(at, 3, 3)

    def _paint_brush(self, painter: QPainter, at: QPointF) -> None:
        radius = 0.5 * self.brush_mm * self.scale
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for width, token in ((2.6, "white"), (1.2, "ink")):
            painter.setPen(QPen(theme.colour(token), width))
            painter.drawEllipse(at, radius, radius)
        painter.setFont(theme.font(10, mono=True))
        painter.setPen(theme.colour("white"))
        painter.drawText(
            at + QPointF(radius + 4, -4), tr("{number} mm", number=format_number(self.brush_mm, decimals=0))
        )
