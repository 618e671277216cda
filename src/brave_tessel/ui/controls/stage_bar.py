"""The five numbered stages, as a row of set-out flags."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QSizePolicy, QWidget

from .. import theme
from ..words import tr


class StageBar(QWidget):
    """Emits the stage that is clicked; 1 to 5 and the arrow keys choose too."""

    chosen = pyqtSignal(str)

    def __init__(self, stages: tuple[str, ...]) -> None:
        super().__init__()
        self.stages = stages
        self.current = stages[0]
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Fixed)
        self.setMouseTracking(True)
        self._hover = -1
        self.show_stage(self.current)

    def sizeHint(self) -> QSize:
        return QSize(theme.px(113 * len(self.stages) + 12), theme.px(31))

    def show_stage(self, stage: str) -> None:
        self.current = stage
        self.setAccessibleName(tr("Stages; now {stage}", stage=tr(stage)))
        self.update()

    def _flag(self, index: int) -> QPolygonF:
        width, height, tip = theme.px(113), theme.px(31), theme.px(11)
        x = index * width
        points = [(x, 0), (x + width - 2, 0), (x + width + tip - 2, height / 2), (x + width - 2, height), (x, height)]
        if index:
            points.append((x + tip, height / 2))
        return QPolygonF([QPointF(a + 0.5, min(b, height - 1) + 0.5) for a, b in points])

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        for index, stage in enumerate(self.stages):
            here = stage == self.current
            ground = "ink" if here else "wash" if index == self._hover else "panel"
            painter.setBrush(theme.colour(ground))
            edge = "verdigris" if here and self.hasFocus() else "ink" if here else "line"
            painter.setPen(QPen(theme.colour(edge), 1))
            painter.drawPolygon(self._flag(index))
            left = index * theme.px(113) + theme.px(12 if index == 0 else 20)
            painter.setFont(theme.font(12, mono=True, weight=600))
            painter.setPen(theme.colour("line" if here else "verdigris"))
            box = QRectF(left, 0, theme.px(14), self.height())
            painter.drawText(box, Qt.AlignmentFlag.AlignVCenter, str(index + 1))
            painter.setFont(theme.font(13, weight=600 if here else 400))
            painter.setPen(theme.colour("panel" if here else "ink"))
            painter.drawText(
                QRectF(left + theme.px(16), 0, theme.px(90), self.height()), Qt.AlignmentFlag.AlignVCenter, tr(stage)
            )

    def _at(self, point: QPointF) -> int:
        for index in reversed(range(len(self.stages))):
            if self._flag(index).containsPoint(point, Qt.FillRule.OddEvenFill):
                return index
        return -1

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event and (index := self._at(event.position())) != self._hover:
            self._hover = index
            self.update()

    def leaveEvent(self, event: object) -> None:
        self._hover = -1
        self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event and (index := self._at(event.position())) >= 0:
            self.chosen.emit(self.stages[index])

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        at = self.stages.index(self.current)
        step = {Qt.Key.Key_Right: 1, Qt.Key.Key_Left: -1}.get(Qt.Key(event.key()), 0)
        if step and 0 <= at + step < len(self.stages):
            self.chosen.emit(self.stages[at + step])
        else:
            super().keyPressEvent(event)


class BusySign(QWidget):
    """Four tesserae that take turns while work is under way; still when idle."""

    def __init__(self) -> None:
        super().__init__()
        self.busy = False
        self.turn = 0
        self.setFixedSize(theme.px(20), theme.px(20))
        self._timer = self.startTimer(120)

    def timerEvent(self, event: object) -> None:
        if self.busy:
            self.turn = (self.turn + 1) % 4
            self.update()

    def show_busy(self, busy: bool) -> None:
        self.busy = busy
        self.setAccessibleName(tr("Working") if busy else tr("Idle"))
        self.setToolTip(tr("Working") if busy else tr("Idle"))
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        side = theme.px(9)
        for index, (x, y) in enumerate(((0, 0), (1, 0), (1, 1), (0, 1))):
            lit = (index == self.turn) if self.busy else index in {0, 2}
            painter.fillRect(
                QRectF(x * (side + 1), y * (side + 1), side, side), theme.colour("verdigris" if lit else "line")
            )
