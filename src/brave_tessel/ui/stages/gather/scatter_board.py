"""A scatter sheet on the board: pieces are laid, moved, copied and turned by hand."""

from __future__ import annotations

import math

import msgspec
from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPen, QPixmap, QPolygonF, QResizeEvent

from ....core.job.document import Source
from ....core.job.layers import LaidPiece, PieceKind
from ....core.maps import MapKind
from ....core.scatter.lay import piece_at
from ....engine.intents import sheets as sheet_intents
from ....engine.pictures.results import ScatterPicture
from ... import theme
from ...board import Board, tile, to_pixmaps
from ...controls.float_bar import FloatBar
from ...desk import Desk
from ...words import tr

VIEWS: dict[str, MapKind | None] = {
    "Lit": None,
    "Base colour": MapKind.BASE_COLOUR,
    "Height": MapKind.HEIGHT,
    "Kinds": MapKind.KIND_ID,
    "Pieces": MapKind.PIECE_ID,
}
_STEPS = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, 1), Qt.Key.Key_Down: (0, -1)}


class ScatterBoard(Board):
    """World coordinates are mm on the sheet, y up; the sheet is shown with its wrapped surroundings."""

    piece_chosen = pyqtSignal(str)
    view_chosen = pyqtSignal(str)

    def __init__(self, desk: Desk) -> None:
        super().__init__(tr("Scatter sheet"))
        self.desk = desk
        self.source: Source | None = None
        self.mips: list[QPixmap] = []
        self.kind = ""
        self.chosen = ""
        self.laying = False
        self._from: tuple[tuple[float, float], LaidPiece] | None = None
        self.views = FloatBar(tuple(VIEWS), "Lit", name=tr("Show"), parent=self)
        self.views.chosen.connect(self.view_chosen)
        self.light_turned.connect(desk.turn_light)

    # What is shown -----------------------------------------------------------------------------------

    def extent(self) -> tuple[float, float, float, float]:
        scatter = self.source.scatter if self.source else None
        if scatter is None:
            return super().extent()
        return 0.0, 0.0, scatter.width_mm, scatter.height_mm

    def show_source(self, source: Source | None) -> None:
        size = self.extent()
        another = (source.id if source else "") != (self.source.id if self.source else "")
        self.source = source
        if another:
            self.mips, self.chosen = [], ""
        if another or size != self.extent():
            self.fit()
        if self.piece is None:
            self.chosen = ""
        self.update()

    def show_picture(self, done: ScatterPicture) -> None:
        self.mips = to_pixmaps(done.mips)
        self.update()

    def set_laying(self, on: bool) -> None:
        self.laying = on
        self.setCursor(Qt.CursorShape.CrossCursor if on else Qt.CursorShape.ArrowCursor)

    @property
    def piece(self) -> LaidPiece | None:
        """The chosen piece."""
        scatter = self.source.scatter if self.source else None
        return next((p for p in scatter.laid if p.id == self.chosen), None) if scatter else None

    def choose(self, id: str) -> None:
        self.chosen = id
        self.piece_chosen.emit(id)
        self.update()

    # The mouse and keys ------------------------------------------------------------------------------

    def _on_sheet(self, at: QPointF) -> tuple[float, float]:
        x, y = self.to_world(at)
        _, _, width, height = self.extent()
        return round(x % width, 3), round(y % height, 3)

    def press(self, at: QPointF, modifiers: Qt.KeyboardModifier) -> None:
        scatter = self.source.scatter if self.source else None
        if self.source is None or scatter is None:
            return
        place = self._on_sheet(at)
        under = piece_at(scatter, *place)
        if self.laying or (under is None and self.chosen == "" and not scatter.laid and self.kind):
            self._lay(place)
            return
        self.choose(under.id if under else "")
        if under is None:
            return
        if modifiers & Qt.KeyboardModifier.ShiftModifier:
            command, under = sheet_intents.lay_piece(self.source, under.kind, (under.x_mm, under.y_mm), like=under)
            self.desk.dispatch(command)
            self.choose(under.id)
        self._from = (self.to_world(at), under)

    def _lay(self, place: tuple[float, float]) -> None:
        if self.source is None or not self.kind:
            self.desk.tell(tr("Add a kind of piece first."), "caution")
            return
        command, piece = sheet_intents.lay_piece(self.source, self.kind, place)
        if self.desk.dispatch(command):
            self.choose(piece.id)
            self._from = (place, piece)

    def drag(self, at: QPointF, modifiers: Qt.KeyboardModifier) -> None:
        if self._from is None or self.source is None:
            return
        (x0, y0), piece = self._from
        x, y = self.to_world(at)
        self.desk.dispatch(
            sheet_intents.move_piece(self.source, piece, (piece.x_mm + x - x0, piece.y_mm + y - y0), gesture=piece.id)
        )

    def release(self, at: QPointF) -> None:
        self._from = None
        self.desk.end_gesture()

    def hover(self, at: QPointF) -> None:
        scatter = self.source.scatter if self.source else None
        if scatter and not self.laying:
            over = piece_at(scatter, *self._on_sheet(at)) is not None
            self.setCursor(Qt.CursorShape.SizeAllCursor if over else Qt.CursorShape.ArrowCursor)

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        scatter = self.source.scatter if self.source else None
        if event is not None and scatter is not None and piece_at(scatter, *self._on_sheet(event.position())) is None:
            self._lay(self._on_sheet(event.position()))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        if event.key() == Qt.Key.Key_Escape:
            self.set_laying(False)
            self.choose("")
        elif not self._key(event):
            super().keyPressEvent(event)

    def _key(self, event: QKeyEvent) -> bool:
        source, piece = self.source, self.piece
        if source is None or piece is None:
            return False
        by = _STEPS.get(Qt.Key(event.key()))
        if by is not None:
            step = (
                0.1
                if event.modifiers() & Qt.KeyboardModifier.ShiftModifier
                else 10.0
                if event.modifiers() & Qt.KeyboardModifier.ControlModifier
                else 1.0
            )
            self.desk.dispatch(
                sheet_intents.move_piece(
                    source, piece, (piece.x_mm + by[0] * step, piece.y_mm + by[1] * step), gesture=""
                )
            )
        elif event.key() in {Qt.Key.Key_Delete, Qt.Key.Key_Backspace}:
            self.desk.dispatch(sheet_intents.remove_piece(source, piece.id))
            self.choose("")
        elif event.key() in {Qt.Key.Key_BracketLeft, Qt.Key.Key_BracketRight}:
            self._change(
                piece, size=round(piece.size * (1.05 if event.key() == Qt.Key.Key_BracketRight else 1 / 1.05), 4)
            )
        elif event.key() in {Qt.Key.Key_Comma, Qt.Key.Key_Period}:
            self._change(piece, turn=(piece.turn + (5 if event.key() == Qt.Key.Key_Comma else -5) + 180) % 360 - 180)
        elif event.key() == Qt.Key.Key_PageUp:
            self.desk.dispatch(sheet_intents.raise_piece(source, piece.id))
        else:
            return False
        return True

    def _change(self, piece: LaidPiece, **change: float) -> None:
        if self.source is not None:
            self.desk.dispatch(sheet_intents.change_piece(self.source, msgspec.structs.replace(piece, **change)))

    # Painting ----------------------------------------------------------------------------------------

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        inset = self.inset()
        self.views.move(int(inset + theme.px(10)), int(inset + theme.px(10)))

    def paint_picture(self, painter: QPainter) -> None:
        if self.source is None or self.source.scatter is None:
            return
        sheet = self.world_rect(*self.extent())
        if self.mips:
            tile(painter, self.mips, self.picture_area(), sheet)
            veil = theme.colour("board")
            veil.setAlpha(150)
            around = QPolygonF(self.picture_area()).subtracted(QPolygonF(sheet))
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(veil)
            painter.drawPolygon(around)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for width, token in ((3.0, "white"), (1.4, "chalk_line")):
            painter.setPen(QPen(theme.colour(token), width))
            painter.drawRect(sheet)
        self._paint_chosen(painter)

    def _paint_chosen(self, painter: QPainter) -> None:
        piece, scatter = self.piece, self.source.scatter if self.source else None
        if piece is None or scatter is None:
            return
        kind = next((k for k in scatter.kinds if k.id == piece.kind), None)
        if kind is None:
            return
        outline = QPolygonF([self.to_screen(*corner) for corner in _rectangle(piece, kind)])
        for width, token in ((3.2, "white"), (1.6, "chalk_line")):
            painter.setPen(QPen(theme.colour(token), width))
            painter.drawPolygon(outline)

    def paint_over(self, painter: QPainter) -> None:
        if self.source is not None and self.source.scatter is not None and not self.source.scatter.kinds:
            painter.setPen(Qt.GlobalColor.white)
            painter.setFont(theme.font(13))
            painter.drawText(QRectF(self.rect()), Qt.AlignmentFlag.AlignCenter, tr("Add a kind of piece in the card."))


def _rectangle(piece: LaidPiece, kind: PieceKind) -> list[tuple[float, float]]:
    """The corners of a piece's rectangle, mm."""
    a, half_w, half_h = math.radians(piece.turn), kind.width_mm * piece.size / 2, kind.height_mm * piece.size / 2
    c, s = math.cos(a), math.sin(a)
    return [
        (piece.x_mm + u * c - v * s, piece.y_mm + u * s + v * c)
        for u, v in ((-half_w, -half_h), (half_w, -half_h), (half_w, half_h), (-half_w, half_h))
    ]
