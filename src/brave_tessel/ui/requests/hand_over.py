"""What Hand over asks for: all maps of a surface with its checks, the placed picture, a delivery."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import pyqtSignal

from ...core.job.document import Delivery
from ...core.job.layers import Surface
from ...engine.handover.deliver import deliver
from ...engine.handover.output import Writing
from ...engine.pictures.placed import hand_over_picture
from ...engine.pictures.surface import Showing
from ...engine.workers import Current
from ..workroom import Pace
from .base import Requests
from .place import PlaceRequests


class HandOverRequests(Requests):
    """A delivery goes on while other stages are worked in, and gives way to them."""

    ready = pyqtSignal(object)
    channels = ("checks",)

    def __init__(self, place: PlaceRequests) -> None:
        super().__init__(place.session, place.selection, place.view, place.work)
        self.place = place

    def request(self) -> None:
        surface = self.selection.surface
        if surface is None:
            self.ready.emit(None)
            return
        snapshot, showing = self.session.snapshot(), Showing("Lit", self.view.preview_px)
        self.work.ask(
            "checks", lambda current: hand_over_picture(snapshot, surface, showing, current=current), self._deliver
        )
        self.place.request_small()

    def _deliver(self, done: object) -> None:
        self.timed.emit(getattr(done, "ms", 0.0))
        self.ready.emit(done)

    def leave(self) -> None:
        super().leave()
        self.place.leave()

    def deliver(
        self,
        delivery: Delivery,
        surfaces: tuple[Surface, ...],
        folder: Path,
        *,
        progress: Callable[[str, float], None],
        written: Callable[[list[Path]], None],
        failed: Callable[[Exception], None],
        ended: Callable[[], None],
    ) -> None:
        """Write a delivery of the job as it is now; what is changed meanwhile goes into the next."""
        snapshot = self.session.snapshot()

        def told(what: str, share: float) -> None:
            self.work.later(lambda: progress(what, share))

        def work(current: Current) -> list[Path]:
            return deliver(Writing(snapshot, delivery, surfaces, folder, told, current))

        self.work.ask("deliver", work, written, pace=Pace.LONG, failed=failed, ended=ended)

    def stop(self) -> None:
        """End the delivery after the file being written."""
        self.work.cancel("deliver")
