"""The sheet of what can be added: made pieces as small drawings, known objects, whole scenes, and models."""

from __future__ import annotations

from functools import partial

from PyQt6.QtCore import QEvent, QObject, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QFrame, QGridLayout, QScrollArea, QToolButton, QVBoxLayout, QWidget

from ....core.operation import family
from ....core.phrases import say
from ....engine.place.starters import STARTERS
from ... import theme
from ...controls.panels import Heading, button
from ...words import tr
from .laying_pictures import piece_icon

GROUPS = (
    (say("Walls and openings"), ("wall", "curved_wall", "arch", "parapet")),
    (say("Floors and steps"), ("floor", "ceiling", "steps")),
    (say("Vaults and roofs"), ("vault", "groin", "dome", "roof")),
    (say("Columns"), ("column", "pier", "pilaster")),
    (say("Along a path"), ("moulding", "tube", "kerb", "road")),
    (say("Bodies"), ("box", "ball", "cloth")),
    (say("For scale"), ("figure", "known")),
)


class AddSheet(QFrame):
    """Opens over the board; a click on a drawing closes it and says what is wanted."""

    piece_chosen = pyqtSignal(str)
    scene_chosen = pyqtSignal(str)
    model_wanted = pyqtSignal()

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setAccessibleName(tr("Add to the scene"))
        t = theme.tokens()
        self.setStyleSheet(
            f"AddSheet {{ background: {t.panel}; border: 1px solid {t.line}; border-radius: 3px; }}"
            f"AddSheet QToolButton {{ border: 1px solid transparent; border-radius: 3px; background: transparent; "
            f"padding: {theme.px(3)}px; min-height: {theme.px(84)}px; max-height: {theme.px(84)}px; }}"
            f"AddSheet QToolButton:hover {{ border-color: {t.line}; background: {t.white}; }}"
            f"AddSheet QToolButton:focus {{ border-color: {t.verdigris}; }}"
        )
        self.buttons: dict[str, QToolButton] = {}
        self.body = QWidget()
        self.column = QVBoxLayout(self.body)
        self.column.setContentsMargins(theme.px(14), theme.px(8), theme.px(14), theme.px(14))
        self.area = QScrollArea()
        self.area.setWidgetResizable(True)
        self.area.setFrameShape(QFrame.Shape.NoFrame)
        self.area.setWidget(self.body)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(1, 1, 1, 1)
        whole.addWidget(self.area)
        self.filled = False
        parent.installEventFilter(self)
        self.hide()

    def open(self) -> None:
        """Show it over the board."""
        if not self.filled:
            self._fill()
        self.place()
        self.show()
        self.raise_()
        next(iter(self.buttons.values())).setFocus()

    def place(self) -> None:
        """Where it lies: at the board's left, as high as the board."""
        board = self.parentWidget()
        assert board is not None
        margin = theme.px(12)
        bar = self.area.verticalScrollBar()
        needed = self.body.sizeHint().width() + (bar.sizeHint().width() if bar else 0) + 4
        wide = min(max(theme.px(452), needed), board.width() - 2 * margin)
        self.setGeometry(margin, margin, wide, board.height() - 2 * margin)

    def _fill(self) -> None:
        self.filled = True
        known = {entry.id for entry in family("made")}
        listed = {f"made.{name}" for _, names in GROUPS for name in names}
        others = tuple(sorted(id.split(".")[1] for id in known - listed))
        for title, names in (*GROUPS, *(((say("Others"), others),) if others else ())):
            self.column.addWidget(Heading(tr(title)))
            grid = QGridLayout()
            grid.setSpacing(theme.px(4))
            for index, name in enumerate(name for name in names if f"made.{name}" in known):
                grid.addWidget(self._button(f"made.{name}"), index // 4, index % 4)
            grid.setColumnStretch(4, 1)
            self.column.addLayout(grid)
        self.column.addWidget(Heading(tr("Whole scenes")))
        for name, (label, _) in STARTERS.items():
            made = button(tr(label), partial(self._scene, name))
            self.column.addWidget(made)
        self.column.addWidget(Heading(tr("From elsewhere")))
        self.column.addWidget(button(tr("Open a model…"), self._model, icon="folder-open"))
        self.column.addStretch(1)

    def _button(self, op: str) -> QToolButton:
        entry = next(entry for entry in family("made") if entry.id == op)
        made = QToolButton()
        made.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextUnderIcon)
        made.setIcon(piece_icon(op))
        made.setIconSize(QSize(theme.px(92), theme.px(64)))
        made.setFixedSize(theme.px(102), theme.px(92))
        made.setText(tr(entry.label))
        made.setToolTip(tr(entry.summary))
        made.setAccessibleName(tr("Add {name}", name=tr(entry.label)))
        made.clicked.connect(lambda _checked=False: self._piece(op))
        self.buttons[op] = made
        return made

    def _piece(self, op: str) -> None:
        self.hide()
        self.piece_chosen.emit(op)

    def _scene(self, name: str) -> None:
        self.hide()
        self.scene_chosen.emit(name)

    def _model(self) -> None:
        self.hide()
        self.model_wanted.emit()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event and event.key() == Qt.Key.Key_Escape:
            self.hide()
        else:
            super().keyPressEvent(event)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if event is None or not self.isVisible():
            return False
        if event.type() == QEvent.Type.Resize:
            self.place()
        elif event.type() == QEvent.Type.MouseButtonPress:
            # A click beside it puts it away.
            self.hide()
        return False
