"""What Place asks for: the scene as it stands, its models, and pictures of every surface laid in it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

from PyQt6.QtCore import QTimer, pyqtSignal

from ...core.job.document import Job
from ...core.place.elevation import facets_of
from ...core.place.rays import make_ready
from ...core.place.site import Ground, Site
from ...engine.pictures.placed import PlacedRound, all_there, laid_surfaces, textures_at_hand
from ...engine.pictures.results import SceneTextures
from ...engine.place.bring import Brought, bring
from ...engine.wording import sentence
from ...engine.workers import Current
from ...view3d.drawn import DrawPart
from ...view3d.scene import draw_parts, make_light
from ..words import tr
from ..workroom import Pace
from .base import COARSE_PX, Requests

_LOOK_MS, _MOST_MS = 50, 4000
"""How often it is asked whether the first picture is there, and how long it is waited for."""


class PlaceRequests(Requests):
    """Also asked by Hand over, which shows the placed picture small."""

    ready = pyqtSignal(object)
    standing = pyqtSignal(object, object)
    """The site, and what of it is drawn."""
    channels = ("scene",)

    def __init__(self, *shared: object) -> None:
        super().__init__(*shared)  # type: ignore[arg-type]
        self.ground = Ground()
        self._of: object = None
        self._shown: tuple[tuple[object, ...], SceneTextures] | None = None
        self._round: PlacedRound | None = None
        self.first_look: Callable[[], bool] = lambda: False
        """Whether the model's first picture is still being drawn."""
        self._held = 0
        self._reading = False
        self._told: set[str] = set()
        self._preview: Job | None = None

    def request(self) -> None:
        self.request_at(self.view.preview_px)

    def request_small(self) -> None:
        """Pictures for a small view of the scene; those that the large one has are taken as they are."""
        larger = _shown_by(self.session.job, self.view.preview_px, self.session.era)
        kept = self._shown is not None and self._shown[0] == larger
        self.request_at(self.view.preview_px if kept else 2 * COARSE_PX)

    def request_at(self, px: int) -> None:
        """The scene as it stands; pictures kept or coarse, then some so many pixels wide, one after the other."""
        self.stand()
        snapshot, previews = self.session.snapshot(), dict(self.session.previews)
        wanted = _shown_by(snapshot.job, px, self.session.era)
        if self._shown is not None and self._shown[0] == wanted:
            # The scene has changed, no surface has.
            self.ready.emit(self._shown[1])
            return

        def work(current: Current) -> SceneTextures | None:
            if all_there(snapshot, px):
                return None
            before = textures_at_hand(snapshot, previews, px, coarse_px=COARSE_PX, current=current)
            # All there, but coarse: the model is not refined before the fine ones have come.
            return replace(before, complete=False)

        def then(before: SceneTextures | None) -> None:
            self._round = round = PlacedRound(snapshot, px=px, before=before)
            if before is None:
                # All is there: what the first picture waits for is the round itself.
                self._go_on(round, wanted)
                return
            self._deliver(before)
            self.when_seen(lambda: self._go_on(round, wanted))

        self._round = None
        self.work.ask("scene", work, then)

    def when_seen(self, act: Callable[[], None]) -> None:
        """Do what can wait once the model's first picture is there: all at once, that would take long."""
        self._held += 1
        self._look(act, 0)

    def _look(self, act: Callable[[], None], waited: int) -> None:
        if waited < _MOST_MS and self.first_look():
            QTimer.singleShot(_LOOK_MS, lambda: self._look(act, waited + _LOOK_MS))
            return
        self._held -= 1
        act()

    @property
    def holding(self) -> bool:
        """Whether something is done as soon as the first picture is there."""
        return self._held > 0

    def _go_on(self, round: PlacedRound, wanted: tuple[object, ...]) -> None:
        """Work out one surface after the other. What else is asked for meanwhile does not wait for all of them."""
        if self._round is not round:
            return

        def then(done: SceneTextures) -> None:
            if self._round is not round:
                return
            self._deliver(done)
            if done.complete:
                self._shown = (wanted, done)
            else:
                self._go_on(round, wanted)

        self.work.ask("scene", round.next, then, behind=True)

    def leave(self) -> None:
        super().leave()
        self._round = None

    def _deliver(self, done: SceneTextures) -> None:
        self.timed.emit(done.ms)
        self.ready.emit(done)

    # The scene -----------------------------------------------------------------------------------

    def stand(self) -> None:
        """Set the scene up as the job has it now, if that is another than before; read models that are missing."""
        job, shelf, chosen = self._preview or self.session.job, self.session.models, self.selection.part_id
        shapes = shelf.ready(job)
        sizes = tuple((surface.id, surface.width_mm, surface.height_mm) for surface in job.surfaces)
        wanted = (job.scene, sizes, tuple(map(id, shapes.values())), self.session.era)
        if self._of is not None and self._of == wanted:
            return
        self._of = wanted

        def work(_current: Current) -> tuple[Site, list[DrawPart]]:
            site = self.ground.site(job, shapes)
            one = site.of_part(chosen) if chosen else None
            if one is not None:
                # The levels drawn over it need them, and a part may have hundreds.
                facets_of(one)
            return site, draw_parts(site)

        self.work.ask("site", work, self._stands, failed=lambda _error: self._forget())
        if shelf.missing(job) and not self._reading:
            self._read_models(job)

    def preview(self, job: Job | None) -> None:
        """Show the scene as a job would have it that is not there yet; None for the one that is."""
        self._preview = job
        self.stand()

    def _stands(self, found: tuple[Site, list[DrawPart]]) -> None:
        site, parts = found
        self.standing.emit(site, parts)

        self.work.ask("rays", lambda _current: make_ready(site), lambda _done: None, pace=Pace.LONG)
        self.when_seen(lambda: self._lighten(parts))

    def _lighten(self, parts: list[DrawPart]) -> None:
        """What is drawn while the model moves."""
        self.work.ask("light", lambda current: make_light(parts, current), lambda _done: None, pace=Pace.LONG)

    def _forget(self) -> None:
        self._of = None

    def _read_models(self, job: Job) -> None:
        """Read what a job's parts are made of; it can be stopped, and is asked for again by the next change."""
        snapshot, shelf = self.session.snapshot(), self.session.models
        self._reading = True
        progress = self.work.progress()

        def work(current: Current) -> None:
            progress(tr("Reading the models"))
            shelf.shapes(job, snapshot.blobs, current=current)

        def ended() -> None:
            self._reading = False
            for blob, error in shelf.faults.items():
                if blob not in self._told:
                    self._told.add(blob)
                    self.work.told.emit(tr(sentence(error)), "fault")

        self.work.ask("models", work, lambda _done: self.stand(), pace=Pace.LONG, ended=ended)

    def bring(
        self, path: Path, then: Callable[[Brought], None], *, failed: Callable[[Exception], None] | None = None
    ) -> None:
        """Read a model file off the window's thread; Esc stops it."""
        kept, shelf = self.session.kept, self.session.models
        progress = self.work.progress()

        def work(current: Current) -> Brought:
            progress(tr("Reading {name}", name=path.name))
            return bring(path, kept, shelf, current=current)

        self.work.ask("bring", work, then, pace=Pace.LONG, failed=failed)


def _shown_by(job: Job, px: int, era: int) -> tuple[object, ...]:
    """What pictures of the surfaces laid hang on: all of the job but its scene, and which of them are laid."""
    laid = frozenset(laid_surfaces(job))
    others = tuple(getattr(job, name) for name in job.__struct_fields__ if name != "scene")
    return others, laid, px, era
