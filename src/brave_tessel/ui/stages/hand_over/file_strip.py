"""The files of a delivery."""

from __future__ import annotations

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QProgressBar, QVBoxLayout, QWidget

from ....engine.handover.output import Planned
from ... import theme
from ...controls.panels import button, words
from ...controls.rows import Row, RowList
from ...words import tr


class FileStrip(QWidget):
    """The files as they will be, and how far they are."""

    stopped = pyqtSignal()
    open_asked = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        column = QVBoxLayout(self)
        column.setContentsMargins(theme.px(12), theme.px(8), theme.px(12), theme.px(8))
        head = QHBoxLayout()
        head.addWidget(words(tr("Files"), "section", wrap=False))
        self.total = words("", wrap=False)
        head.addWidget(self.total)
        head.addStretch(1)
        self.stop = button(
            tr("Stop"),
            self.stopped.emit,
            icon="player-stop",
            tip=tr("Ends after the file being written; none is left half"),
        )
        self.open = button(tr("Open the folder"), self.open_asked.emit, name="link")
        self.stop.hide()
        self.open.hide()
        head.addWidget(self.open)
        head.addWidget(self.stop)
        column.addLayout(head)
        self.list = RowList(tr("Files to be written"))
        column.addWidget(self.list, 1)
        self.what = words("", wrap=False)
        self.bar = QProgressBar()
        self.bar.setTextVisible(False)
        self.bar.setRange(0, 1000)
        self.bar.setAccessibleName(tr("Progress"))
        column.addWidget(self.what)
        column.addWidget(self.bar)
        self.bar.hide()

    def show_files(self, files: list[Planned], trouble: str = "") -> None:
        """``trouble`` says why there are none."""
        rows = [
            Row(
                f"{i}-{f.name}",
                f.name,
                tr(
                    "{what} · {depth} bit · about {about_bytes:.1f} MB",
                    what=f.what.replace("_", " "),
                    depth=f.depth,
                    about_bytes=f.about_bytes / 1e6,
                ),
            )
            for i, f in enumerate(files)
        ]
        self.list.show_rows(rows, "")
        self.total.setText(
            trouble or tr("{count} · about {sum:.0f} MB", count=len(files), sum=sum(f.about_bytes for f in files) / 1e6)
        )

    def show_progress(self, what: str, share: float, running: bool) -> None:
        self.bar.setVisible(running)
        self.stop.setVisible(running)
        self.bar.setValue(round(share * 1000))
        self.what.setText(what)
