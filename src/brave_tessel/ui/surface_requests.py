"""What the build board shows, asked of the worker: whole pictures, and while a stroke is drawn only what it changes."""

from __future__ import annotations

from typing import TYPE_CHECKING

from ..core.job.document import Stroke, Surface
from ..engine.areas import NotLocalError
from ..engine.pictures.results import SurfaceParts, SurfacePicture
from ..engine.pictures.strokes import Showing, Shown, stroke_parts
from ..engine.pictures.surface import surface_picture
from ..engine.workers import Current

if TYPE_CHECKING:
    from .desk import Desk

COARSE_PX = 256


class SurfaceRequests:
    """``live`` is the stroke under the brush."""

    def __init__(self, desk: Desk) -> None:
        self.desk = desk
        self.live: Stroke | None = None
        self._shown: Shown | None = None
        self._live_shown: Stroke | None = None
        self._stroke_ended = False

    def request(self) -> None:
        """Ask for the chosen surface's picture."""
        surface = self.desk.surface
        if surface is None:
            self.desk.surface_ready.emit(None)
        elif self.live is None or not self._request_parts(surface, self.live):
            self._request_whole(surface)

    def showing(self) -> Showing:
        """How the board shows it now."""
        desk = self.desk
        return Showing(desk.view, desk.preview_px, desk.light, desk.solo, (desk.sun, desk.sky, desk.exposure))

    def _request_whole(self, surface: Surface) -> None:
        """Coarse, then fine; after a stroke, which is seen already, fine at once."""
        desk, showing = self.desk, self.showing()
        job, session, layer = desk.job, desk.session, desk.layer_id
        fine_first, self._stroke_ended = self._stroke_ended and self._shown is not None, False
        sun, sky, exposure = showing.strengths

        def picture(px: int, current: Current) -> SurfacePicture:
            return surface_picture(
                session,
                job,
                surface,
                px=px,
                light=showing.light,
                view=showing.view,
                fine=px != COARSE_PX,
                current=current,
                layer=layer,
                solo=showing.solo,
                sun=sun,
                sky=sky,
                exposure=exposure,
            )

        def work(current: Current) -> None:
            for px in (showing.px,) if fine_first else dict.fromkeys((min(COARSE_PX, showing.px), showing.px)):
                done = picture(px, current)
                if current():
                    desk.later(lambda done=done: self.deliver(done, showing))  # type: ignore[misc]

        desk.in_background("surface", work)

    def deliver(self, done: SurfacePicture, showing: Showing | None = None) -> None:
        """A whole picture has come."""
        whole = showing is not None and showing.px == max(done.grid.shape)
        self._shown = Shown(done, showing) if showing is not None and whole else None
        if done.fine or done.ms > 1:
            self.desk.timed.emit(done.ms)
        self.desk.surface_ready.emit(done)

    # Strokes -------------------------------------------------------------------------------------

    def _request_parts(self, surface: Surface, stroke: Stroke) -> bool:
        """Ask for what the stroke changes; False where the whole picture has to be made."""
        shown = self._shown
        if shown is None or shown.showing != self.showing() or shown.base.surface.id != surface.id:
            return False
        desk, before = self.desk, self._live_shown
        job, session = desk.job, desk.session

        def work(_current: Current) -> None:
            try:
                # Short enough to be finished: overtaken at every move of the hand it would never be seen.
                done = stroke_parts(session, job, surface, shown, before=before, stroke=stroke)
            except NotLocalError:
                desk.later(self._show_whole)
                return
            desk.later(lambda: self._deliver_parts(done))

        desk.in_background("surface", work)
        return True

    def _show_whole(self) -> None:
        self._shown = None
        self.desk.refresh()

    def _deliver_parts(self, done: SurfaceParts) -> None:
        if self._shown is not None:
            self._live_shown = done.stroke if self.live is not None else None
            self.desk.timed.emit(done.ms)
            self.desk.parts_ready.emit(done)

    def end_stroke(self) -> None:
        """The brush is lifted: what looks at the whole sheet is put right too."""
        self.live = self._live_shown = None
        self._stroke_ended = True
        self.desk.end_gesture()
        self.desk.refresh()
