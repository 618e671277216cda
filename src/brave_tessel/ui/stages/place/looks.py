"""What the model can show, and the scale that its colours are read by."""

from __future__ import annotations

import numpy as np
from PyQt6.QtCore import QRect, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen

from ....core.relief.pictures import roughness_colours
from ....view3d.drawn import LEAST_DENSITY, MOST_DENSITY, Shows
from ... import theme
from ...board import to_image
from ...words import tr

LOOKS = {
    "Lit": Shows.LIT,
    "Base colour": Shows.COLOUR,
    "Roughness": Shows.ROUGHNESS,
    "Density": Shows.DENSITY,
    "Seams": Shows.SEAMS,
    "Chequer": Shows.CHEQUER,
}
"""Words of the bar, in its order."""


def ends(shows: Shows) -> tuple[str, str] | None:
    """What stands at both ends of the scale; None where the colours need none."""
    if shows is Shows.ROUGHNESS:
        return tr("0 mirrors"), tr("1 matt")
    if shows is Shows.DENSITY:
        return tr("{count:.0f} px/m", count=LEAST_DENSITY), tr("{count:.0f} px/m", count=MOST_DENSITY)
    return None


def paint_legend(painter: QPainter, area: QRect, shows: Shows) -> None:
    """The scale below left, above the button of findings."""
    told = ends(shows)
    if told is None:
        return
    wide, tall, margin = theme.px(260), theme.px(38), theme.px(12)
    box = QRectF(area.left() + margin, area.bottom() - tall - theme.px(54), wide, tall)
    painter.setPen(QPen(theme.colour("line"), 1))
    painter.setBrush(theme.colour("panel"))
    painter.drawRect(box)
    strip = roughness_colours(np.linspace(0, 1, 256, dtype=np.float32)[None].repeat(8, 0))
    painter.drawImage(box.adjusted(theme.px(8), theme.px(6), -theme.px(8), -theme.px(22)), to_image(strip))
    painter.setPen(theme.colour("ink"))
    painter.setFont(theme.font(10, mono=True))
    words = box.adjusted(theme.px(8), theme.px(18), -theme.px(8), 0)
    for text, side in zip(told, (Qt.AlignmentFlag.AlignLeft, Qt.AlignmentFlag.AlignRight), strict=True):
        painter.drawText(words, side | Qt.AlignmentFlag.AlignVCenter, text)
