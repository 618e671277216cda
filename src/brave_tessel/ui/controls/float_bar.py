"""A small bar of words floating over a board, of which one is chosen."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QButtonGroup, QFrame, QHBoxLayout, QToolButton, QWidget

from .. import theme


class FloatBar(QFrame):
    """Emits the word that is clicked."""

    chosen = pyqtSignal(str)

    def __init__(self, words: Sequence[str], current: str, *, name: str, parent: QWidget) -> None:
        super().__init__(parent)
        self.setAccessibleName(name)
        t = theme.tokens()
        self.setStyleSheet(
            f"FloatBar {{ background: {t.white}; border: 1px solid {t.line}; border-radius: 3px; }}"
            f"FloatBar QToolButton {{ border: none; background: transparent; padding: {theme.px(3)}px {theme.px(7)}px; }}"
            f"FloatBar QToolButton:hover {{ background: {t.wash}; }}"
            f"FloatBar QToolButton:focus {{ color: {t.verdigris}; }}"
            f"FloatBar QToolButton:checked {{ background: {t.ink}; color: {t.panel}; font-family: '{theme.SANS} SemiBold'; }}"
        )
        row = QHBoxLayout(self)
        row.setContentsMargins(2, 2, 2, 2)
        row.setSpacing(1)
        self.group = QButtonGroup(self)
        self.buttons: dict[str, QToolButton] = {}
        for word in words:
            made = QToolButton()
            made.setText(word)
            made.setCheckable(True)
            made.setChecked(word == current)
            made.setAccessibleName(f"{name}: {word}")
            made.clicked.connect(lambda _checked, chosen=word: self.chosen.emit(chosen))
            self.group.addButton(made)
            self.buttons[word] = made
            row.addWidget(made)
        self.adjustSize()

    def show_word(self, word: str) -> None:
        if word in self.buttons:
            self.buttons[word].setChecked(True)
