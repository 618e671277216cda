"""A piece drawn round on the cell, dragged to another place, turned."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable

import msgspec
import numpy as np
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent, QPainter, QPen, QPolygonF

from ....core.job.document import Touch
from ....core.job.nodes import Setting, new_id
from ....core.maps import MapKind
from ....core.repeat.piece import Setting as Turned
from ....core.repeat.piece import outline_of
from ....engine.intents import sheets as sheet_intents
from ... import theme
from ...desk import Desk
from ...words import tr
from .board import Point, RepeatBoard, Tool

PIECE = "touch.piece"
_SHIFT = Qt.KeyboardModifier.ShiftModifier
_TURN, _FINE_TURN = 5.0, 0.5
_LEAST_PX = 10


class PieceTool(Tool):
    """Draw round a piece and drag it. Until it is let be it can be dragged and turned again."""

    def __init__(
        self, desk: Desk, settings: Callable[[], tuple[Setting, str, frozenset[MapKind]]], turn: Callable[[float], None]
    ) -> None:
        self.desk, self.settings, self.turn = desk, settings, turn
        self.drawn: list[Point] = []
        self.held: Touch | None = None
        self.grip: Point | None = None
        self.placed = False

    # What is held ------------------------------------------------------------------------------------

    def let_be(self) -> None:
        """The piece stays where it is; the next drag draws another."""
        self.held, self.drawn, self.placed = None, [], False

    def take_back(self) -> None:
        """The piece is where it was."""
        source, held = self.desk.selection.source, self.held
        if source is not None and held is not None and self.placed:
            self.desk.dispatch(sheet_intents.remove_touch(source, held.id))
        self.let_be()

    def again(self) -> None:
        """The form says something else: so does the piece that is held."""
        if self.held is not None:
            self.held = msgspec.structs.replace(self.held, brush=self.settings()[0])
            self._put(gesture="piece-form")

    def _put(self, gesture: str) -> None:
        source = self.desk.selection.source
        if source is not None and self.held is not None and (self.placed or self.held.offset != (0.0, 0.0)):
            self.placed = True
            self.desk.dispatch(sheet_intents.put_touch(source, self.held, gesture=gesture))

    def _held_still(self) -> None:
        """What was undone is no longer held."""
        source, held = self.desk.selection.source, self.held
        if held is not None and self.placed and (source is None or all(one.id != held.id for one in source.touches)):
            self.let_be()

    # The mouse and keys ------------------------------------------------------------------------------

    def press(self, board: RepeatBoard, at: Point, modifiers: Qt.KeyboardModifier) -> bool:
        if self.desk.selection.source is None or board.done is None or board.done.rough:
            return False
        self._held_still()
        if self.held is not None and self._inside(board, at):
            self.grip = self._beside(board, at, self.held.points[0])
            self.desk.repeat.stroking = True
        else:
            self.let_be()
            self.drawn = [at]
        return True

    def drag(self, board: RepeatBoard, at: Point, modifiers: Qt.KeyboardModifier) -> None:
        if self.held is None:
            here = self._beside(board, at, self.drawn[-1])
            if math.dist(here, self.drawn[-1]) * board.px_per_mm() > 2:
                self.drawn.append(here)
            return
        if self.grip is None:
            return
        at = self._beside(board, at, self.grip)
        by = at[0] - self.grip[0], at[1] - self.grip[1]
        self.grip = at
        points = tuple((round(x + by[0], 3), round(y + by[1], 3)) for x, y in self.held.points)
        offset = round(self.held.offset[0] - by[0], 3), round(self.held.offset[1] - by[1], 3)
        self.held = msgspec.structs.replace(self.held, points=points, offset=offset)
        self._put(gesture=self.held.id)

    def release(self, board: RepeatBoard) -> None:
        if self.grip is not None:
            self.grip = None
            self.desk.end_stroke()
        elif self.drawn:
            wide = [max(p[axis] for p in self.drawn) - min(p[axis] for p in self.drawn) for axis in (0, 1)]
            if len(self.drawn) < 4 or min(wide) * board.px_per_mm() < _LEAST_PX:
                self.let_be()
                return
            brush, _, maps = self.settings()
            brush = msgspec.structs.replace(brush, values={**brush.values, "turn": 0.0})
            self.held = Touch(id=new_id("touch"), brush=brush, points=tuple(self.drawn), maps=maps)
            self.drawn = []
            self.turn(0.0)
            self.desk.tell(tr("Drag the piece to where it should lie."))

    def key(self, board: RepeatBoard, event: QKeyEvent) -> bool:
        key = event.key()
        self._held_still()
        if self.held is None:
            return False
        if key in {Qt.Key.Key_BracketLeft, Qt.Key.Key_BracketRight}:
            step = _FINE_TURN if event.modifiers() & _SHIFT else _TURN
            self.turn(float(self.held.brush.number("turn")) + (step if key == Qt.Key.Key_BracketLeft else -step))
            return True
        if key in {Qt.Key.Key_Return, Qt.Key.Key_Enter}:
            self.let_be()
            return True
        return False

    @staticmethod
    def _beside(board: RepeatBoard, at: Point, near: Point) -> Point:
        """A place, as that of its repeats which lies nearest to another: what leaves the cell comes in again."""
        width, height = board.cell_mm()
        x, y = (
            here - round((here - there) / side) * side
            for here, there, side in zip(at, near, (width, height), strict=True)
        )
        return round(x, 3), round(y, 3)

    # What is seen ------------------------------------------------------------------------------------

    def _outline(self) -> list[Point]:
        assert self.held is not None
        brush = self.held.brush
        as_set = Turned(brush.number("turn"), bool(brush.complete()["mirrored"]), 0.0)
        return outline_of(self.held.points).turned(as_set).points()

    def _inside(self, board: RepeatBoard, at: Point) -> bool:
        assert self.held is not None
        outline = outline_of(self.held.points)
        brush = self.held.brush
        turned = outline.turned(Turned(brush.number("turn"), bool(brush.complete()["mirrored"]), 0.0))
        here = self._beside(board, at, (outline.x, outline.y))
        x, y = here[0] - outline.x, here[1] - outline.y
        return math.hypot(x, y) <= float(turned.at(np.array([math.atan2(y, x)]))[0])

    def cursor(self, board: RepeatBoard, at: Point) -> Qt.CursorShape:
        return (
            Qt.CursorShape.SizeAllCursor
            if self.held is not None and self._inside(board, at)
            else Qt.CursorShape.CrossCursor
        )

    def paint(self, board: RepeatBoard, painter: QPainter) -> None:
        self._held_still()
        points = self._outline() if self.held is not None else self.drawn
        if len(points) < 2:
            return
        width, height = board.cell_mm()
        painter.setBrush(Qt.BrushStyle.NoBrush)
        # What lies over the cell's edge is seen at the other side too.
        for dx, dy in itertools.product((-width, 0.0, width), (-height, 0.0, height)):
            shape = QPolygonF([board.to_screen_raw(x + dx, y + dy) for x, y in points])
            if not shape.boundingRect().intersects(board.areas()[0]):
                continue
            for thick, token in ((3.2, "white"), (1.6, "chalk_line")):
                style = Qt.PenStyle.DashLine if self.held is not None and token != "white" else Qt.PenStyle.SolidLine
                painter.setPen(QPen(theme.colour(token), thick, style))
                draw = painter.drawPolygon if self.held is not None else painter.drawPolyline
                draw(shape)
