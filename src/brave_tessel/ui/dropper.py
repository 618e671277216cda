"""Takes a colour from anywhere in the application's windows."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QEvent, QObject, QPoint, QRect, Qt
from PyQt6.QtGui import QKeyEvent, QMouseEvent
from PyQt6.QtWidgets import QApplication, QWidget


class Dropper(QObject):
    """Waits for one click; Esc or the right button ends it without a colour."""

    def __init__(self, parent: QObject, took: Callable[[str], None], ended: Callable[[], None]) -> None:
        super().__init__(parent)
        self.took, self.ended = took, ended
        QApplication.setOverrideCursor(Qt.CursorShape.CrossCursor)
        app = QApplication.instance()
        if app:
            app.installEventFilter(self)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if event is None or not isinstance(watched, QWidget):
            return False
        if isinstance(event, QMouseEvent) and event.type() == QEvent.Type.MouseButtonPress:
            left = event.button() == Qt.MouseButton.LeftButton
            colour = colour_at(watched, event.position().toPoint()) if left else ""
            self.stop()
            if colour:
                self.took(colour)
            return True
        if (
            isinstance(event, QKeyEvent)
            and event.type() in {QEvent.Type.KeyPress, QEvent.Type.ShortcutOverride}
            and event.key() == Qt.Key.Key_Escape
        ):
            if event.type() == QEvent.Type.KeyPress:
                self.stop()
            event.accept()
            return True
        return event.type() in {QEvent.Type.MouseButtonRelease, QEvent.Type.MouseButtonDblClick}

    def stop(self) -> None:
        """Give the mouse back."""
        app = QApplication.instance()
        if app:
            app.removeEventFilter(self)
        QApplication.restoreOverrideCursor()
        self.ended()
        self.deleteLater()


def colour_at(widget: QWidget, place: QPoint) -> str:
    """The mean colour of three by three pixels as they are shown, ``#RRGGBB``."""
    image = widget.grab(QRect(place - QPoint(1, 1), place + QPoint(1, 1))).toImage()
    seen = [image.pixelColor(x, y) for y in range(image.height()) for x in range(image.width())]
    if not seen:
        return ""
    r, g, b = (round(sum(getattr(colour, part)() for colour in seen) / len(seen)) for part in ("red", "green", "blue"))
    return f"#{r:02X}{g:02X}{b:02X}"
