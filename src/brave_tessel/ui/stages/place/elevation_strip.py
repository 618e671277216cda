"""The elevation: faces unrolled, with the pattern as it lies on them and its courses counted."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QImage, QMouseEvent, QPainter, QPaintEvent, QPen, QResizeEvent
from PyQt6.QtWidgets import QWidget

from ....core.place.elevation import Courses, Drawn, Elevation, courses_on, unroll
from ....core.place.sampled import fill
from ....core.place.site import Site
from ....core.quantity import format_level, format_number
from ....core.relief.pictures import mip_chain
from ....core.sheet import AnyArray
from ....engine.pictures.placed import own_surface
from ....engine.pictures.results import SceneTextures
from ... import theme
from ...words import tr
from ...workroom import Workroom
from .elevation_marks import NO_MARKS, Mark, Marks, marks_of, paint_cuts, paint_sides, paint_slivers, point_of

Place = tuple[float, float, float]
"""mm along and up of the drawing's left upper corner, and mm to a pixel."""


class ElevationStrip(QWidget):
    """Drag the pattern along or up; it moves in millimetres and says how far."""

    part_chosen = pyqtSignal(str)
    dragged = pyqtSignal(str, str, float, float)
    released = pyqtSignal()
    counted = pyqtSignal()
    sliver_chosen = pyqtSignal(object)
    place_chosen = pyqtSignal(object)

    def __init__(self, work: Workroom) -> None:
        super().__init__()
        self.work = work
        self.setMinimumHeight(theme.px(150))
        self.setMouseTracking(True)
        self.setAccessibleName(tr("Elevation, unrolled"))
        self.site: Site | None = None
        self.elevation: Elevation | None = None
        self.courses: dict[int, Courses] = {}
        self.marks = NO_MARKS
        self.over: Mark | None = None
        self.pictures: dict[str, tuple[bytes, AnyArray]] = {}
        self._levels: dict[str, tuple[bytes, list[AnyArray]]] = {}
        self.chosen, self.face, self.row = "", -1, -1
        self.image: QImage | None = None
        self.waiting = False
        """Whether what is chosen is still to be unrolled."""
        self._codes: AnyArray | None = None
        self._image_at: Place = (0.0, 0.0, 1.0)
        self._grip: tuple[Drawn, QPointF, float, float] | None = None
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.timeout.connect(self._ask)

    def show_site(self, site: Site | None, chosen: str, face: int = -1, row: int = -1) -> None:
        """The elevation that a part belongs to; while a pattern is dragged it stays the one it was."""
        if site is self.site and (chosen, face, row) == (self.chosen, self.face, self.row):
            return
        self.site, self.chosen, self.face, self.row = site, chosen, face, row
        self.waiting = True
        if self._grip is None:
            self._soon.start(0)

    def show_textures(self, textures: SceneTextures) -> None:
        changed = False
        for surface, shown in textures.surfaces.items():
            known = self.pictures.get(surface)
            if known is None or known[0] != shown.key:
                self.pictures[surface] = (shown.key, np.ascontiguousarray(shown.base[..., :3]))
                changed = True
        if changed:
            self._soon.start(0)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        self._soon.start(60)

    # Making the drawing, off the window's thread --------------------------------------------------

    def _ask(self) -> None:
        site, chosen, face, pictures = self.site, self.chosen, self.face, dict(self.pictures)
        row = self.row
        room = (self.width() - theme.px(96), self.height() - theme.px(54))
        if site is None or min(room) < 20:
            return

        def work(_current: object) -> tuple[Elevation | None, dict[int, Courses], Marks, AnyArray | None, Place]:
            found = unroll(site, chosen, face, row) if chosen else None
            if found is None or not found.faces:
                return None, {}, NO_MARKS, None, (0.0, 0.0, 1.0)
            counted = {k: c for k, one in enumerate(found.faces) if (c := courses_on(found, one)) is not None}
            return found, counted, marks_of(found, chosen), *_drawn(found, partial(self._levels_of, pictures), room)

        self.work.ask("elevation", work, lambda done: self._show(*done))

    def _levels_of(self, pictures: dict[str, tuple[bytes, AnyArray]], surface: str) -> list[AnyArray] | None:
        """A surface's picture and its halves, made when it is first drawn; asked from the worker alone."""
        if surface not in pictures:
            # Fitted to its faces and not worked out yet: as it was before.
            surface = own_surface(surface)
        if surface not in pictures:
            return None
        key, base = pictures[surface]
        if surface not in self._levels or self._levels[surface][0] != key:
            self._levels[surface] = (key, [np.ascontiguousarray(level) for level in mip_chain(base)])
        return self._levels[surface][1]

    def _show(
        self, elevation: Elevation | None, courses: dict[int, Courses], marks: Marks, codes: AnyArray | None, at: Place
    ) -> None:
        self.elevation, self.courses, self.marks, self._image_at = elevation, courses, marks, at
        self.over, self.waiting = None, False
        self._show_codes(codes)
        self.update()
        self.counted.emit()

    def _show_codes(self, codes: AnyArray | None) -> None:
        self._codes = codes
        if codes is None:
            self.image = None
            return
        rows, columns = codes.shape[:2]
        self.image = QImage(codes.tobytes(), columns, rows, 4 * columns, QImage.Format.Format_RGBA8888).copy()

    def _drag(self, face: Drawn, by: QPointF) -> None:
        """Draw what is dragged where it comes to lie, at once: its faces alone, before the scene has followed."""
        if self.elevation is None or self._codes is None:
            return
        one, site = face.facet.standing, self.elevation.site
        laid = one.part.laid[face.row]
        name = site.texture(laid)
        known = self._levels.get(name) or self._levels.get(own_surface(name))
        found = site.coordinates(one, face.row)
        if known is None or found.sides is not None:
            return
        moved = found.corners.copy()
        moved[..., :2] -= found.corners[..., 2:] * (found.finish.matrix @ (by.x(), -by.y()))
        left, top, mm = self._image_at
        codes = self._codes
        for other in self.elevation.faces:
            if other.facet.standing is one and other.row == face.row:
                fill(codes, other, replace(found, corners=moved), site.repeat(laid), known[1], (left, top), mm)
        self._show_codes(codes)
        self.repaint()

    def courses_of(self, part: str, row: int) -> Courses | None:
        """Courses on the largest drawn face of what is laid on a part."""
        if self.elevation is None:
            return None
        best, found = 0.0, None
        for index, face in enumerate(self.elevation.faces):
            if face.facet.standing.part.id == part and face.row == row and index in self.courses:
                left, low, right, high = face.bounds
                if (right - left) * (high - low) > best:
                    best, found = (right - left) * (high - low), self.courses[index]
        return found

    # Where things lie ----------------------------------------------------------------------------

    def _frame(self) -> tuple[QRectF, float]:
        """The drawing's rectangle and pixels to a mm."""
        assert self.elevation is not None
        left, low, right, high = self.elevation.bounds
        area = QRectF(theme.px(14), theme.px(32), self.width() - theme.px(96), self.height() - theme.px(54))
        scale = min(area.width() / max(right - left, 1.0), area.height() / max(high - low, 1.0))
        wide, tall = (right - left) * scale, (high - low) * scale
        return QRectF(area.left() + (area.width() - wide) / 2, area.bottom() - tall, wide, tall), scale

    def _at(self, along: float, up: float) -> QPointF:
        assert self.elevation is not None
        frame, scale = self._frame()
        left, low, _, _ = self.elevation.bounds
        return QPointF(frame.left() + (along - left) * scale, frame.bottom() - (up - low) * scale)

    def _mm_at(self, at: QPointF) -> tuple[float, float]:
        """Where a place of the strip is on the drawing, mm along and up."""
        assert self.elevation is not None
        frame, scale = self._frame()
        left, low, _, _ = self.elevation.bounds
        return left + (at.x() - frame.left()) / scale, low + (frame.bottom() - at.y()) / scale

    def face_at(self, at: QPointF) -> Drawn | None:
        """The face under a place of the strip."""
        if self.elevation is None:
            return None
        x, y = self._mm_at(at)
        return next((face for face in self.elevation.faces if _holds(face, x, y)), None)

    def mark_at(self, at: QPointF) -> Mark | None:
        """The piece under a third that is marked there."""
        if self.elevation is None:
            return None
        reach, found = float(theme.px(6)), None
        for mark in self.marks.slivers:
            off = self._at(mark.x, mark.y) - at
            away = max(abs(off.x()), abs(off.y()))
            if away <= reach:
                reach, found = away, mark
        return found

    # Painting ------------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setFont(theme.font(12, weight=600))
        painter.setPen(theme.colour("ink"))
        painter.drawText(
            QRectF(theme.px(12), theme.px(6), 300, theme.px(18)), Qt.AlignmentFlag.AlignVCenter, tr("Elevation")
        )
        if self.elevation is None:
            return
        self._paint_notes(painter)
        if self.image is not None:
            frame, scale = self._frame()
            left, low, _, _ = self.elevation.bounds
            at_left, at_top, mm = self._image_at
            size = QRectF(
                frame.left() + (at_left - left) * scale,
                frame.bottom() - (at_top - low) * scale,
                self.image.width() * mm * scale,
                self.image.height() * mm * scale,
            )
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
            painter.drawImage(size, self.image)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint_cuts(painter, self.marks, self._at)
        self._paint_faces(painter)
        self._paint_lines(painter)
        paint_slivers(painter, self.marks, self._at, self.over)

    def _paint_notes(self, painter: QPainter) -> None:
        assert self.elevation is not None
        painter.setFont(theme.font(11))
        painter.setPen(theme.colour("ink_2"))
        box = QRectF(theme.px(82), theme.px(6), self.width() - theme.px(96), theme.px(18))
        names = list(dict.fromkeys(face.facet.standing.part.name for face in self.elevation.faces))
        told = " → ".join(names[:4]) + (" …" if len(names) > 4 else "")
        how = tr("unrolled; drag the pattern") if self.elevation.upright else tr("seen square; drag the pattern")
        if not self.elevation.upright and self.elevation.faces[0].flat is not None:
            most = 100 * self.elevation.stretch
            how = tr("laid flat, stretched by {percent:.0f} % at most", percent=most) if most else tr("laid flat, true")
        room = painter.fontMetrics().elidedText(
            f"{told}, {how}", Qt.TextElideMode.ElideRight, int(box.width() - theme.px(230))
        )
        painter.drawText(box, Qt.AlignmentFlag.AlignVCenter, room)
        counted = [
            courses
            for index, courses in self.courses.items()
            if self.elevation.faces[index].facet.standing.part.id == self.chosen
        ]
        if not counted:
            return
        courses = max(counted, key=lambda c: c.whole)
        cut = ", ".join(tr("{rest:.0f} mm", rest=rest) for rest in courses.cut_mm) or tr("none")
        painter.setFont(theme.font(11, mono=True))
        painter.setPen(theme.colour("ochre" if courses.cut_mm else "verdigris"))
        text = tr("whole courses {whole}   cut {cut}", whole=courses.whole, cut=cut)
        painter.drawText(box, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight, text)

    def _paint_faces(self, painter: QPainter) -> None:
        assert self.elevation is not None
        for index, face in enumerate(self.elevation.faces):
            left, low, right, high = face.bounds
            rect = QRectF(self._at(left, high), self._at(right, low))
            mine = face.facet.standing.part.id == self.chosen
            painter.setPen(QPen(theme.colour("verdigris" if mine else "line"), 1.6 if mine else 0.8))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            if rect.width() > 6:
                painter.drawRect(rect)
            courses = self.courses.get(index)
            if courses is not None and courses.cut_mm and not (mine and self.marks.cuts):
                self._paint_cut(painter, face, courses)

    def _paint_cut(self, painter: QPainter, face: Drawn, courses: Courses) -> None:
        """Cut courses hatched in ochre, at the foot and the top."""
        left, low, right, high = face.bounds
        foot = courses.cut_mm[0] if len(courses.cut_mm) == 2 or courses.starts_cut else 0.0
        top = courses.cut_mm[-1] if len(courses.cut_mm) == 2 or not courses.starts_cut else 0.0
        shade = theme.colour("ochre")
        shade.setAlpha(150)
        for rest, bottom in ((foot, low), (top, high - top)):
            if rest > 0.5:
                painter.fillRect(QRectF(self._at(left, bottom + rest), self._at(right, bottom)), shade)

    def _paint_lines(self, painter: QPainter) -> None:
        assert self.elevation is not None
        left, low, right, high = self.elevation.bounds
        painter.setPen(QPen(theme.colour("ink"), 1.6))
        for corner in self.elevation.corners:
            painter.drawLine(self._at(corner, low), self._at(corner, high))
        chalk = theme.colour("chalk_line")
        site = self.elevation.site
        painter.setFont(theme.font(10, mono=True))
        if self.elevation.upright:
            self._paint_levels(painter, left, right, low, high)
        point, _ = site.main_datum()
        along = self.elevation.along_of(point)
        painter.setPen(theme.colour("ink_2"))
        painter.setFont(theme.font(10))
        unit = tr("{number} m", number=format_number((right - left) / 1000, decimals=2))
        foot = self._at(left, low)
        if not paint_sides(painter, self.marks, self._at):
            painter.drawText(QPointF(foot.x(), foot.y() + theme.px(16)), unit)
        if along is None or not self.elevation.upright:
            return
        at = self._at(along, float(point[2]))
        painter.setPen(QPen(chalk, 1.8))
        painter.drawLine(
            QPointF(self._at(left, 0).x() - theme.px(8), at.y()), QPointF(self._at(right, 0).x() + theme.px(8), at.y())
        )
        painter.setPen(QPen(chalk, 1.2, Qt.PenStyle.DashLine))
        painter.drawLine(
            QPointF(at.x(), self._at(along, high).y() - theme.px(6)), QPointF(at.x(), foot.y() + theme.px(8))
        )
        painter.setPen(QPen(theme.colour("white"), 1.5))
        painter.setBrush(chalk)
        painter.drawEllipse(at, theme.px(4), theme.px(4))

    def _paint_levels(self, painter: QPainter, left: float, right: float, low: float, high: float) -> None:
        """Named levels as dotted chalk lines, each with its height at the right."""
        assert self.elevation is not None
        chalk = theme.colour("chalk_line")
        taken: list[float] = []
        for level in sorted(self.elevation.site.scene.levels, key=lambda one: one.height):
            if not low - 1 <= level.height <= high + 1:
                continue
            y = self._at(left, level.height).y()
            end = self._at(right, level.height).x()
            painter.setPen(QPen(chalk, 1, Qt.PenStyle.DotLine))
            painter.drawLine(QPointF(self._at(left, 0).x(), y), QPointF(end + theme.px(8), y))
            if all(abs(y - other) > theme.px(11) for other in taken):
                taken.append(y)
                painter.setPen(chalk)
                painter.drawText(QPointF(end + theme.px(12), y + theme.px(4)), format_level(level.height))

    # The mouse -----------------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        mark = self.mark_at(event.position()) if event else None
        if mark is not None:
            self.sliver_chosen.emit(mark)
            return
        face = self.face_at(event.position()) if event else None
        if event and face is not None:
            part = face.facet.standing.part
            self.part_chosen.emit(part.id)
            if face.row >= 0:
                laying = part.laid[face.row].laying
                self._grip = (face, event.position(), laying.number("across"), laying.number("up"))

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        """Find the place on the model."""
        face = self.face_at(event.position()) if event else None
        if event is not None and face is not None:
            point = point_of(face, *self._mm_at(event.position()))
            if point is not None:
                self.part_chosen.emit(face.facet.standing.part.id)
                self.place_chosen.emit(point)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        if self._grip is None:
            mark = self.mark_at(event.position())
            if mark is not self.over:
                self.over = mark
                self.update()
            if mark is not None:
                self.setCursor(Qt.CursorShape.PointingHandCursor)
                return
            over = self.face_at(event.position())
            self.setCursor(Qt.CursorShape.OpenHandCursor if over else Qt.CursorShape.ArrowCursor)
            return
        face, start, across, up = self._grip
        _, scale = self._frame()
        by = (event.position() - start) / scale
        self._drag(face, by)
        part = face.facet.standing.part
        self.dragged.emit(part.id, part.laid[face.row].id, round(across + by.x(), 1), round(up - by.y(), 1))

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self._grip is not None:
            self._grip = None
            self.released.emit()
            self._soon.start(0)


def _holds(face: Drawn, x: float, y: float) -> bool:
    """Whether a place of the drawing, mm, lies on a face and not in one of its holes."""
    corners = face.corners
    a, b, c = (corners[:, k] for k in range(3))

    def side(p: np.ndarray, q: np.ndarray) -> np.ndarray:  # type: ignore[type-arg]
        return np.asarray((q[:, 0] - p[:, 0]) * (y - p[:, 1]) - (q[:, 1] - p[:, 1]) * (x - p[:, 0]))

    signs = np.stack([side(a, b), side(b, c), side(c, a)])
    return bool(((signs >= -1e-6).all(0) | (signs <= 1e-6).all(0)).any())


def _drawn(
    found: Elevation, levels_of: Callable[[str], list[AnyArray] | None], room: tuple[int, int]
) -> tuple[AnyArray, Place]:
    """The faces with what lies on them, at two pixels to one of the screen."""
    left, low, right, high = found.bounds
    scale = min(room[0] / max(right - left, 1.0), room[1] / max(high - low, 1.0))
    mm = 1 / (2 * scale)
    codes = np.zeros((max(1, round((high - low) / mm)), max(1, round((right - left) / mm)), 4), np.uint8)
    for face in found.faces:
        if face.row < 0:
            continue
        one = face.facet.standing
        surface = found.site.surface(one.part.laid[face.row])
        laid = one.part.laid[face.row]
        known = levels_of(found.site.texture(laid)) if surface else None
        if known is not None:
            fill(codes, face, found.site.coordinates(one, face.row), found.site.repeat(laid), known, (left, high), mm)
    return codes, (left, high, mm)
