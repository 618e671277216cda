"""A reference picture beside or over any board, at the board's own scale where it has a size."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from PyQt6.QtCore import QPointF, QRectF, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen, QPixmap
from PyQt6.QtWidgets import QComboBox, QFrame, QGridLayout, QHBoxLayout, QLabel, QSlider, QToolButton, QWidget

from ..core.job.document import Job, Source
from ..core.sheet import AnyArray
from ..engine.pictures.gather import plain_picture
from ..engine.snapshot import Snapshot
from ..engine.workers import Current
from . import theme
from .board import to_pixmaps
from .controls.float_bar import FloatBar
from .desk import Desk
from .words import tr

MODES = ("Beside", "Over")


@dataclass(frozen=True, slots=True)
class Pinned:
    """Which source is pinned, how, how strongly, and from where the wipe shows it."""

    source: str = ""
    over: bool = False
    opacity: float = 0.5
    wipe: float = 0.0


class ReferenceView(QWidget):
    """The pinned picture by itself, or over a board without taking its mouse."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.mips: list[QPixmap] = []
        self.size_mm: tuple[float, float] | None = None
        self.pinned = Pinned()
        self.place: tuple[QPointF, float] | None = None
        self.setAccessibleName(tr("Reference picture"))

    def rect_of_picture(self) -> QRectF:
        """Where the picture lies: to the board's scale, or fitted where there is none."""
        first = self.mips[0]
        if self.place is not None and self.size_mm is not None:
            corner, scale = self.place
            width, height = self.size_mm[0] * scale, self.size_mm[1] * scale
            if self.pinned.over:
                return QRectF(corner.x(), corner.y() - height, width, height)
            return QRectF((self.width() - width) / 2, (self.height() - height) / 2, width, height)
        margin = theme.px(12)
        scale = min((self.width() - 2 * margin) / first.width(), (self.height() - 2 * margin) / first.height())
        width, height = first.width() * scale, first.height() * scale
        return QRectF((self.width() - width) / 2, (self.height() - height) / 2, width, height)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        if not self.pinned.over:
            painter.fillRect(self.rect(), theme.colour("board"))
        if not self.mips:
            return
        target = self.rect_of_picture()
        mip = 0
        while mip + 1 < len(self.mips) and self.mips[mip + 1].width() >= target.width():
            mip += 1
        if self.pinned.over:
            edge = self.width() * self.pinned.wipe
            painter.setClipRect(QRectF(edge, 0, self.width() - edge, self.height()))
            painter.setOpacity(self.pinned.opacity)
        painter.drawPixmap(target, self.mips[mip], QRectF(self.mips[mip].rect()))
        painter.setOpacity(1)
        painter.setPen(QPen(theme.colour("ink"), 1))
        painter.drawRect(target)
        if self.pinned.over and self.pinned.wipe > 0:
            painter.setClipping(False)
            for width, token in ((3.0, "white"), (1.4, "chalk_line")):
                painter.setPen(QPen(theme.colour(token), width))
                painter.drawLine(QPointF(edge, 0), QPointF(edge, self.height()))


class WipeHandle(QWidget):
    """A strip on the wipe's edge that is dragged."""

    dragged = pyqtSignal(float)

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setCursor(Qt.CursorShape.SplitHCursor)
        self.setAccessibleName(tr("Wipe"))
        self.resize(theme.px(14), theme.px(44))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(theme.colour("ink"), 1))
        painter.setBrush(theme.colour("white"))
        painter.drawRoundedRect(QRectF(self.rect()).adjusted(1.5, 1.5, -1.5, -1.5), 3, 3)
        for x in (-2, 2):
            middle = self.width() / 2 + x
            painter.drawLine(QPointF(middle, theme.px(13)), QPointF(middle, self.height() - theme.px(13)))

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        parent = self.parentWidget()
        if event is not None and parent is not None:
            x = self.mapToParent(event.position().toPoint()).x()
            self.dragged.emit(min(1.0, max(0.0, x / max(1, parent.width()))))


class ReferenceBar(QFrame):
    """Which source, beside or over, how strongly; and away with it."""

    changed = pyqtSignal(object)
    closed = pyqtSignal()

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        t = theme.tokens()
        self.setStyleSheet(f"ReferenceBar {{ background: {t.white}; border: 1px solid {t.line}; border-radius: 3px; }}")
        self.pinned = Pinned()
        self.grid = QGridLayout(self)
        self.grid.setContentsMargins(theme.px(6), theme.px(3), theme.px(4), theme.px(3))
        self.grid.setSpacing(theme.px(4))
        self.sources = QComboBox()
        self.sources.setAccessibleName(tr("Reference source"))
        self.sources.setMinimumContentsLength(12)
        self.sources.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.sources.activated.connect(lambda index: self._put(source=self.sources.itemData(index)))
        self.modes = FloatBar(MODES, "Beside", name=tr("Reference"), parent=self)
        self.modes.chosen.connect(lambda word: self._put(over=word == "Over"))
        self.opacity = QSlider(Qt.Orientation.Horizontal)
        self.opacity.setRange(5, 100)
        self.opacity.setValue(50)
        self.opacity.setFixedWidth(theme.px(84))
        self.opacity.setAccessibleName(tr("Opacity of the reference"))
        self.opacity.setToolTip(tr("How strongly it lies over the board"))
        self.opacity.valueChanged.connect(lambda value: self._put(opacity=value / 100))
        self.note = QLabel("")
        self.note.setObjectName("note")
        self.close_button = close = QToolButton()
        close.setObjectName("flat")
        close.setIcon(theme.tinted("x", "ink_2", 14))
        close.setToolTip(tr("Take the reference away (Ctrl+Shift+P)"))
        close.setAccessibleName(tr("Take the reference away"))
        close.clicked.connect(self.closed)
        self._lay_out()

    def _lay_out(self) -> None:
        """In a line over the board; beside it as narrow as the reference, so that nothing of the board is covered."""
        over = self.pinned.over
        parts = (self.sources, self.modes, self.opacity, self.note, self.close_button)
        places = (
            [(0, column, 1) for column in range(len(parts))]
            if over
            else [(0, 0, 1), (1, 0, 2), (3, 0, 2), (2, 0, 2), (0, 1, 1)]
        )
        for widget, (row, column, span) in zip(parts, places, strict=True):
            self.grid.addWidget(widget, row, column, 1, span)
        self.sources.setMinimumContentsLength(12 if over else 6)

    def _put(self, **change: object) -> None:
        self.show_pinned(replace(self.pinned, **change))  # type: ignore[arg-type]
        self.changed.emit(self.pinned)

    def show_pinned(self, pinned: Pinned) -> None:
        turned, self.pinned = pinned.over != self.pinned.over, pinned
        if turned:
            self._lay_out()
        self.modes.show_word("Over" if pinned.over else "Beside")
        self.opacity.setVisible(pinned.over)
        self.sources.setCurrentIndex(max(0, self.sources.findData(pinned.source)))
        self.adjustSize()

    def show_job(self, job: Job) -> None:
        wanted = [(source.id, source.name) for source in job.sources]
        if [(self.sources.itemData(n), self.sources.itemText(n)) for n in range(self.sources.count())] == wanted:
            return
        self.sources.clear()
        for id, name in wanted:
            self.sources.addItem(name, id)
        self.sources.setCurrentIndex(max(0, self.sources.findData(self.pinned.source)))


class ReferenceFrame(QWidget):
    """Holds the boards, with the reference at their right or over them."""

    def __init__(self, desk: Desk, boards: QWidget, board: Callable[[], QWidget]) -> None:
        super().__init__()
        self.desk, self.boards, self.board = desk, boards, board
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(1)
        row.addWidget(boards, 3)
        self.beside = ReferenceView()
        self.beside.setMinimumWidth(theme.px(160))
        row.addWidget(self.beside, 2)
        self.over = ReferenceView(boards)
        self.over.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self.handle = WipeHandle(boards)
        self.handle.dragged.connect(lambda share: self.put(replace(self.pinned, wipe=share)))
        self.bar = ReferenceBar(self)
        self.bar.changed.connect(self.put)
        self.bar.closed.connect(lambda: self.put(replace(self.pinned, source="")))
        self.pinned = Pinned()
        self._shown_for: tuple[object, ...] = ()
        # Boards move under the reference in many ways; it looks where they are.
        self.clock = QTimer(self)
        self.clock.setInterval(33)
        self.clock.timeout.connect(self._follow)
        desk.session.store.subscribe(lambda job: job.sources, lambda _sources: self._job_changed(desk.job))
        self._arrange()

    # What is pinned ----------------------------------------------------------------------------------

    def pin(self, source: str) -> None:
        """Pin a source, or take it away where it is pinned already."""
        self.put(replace(self.pinned, source="" if self.pinned.source == source else source))

    def put(self, pinned: Pinned) -> None:
        self.pinned = pinned
        self.bar.show_job(self.desk.job)
        self.bar.show_pinned(pinned)
        self._arrange()
        self._request()

    def _job_changed(self, job: Job) -> None:
        if self.pinned.source and not any(source.id == self.pinned.source for source in job.sources):
            self.put(Pinned())
        elif self.pinned.source:
            self.bar.show_job(job)
            self._request()

    def _request(self) -> None:
        source = next((s for s in self.desk.job.sources if s.id == self.pinned.source), None)
        if source is None:
            self._shown_for = ()
            return
        wanted = (
            source.id,
            source.blob,
            source.straightening,
            source.light,
            source.balance,
            source.tint,
            source.scatter,
        )
        if wanted == self._shown_for:
            return
        self._shown_for = wanted
        snapshot = self.desk.session.snapshot()
        self.desk.work.ask("reference", lambda current: reference_picture(snapshot, source, current), self._show)

    def _show(self, done: tuple[list[AnyArray], tuple[float, float] | None]) -> None:
        mips, size = done
        for view in (self.beside, self.over):
            view.mips, view.size_mm = to_pixmaps(mips), size
            view.update()
        self._follow()

    # Where it lies -----------------------------------------------------------------------------------

    def _arrange(self) -> None:
        pinned = bool(self.pinned.source)
        for view in (self.beside, self.over):
            view.pinned = self.pinned
        self.beside.setVisible(pinned and not self.pinned.over)
        self.over.setVisible(pinned and self.pinned.over)
        self.handle.setVisible(pinned and self.pinned.over)
        self.bar.setVisible(pinned)
        if pinned:
            self.clock.start()
        else:
            self.clock.stop()
        self._follow()

    def _follow(self) -> None:
        board = self.board()
        place = getattr(board, "reference_place", lambda: None)()
        if place is not None:
            offset = board.mapTo(self.boards, board.rect().topLeft())
            place = place[0] + QPointF(offset), place[1]
        for view in (self.beside, self.over):
            if view.place != place:
                view.place = place
                view.update()
        self.over.setGeometry(self.boards.rect())
        self.over.raise_()
        edge = round(self.boards.width() * self.pinned.wipe)
        self.handle.move(
            min(max(edge - self.handle.width() // 2, 0), self.boards.width() - self.handle.width()),
            self.boards.height() // 2,
        )
        self.handle.raise_()
        known = self.over.size_mm is not None
        self.bar.note.setText(
            tr("to scale")
            if place is not None and known
            else tr("no size yet")
            if not known
            else tr("not to scale here")
        )
        self.bar.adjustSize()
        # Over a board the right corner is the title block's.
        left = theme.px(30) if self.pinned.over else self.width() - self.bar.width() - theme.px(10)
        self.bar.move(left, self.height() - self.bar.height() - theme.px(10))
        self.bar.raise_()


def reference_picture(
    snapshot: Snapshot, source: Source, current: Current
) -> tuple[list[AnyArray], tuple[float, float] | None]:
    """A source as it is, straightened where it has a size, and that size in mm."""
    return plain_picture(snapshot, source, current=current), source_size(source)


def source_size(source: Source) -> tuple[float, float] | None:
    """The size of the whole picture pinned, mm."""
    if source.scatter is not None:
        return source.sheet_mm
    frame = source.straightening
    return (frame.width_mm, frame.height_mm) if frame.sized else None
