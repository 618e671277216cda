"""The model in 3D: a picture drawn off the window's thread, coarse while moving, full at rest."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, QTimer, pyqtSignal, pyqtSlot
from PyQt6.QtGui import (
    QDragEnterEvent,
    QDragLeaveEvent,
    QDragMoveEvent,
    QDropEvent,
    QImage,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QResizeEvent,
    QWheelEvent,
)
from PyQt6.QtWidgets import QWidget

from ....core.job.light import Rig
from ....core.place.mesh import Vector
from ....core.place.rays import Hit
from ....core.place.site import Site
from ....engine.pictures.results import SceneTextures
from ....formats.scene_models import SUFFIXES
from ....view3d.camera import Camera, from_points
from ....view3d.drawn import DrawPart, Look, SceneLight, Shows, scene_light
from ....view3d.scene import find_under
from ... import theme
from ...board import to_image
from ...words import tr
from .frames import Frames, Seen
from .looks import paint_legend
from .overlay import Overlay

SURFACE_MIME = "application/x-brave-tessel-surface"
SNAP_PX = 12
_REST_MS, _RENEW_MS = 150, 900
"""After the last change, and after another surface has come: a sharp picture takes from what works out the next."""


class SceneView(QWidget):
    """Left drag orbits or looks around, middle drag pans, the wheel walks, right drag turns the light. What a click
    means is the tool's: every press, move and release over the model is handed on.
    """

    pressed = pyqtSignal(object, object)
    """What was hit (or None), and the event, of a click that was no drag."""
    hovered = pyqtSignal(object)
    dragged_over = pyqtSignal(object, str)
    surface_dropped = pyqtSignal(object, str, bool)
    files_dropped = pyqtSignal(object)
    frame_drawn = pyqtSignal()
    light_turned = pyqtSignal(float, float)
    moved = pyqtSignal()
    still_drawn = pyqtSignal(object)
    key_pressed = pyqtSignal(object)
    _arrived = pyqtSignal(object, bool)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName(tr("Model"))
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setAcceptDrops(True)
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)
        self.camera = Camera()
        self.light: Callable[[bool], SceneLight] = lambda _moving: scene_light(Rig())
        """The light of the job; asked in the drawing thread, where making it takes its time."""
        self.site: Site | None = None
        self.parts: list[DrawPart] = []
        self.textures: SceneTextures | None = None
        self.chosen: frozenset[str] = frozenset()
        self.marked: tuple[DrawPart, ...] = ()
        self.shows = Shows.LIT
        self.sheet_px: Callable[[], float] = lambda: 2048.0
        self.walking = False
        self.grabs: Callable[[QMouseEvent], bool] | None = None
        """Asked at every press of the left button whether a handle takes it."""
        self.image: QImage | None = None
        self.seen = False
        """Whether a sharp picture with surfaces was shown yet."""
        self.sharp = False
        self.overlay = Overlay(self)
        self._framed = self._same = False
        self._projection: tuple[tuple[Camera, float], list[list[float]]] | None = None
        self.frames = Frames()
        self._pressed: tuple[QPointF, Qt.MouseButton] | None = None
        self._moved = False
        self._held = False
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.setInterval(_REST_MS)
        self._rest.timeout.connect(self._come_to_rest)
        self._arrived.connect(self._show, Qt.ConnectionType.QueuedConnection)  # type: ignore[call-arg]

    def sizeHint(self) -> QSize:
        return QSize(theme.px(640), theme.px(420))

    # What is shown -------------------------------------------------------------------------------

    def show_site(self, site: Site, parts: list[DrawPart]) -> None:
        """Another state of the scene; the first with anything in it is seen whole, or from its first kept view."""
        self.site, self.parts = site, parts
        if parts and not self._framed:
            self._framed = True
            self.reset()
        elif not parts:
            self._framed, self.image = False, None
        self.redraw()
        self.update()

    def see_anew(self) -> None:
        """The next state of the scene is another scene: it is seen from its own first view."""
        self._framed = False

    def show_chosen(self, parts: frozenset[str], marked: tuple[DrawPart, ...] = ()) -> None:
        """Which parts are tinted and which faces are marked."""
        same = len(marked) == len(self.marked) and all(a is b for a, b in zip(marked, self.marked, strict=True))
        if parts != self.chosen or not same:
            self.chosen, self.marked = parts, marked
            self.redraw()

    def show_textures(self, textures: SceneTextures) -> None:
        before, self.textures = self.textures, textures
        if before is None:
            self.redraw()
        # The last may bring nothing else, but what was drawn roughly while it was awaited is refined then.
        elif (textures.complete and not before.complete) or _keys(before) != _keys(textures):
            self._renew(complete=textures.complete)

    def show_light(self, light: Callable[[bool], SceneLight]) -> None:
        """Another light; made in the drawing thread."""
        self.light = light
        self.redraw()

    def redraw(self) -> None:
        """Coarse now, full a moment after the last change."""
        self._same = self.isVisible()
        if self.isVisible() and self.parts:
            self.sharp = False
            self._request(coarse=True)
            self._rest.start(_REST_MS)

    def _renew(self, *, complete: bool) -> None:
        """Other surfaces on what is shown already: it stays until it is drawn with them, at rest."""
        if not self.isVisible() or (self.image is None and not self.frames.first_due):
            self.redraw()
            return
        self.sharp = False
        if complete or not self._rest.isActive():
            self._rest.start(_REST_MS if complete else _RENEW_MS)

    def _come_to_rest(self) -> None:
        if self.frames.first_due:
            self._rest.start(_REST_MS)
        else:
            self._request(coarse=False)

    def look(self, width: int, height: int, *, coarse: bool) -> Look:
        return Look(
            self.camera,
            max(8, width),
            max(8, height),
            chosen=self.chosen,
            shows=self.shows,
            sheet_px=self.sheet_px(),
            moving=coarse,
            marked=self.marked,
            adapts=True,
        )

    def _seen(self) -> Seen:
        return Seen(self.parts, self.textures, self.light)

    def _request(self, *, coarse: bool) -> None:
        share = self.devicePixelRatioF() * (self.frames.moving_share if coarse else 1.0)
        look = self.look(round(self.width() * share), round(self.height() * share), coarse=coarse)
        self.frames.draw(self._seen(), look, lambda codes, sharp: self._arrived.emit(to_image(codes), sharp))

    def request_still(self, width: int, height: int) -> None:
        """A sharp picture of the model while another stage is shown; ``still_drawn`` brings it."""
        look = replace(self.look(width, height, coarse=False), chosen=frozenset(), marked=())
        self.frames.draw_still(self._seen(), look, lambda codes: self.still_drawn.emit(to_image(codes)))

    @pyqtSlot(object, bool)
    def _show(self, image: QImage, sharp: bool) -> None:
        self.image, self.sharp = image, sharp
        self.seen = self.seen or (sharp and self.textures is not None)
        self.update()
        if sharp:
            self.frame_drawn.emit()

    @property
    def idle(self) -> bool:
        """Whether nothing is being drawn or about to be."""
        return not self._rest.isActive() and self.frames.idle

    @property
    def failed(self) -> str:
        """Why this machine cannot draw the model, if so."""
        return self.frames.failed

    # Where one stands ----------------------------------------------------------------------------

    def reset(self) -> None:
        """The first kept view, or all that stands seen from outside."""
        eyes = self.site.scene.eyes if self.site else ()
        if eyes:
            self.stand_at(eyes[0].at, eyes[0].toward, eyes[0].angle)
        else:
            self.frame_all()

    def stand_at(self, at: tuple[float, float, float], toward: tuple[float, float, float], angle: float) -> None:
        """Stand at a point, mm, and look at another."""
        self.camera = from_points(np.array(at) / 1000, np.array(toward) / 1000, angle=angle, reach=self._reach())
        self.redraw()

    def frame_all(self, box: tuple[Vector, Vector] | None = None) -> None:
        """See all that stands, or a box of it, mm."""
        if self.site is None:
            return
        low, high = box or self.site.box
        shown = replace(self.camera, azimuth=-30.0, pitch=22.0) if box is None else self.camera
        self.camera = replace(shown.framing(low / 1000, high / 1000), reach=self._reach())
        self.redraw()

    def _reach(self) -> float:
        if self.site is None:
            return 60.0
        low, high = self.site.box
        return max(60.0, 3.0 * float(np.linalg.norm(high - low)) / 1000)

    # Events --------------------------------------------------------------------------------------

    def showEvent(self, event: object) -> None:
        # What was seen last stays until it is drawn anew, if it would be the same.
        if self._same:
            self._renew(complete=True)
        else:
            self.redraw()

    def hideEvent(self, event: object) -> None:
        self._rest.stop()
        self.frames.leave_off()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        self.redraw()

    def unit(self, at: QPointF) -> tuple[float, float]:
        """A place of the picture, both −1 to 1, y up."""
        return 2 * at.x() / max(1, self.width()) - 1, 1 - 2 * at.y() / max(1, self.height())

    @property
    def aspect(self) -> float:
        return self.width() / max(1, self.height())

    def hit(self, at: QPointF) -> Hit | None:
        """What of the model lies under a place of the picture; what is locked is looked through."""
        if self.site is None:
            return None
        return find_under(self.site, self.camera, *self.unit(at), self.aspect, locked=False)

    def ray(self, at: QPointF) -> tuple[Vector, Vector]:
        """Origin, mm, and direction of the ray through a place of the picture."""
        origin, direction = self.camera.ray(*self.unit(at), self.aspect)
        return origin * 1000, direction

    def mm_per_px(self, point: Vector) -> float:
        """How many mm of the scene one pixel shows at a point."""
        away = float(np.linalg.norm(np.asarray(point) / 1000 - self.camera.eye))
        return 2000 * away * math.tan(math.radians(self.camera.field_of_view) / 2) / max(1, self.height())

    def on_screen(self, point: Vector | tuple[float, float, float]) -> QPointF | None:
        """Where a point of the scene, mm, lies in the picture; None behind the eye."""
        # Asked of hundreds of points in a picture: the matrix is made once for a view, and multiplied out by hand.
        seen_from = (self.camera, self.aspect)
        if self._projection is None or self._projection[0] != seen_from:
            self._projection = (seen_from, self.camera.view_projection(self.aspect).tolist())
        x, y, z = (float(v) / 1000 for v in point)
        across, up, _, away = (row[0] * x + row[1] * y + row[2] * z + row[3] for row in self._projection[1])
        if away <= 0.02:
            return None
        return QPointF((across / away + 1) / 2 * self.width(), (1 - up / away) / 2 * self.height())

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        self.setFocus()
        if event.button() == Qt.MouseButton.LeftButton and self.grabs is not None and self.grabs(event):
            self._held = True
            return
        self._pressed = (event.position(), event.button())
        self._moved = False

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        if self._held:
            if self.grabs is not None:
                self.grabs(event)
            return
        if self._pressed is None:
            self.hovered.emit(event)
            return
        start, which = self._pressed
        by = event.position() - start
        if not self._moved and by.manhattanLength() < 4:
            return
        self._moved = True
        self._pressed = (event.position(), which)
        if which == Qt.MouseButton.RightButton:
            self.light_turned.emit(by.x(), by.y())
            return
        if which == Qt.MouseButton.MiddleButton or event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            self.camera = self.camera.panned(by.x() / self.height(), by.y() / self.height())
        elif self.walking:
            self.camera = self.camera.looking(-0.22 * by.x(), -0.22 * by.y())
        else:
            self.camera = self.camera.orbited(0.35 * by.x(), 0.35 * by.y())
        self.moved.emit()
        self.redraw()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self._held:
            self._held = False
            if event is not None and self.grabs is not None:
                self.grabs(event)
            return
        pressed, self._pressed = self._pressed, None
        if event is None or pressed is None or self._moved or pressed[1] != Qt.MouseButton.LeftButton:
            return
        self.pressed.emit(self.hit(event.position()), event)

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event:
            steps = event.angleDelta().y() / 120
            self.camera = self.camera.stepped(0.35 * steps, 0.0) if self.walking else self.camera.walked(steps)
            self.redraw()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        event.ignore()
        self.key_pressed.emit(event)
        if event.isAccepted():
            return
        key = Qt.Key(event.key())
        turns = {Qt.Key.Key_Left: (-5, 0), Qt.Key.Key_Right: (5, 0), Qt.Key.Key_Up: (0, 4), Qt.Key.Key_Down: (0, -4)}
        goes = {
            Qt.Key.Key_W: (0.35, 0.0, 0.0), Qt.Key.Key_S: (-0.35, 0.0, 0.0), Qt.Key.Key_PageUp: (0.0, 0.0, 0.2),
            Qt.Key.Key_PageDown: (0.0, 0.0, -0.2), Qt.Key.Key_A: (0.0, -0.3, 0.0), Qt.Key.Key_D: (0.0, 0.3, 0.0),
        }  # fmt: skip
        if key in turns:
            right, up = turns[key]
            self.camera = self.camera.looking(right, up) if self.walking else self.camera.orbited(right, up)
        elif key in goes:
            self.camera = self.camera.stepped(*goes[key])
        else:
            super().keyPressEvent(event)
            return
        event.accept()
        self.redraw()

    # Things dragged here -------------------------------------------------------------------------

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        data = event.mimeData() if event else None
        if event and data and (data.hasFormat(SURFACE_MIME) or _models(event)):
            event.acceptProposedAction()
        elif event:
            event.ignore()

    def dragMoveEvent(self, event: QDragMoveEvent | None) -> None:
        data = event.mimeData() if event else None
        if event and data and data.hasFormat(SURFACE_MIME):
            surface = bytes(data.data(SURFACE_MIME).data()).decode()
            whole = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
            self.dragged_over.emit((self.hit(event.position()), whole), surface)
            event.acceptProposedAction()

    def dragLeaveEvent(self, event: QDragLeaveEvent | None) -> None:
        self.dragged_over.emit(None, "")

    def dropEvent(self, event: QDropEvent | None) -> None:
        data = event.mimeData() if event else None
        if event is None or data is None:
            return
        paths = _models(event)
        if paths:
            event.acceptProposedAction()
            self.files_dropped.emit(paths)
            return
        if not data.hasFormat(SURFACE_MIME):
            return
        found = self.hit(event.position())
        self.dragged_over.emit(None, "")
        if found:
            whole = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
            self.surface_dropped.emit(found, bytes(data.data(SURFACE_MIME).data()).decode(), whole)
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
            text = tr("Drawing…") if self.parts else tr("Nothing stands here yet. Add a piece or open a model.")
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, text)
            return
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.drawImage(QRectF(self.rect()), self.image)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        self.overlay.paint(painter)
        paint_legend(painter, self.rect(), self.shows)

    def close_down(self) -> None:
        """End the drawing thread; what it holds of the 3D driver is given back there, where it was made."""
        self._rest.stop()
        self.frames.stop()


def _keys(textures: SceneTextures) -> dict[str, bytes]:
    return {name: pictures.key for name, pictures in textures.surfaces.items()}


def _models(event: QDropEvent) -> list[str]:
    """Model files that an event brings."""
    data = event.mimeData()
    urls = data.urls() if data else []
    return [url.toLocalFile() for url in urls if url.toLocalFile().lower().endswith(SUFFIXES)]
