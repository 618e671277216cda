"""What Place asks for: pictures of every surface laid in the scene."""

from __future__ import annotations

from PyQt6.QtCore import pyqtSignal

from ...engine.pictures.placed import scene_textures
from ...engine.pictures.results import SceneTextures
from ...engine.workers import Current
from ..workroom import Send
from .base import COARSE_PX, Requests


class PlaceRequests(Requests):
    """Also asked by Hand over, which shows the placed picture small."""

    ready = pyqtSignal(object)
    channels = ("scene",)

    def request(self) -> None:
        self.request_at(self.view.preview_px)

    def request_small(self) -> None:
        """Pictures for a small view of the scene."""
        self.request_at(2 * COARSE_PX)

    def request_at(self, px: int) -> None:
        """Coarse pictures, then some so many pixels wide."""
        snapshot, sizes = self.session.snapshot(), self.sizes(px)

        def work(current: Current, send: Send) -> None:
            for size in sizes:
                send(scene_textures(snapshot, px=size, current=current))

        self.work.stream("scene", work, self._deliver)

    def _deliver(self, done: SceneTextures) -> None:
        self.timed.emit(done.ms)
        self.ready.emit(done)
