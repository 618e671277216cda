"""What is wrong with how surfaces lie in the scene, on the model's board: click to see it, mend it where it can be."""

from __future__ import annotations

from PyQt6.QtCore import Qt, QTimer, pyqtSignal
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QLabel, QScrollArea, QToolButton, QVBoxLayout, QWidget

from ....core.place.check import SceneFinding, check_scene
from ....core.place.site import Site
from ....engine.workers import Current
from ... import theme
from ...controls.panels import button, words
from ...desk import Desk
from ...words import tr
from ...workroom import Pace

WIDTH, MOST = 330, 340
WAIT_MS = 400
"""After the last change: what is dragged is not judged on its way."""


class FindingsPanel(QFrame):
    """Folded it is a button with a number; unfolded a list over the board's lower left."""

    look_at = pyqtSignal(object)

    def __init__(self, desk: Desk, parent: QWidget) -> None:
        super().__init__(parent)
        self.desk = desk
        self.findings: list[SceneFinding] = []
        self.unfolded = False
        self._of: Site | None = None
        self._judged: Site | None = None
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.timeout.connect(lambda: desk.place.when_seen(self._ask))
        t = theme.tokens()
        self.setStyleSheet(
            f"FindingsPanel {{ background: {t.white}; border: 1px solid {t.line}; border-radius: 3px; }}"
            f"FindingsPanel QScrollArea, FindingsPanel #inside {{ border: none; background: {t.white}; }}"
            f"FindingsPanel #entry {{ border: none; border-top: 1px solid {t.line}; background: {t.white}; }}"
            f"FindingsPanel QToolButton#head {{ border: none; background: transparent; text-align: left; "
            f"padding: {theme.px(3)}px {theme.px(6)}px; }}"
        )
        column = QVBoxLayout(self)
        column.setContentsMargins(2, 2, 2, 2)
        column.setSpacing(0)
        self.head = QToolButton()
        self.head.setObjectName("head")
        self.head.setAccessibleName(tr("Checks of the scene"))
        self.head.clicked.connect(self.fold)
        column.addWidget(self.head)
        self.area = QScrollArea()
        self.area.setWidgetResizable(True)
        self.area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        column.addWidget(self.area)
        self.area.hide()
        self._say()

    def check(self, site: Site) -> None:
        """Look the scene through, off the window's thread, a moment after it was changed."""
        if site is not self._of:
            self._of = site
            self._soon.start(WAIT_MS)
            self._say()
            self.place()

    @property
    def waiting(self) -> bool:
        """Whether the scene has changed and is still to be looked through."""
        return self._soon.isActive()

    def _ask(self) -> None:
        site = self._of
        if site is None:
            return

        def work(current: Current) -> list[SceneFinding]:
            return check_scene(site, current)

        self.desk.work.ask("scene_checks", work, lambda found: self._show(site, found), pace=Pace.LONG)

    def fold(self) -> None:
        """Show the list, or put it away."""
        self.unfolded = not self.unfolded and bool(self.findings)
        self.area.setVisible(self.unfolded)
        self._say()
        self.place()

    def _show(self, site: Site, findings: list[SceneFinding]) -> None:
        self.findings, self._judged = findings, site
        inside = QWidget()
        inside.setObjectName("inside")
        column = QVBoxLayout(inside)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        for one in findings:
            column.addWidget(self._entry(one))
        column.addStretch()
        self.area.setWidget(inside)
        self.unfolded = self.unfolded and bool(findings)
        self.area.setVisible(self.unfolded)
        self._say()
        self.place()

    def _entry(self, one: SceneFinding) -> QWidget:
        entry = QFrame()
        entry.setObjectName("entry")
        column = QVBoxLayout(entry)
        column.setContentsMargins(theme.px(8), theme.px(6), theme.px(8), theme.px(6))
        column.setSpacing(theme.px(2))
        title = QLabel(tr(one.title))
        title.setFont(theme.font(12, weight=600))
        title.setObjectName("caution")
        column.addWidget(title)
        column.addWidget(words(tr(one.cause)))
        row = QHBoxLayout()
        row.setContentsMargins(0, 0, 0, 0)
        see = button(tr("Show it"), lambda: self.look_at.emit(one))
        row.addWidget(see)
        if one.mend is not None:
            command = one.mend
            mend = button(tr("Mend"), lambda: self.desk.dispatch(command), tip=tr(one.mend_label))
            mend.setAccessibleName(tr("Mend: {what}", what=tr(one.mend_label)))
            row.addWidget(mend)
            label = words(tr(one.mend_label))
            row.addWidget(label, 1)
        else:
            row.addStretch()
        column.addLayout(row)
        return entry

    def _say(self) -> None:
        count = len(self.findings)
        told = tr("{count} to look at", count=count) if count else tr("Nothing to look at")
        if not count and (self._judged is None or self._judged is not self._of):
            # Nothing is called good before it was looked at.
            told = tr("Looking it through…")
        arrow = ("▾ " if self.unfolded else "▴ ") if count else ""
        self.head.setText(f"{arrow}{told}")

    def place(self) -> None:
        """Take its place at the board's lower left, as high as it needs."""
        parent = self.parentWidget()
        if parent is None:
            return
        if self.unfolded:
            inside = self.area.widget()
            need = inside.sizeHint().height() if inside is not None else 0
            tall = min(need + theme.px(34), theme.px(MOST), parent.height() - theme.px(140))
            self.resize(theme.px(WIDTH), max(tall, theme.px(80)))
        else:
            self.resize(self.head.sizeHint().width() + theme.px(8), self.head.sizeHint().height() + theme.px(6))
        self.move(theme.px(12), parent.height() - self.height() - theme.px(12))
        self.raise_()
