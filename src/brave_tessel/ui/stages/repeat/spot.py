"""A place of interest, its pixels as they are: as it was mended, and beside it the join as it lay before."""

from __future__ import annotations

from dataclasses import dataclass

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen, QPixmap

from ....core.quantity import format_number
from ....engine.pictures.results import SheetPicture
from ... import theme
from ...board import tile
from ...words import tr

Point = tuple[float, float]
NEAR = 0.2
"""So near to a join, as a share of the cell, a place is one of the join's."""


@dataclass(frozen=True, slots=True)
class Spot:
    """Where it is on the cell as it is shown, mm, y up; what it is called, and a note."""

    at: Point
    name: str
    note: str = ""


def spot_of_cut(done: SheetPicture) -> Spot | None:
    """The worst of a sheet's cut; None where it is not cut."""
    if done.cut is None:
        return None
    (x, y), shift, grid = done.cut.worst, done.source.shift, done.grid
    at = (x * grid.width_mm + shift[0]) % grid.width_mm, ((1 - y) * grid.height_mm + shift[1]) % grid.height_mm
    return Spot(at, tr("Worst of the cut"), tr("along it {along:.2f}", along=max(done.cut.along)))


def before(done: SheetPicture, at: Point) -> Point | None:
    """Where the join nearest to a place lay on the sheet as it was, mm, y up: its own edge. None far from joins, and
    where no sheet was mended.
    """
    if done.plain is None:
        return None
    grid, shift = done.grid, done.source.shift
    own = (at[0] - shift[0]) % grid.width_mm, (at[1] - shift[1]) % grid.height_mm
    away = [min(mm, size - mm) / size for mm, size in zip(own, (grid.width_mm, grid.height_mm), strict=True)]
    if min(away) > NEAR:
        return None
    # The cell begins at the sheet's upper left corner.
    from_top = grid.height_mm - own[1]
    height = done.plain.grid.height_mm
    return (0.0, height - from_top) if away[0] <= away[1] else (own[0], 0.0)


def boxes(cell: QRectF, height: float, *, pair: bool) -> tuple[QRectF, ...]:
    """Where a place is shown, below the cell and no wider than it, with room for two lines of words under each; none
    where there is no room.
    """
    gap = theme.px(12)
    high = min(height - cell.bottom() - theme.px(14 + 46), theme.px(170))
    wide = min((cell.width() - gap) / 2 if pair else cell.width(), max(high, theme.px(170)))
    if min(high, wide) < theme.px(70):
        return boxes(cell, height, pair=False) if pair and high >= theme.px(70) else ()
    first = QRectF(cell.left(), cell.bottom() + theme.px(14), wide, high)
    return (first, first.translated(wide + gap, 0)) if pair else (first,)


def paint_spot(
    painter: QPainter, box: QRectF, pixmap: QPixmap, size_mm: Point, at: Point, scale: float, words: tuple[str, str]
) -> None:
    """A place of a wrapped picture in a box, ``scale`` screen pixels a mm, and two lines under it."""
    x, y = at[0] % size_mm[0], size_mm[1] - at[1] % size_mm[1]
    middle = box.center() - QPointF(x * scale, y * scale)
    painter.save()
    painter.setClipRect(box)
    tile(painter, [pixmap], box, QRectF(middle.x(), middle.y(), size_mm[0] * scale, size_mm[1] * scale), smooth=False)
    painter.restore()
    painter.setPen(QPen(theme.colour("ink"), 1))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawRect(box)
    painter.setPen(Qt.GlobalColor.white)
    for line, text in enumerate(words):
        painter.setFont(theme.font(12, weight=500) if line == 0 else theme.font(11))
        rect = QRectF(box.left(), box.bottom() + theme.px(4 + 18 * line), box.width(), theme.px(18))
        told = painter.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, int(rect.width()))
        painter.drawText(rect, Qt.AlignmentFlag.AlignVCenter, told)


def place_words(spot: Spot) -> str:
    """Where a spot is, and its note."""
    x, y = (format_number(mm, decimals=0) for mm in spot.at)
    told = tr("{x}, {y} mm", x=x, y=y)
    return f"{told} · {spot.note}" if spot.note else told
