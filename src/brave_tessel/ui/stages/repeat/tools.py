"""What the steps of Repeat do on the board: choosing the repeat, pulling the cut, brushing, shifting, marking."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable

import msgspec
from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QKeyEvent, QPainter, QPainterPath, QPen, QPolygonF

from ....core.job.document import Crop, CutPin, Touch
from ....core.job.nodes import Setting, new_id
from ....core.maps import MapKind
from ....core.repeat.quieten import Feature
from ....engine.intents import sheets as sheet_intents
from ....engine.pictures.results import CutPicture
from ... import theme
from ...desk import Desk
from ...words import tr
from .board import Point, RepeatBoard, Tool

_SHIFT = Qt.KeyboardModifier.ShiftModifier
_ARROWS = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, 1), Qt.Key.Key_Down: (0, -1)}


def chalk(painter: QPainter, width: float = 1.6, style: Qt.PenStyle = Qt.PenStyle.SolidLine) -> None:
    painter.setPen(QPen(theme.colour("chalk_line"), width, style))


class ChooseTool(Tool):
    """The rectangle that is made to repeat, on the whole sheet: drag a side, a corner, or all of it."""

    whole_sheet = True

    def __init__(self, desk: Desk) -> None:
        self.desk = desk
        self.grip: tuple[int, int] | None = None
        self.start: tuple[Point, Crop] | None = None

    def crop(self) -> Crop | None:
        source = self.desk.selection.source
        if source is None or not source.straightening.sized:
            return None
        frame = source.straightening
        return source.crop or Crop(x_mm=0, y_mm=0, width_mm=frame.width_mm, height_mm=frame.height_mm)

    def _grip_at(self, board: RepeatBoard, at: Point) -> tuple[int, int] | None:
        """Which sides lie under a place: −1, 0, 1 across and up; (0, 0) is the inside."""
        crop = self.crop()
        if crop is None:
            return None
        near = theme.px(9) / board.px_per_mm()
        sides = []
        for value, low, size in ((at[0], crop.x_mm, crop.width_mm), (at[1], crop.y_mm, crop.height_mm)):
            if not low - near <= value <= low + size + near:
                return None
            sides.append(-1 if abs(value - low) < near else 1 if abs(value - low - size) < near else 0)
        return sides[0], sides[1]

    def press(self, board: RepeatBoard, at: Point, modifiers: Qt.KeyboardModifier) -> bool:
        crop = self.crop()
        self.grip = self._grip_at(board, at)
        if crop is None or self.grip is None:
            return False
        self.start = (at, crop)
        return True

    def drag(self, board: RepeatBoard, at: Point, modifiers: Qt.KeyboardModifier) -> None:
        source = self.desk.selection.source
        if source is None or self.start is None or self.grip is None:
            return
        (x0, y0), crop = self.start
        by = at[0] - x0, at[1] - y0
        across = _stretched(
            crop.x_mm, crop.width_mm, self.grip[0], by[0], source.straightening.width_mm, still=self.grip == (0, 0)
        )
        up = _stretched(
            crop.y_mm, crop.height_mm, self.grip[1], by[1], source.straightening.height_mm, still=self.grip == (0, 0)
        )
        value = Crop(x_mm=across[0], width_mm=across[1], y_mm=up[0], height_mm=up[1])
        self.desk.dispatch(sheet_intents.set_crop(self.desk.job, source, value, gesture="crop"))

    def release(self, board: RepeatBoard) -> None:
        self.start = None
        self.desk.end_gesture()

    def cursor(self, board: RepeatBoard, at: Point) -> Qt.CursorShape:
        grip = self._grip_at(board, at)
        if grip is None:
            return Qt.CursorShape.ArrowCursor
        if grip == (0, 0):
            return Qt.CursorShape.SizeAllCursor
        if 0 in grip:
            return Qt.CursorShape.SizeHorCursor if grip[0] else Qt.CursorShape.SizeVerCursor
        return Qt.CursorShape.SizeBDiagCursor if grip[0] == grip[1] else Qt.CursorShape.SizeFDiagCursor

    def key(self, board: RepeatBoard, event: QKeyEvent) -> bool:
        source, crop, by = self.desk.selection.source, self.crop(), _ARROWS.get(Qt.Key(event.key()))
        if source is None or crop is None or by is None:
            return False
        step = 0.1 if event.modifiers() & _SHIFT else 1.0
        x = min(max(0.0, crop.x_mm + by[0] * step), source.straightening.width_mm - crop.width_mm)
        y = min(max(0.0, crop.y_mm + by[1] * step), source.straightening.height_mm - crop.height_mm)
        self.desk.dispatch(sheet_intents.set_crop(self.desk.job, source, msgspec.structs.replace(crop, x_mm=x, y_mm=y)))
        return True

    def paint(self, board: RepeatBoard, painter: QPainter) -> None:
        crop = self.crop()
        if crop is None:
            return
        inside = QRectF(
            board.to_screen(crop.x_mm, crop.y_mm + crop.height_mm),
            board.to_screen(crop.x_mm + crop.width_mm, crop.y_mm),
        )
        outside = QPainterPath()
        outside.addRect(QRectF(board.rect()))
        outside.addRect(inside)
        shade = theme.colour("board")
        shade.setAlpha(150)
        painter.fillPath(outside, shade)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for width, token in ((3.4, "white"), (1.8, "chalk_line")):
            painter.setPen(QPen(theme.colour(token), width))
            painter.drawRect(inside)
        for corner in (inside.topLeft(), inside.topRight(), inside.bottomLeft(), inside.bottomRight()):
            painter.setPen(QPen(theme.colour("white"), 2))
            painter.setBrush(theme.colour("chalk_line"))
            painter.drawEllipse(corner, theme.px(5), theme.px(5))


def _stretched(low: float, size: float, grip: int, by: float, whole: float, *, still: bool) -> tuple[float, float]:
    """One axis of the rectangle after a drag: moved as a whole, or one side moved."""
    least = 0.05 * whole
    if still:
        return min(max(0.0, low + by), whole - size), size
    if grip < 0:
        start = min(max(0.0, low + by), low + size - least)
        return start, low + size - start
    if grip > 0:
        return low, min(max(least, size + by), whole - low)
    return low, size


class CutTool(Tool):
    """The two cuts; drag one and it passes there, double-click a pin and it is let go."""

    def __init__(self, desk: Desk) -> None:
        self.desk = desk
        self.pin: CutPin | None = None
        self.shown = True

    def _cut(self, board: RepeatBoard) -> CutPicture | None:
        return board.done.cut if board.done else None

    def _pinned(self, board: RepeatBoard, pin: CutPin) -> Point:
        """Where a pin lies on the cell, mm."""
        assert board.done is not None
        grid, cut = board.done.grid, board.done.cut
        lap = cut.laps if cut else (0.0, 0.0)
        shift = board.done.source.shift
        if pin.axis == "x":
            x, y = pin.across * lap[0] * grid.width_mm, (1 - pin.along * (1 + lap[1])) * grid.height_mm
        else:
            x, y = pin.along * grid.width_mm, (1 - pin.across * lap[1]) * grid.height_mm
        return x + shift[0], y + shift[1]

    def _shares(self, board: RepeatBoard, axis: str, at: Point) -> tuple[float, float]:
        """A place as shares of the cut's length and of the overlap."""
        assert board.done is not None
        grid, cut = board.done.grid, board.done.cut
        assert cut is not None
        shift = board.done.source.shift
        u, v = ((at[0] - shift[0]) / grid.width_mm) % 1, (1 - (at[1] - shift[1]) / grid.height_mm) % 1
        if axis == "x":
            return v / (1 + cut.laps[1]), min(0.9, max(0.1, _signed(u) / max(cut.laps[0], 1e-6)))
        return u, min(0.9, max(0.1, _signed(v) / max(cut.laps[1], 1e-6)))

    def _axis_at(self, board: RepeatBoard, at: Point) -> str:
        """Which cut lies near a place; empty if none."""
        cut, done = self._cut(board), board.done
        if cut is None or done is None:
            return ""
        shift, grid = done.source.shift, done.grid
        u, v = ((at[0] - shift[0]) / grid.width_mm) % 1, (1 - (at[1] - shift[1]) / grid.height_mm) % 1
        near = theme.px(8) / board.px_per_mm()
        x = float(cut.path_x[min(len(cut.path_x) - 1, int(v * len(cut.path_x)))])
        y = float(cut.path_y[min(len(cut.path_y) - 1, int(u * len(cut.path_y)))])
        away_x, away_y = abs(_signed(u - x)) * grid.width_mm, abs(_signed(v - y)) * grid.height_mm
        if min(away_x, away_y) > near:
            return ""
        return "x" if away_x <= away_y else "y"

    def _pin_at(self, board: RepeatBoard, at: Point) -> CutPin | None:
        source = self.desk.selection.source
        here = board.to_screen(*at)
        for pin in source.pins if source else ():
            there = board.to_screen(*self._pinned(board, pin))
            if math.hypot(there.x() - here.x(), there.y() - here.y()) < theme.px(10):
                return pin
        return None

    def press(self, board: RepeatBoard, at: Point, modifiers: Qt.KeyboardModifier) -> bool:
        if self._cut(board) is None:
            return False
        self.pin = self._pin_at(board, at)
        axis = self.pin.axis if self.pin else self._axis_at(board, at)
        if not axis:
            return False
        if self.pin is None:
            along, across = self._shares(board, axis, at)
            self.pin = CutPin(id=new_id("pin"), axis=axis, along=along, across=across)
        return True

    def drag(self, board: RepeatBoard, at: Point, modifiers: Qt.KeyboardModifier) -> None:
        source = self.desk.selection.source
        if source is None or self.pin is None:
            return
        along, across = self._shares(board, self.pin.axis, at)
        self.pin = msgspec.structs.replace(self.pin, along=round(along, 4), across=round(across, 4))
        self.desk.dispatch(sheet_intents.put_pin(source, self.pin, gesture=self.pin.id))

    def release(self, board: RepeatBoard) -> None:
        self.pin = None
        self.desk.end_gesture()

    def double(self, board: RepeatBoard, at: Point) -> None:
        source, pin = self.desk.selection.source, self._pin_at(board, at)
        if source and pin:
            self.desk.dispatch(sheet_intents.remove_pins(source, pin.id))

    def cursor(self, board: RepeatBoard, at: Point) -> Qt.CursorShape:
        axis = self._axis_at(board, at)
        return {"x": Qt.CursorShape.SizeHorCursor, "y": Qt.CursorShape.SizeVerCursor}.get(
            axis, Qt.CursorShape.ArrowCursor
        )

    def paint(self, board: RepeatBoard, painter: QPainter) -> None:
        cut, done = self._cut(board), board.done
        if cut is None or done is None or not self.shown:
            return
        shift, grid = done.source.shift, done.grid

        to_screen = board.placing()

        def place(x: float, y: float) -> QPointF:
            return to_screen(x * grid.width_mm + shift[0], (1 - y) * grid.height_mm + shift[1])

        upright = [place(float(x), i / cut.path_x.size) for i, x in enumerate(cut.path_x)]
        level = [place(i / cut.path_y.size, float(y)) for i, y in enumerate(cut.path_y)]
        reach = 0.3 * min(grid.width_mm, grid.height_mm) * board.px_per_mm()
        chalk(painter)
        for points in (upright, level):
            for run in _runs(points, reach):
                painter.drawPolyline(QPolygonF(run))
        spot = place(*cut.worst)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for width, token in ((3.0, "white"), (1.6, "chalk_line")):
            painter.setPen(QPen(theme.colour(token), width))
            painter.drawEllipse(spot, theme.px(11), theme.px(11))
        for pin in done.source.pins:
            painter.setPen(QPen(theme.colour("white"), 2))
            painter.setBrush(theme.colour("chalk_line"))
            painter.drawEllipse(board.to_screen(*self._pinned(board, pin)), theme.px(4.5), theme.px(4.5))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for patch in cut.patches:
            chalk(painter, 1.2, Qt.PenStyle.DashLine)
            outline = [to_screen(x + shift[0], grid.height_mm - y + shift[1]) for x, y in patch]
            for run in _runs([*outline, outline[0]], reach):
                painter.drawPolyline(QPolygonF(run))


def _signed(share: float) -> float:
    return (share + 0.5) % 1 - 0.5


def _runs(points: list[QPointF], reach: float) -> list[list[QPointF]]:
    """A path cut where it leaves the cell on one side and comes in on the other."""
    runs: list[list[QPointF]] = [[points[0]]]
    for before, here in itertools.pairwise(points):
        if abs(here.x() - before.x()) + abs(here.y() - before.y()) > reach:
            runs.append([])
        runs[-1].append(here)
    return [run for run in runs if len(run) > 1]


class BrushTool(Tool):
    """Touch-up strokes on cell and field. T sets the place that clone and heal take from."""

    on_field = True

    def __init__(
        self,
        desk: Desk,
        settings: Callable[[], tuple[Setting, str, frozenset[MapKind]]],
        sized: Callable[[float], None],
    ) -> None:
        self.desk = desk
        self.settings = settings
        self.sized = sized
        self.touch: Touch | None = None
        self.points: list[Point] = []
        self.take_from: Point | None = None
        self.offset: Point | None = None

    @property
    def size(self) -> float:
        brush = self.settings()[0]
        return float(brush.number("size"))

    def press(self, board: RepeatBoard, at: Point, modifiers: Qt.KeyboardModifier) -> bool:
        source, done = self.desk.selection.source, board.done
        if source is None or done is None or done.rough:
            return False
        brush, tip, maps = self.settings()
        self.points = [(round(at[0], 3), round(at[1], 3))]
        offset = (0.0, 0.0)
        if brush.op in {"touch.clone", "touch.heal"}:
            if self.take_from is not None:
                self.offset = (self.take_from[0] - at[0], self.take_from[1] - at[1])
                self.take_from = None
            offset = self.offset or sheet_intents.likeliest_offset(done.small, at, self.size)
        self.desk.repeat.stroking = True
        command, self.touch = sheet_intents.begin_touch(
            source, brush, tuple(self.points), offset=offset, tip=tip, maps=maps
        )
        self.desk.dispatch(command)
        return True

    def drag(self, board: RepeatBoard, at: Point, modifiers: Qt.KeyboardModifier) -> None:
        source = self.desk.selection.source
        if source is None or self.touch is None:
            return
        here = (round(at[0], 3), round(at[1], 3))
        if modifiers & _SHIFT:
            self.points = [self.points[0], here]
        elif math.dist(here, self.points[-1]) > 0.06 * self.size:
            self.points.append(here)
        else:
            return
        self.desk.dispatch(sheet_intents.lengthen_touch(source, self.touch, tuple(self.points)))

    def release(self, board: RepeatBoard) -> None:
        self.touch = None
        self.desk.end_stroke()

    def key(self, board: RepeatBoard, event: QKeyEvent) -> bool:
        if event.key() in {Qt.Key.Key_BracketLeft, Qt.Key.Key_BracketRight}:
            self.sized(self.size * (1.15 if event.key() == Qt.Key.Key_BracketRight else 1 / 1.15))
            return True
        if event.key() == Qt.Key.Key_T and board.pointer is not None and board.areas()[0].contains(board.pointer):
            self.take_from, self.offset = board.to_mm(board.pointer), None
            self.desk.tell(tr("Takes from here: the next stroke sets where it lands."))
            return True
        if event.key() == Qt.Key.Key_A:
            self.take_from = self.offset = None
            self.desk.tell(tr("Finds by itself where to take from."))
            return True
        return False

    def cursor(self, board: RepeatBoard, at: Point) -> Qt.CursorShape:
        return Qt.CursorShape.CrossCursor

    def paint(self, board: RepeatBoard, painter: QPainter) -> None:
        at = board.pointer
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if at is not None and board.areas()[0].contains(at):
            radius = 0.5 * self.size * board.px_per_mm()
            for width, token in ((2.6, "white"), (1.2, "ink")):
                painter.setPen(QPen(theme.colour(token), width))
                painter.drawEllipse(at, radius, radius)
        for place in (self.take_from, self._source_place(board)):
            if place is None:
                continue
            there = board.to_screen(*place)
            for width, token in ((3.2, "white"), (1.6, "chalk_line")):
                painter.setPen(QPen(theme.colour(token), width))
                for dx, dy in ((theme.px(7), 0), (0, theme.px(7))):
                    painter.drawLine(there - QPointF(dx, dy), there + QPointF(dx, dy))

    def _source_place(self, board: RepeatBoard) -> Point | None:
        """What the stroke under way takes from just now."""
        if self.touch is None or self.touch.offset == (0.0, 0.0):
            return None
        return self.points[-1][0] + self.touch.offset[0], self.points[-1][1] + self.touch.offset[1]


class ShiftTool(Tool):
    """Drag the sheet over its own edges."""

    def __init__(self, desk: Desk) -> None:
        self.desk = desk
        self.start: tuple[Point, Point] | None = None

    def press(self, board: RepeatBoard, at: Point, modifiers: Qt.KeyboardModifier) -> bool:
        source = self.desk.selection.source
        self.start = (at, source.shift) if source else None
        self.desk.repeat.stroking = source is not None
        return source is not None

    def drag(self, board: RepeatBoard, at: Point, modifiers: Qt.KeyboardModifier) -> None:
        source = self.desk.selection.source
        if source and self.start:
            (x, y), (sx, sy) = self.start
            self.desk.dispatch(sheet_intents.set_shift(source, (sx + at[0] - x, sy + at[1] - y), gesture="shift"))

    def release(self, board: RepeatBoard) -> None:
        self.desk.end_stroke()

    def cursor(self, board: RepeatBoard, at: Point) -> Qt.CursorShape:
        return Qt.CursorShape.OpenHandCursor

    def key(self, board: RepeatBoard, event: QKeyEvent) -> bool:
        source, by = self.desk.selection.source, _ARROWS.get(Qt.Key(event.key()))
        if source is None or by is None:
            return False
        step = (
            0.1
            if event.modifiers() & _SHIFT
            else 10.0
            if event.modifiers() & Qt.KeyboardModifier.ControlModifier
            else 1.0
        )
        self.desk.dispatch(
            sheet_intents.set_shift(source, (source.shift[0] + by[0] * step, source.shift[1] + by[1] * step))
        )
        return True


class FeatureTool(Tool):
    """The features that the eye finds again, numbered as in the list; a click covers one."""

    def __init__(self, quieten: Callable[[int], None]) -> None:
        self.quieten = quieten

    def _features(self, board: RepeatBoard) -> tuple[Feature, ...]:
        return board.done.features if board.done else ()

    def _at(self, board: RepeatBoard, feature: Feature) -> QPointF:
        assert board.done is not None
        return board.to_screen(feature.x, board.done.grid.height_mm - feature.y)

    def plate(self, board: RepeatBoard, feature: Feature) -> QRectF:
        """Where a feature's number stands: at the upper right of its ring, or at another corner that lies on the
        cell.
        """
        there, away, cell = self._at(board, feature), 0.35 * feature.size * board.px_per_mm(), board.areas()[0]
        width, height = theme.px(17), theme.px(15)
        right, up = there.x() + away, there.y() - away - height
        return QRectF(
            right if right + width <= cell.right() else there.x() - away - width,
            up if up >= cell.top() else there.y() + away,
            width,
            height,
        )

    def press(self, board: RepeatBoard, at: Point, modifiers: Qt.KeyboardModifier) -> bool:
        here = board.to_screen(*at)
        for index, feature in enumerate(self._features(board)):
            there = self._at(board, feature)
            if math.hypot(there.x() - here.x(), there.y() - here.y()) < 0.5 * feature.size * board.px_per_mm():
                self.quieten(index)
                break
        return False

    def paint(self, board: RepeatBoard, painter: QPainter) -> None:
        painter.setFont(theme.font(11, mono=True, weight=600))
        for index, feature in enumerate(self._features(board)):
            there, radius = self._at(board, feature), 0.5 * feature.size * board.px_per_mm()
            painter.setBrush(Qt.BrushStyle.NoBrush)
            for width, token in ((3.0, "white"), (1.4, "ink")):
                painter.setPen(QPen(theme.colour(token), width))
                painter.drawEllipse(there, radius, radius)
            plate = self.plate(board, feature)
            painter.setPen(QPen(theme.colour("ink"), 1))
            painter.setBrush(theme.colour("white"))
            painter.drawRect(plate)
            painter.drawText(plate, Qt.AlignmentFlag.AlignCenter, str(index + 1))
