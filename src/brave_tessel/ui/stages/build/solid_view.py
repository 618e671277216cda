"""A surface on a solid, drawn off the window's thread: left drag turns it, the wheel comes nearer, right drag turns
the light.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Callable
from typing import Any

import numpy as np
from PyQt6.QtCore import QPointF, Qt, QTimer, pyqtSignal, pyqtSlot
from PyQt6.QtGui import QImage, QMouseEvent, QPainter, QPaintEvent, QResizeEvent, QWheelEvent
from PyQt6.QtWidgets import QWidget

from ....core.job.light import Rig
from ....core.maps import MapKind
from ....engine.pictures.placed import pictures_of, relief_of
from ....engine.pictures.results import Relief, SurfacePicture
from ....engine.workers import Current, Worker
from ....view3d.drawn import Look, SceneLight, scene_light
from ....view3d.renderer import Renderer
from ....view3d.rest import come_to_rest
from ....view3d.samples import SAMPLES, camera_of, sample
from ....view3d.solids import SIZE_M, solid
from ... import theme
from ...board import to_image
from ...controls.float_bar import FloatBar
from ...words import tr

RELIEFS = ("True relief", "Parallax", "By normals")
BOARD = (0.467, 0.467, 0.467)
"""The board's neutral grey, as the renderer takes it: sRGB code."""


class SolidView(QWidget):
    """Lies over the build board while its extent is a solid."""

    _arrived = pyqtSignal(object)
    light_turned = pyqtSignal(float, float)

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setAccessibleName(tr("Solid"))
        self.camera = camera_of("Ball")
        self.shape, self.relief = "Ball", "True relief"
        self.done: SurfacePicture | None = None
        self.image: QImage | None = None
        self.failed = ""
        self.light: Callable[[bool], SceneLight] = lambda _moving: scene_light(Rig())
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.setInterval(140)
        self._rest.timeout.connect(self._come_to_rest)
        self._worker: Worker | None = None
        self._renderer: Any = None
        self._part_of: Any = None
        self._moving = False
        self._pressed: tuple[QPointF, Qt.MouseButton] | None = None
        self.shapes = FloatBar(SAMPLES, "Ball", name=tr("Solid"), parent=self)
        self.reliefs = FloatBar(RELIEFS, "True relief", name=tr("Relief"), parent=self)
        self.shapes.chosen.connect(self.show_shape)
        self.reliefs.chosen.connect(self.show_relief)
        self._arrived.connect(self._show, Qt.ConnectionType.QueuedConnection)  # type: ignore[call-arg]
        self.hide()

    # What is shown -------------------------------------------------------------------------------

    def show_shape(self, name: str) -> None:
        if name != self.shape:
            self.camera = camera_of(name)
        self.shape = name
        self.shapes.show_word(name)
        self.ask()

    def show_relief(self, word: str) -> None:
        """Relief as true displacement, by parallax, or by normals alone."""
        self.relief = word
        self.reliefs.show_word(word)
        self.ask()

    def show_light(self, light: Callable[[bool], SceneLight]) -> None:
        """Another light; made in the drawing thread."""
        self.light = light
        self.ask()

    def show_picture(self, done: SurfacePicture | None) -> None:
        self.done = done
        if self.isVisible():
            self.ask()

    def showEvent(self, event: object) -> None:
        self.ask()

    def hideEvent(self, event: object) -> None:
        """Nobody looks: frames that are still being added up are not made."""
        self._rest.stop()
        if self._worker is not None:
            self._worker.cancel("frame")

    @property
    def idle(self) -> bool:
        return not self._rest.isActive() and (self._worker is None or self._worker.idle)

    def ask(self) -> None:
        """Ask for a frame at once, and for its picture at rest a moment later; the latest wins."""
        if self.done is None or not self.isVisible() or self.width() < 8:
            return
        self._request(moving=True)
        self._rest.start()

    def _come_to_rest(self) -> None:
        if self._moving and self._worker is not None and self._worker.busy_with("frame"):
            # The first frame may take long, for all is handed to the driver: overtaken it would not be seen.
            self._rest.start()
        elif self.done is not None and self.isVisible():
            self._request(moving=False)

    def _request(self, *, moving: bool) -> None:
        if self._worker is None:
            self._worker = Worker("solid")
        self._moving = moving
        done, shape, relief, light = self.done, self.shape, self.relief, self.light
        assert done is not None
        share = 0.5 if moving and (self._renderer is None or self._renderer.software) else 1.0
        size = max(8, round(share * self.width())), max(8, round(share * self.height()))
        camera = self.camera

        def work(current: Current) -> None:
            try:
                look = self._prepared(
                    done, shape, relief, Look(camera, *size, light=light(moving), background=BOARD), current
                )
                if look is None:
                    return
                if moving:
                    self._arrived.emit(self._renderer.draw(look))
                else:
                    come_to_rest(self._renderer, look, lambda codes, _last: self._arrived.emit(codes), current)
            except Exception as error:  # noqa: BLE001 - a machine without a 3D driver tells so instead of failing
                self._arrived.emit(str(error) or type(error).__name__)

        self._worker.request("frame", work)

    def _prepared(self, done: SurfacePicture, shape: str, relief: str, look: Look, current: Current) -> Look | None:
        """In the worker's thread: what has changed is handed to the driver."""
        if self._renderer is None:
            self._renderer = Renderer()
        wanted = (id(done.maps), shape, relief)
        if wanted != self._part_of:
            maps = done.maps
            parts = sample(shape, maps[MapKind.HEIGHT], done.grid, done.surface.id, displaced=relief == "True relief")
            if not current():
                return None
            self._renderer.set_parts(parts)
            key = f"{id(done.maps)} {shape} {relief}".encode()
            found = relief_of(maps) if relief == "Parallax" else None
            if found is not None:
                scale = 1000 * SIZE_M / solid(shape, done.grid.width_mm, done.grid.height_mm).size_mm
                found = Relief(found.shares, found.low_mm * scale, found.high_mm * scale)
            self._renderer.set_textures(done.surface.id, pictures_of(key, maps, found))
            self._part_of = wanted
        return look

    @pyqtSlot(object)
    def _show(self, frame: Any) -> None:
        if isinstance(frame, str):
            self.failed = frame
        else:
            self.image, self.failed = to_image(np.ascontiguousarray(frame)), ""
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), theme.colour("board"))
        if self.image is not None:
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
            painter.drawImage(self.rect(), self.image)
        elif not self.failed:
            painter.setPen(Qt.GlobalColor.white)
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, tr("Drawing…"))
        if self.failed:
            painter.setPen(Qt.GlobalColor.white)
            painter.drawText(
                self.rect(),
                Qt.AlignmentFlag.AlignCenter,
                tr("The solid cannot be drawn here: {failed}", failed=self.failed),
            )

    # The mouse -----------------------------------------------------------------------------------

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        margin = theme.px(10)
        self.shapes.move(margin, self.height() - self.shapes.height() - margin)
        self.reliefs.move(margin, self.shapes.y() - self.reliefs.height() - theme.px(6))
        self.ask()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None:
            self._pressed = event.position(), event.button()

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self._pressed is None:
            return
        away = event.position() - self._pressed[0]
        self._pressed = event.position(), self._pressed[1]
        if self._pressed[1] == Qt.MouseButton.RightButton:
            self.light_turned.emit(away.x(), away.y())
            return
        self.camera = self.camera.orbited(0.4 * away.x(), 0.3 * away.y())
        self.ask()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        self._pressed = None

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is not None:
            nearer = 0.9 ** (event.angleDelta().y() / 120)
            self.camera = dataclasses.replace(self.camera, distance=min(8.0, max(0.9, self.camera.distance * nearer)))
            self.ask()

    def close_down(self) -> None:
        self._rest.stop()
        if self._worker is not None:
            self._worker.stop(self._release)

    def _release(self) -> None:
        # In the worker's thread, which owns the context.
        if self._renderer is not None:
            self._renderer.release()
            self._renderer = None
