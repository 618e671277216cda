"""The model in 3D: a picture drawn off the window's thread, coarse while moving, full at rest."""

from __future__ import annotations

import itertools
import logging
import math
from collections.abc import Callable

import cv2
import moderngl
import numpy as np
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, QTimer, pyqtSignal, pyqtSlot
from PyQt6.QtGui import (
    QDragEnterEvent,
    QDropEvent,
    QImage,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QResizeEvent,
    QWheelEvent,
)
from PyQt6.QtWidgets import QWidget

from ....core.job.document import Job
from ....core.phrases import say
from ....core.place.mesh import Hit
from ....core.place.pieces.corner import CORNER
from ....core.quantity import format_level
from ....engine.pictures.results import SceneTextures
from ....engine.workers import Current, Worker
from ....view3d.camera import Camera
from ....view3d.renderer import DrawPart, Look, Renderer
from ....view3d.scene import draw_parts, find_under
from ... import theme
from ...board import to_image
from ...words import tr

log = logging.getLogger(__name__)
SURFACE_MIME = "application/x-brave-tessel-surface"
SNAP_MM = 120.0


class SceneView(QWidget):
    """Left drag orbits, middle drag pans, the wheel walks, right drag turns the light, a click chooses."""

    part_chosen = pyqtSignal(str)
    surface_dropped = pyqtSignal(str, str)
    datum_picked = pyqtSignal(object, str)
    probed = pyqtSignal(object)
    frame_drawn = pyqtSignal()
    light_changed = pyqtSignal()
    still_drawn = pyqtSignal(object)
    _arrived = pyqtSignal(object, bool)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName(tr("Model"))
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setAcceptDrops(True)
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)
        self.camera = Camera()
        self.azimuth, self.altitude = 152.0, 38.0
        self.job: Job | None = None
        self.parts: list[DrawPart] = []
        self.textures: SceneTextures | None = None
        self.chosen = ""
        self.chequer = False
        self.picking = False
        self.image: QImage | None = None
        self.sharp = False
        self.failed = ""
        self._worker: Worker | None = None
        self._renderer: Renderer | None = None
        self._pressed: tuple[QPointF, Qt.MouseButton] | None = None
        self._moved = False
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.setInterval(150)
        self._rest.timeout.connect(lambda: self._request(coarse=False))
        self._arrived.connect(self._show, Qt.ConnectionType.QueuedConnection)  # type: ignore[call-arg]

    def sizeHint(self) -> QSize:
        return QSize(theme.px(640), theme.px(420))

    # What is shown -------------------------------------------------------------------------------

    def show_job(self, job: Job, chosen: str) -> None:
        scene = (job.scene, tuple((s.id, s.width_mm, s.height_mm) for s in job.surfaces))
        if self.job is None or scene != (
            self.job.scene,
            tuple((s.id, s.width_mm, s.height_mm) for s in self.job.surfaces),
        ):
            self.parts = draw_parts(job)
        another = self.job is not job or chosen != self.chosen
        self.job, self.chosen = job, chosen
        if another:
            self.redraw()

    def show_textures(self, textures: SceneTextures) -> None:
        self.textures = textures
        self.redraw()

    def sun(self) -> tuple[float, float, float]:
        a, h = math.radians(self.azimuth), math.radians(self.altitude)
        return math.cos(a) * math.cos(h), math.sin(h), math.sin(a) * math.cos(h)

    def redraw(self) -> None:
        """Coarse now, full a moment after the last change."""
        if self.isVisible() and self.parts:
            self._request(coarse=True)
            self._rest.start()

    def look(self, width: int, height: int, *, coarse: bool) -> Look:
        return Look(
            self.camera,
            self.sun(),
            max(8, width),
            max(8, height),
            shadows=not coarse,
            chosen=self.chosen,
            chequer=self.chequer,
        )

    def _request(self, *, coarse: bool) -> None:
        if self.failed or not self.parts:
            return
        if self._worker is None:
            self._worker = Worker("scene")
        share = 0.45 if coarse else 2.0
        ratio = self.devicePixelRatioF()
        look = self.look(round(self.width() * share * ratio), round(self.height() * share * ratio), coarse=coarse)
        parts, textures = self.parts, self.textures

        def work(current: Current) -> None:
            codes = self._draw(parts, textures, look, coarse=coarse, current=current)
            if codes is not None and current():
                self._arrived.emit(to_image(codes), not coarse)

        self._worker.request("frame", work)

    def request_still(self, width: int, height: int) -> None:
        """A sharp picture of the model while another stage is shown; ``still_drawn`` brings it."""
        if self.failed or not self.parts:
            return
        self._worker = self._worker or Worker("scene")
        look = self.look(2 * width, 2 * height, coarse=False)
        parts, textures = self.parts, self.textures

        def work(current: Current) -> None:
            codes = self._draw(parts, textures, look, coarse=False, current=current)
            if codes is not None and current():
                self.still_drawn.emit(to_image(codes))

        self._worker.request("still", work)

    def _draw(
        self,
        parts: list[DrawPart],
        textures: SceneTextures | None,
        look: Look,
        *,
        coarse: bool,
        current: Callable[[], bool],
    ) -> np.ndarray | None:  # type: ignore[type-arg]
        """In the worker's thread, which owns the context."""
        try:
            if self._renderer is None:
                self._renderer = Renderer()
            renderer = self._renderer
            renderer.set_parts(parts)
            for surface, (key, base, normal, orm) in (textures.surfaces if textures else {}).items():
                if not current():
                    return None
                renderer.set_textures(surface, key, base, normal, orm)
            codes = renderer.draw(look)
        except (moderngl.Error, OSError, ValueError) as error:
            log.exception("the model could not be drawn")
            self.failed = str(error)
            return None
        if coarse:
            return codes
        half = (look.width // 2, look.height // 2)
        return np.asarray(cv2.resize(codes, half, interpolation=cv2.INTER_AREA))

    @pyqtSlot(object, bool)
    def _show(self, image: QImage, sharp: bool) -> None:
        self.image, self.sharp = image, sharp
        self.update()
        if sharp:
            self.frame_drawn.emit()

    @property
    def idle(self) -> bool:
        """Whether nothing is being drawn or about to be."""
        return not self._rest.isActive() and (self._worker is None or self._worker.idle)

    def reset(self) -> None:
        """The view as it was at first."""
        self.camera = Camera()
        self.redraw()

    # Events --------------------------------------------------------------------------------------

    def showEvent(self, event: object) -> None:
        self.redraw()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        self.redraw()

    def _unit(self, at: QPointF) -> tuple[float, float]:
        return 2 * at.x() / max(1, self.width()) - 1, 1 - 2 * at.y() / max(1, self.height())

    def hit(self, at: QPointF) -> Hit | None:
        if self.job is None:
            return None
        return find_under(self.job, self.camera, *self._unit(at), self.width() / max(1, self.height()))

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event:
            self.setFocus()
            self._pressed = (event.position(), event.button())
            self._moved = False

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        if self._pressed is None:
            self.probed.emit(self.hit(event.position()))
            return
        start, which = self._pressed
        by = event.position() - start
        if not self._moved and by.manhattanLength() < 4:
            return
        self._moved = True
        self._pressed = (event.position(), which)
        if which == Qt.MouseButton.RightButton:
            self.azimuth = (self.azimuth + 0.5 * by.x()) % 360
            self.altitude = min(85.0, max(4.0, self.altitude - 0.35 * by.y()))
            self.light_changed.emit()
        elif which == Qt.MouseButton.MiddleButton or event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            self.camera = self.camera.panned(by.x() / self.height(), by.y() / self.height())
        else:
            self.camera = self.camera.orbited(0.35 * by.x(), 0.35 * by.y())
        self.redraw()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        pressed, self._pressed = self._pressed, None
        if event is None or pressed is None or self._moved or pressed[1] != Qt.MouseButton.LeftButton:
            return
        found = self.hit(event.position())
        if found is None:
            return
        if self.picking:
            self.datum_picked.emit(*self._snapped(found))
        else:
            self.part_chosen.emit(found.part)

    def _snapped(self, found: Hit) -> tuple[tuple[float, float, float], str]:
        """The point, drawn to the floor line, the corner, the sill or a jamb when near."""
        m, (x, y, z) = CORNER, found.point
        names = []
        for value, name in ((0.0, say("floor line")), (m.sill, say("sill")), (m.dado, say("dado rail"))):
            if abs(y - value) < SNAP_MM:
                y = value
                names.append(tr(name))
                break
        for value, name in (
            (m.north, say("NE corner")),
            (0.0, say("west end")),
            (m.window_left, say("left jamb")),
            (m.window_left + m.window_width, say("right jamb")),
        ):
            if abs(x - value) < SNAP_MM and (name != say("NE corner") or z < SNAP_MM or found.part.startswith("east")):
                x = value
                names.append(tr(name))
                break
        if (found.part.startswith("east") and z < SNAP_MM) or z < SNAP_MM:
            z = 0.0
        return (round(x, 1), round(y, 1), round(z, 1)), ", ".join(names) or tr("free point")

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event:
            self.camera = self.camera.walked(event.angleDelta().y() / 120)
            self.redraw()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        key = Qt.Key(event.key())
        turns = {Qt.Key.Key_Left: (-5, 0), Qt.Key.Key_Right: (5, 0), Qt.Key.Key_Up: (0, 4), Qt.Key.Key_Down: (0, -4)}
        walks = {Qt.Key.Key_W: 1, Qt.Key.Key_S: -1, Qt.Key.Key_PageUp: 1, Qt.Key.Key_PageDown: -1}
        if key in turns:
            self.camera = self.camera.orbited(*turns[key])
        elif key in walks:
            self.camera = self.camera.walked(walks[key])
        elif key == Qt.Key.Key_A or key == Qt.Key.Key_D:
            self.camera = self.camera.panned(0.05 if key == Qt.Key.Key_A else -0.05, 0)
        else:
            super().keyPressEvent(event)
            return
        self.redraw()

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        data = event.mimeData() if event else None
        if event and data and data.hasFormat(SURFACE_MIME):
            event.acceptProposedAction()
        elif event:
            event.ignore()

    def dropEvent(self, event: QDropEvent | None) -> None:
        data = event.mimeData() if event else None
        if event is None or data is None or not data.hasFormat(SURFACE_MIME):
            return
        found = self.hit(event.position())
        if found:
            self.surface_dropped.emit(found.part, bytes(data.data(SURFACE_MIME).data()).decode())
            event.acceptProposedAction()

    # Painting ------------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), theme.colour("board"))
        if self.failed:
            painter.setPen(Qt.GlobalColor.white)
            painter.drawText(
                self.rect(),
                Qt.AlignmentFlag.AlignCenter,
                tr("This machine cannot draw the model (no OpenGL 3.3). Everything else works."),
            )
            return
        if self.image is None:
            painter.setPen(Qt.GlobalColor.white)
            text = tr("Drawing…") if self.parts else tr("No scene yet. Set up a sample corner at the left.")
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, text)
            return
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.drawImage(QRectF(self.rect()), self.image)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        self._paint_datum(painter)

    def _on_screen(self, point: tuple[float, float, float]) -> QPointF | None:
        matrix = self.camera.view_projection(self.width() / max(1, self.height()))
        x, y, _, w = matrix @ np.array([*(np.array(point) / 1000), 1.0])
        if w <= 0.05:
            return None
        return QPointF((x / w + 1) / 2 * self.width(), (1 - y / w) / 2 * self.height())

    def _paint_datum(self, painter: QPainter) -> None:
        if self.job is None:
            return
        m, datum = CORNER, self.job.scene.datum
        runs = [
            [(0.0, datum[1], 0.0), (m.north, datum[1], 0.0), (m.north, datum[1], m.east)],
            [(datum[0], 0.0, datum[2]), (datum[0], m.dado, datum[2])],
        ]
        for run in runs:
            points = [self._on_screen(point) for point in run]
            for a, b in itertools.pairwise(points):
                if a and b:
                    painter.setPen(QPen(theme.colour("white"), 2.6))
                    painter.drawLine(a, b)
                    painter.setPen(QPen(theme.colour("chalk_line"), 1.6))
                    painter.drawLine(a, b)
        at = self._on_screen(datum)
        if at is None:
            return
        painter.setPen(QPen(theme.colour("white"), 2))
        painter.setBrush(theme.colour("chalk_line"))
        painter.drawEllipse(at, theme.px(6), theme.px(6))
        text = tr("datum  {level}", level=format_level(datum[1]))
        painter.setFont(theme.font(11, mono=True))
        tag = QRectF(at.x() + theme.px(12), at.y() + theme.px(4), theme.px(112), theme.px(19))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.drawRoundedRect(tag, theme.px(9), theme.px(9))
        painter.setPen(theme.colour("on_ink"))
        painter.drawText(tag, Qt.AlignmentFlag.AlignCenter, text)

    def close_down(self) -> None:
        """End the drawing thread; what it holds of the 3D driver is given back there, where it was made."""
        self._rest.stop()
        if self._worker:
            self._worker.stop(self._release)

    def _release(self) -> None:
        if self._renderer is not None:
            self._renderer.release()
            self._renderer = None
