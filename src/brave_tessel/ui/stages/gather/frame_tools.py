"""What is done on the photo: framing, measuring, straightening a line, picking greys and colours."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any, Protocol

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QKeyEvent, QPainter, QPen, QPolygonF

from ....core.errors import TesselError
from ....core.gather.palette import along_line, dominant
from ....core.gather.straighten import Corners, places_on_sheet
from ....core.job.document import Source
from ....core.sheet import Raster
from ....engine.intents import sheets as sheet_intents
from ....engine.intents import sources as source_intents
from ....engine.wording import sentence
from ... import theme
from ...desk import Desk
from ...words import tr

Point = tuple[float, float]
Line = tuple[Point, Point]
_STEPS = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1)}


class PhotoBoard(Protocol):
    """What a tool asks of the board it is used on."""

    line: Line | None
    pointer: Point | None
    stops: int
    scale: float
    source: Source | None

    @property
    def corners(self) -> Corners | None:
        """The frame's corners, photo pixels."""

    def to_screen(self, x: float, y: float) -> QPointF:
        """A place of the photo on the board."""

    def use(self, name: str) -> None:
        """Take another tool in hand."""

    def told_length(self) -> None:
        """A line of known length was drawn."""

    def ask_pixels(self, look: Callable[[Raster], Any], put: Callable[[Any], None]) -> None:
        """Look at the photo's pixels beside the window's thread."""

    def ask_colours(self, find: Callable[[Raster], tuple[str, ...]]) -> None:
        """Find a palette in the photo's pixels beside the window's thread."""

    def paint_loupe(self, painter: QPainter, corner: Point) -> None:
        """The photo around a place, enlarged."""

    def update(self) -> None:
        """Paint anew."""


class PhotoTool:
    """One thing done with the left button. Points are photo pixels."""

    hint = ""
    cursor = Qt.CursorShape.CrossCursor
    loupe = False
    """Whether the photo under the pointer is enlarged."""

    def __init__(self, desk: Desk) -> None:
        self.desk = desk

    def press(self, board: PhotoBoard, at: Point) -> None:
        """Button down."""

    def drag(self, board: PhotoBoard, at: Point) -> None:
        """Moved with the button held."""

    def release(self, board: PhotoBoard) -> None:
        """Button up."""

    def key(self, board: PhotoBoard, event: QKeyEvent) -> bool:
        """A key; whether it was of use."""
        return False

    def shape(self, board: PhotoBoard, at: Point) -> Qt.CursorShape:
        """The pointer over a place."""
        return self.cursor

    def paint(self, board: PhotoBoard, painter: QPainter) -> None:
        """Over the photo and its frame."""
        if self.loupe and board.pointer is not None:
            board.paint_loupe(painter, board.pointer)


class FrameTool(PhotoTool):
    """Drag a corner, or a side between two; arrows nudge what was taken last."""

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.corner = self.side = -1
        self.dragging = False
        self.last: Point = (0.0, 0.0)

    def _find(self, board: PhotoBoard, at: Point) -> tuple[int, int]:
        """The corner or the side under a place, −1 for none."""
        corners = board.corners
        if corners is None:
            return -1, -1
        here = board.to_screen(*at)
        places = [board.to_screen(*corner) for corner in corners]
        away = [math.hypot(p.x() - here.x(), p.y() - here.y()) for p in places]
        nearest = min(range(4), key=away.__getitem__)
        if away[nearest] < theme.px(14):
            return nearest, -1
        sides = [_distance(here, places[k], places[(k + 1) % 4]) for k in range(4)]
        closest = min(range(4), key=sides.__getitem__)
        return -1, closest if sides[closest] < theme.px(8) else -1

    def press(self, board: PhotoBoard, at: Point) -> None:
        self.corner, self.side = self._find(board, at)
        self.dragging = max(self.corner, self.side) >= 0
        self.last = at

    def drag(self, board: PhotoBoard, at: Point) -> None:
        if not self.dragging or board.corners is None:
            return
        if self.corner >= 0:
            self._put(board, {self.corner: at}, gesture=f"corner-{self.corner}")
        else:
            moved = move_side(board.corners, self.side, (at[0] - self.last[0], at[1] - self.last[1]))
            if moved is not None:
                self._put(board, moved, gesture=f"side-{self.side}")
        self.last = at

    def release(self, board: PhotoBoard) -> None:
        if self.dragging:
            self.dragging = False
            self.desk.end_gesture()

    def key(self, board: PhotoBoard, event: QKeyEvent) -> bool:
        by, corners = _STEPS.get(Qt.Key(event.key())), board.corners
        if by is None or corners is None or max(self.corner, self.side) < 0:
            return False
        size: float = 10 if event.modifiers() & Qt.KeyboardModifier.ControlModifier else 1
        size = 0.25 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else size
        ends = [self.corner] if self.corner >= 0 else [self.side, (self.side + 1) % 4]
        self._put(board, {k: (corners[k][0] + by[0] * size, corners[k][1] + by[1] * size) for k in ends}, gesture="")
        return True

    def shape(self, board: PhotoBoard, at: Point) -> Qt.CursorShape:
        corner, side = self._find(board, at)
        if corner >= 0:
            return Qt.CursorShape.SizeAllCursor
        return Qt.CursorShape.OpenHandCursor if side >= 0 else Qt.CursorShape.ArrowCursor

    def _put(self, board: PhotoBoard, places: dict[int, Point], *, gesture: str) -> None:
        source = board.source
        if source is None:
            return
        corners = list(source.straightening.corners)
        for index, (x, y) in places.items():
            corners[index] = (min(max(x, 0.0), float(source.width_px)), min(max(y, 0.0), float(source.height_px)))
        try:
            command = source_intents.set_frame(source, tuple(corners), gesture=gesture)  # type: ignore[arg-type]
        except TesselError:
            return
        self.desk.dispatch(command)

    def paint(self, board: PhotoBoard, painter: QPainter) -> None:
        if self.dragging and self.corner >= 0 and board.corners:
            board.paint_loupe(painter, board.corners[self.corner])


def move_side(corners: tuple[Point, ...], side: int, by: Point) -> dict[int, Point] | None:
    """A side moved so that its ends slide along the neighbouring sides; None where those do not meet it."""
    a, b = (np.array(corners[k % 4]) for k in (side, side + 1))
    before, after = (np.array(corners[k % 4]) for k in (side + 3, side + 2))
    along = b - a
    normal = np.array([-along[1], along[0]]) / max(float(np.hypot(*along)), 1e-9)
    step = float(np.dot(by, normal))
    moved = {}
    for index, end, beyond in ((side, a, before), ((side + 1) % 4, b, after)):
        slide = end - beyond
        slope = float(np.dot(slide, normal))
        if abs(slope) < 1e-6 * float(np.hypot(*slide)):
            return None
        place = end + slide * (step / slope)
        moved[index] = (float(place[0]), float(place[1]))
    return moved


def _distance(p: QPointF, a: QPointF, b: QPointF) -> float:
    """From a point to a stretch."""
    dx, dy = b.x() - a.x(), b.y() - a.y()
    share = ((p.x() - a.x()) * dx + (p.y() - a.y()) * dy) / max(dx * dx + dy * dy, 1e-9)
    share = min(1.0, max(0.0, share))
    return math.hypot(p.x() - a.x() - share * dx, p.y() - a.y() - share * dy)


class LineTool(PhotoTool):
    """Drag a line; what it means is the subclass's."""

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.start: Point | None = None

    def press(self, board: PhotoBoard, at: Point) -> None:
        self.start = at
        self.put(board, at, at)

    def drag(self, board: PhotoBoard, at: Point) -> None:
        if self.start is not None:
            self.put(board, self.start, at)

    def put(self, board: PhotoBoard, start: Point, end: Point) -> None:
        board.line = (start, end)
        board.update()

    def release(self, board: PhotoBoard) -> None:
        if board.line is None:
            return
        if math.dist(*board.line) * board.scale < 4:
            board.line = None
        else:
            self.done(board)

    def done(self, board: PhotoBoard) -> None:
        """The line is drawn."""


class MeasureTool(LineTool):
    hint = "Drag over something whose length you know, then type the length."

    def done(self, board: PhotoBoard) -> None:
        board.use("frame")
        board.told_length()


class LightTool(LineTool):
    """A cast shadow tells where the light came from."""

    hint = "Drag along a cast shadow, from what throws it to its tip."

    def done(self, board: PhotoBoard) -> None:
        source, line = board.source, board.line
        board.line = None
        board.use("frame")
        if source is None or line is None:
            return
        try:
            command = sheet_intents.light_along(source, *line)
        except TesselError as error:
            self.desk.tell(tr(sentence(error)), "caution")
            return
        if command is not None:
            self.desk.dispatch(command)


class PaletteLineTool(LineTool):
    hint = "Drag a line across the colours you want."

    def done(self, board: PhotoBoard) -> None:
        line, stops = board.line, board.stops
        assert line is not None
        board.ask_colours(lambda pixels: along_line(pixels, *line, stops))


class PaletteAreaTool(LineTool):
    """A rectangle whose dominant colours are found."""

    hint = "Drag a rectangle over the colours you want."

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.area: tuple[Point, Point] | None = None

    def put(self, board: PhotoBoard, start: Point, end: Point) -> None:
        self.area = (start, end)
        board.update()

    def release(self, board: PhotoBoard) -> None:
        area, stops = self.area, board.stops
        self.area = None
        if area is None or board.source is None:
            return
        (x0, x1), (y0, y1) = (sorted(pair) for pair in zip(*area, strict=True))
        wide, high = board.source.width_px, board.source.height_px
        left, right = (round(min(max(x, 0.0), wide)) for x in (x0, x1))
        top, foot = (round(min(max(y, 0.0), high)) for y in (y0, y1))
        if right - left < 2 or foot - top < 2:
            return
        board.ask_colours(lambda pixels: dominant(np.ascontiguousarray(pixels[top:foot, left:right]), stops))

    def paint(self, board: PhotoBoard, painter: QPainter) -> None:
        if self.area is None:
            return
        a, b = (board.to_screen(*end) for end in self.area)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for width, token in ((3.0, "white"), (1.6, "chalk_line")):
            painter.setPen(QPen(theme.colour(token), width))
            painter.drawRect(QRectF(a, b).normalized())


class StraightTool(PhotoTool):
    """Lines along edges that should be straight: a middle is pulled onto its edge, and the lens follows.

    A line that bends is kept with the source; every further one makes the lens surer, and from the second on
    the corners may bend otherwise than the middle.
    """

    hint = "Drag from end to end of an edge that should be straight, then pull the middle onto it."

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.points: list[Point] = []
        self.index = self.held = -1

    def press(self, board: PhotoBoard, at: Point) -> None:
        edges = list(board.source.straightening.edges) if board.source else []
        here = board.to_screen(*at)
        fresh = [(len(edges), tuple(self.points))] if self.index >= len(edges) and self.points else []
        for index, edge in [*enumerate(edges), *fresh]:
            for held, point in enumerate(edge):
                there = board.to_screen(*point)
                if math.hypot(there.x() - here.x(), there.y() - here.y()) < theme.px(12):
                    self.points, self.index, self.held = list(edge), index, held
                    return
        self.points, self.index, self.held = [at, at, at], len(edges), 2

    def drag(self, board: PhotoBoard, at: Point) -> None:
        if self.held < 0:
            return
        straight = self.held != 1 and _in_line(self.points)
        self.points[self.held] = at
        if straight:
            (x0, y0), _, (x1, y1) = self.points
            self.points[1] = (0.5 * (x0 + x1), 0.5 * (y0 + y1))
        if self.held == 1 or not straight:
            self._bend(board)
        board.update()

    def _bend(self, board: PhotoBoard) -> None:
        source = board.source
        if source is None:
            return
        edges = list(source.straightening.edges)
        edges[self.index : self.index + 1] = [tuple(self.points)]  # type: ignore[list-item]
        try:
            command = sheet_intents.set_edges(source, tuple(edges), gesture="bend")
        except TesselError as error:
            self.desk.tell(tr(sentence(error)), "caution")
            return
        self.desk.dispatch(command)

    def release(self, board: PhotoBoard) -> None:
        self.held = -1
        self.desk.end_gesture()
        if self.points and math.dist(self.points[0], self.points[2]) * board.scale < 8:
            self.points, self.index = [], -1

    def paint(self, board: PhotoBoard, painter: QPainter) -> None:
        edges = list(board.source.straightening.edges) if board.source else []
        if self.points and (self.held >= 0 or self.index >= len(edges)):
            edges[self.index : self.index + 1] = [tuple(self.points)]  # type: ignore[list-item]
        for edge in edges:
            _paint_edge(painter, [board.to_screen(*point) for point in edge])


def _paint_edge(painter: QPainter, ends: list[QPointF]) -> None:
    # The curve through the three points looks as a bent edge does.
    bow = _arc(ends)
    for width, token in ((3.0, "white"), (1.6, "ochre")):
        painter.setPen(QPen(theme.colour(token), width))
        painter.drawPolyline(bow)
    for end in ends:
        painter.setPen(QPen(theme.colour("white"), 2))
        painter.setBrush(theme.colour("ochre"))
        painter.drawEllipse(end, theme.px(5), theme.px(5))


def _in_line(points: list[Point]) -> bool:
    (x0, y0), (x1, y1), (x2, y2) = points
    return math.hypot(x1 - 0.5 * (x0 + x2), y1 - 0.5 * (y0 + y2)) < 1e-6


def _arc(ends: list[QPointF]) -> QPolygonF:
    """A parabola through three points."""
    first, middle, last = ends
    control = 2 * middle - 0.5 * (first + last)
    return QPolygonF(
        [first * (1 - t) ** 2 + control * (2 * t * (1 - t)) + last * t * t for t in np.linspace(0, 1, 33).tolist()]
    )


class GreyTool(PhotoTool):
    """Click something that is really grey or white."""

    hint = "Click something on the photo that is really grey or white."
    loupe = True
    REACH = 4

    def press(self, board: PhotoBoard, at: Point) -> None:
        source, job, desk = board.source, self.desk.job, self.desk
        if source is None:
            return
        x, y, reach = round(at[0]), round(at[1]), self.REACH

        def look(pixels: np.typing.NDArray[np.float32]) -> str:
            spot = pixels[max(0, y - reach) : y + reach + 1, max(0, x - reach) : x + reach + 1]
            if not spot.size:
                return ""
            return sheet_intents.hex_of(spot)

        def put(colour: str) -> None:
            if colour:
                desk.dispatch(sheet_intents.pick_neutral(job, source, colour))
                board.use("frame")

        board.ask_pixels(look, put)


class SpotTool(PhotoTool):
    """Click one of a shadow's two places."""

    loupe = True

    def __init__(self, desk: Desk, which: str) -> None:
        super().__init__(desk)
        self.which = which
        self.hint = tr("Click a place in the light.") if which == "lit" else tr("Click the same stuff in the shadow.")

    def press(self, board: PhotoBoard, at: Point) -> None:
        source = board.source
        if source is None:
            return
        frame = source.straightening
        picture = (source.width_px, source.height_px)
        ((x, down),) = places_on_sheet(frame.corners, (at,), (1.0, 1.0), lens=frame.lens, picture_size=picture)
        y = 1 - down
        if not (0 <= x <= 1 and 0 <= y <= 1):
            self.desk.tell(tr("Click within the frame."), "caution")
            return
        known = source.shadow.values
        first = self.which == "dark" and not known.get("strength")
        self.desk.dispatch(sheet_intents.pick_shadow(source, self.which, (x, y), first=first))
        # The two are picked one after the other.
        board.use("dark" if self.which == "lit" else "frame")
