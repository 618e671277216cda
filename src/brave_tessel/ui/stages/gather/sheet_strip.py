"""The strip of Gather: the sheet straightened, evened, and lit by its estimated relief."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QImage, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QWidget

from ....engine.pictures.results import GatherPicture, ScatterPicture
from ... import theme
from ...board import to_image
from ...words import tr


class SheetStrip(QWidget):
    """Pictures of the flat sheet side by side."""

    def __init__(self) -> None:
        super().__init__()
        self.pictures: list[tuple[QImage, str]] = []
        self.note = ""
        self.empty = ""
        self.setMinimumHeight(theme.px(150))
        self.setAccessibleName(tr("The sheet, straightened, evened and lit"))

    def show_picture(self, done: GatherPicture | None) -> None:
        own = done is not None and done.source.brings("height")
        sized = done is None or done.source.straightening.sized
        plain = tr("straightened") if sized else tr("straightened; it has no size yet")
        lit = tr("lit, its own relief") if own else tr("lit, relief estimated")
        names = (plain, tr("put right"), lit, tr("the relief alone"))
        codes = (done.straight, done.evened, done.lit, done.alone) if done else ()
        self.pictures = [(to_image(one), name) for one, name in zip(codes, names, strict=False) if one is not None]
        self.note = (
            tr("light drift {drift:.0%} before, {drift_2:.0%} after", drift=done.drift[0], drift_2=done.drift[1])
            if done and self.pictures
            else ""
        )
        self.empty = tr("The straightened sheet stands here once there is a picture.")
        self.update()

    def show_scatter(self, done: ScatterPicture) -> None:
        self.pictures = [(to_image(done.mips[min(1, len(done.mips) - 1)]), tr("one repeat"))]
        self.note = tr("strewn pieces, closed on every side")
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        left, top = theme.px(12), theme.px(8)
        painter.setFont(theme.font(12, weight=600))
        painter.setPen(theme.colour("ink"))
        painter.drawText(QRectF(left, top, 400, theme.px(18)), Qt.AlignmentFlag.AlignVCenter, tr("Sheet"))
        painter.setFont(theme.font(11))
        painter.setPen(theme.colour("ink_2"))
        if not self.pictures:
            painter.drawText(QRectF(left, top + theme.px(22), self.width(), theme.px(20)), self.empty)
            return
        painter.drawText(QRectF(left + theme.px(50), top, 400, theme.px(18)), Qt.AlignmentFlag.AlignVCenter, self.note)
        high, gap, count = self.height() - top - theme.px(54), theme.px(18), len(self.pictures)
        x = float(left)
        for image, label in self.pictures:
            width = min(high * image.width() / image.height(), (self.width() - 2 * left - gap * (count - 1)) / count)
            target = QRectF(x, top + theme.px(24), width, width * image.height() / image.width())
            painter.drawImage(target, image)
            painter.setPen(QPen(theme.colour("line"), 1))
            painter.drawRect(target)
            painter.setPen(theme.colour("ink_2"))
            wide = max(width, painter.fontMetrics().horizontalAdvance(label) + 1.0)
            painter.drawText(QRectF(x, target.bottom() + 2, wide, theme.px(18)), label)
            x += max(width, wide) + gap
