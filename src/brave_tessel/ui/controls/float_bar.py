"""A small bar of words floating over a board, of which one is chosen."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QButtonGroup, QFrame, QHBoxLayout, QMenu, QToolButton, QWidget

from .. import theme
from ..words import tr


class FloatBar(QFrame):
    """Emits the word that is clicked."""

    chosen = pyqtSignal(str)

    def __init__(
        self, words: Sequence[str], current: str, *, name: str, parent: QWidget, rest: Sequence[str] = ()
    ) -> None:
        super().__init__(parent)
        self.setAccessibleName(name)
        t = theme.tokens()
        self.setStyleSheet(
            f"FloatBar {{ background: {t.white}; border: 1px solid {t.line}; border-radius: 3px; }}"
            f"FloatBar QToolButton {{ border: none; background: transparent; "
            f"padding: {theme.px(3)}px {theme.px(6)}px; }}"
            f"FloatBar QToolButton:hover {{ background: {t.wash}; }}"
            f"FloatBar QToolButton:focus {{ color: {t.verdigris}; }}"
            f"FloatBar QToolButton:checked {{ background: {t.ink}; color: "
            f"{t.panel}; font-family: '{theme.SANS} SemiBold'; }}"
        )
        row = QHBoxLayout(self)
        row.setContentsMargins(2, 2, 2, 2)
        row.setSpacing(1)
        self.group = QButtonGroup(self)
        self.buttons: dict[str, QToolButton] = {}
        for word in words:
            made = QToolButton()
            made.setText(tr(word))
            made.setCheckable(True)
            made.setChecked(word == current)
            made.setAccessibleName(f"{name}: {tr(word)}")
            made.clicked.connect(lambda _checked, chosen=word: self.chosen.emit(chosen))
            self.group.addButton(made)
            self.buttons[word] = made
            row.addWidget(made)
        self.name, self.rest, self.word = name, tuple(rest), current
        self.more: QToolButton | None = None
        if rest:
            self._add_rest(row, current)
        self.adjustSize()

    def _add_rest(self, row: QHBoxLayout, current: str) -> None:
        """Less used words under one button, which shows the one that is chosen."""
        more = self.more = QToolButton()
        more.setCheckable(True)
        more.setText(tr(current) if current in self.rest else "…")
        more.setChecked(current in self.rest)
        more.setAccessibleName(tr("{name}: more", name=self.name))
        menu = QMenu(more)
        for word in self.rest:
            action = menu.addAction(tr(word))
            if action:
                action.triggered.connect(lambda _checked=False, chosen=word: self._take_rest(chosen))
        more.clicked.connect(lambda _checked: self._open_rest(menu))
        self.group.addButton(more)
        row.addWidget(more)

    def _open_rest(self, menu: QMenu) -> None:
        assert self.more is not None
        before = next((word for word, made in self.buttons.items() if made.isChecked()), self.word)
        if menu.exec(self.more.mapToGlobal(self.more.rect().bottomLeft())) is None:
            self.show_word(before)

    def _take_rest(self, word: str) -> None:
        self.show_word(word)
        self.chosen.emit(word)

    def show_word(self, word: str) -> None:
        self.word = word
        if word in self.buttons:
            self.buttons[word].setChecked(True)
        if self.more is not None:
            self.more.setText(tr(word) if word in self.rest else "…")
            self.more.setChecked(word in self.rest or (self.more.isChecked() and word not in self.buttons))
            self.adjustSize()
