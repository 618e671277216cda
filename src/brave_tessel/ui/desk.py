"""What the window's parts share: the session, what is selected, the light, and finished pictures.

Widgets show what the desk holds and send it intents; they compute nothing.
"""

from __future__ import annotations

import logging
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

from PyQt6.QtCore import QObject, Qt, QTimer, pyqtSignal, pyqtSlot

from ..core.errors import CancelledError, TesselError
from ..core.job.commands import AnyCommand
from ..core.job.document import Job, Layer, Part, Source, Surface, every_layer
from ..core.maps import MapKind
from ..core.operation import find
from ..core.plan.planner import Light
from ..engine.gather.analyses import find_beat
from ..engine.intents.recipes import recipe_of
from ..engine.pictures import recipe as recipe_pictures
from ..engine.pictures import sheets as pictures
from ..engine.pictures.results import GatherPicture, RecipePicture, ScatterPicture, SceneTextures, SheetPicture
from ..engine.session import Session
from ..engine.wording import sentence
from ..engine.workers import Current, Worker
from ..formats.job_file import OpenedJob
from .controls.choices import KNOWN_LAYERS, KNOWN_SOURCES
from .followers import LinkFollower
from .gather_files import gather_files
from .sun import sun
from .surface_requests import COARSE_PX, SurfaceRequests

log = logging.getLogger(__name__)
STOPS = " · Esc stops"
STAGES = ("Gather", "Repeat", "Build", "Place", "Hand over")


class Desk(QObject):
    """Signals are sent in the window's thread, whichever thread the work was done in."""

    job_changed = pyqtSignal(object)
    selection_changed = pyqtSignal()
    stage_changed = pyqtSignal(str)
    surface_ready = pyqtSignal(object)
    parts_ready = pyqtSignal(object)
    sheet_ready = pyqtSignal(object)
    choice_ready = pyqtSignal(object)
    step_changed = pyqtSignal(str)
    palette_found = pyqtSignal(object)
    gather_ready = pyqtSignal(object)
    scatter_ready = pyqtSignal(object)
    scene_ready = pyqtSignal(object)
    recipe_ready = pyqtSignal(object)
    variants_ready = pyqtSignal(object)
    beat_found = pyqtSignal(str, object)
    message = pyqtSignal(str, str)
    busy_changed = pyqtSignal(bool)
    timed = pyqtSignal(float)
    light_changed = pyqtSignal()
    brush_changed = pyqtSignal()
    _arrived = pyqtSignal(object)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.worker = Worker("desk")
        self.stage = "Gather"
        self.surface_id = ""
        self.layer_id = ""
        self.layer_ids: tuple[str, ...] = ()
        self.rule_id = ""
        self.solo = ""
        self.brush: dict[str, Any] = find("brush.paint").defaults()
        self.erasing = False
        self.sun, self.sky, self.exposure = 0.9, 0.4, 1.0
        self.source_id = ""
        self.part_id = ""
        self.view = "Lit"
        self.preview_px = 1024
        self.azimuth, self.height = 135.0, 42.0
        self.repeat_step = "mend"
        self.stroking = False
        self.scatter_view: MapKind | None = None
        self.thumbs_asked: set[str] = set()
        self.recipe_open = False
        self.recipe_step = ""
        self.recipe_rule = ""
        self._told_progress = False
        self._sheet: SheetPicture | None = None
        self._photo_shown = ""
        self._wanted: set[str] = set()
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.timeout.connect(self._request)
        self._busy = 0
        self.followed = LinkFollower(self)
        self.surfaces = SurfaceRequests(self)
        self._arrived.connect(self._deliver, Qt.ConnectionType.QueuedConnection)  # type: ignore[call-arg]
        KNOWN_SOURCES[:] = [(source.id, source.name) for source in self.job.sources if source.sized]
        session.store.subscribe(lambda job: job, self._job_moved)

    # The job -------------------------------------------------------------------------------------

    @property
    def job(self) -> Job:
        return self.session.job

    def dispatch(self, command: AnyCommand) -> bool:
        """Carry out an intent; what it refuses is told, and the job stays as it was."""
        try:
            self.session.store.dispatch(command)
        except TesselError as error:
            self.tell(sentence(error), "fault")
            return False
        return True

    def end_gesture(self) -> None:
        self.session.store.end_gesture()

    def tell(self, text: str, level: str = "note") -> None:
        """One sentence for the status line."""
        # Another sentence takes the place of what goes on, and is not wiped when that ends.
        self._told_progress = text.endswith(STOPS)
        self.message.emit(text, level)

    def _job_moved(self, job: Job) -> None:
        KNOWN_SOURCES[:] = [(source.id, source.name) for source in job.sources if source.sized]
        self._keep_selection(job)
        self.job_changed.emit(job)
        self.refresh()

    def _keep_selection(self, job: Job) -> None:
        def kept(id: str, entities: tuple[object, ...]) -> str:
            ids = [entity.id for entity in entities]  # type: ignore[attr-defined]
            return id if id in ids else (ids[0] if ids else "")

        before = (self.surface_id, self.layer_id, self.source_id, self.part_id)
        self.surface_id = kept(self.surface_id, job.surfaces)
        self.source_id = kept(self.source_id, job.sources)
        self.part_id = kept(self.part_id, job.scene.parts)
        surface = self.surface
        layers = surface.layers if surface else ()
        known = {layer.id for layer, _ in every_layer(layers)}
        self.layer_ids = tuple(id for id in self.layer_ids if id in known)
        if self.layer_id not in known:
            self.layer_id = layers[-1].id if layers else ""
        if self.layer_id not in self.layer_ids:
            self.layer_ids = (self.layer_id,) if self.layer_id else ()
        KNOWN_LAYERS[:] = [(layer.id, layer.name) for layer, _ in every_layer(layers) if layer.id != self.layer_id]
        if (self.surface_id, self.layer_id, self.source_id, self.part_id) != before:
            self.selection_changed.emit()

    # Selection -----------------------------------------------------------------------------------

    @property
    def surface(self) -> Surface | None:
        return next((s for s in self.job.surfaces if s.id == self.surface_id), None)

    @property
    def layer(self) -> Layer | None:
        surface = self.surface
        if surface is None or not self.layer_id:
            return None
        return next((layer for layer, _ in every_layer(surface.layers) if layer.id == self.layer_id), None)

    @property
    def source(self) -> Source | None:
        return next((s for s in self.job.sources if s.id == self.source_id), None)

    @property
    def part(self) -> Part | None:
        return next((p for p in self.job.scene.parts if p.id == self.part_id), None)

    def select(
        self,
        *,
        surface: str | None = None,
        layer: str | None = None,
        source: str | None = None,
        part: str | None = None,
    ) -> None:
        """Choose what the cards show."""
        before = (self.surface_id, self.source_id)
        self.surface_id = self.surface_id if surface is None else surface
        self.source_id = self.source_id if source is None else source
        self.part_id = self.part_id if part is None else part
        self.layer_id = self.layer_id if layer is None else layer
        self._keep_selection(self.job)
        self.selection_changed.emit()
        if (self.surface_id, self.source_id) != before:
            self.refresh()

    def go(self, stage: str) -> None:
        """Turn to a stage."""
        if stage != self.stage:
            self.stage = stage
            self.stage_changed.emit(stage)
            self.refresh()

    def show_view(self, view: str) -> None:
        if view != self.view:
            self.view = view
            self.refresh()

    def show_solo(self, layer: str) -> None:
        """Show one layer alone on the bare sheet, or everything."""
        if layer != self.solo:
            self.solo = layer
            self.job_changed.emit(self.job)
            self.refresh()

    def set_preview(self, px: int) -> None:
        if px != self.preview_px:
            self.preview_px = px
            self.refresh()

    @property
    def light(self) -> Light:
        return sun(self.azimuth, self.height)

    def turn_light(self, right: float, down: float) -> None:
        """Drag the light: sideways turns it, up and down raises or lowers it."""
        self.azimuth = (self.azimuth - 0.5 * right) % 360
        self.height = min(88.0, max(8.0, self.height - 0.3 * down))
        self.light_changed.emit()
        self.refresh()

    def set_light(
        self,
        *,
        azimuth: float | None = None,
        height: float | None = None,
        sun: float | None = None,
        sky: float | None = None,
        exposure: float | None = None,
    ) -> None:
        """Another light: where it stands, how strong sun and sky are, how it is exposed."""
        self.azimuth = self.azimuth if azimuth is None else azimuth
        self.height = self.height if height is None else height
        self.sun = self.sun if sun is None else sun
        self.sky = self.sky if sky is None else sky
        self.exposure = self.exposure if exposure is None else exposure
        self.light_changed.emit()
        self.refresh()

    # Pictures ------------------------------------------------------------------------------------

    def refresh(self) -> None:
        """Ask for the stage's picture, once for all changes of this turn of the event loop."""
        if not self._soon.isActive():
            self._soon.start(0)

    def _request(self) -> None:
        {
            "Gather": self._request_gather,
            "Repeat": self._request_sheet,
            "Build": self._request_build,
            "Place": self._request_scene,
            "Hand over": self._request_all,
        }[self.stage]()

    def in_background(self, channel: str, work: Callable[[Current], None]) -> None:
        def run(current: Current) -> None:
            try:
                work(current)
            except CancelledError:
                raise
            except Exception as error:
                # Foreseen or not, it is told; what was not foreseen is also logged.
                if not isinstance(error, TesselError):
                    log.exception("work in channel %s failed", channel)
                text = sentence(error)
                self.later(lambda: self.tell(text, "fault"))
            finally:
                self.later(lambda: self._count_busy(-1))

        self._count_busy(+1)
        self.worker.request(channel, run)

    def _count_busy(self, by: int) -> None:
        # Overtaken requests never run, so the sign follows the worker once it is idle.
        self._busy = 0 if by < 0 and self.worker.idle else max(0, self._busy + by)
        self.busy_changed.emit(self._busy > 0)

    def later(self, deliver: Callable[[], None]) -> None:
        """Run something in the window's thread."""
        self._arrived.emit(deliver)

    @pyqtSlot(object)
    def _deliver(self, deliver: Callable[[], None]) -> None:
        deliver()

    def _request_build(self) -> None:
        if self.recipe_open:
            self._request_recipe()
        else:
            self.surfaces.request()

    def _request_recipe(self) -> None:
        surface, layer = self.surface, self.layer
        recipe = recipe_of(layer, self.recipe_rule)
        if surface is None or layer is None or recipe is None:
            return
        job, light, session, chosen, px = self.job, self.light, self.session, self.recipe_step, self.preview_px

        def work(current: Current) -> None:
            for size in dict.fromkeys((COARSE_PX, px)):
                done = recipe_pictures.recipe_picture(
                    session, job, surface, layer, recipe, chosen=chosen, px=size, light=light, current=current
                )
                if not current():
                    return
                self.later(lambda done=done: self._deliver_timed(done, self.recipe_ready))  # type: ignore[misc]

        self.in_background("recipe", work)

    def _deliver_timed(self, done: SheetPicture | SceneTextures | ScatterPicture | RecipePicture, signal: Any) -> None:
        self.timed.emit(done.ms)
        signal.emit(done)

    def set_step(self, step: str) -> None:
        """Turn to a step of Repeat."""
        if step != self.repeat_step:
            self.repeat_step = step
            self.step_changed.emit(step)
            self.refresh()

    def end_stroke(self) -> None:
        """A stroke on the sheet is done: the meters are read again."""
        self.stroking = False
        self.end_gesture()
        self.refresh()

    def stop_work(self) -> None:
        """Overtake what takes long with nothing; what is shown stays."""
        for channel in ("sheet", "beat", "rig"):
            self.worker.cancel(channel)
        self.tell("Stopped.")

    def _request_sheet(self) -> None:
        source = self.source
        if source is None or not source.sized:
            self._deliver_sheet(None)
            return
        job, session, shown = self.job, self.session, self._sheet
        stroking = self.stroking and shown is not None and shown.source.id == source.id and not shown.rough
        slow = source.mend.op == "mend.regrow" and (
            shown is None or shown.source.mend != source.mend or shown.source.id != source.id
        )

        def work(current: Current) -> None:
            if stroking and shown is not None:
                quick = pictures.stroke_picture(session, job, source, shown, current=current)
                self.later(lambda: self._deliver_sheet(quick))
                return
            if slow:
                rough = pictures.rough_picture(session, job, source, current=current)
                self.later(lambda: self._deliver_sheet(rough))
            done = pictures.sheet_picture(session, job, source, current=current, progress=self.progress())
            self.later(lambda: self._deliver_sheet(done))

        self.in_background("sheet", work)
        if self.repeat_step == "choose" and source.scatter is None:
            self._request_choice(source)

    def progress(self) -> Callable[[str], None]:
        """Says what is going on once it has gone on for half a second."""
        begun = time.monotonic()

        def told(what: str) -> None:
            if time.monotonic() - begun > 0.5:
                self.later(lambda: self.tell(f"{what}{STOPS}"))

        return told

    def _deliver_sheet(self, done: SheetPicture | None) -> None:
        self._sheet = done
        if done is not None:
            self.timed.emit(done.ms)
        if self._told_progress and (done is None or not done.rough):
            self.tell("")
        self.sheet_ready.emit(done)

    def _request_choice(self, source: Source) -> None:
        job, session = self.job, self.session

        def work(current: Current) -> None:
            done = pictures.choice_picture(session, job, source, current=current)
            self.later(lambda: self.choice_ready.emit(done))

        self.in_background("choice", work)

    def ask(self, channel: str, work: Callable[[Current], Any], then: Callable[[Any], None]) -> None:
        """Do some work off the window's thread and hand its result on in the window's."""

        def run(current: Current) -> None:
            result = work(current)
            if current():
                self.later(lambda: then(result))

        self.in_background(channel, run)

    def ask_beat(self, source: Source) -> None:
        """Measure a source's beat; ``beat_found`` brings it."""
        job, session = self.job, self.session

        def work(current: Current) -> None:
            beat = find_beat(session, source, job=job, current=current)
            self.later(lambda: self.beat_found.emit(source.id, beat))

        self.in_background("beat", work)

    def _request_gather(self) -> None:
        source = self.source
        if source is None:
            self.gather_ready.emit(None)
            return
        job, session = self.job, self.session
        if source.scatter is not None:
            self._request_scatter(source)
            return
        with_photo, light = self._photo_shown != source.blob, self.light

        def work(current: Current) -> None:
            done: GatherPicture = pictures.gather_picture(
                session, job, source, with_photo=with_photo, light=light, current=current
            )
            self.later(lambda: self._deliver_gather(done))

        self.in_background("gather", work)

    def _request_scatter(self, source: Source) -> None:
        job, session, light, view = self.job, self.session, self.light, self.scatter_view
        sizes = dict.fromkeys((COARSE_PX, self.preview_px))

        def work(current: Current) -> None:
            for px in sizes:
                fine = px == self.preview_px
                done = pictures.scatter_picture(
                    session, job, source, px=px, view=view, light=light, fine=fine, current=current
                )
                if not current():
                    return
                self.later(lambda done=done: self._deliver_timed(done, self.scatter_ready))  # type: ignore[misc]

        self.in_background("scatter", work)

    def _deliver_gather(self, done: GatherPicture) -> None:
        if done.photo is not None:
            self._photo_shown = done.source.blob
        self.gather_ready.emit(done)

    def _request_all(self) -> None:
        """Maps, checks and the placed model, for handing over."""
        surface = self.surface
        if surface is None:
            self.surface_ready.emit(None)
            return
        job, light, session, px = self.job, self.light, self.session, self.preview_px

        def work(current: Current) -> None:
            done = pictures.hand_over_picture(session, job, surface, px=px, light=light, current=current)
            self.later(lambda: self.surfaces.deliver(done))

        self.in_background("surface", work)
        self._request_scene()

    def gather(self, paths: list[Path]) -> None:
        """Read files and folders off the window's thread and add what they hold."""
        gather_files(self, paths)

    def _request_scene(self) -> None:
        job, session, px, stage = self.job, self.session, self.preview_px, self.stage

        def work(current: Current) -> None:
            for size in dict.fromkeys((COARSE_PX, px if stage == "Place" else 2 * COARSE_PX)):
                done: SceneTextures = pictures.scene_textures(session, job, px=size, current=current)
                if not current():
                    return
                self.later(lambda done=done: self._deliver_timed(done, self.scene_ready))  # type: ignore[misc]

        self.in_background("scene", work)

    def adopt_later(self, make: Callable[[], OpenedJob], then: Callable[[], None]) -> None:
        """Make a job off the window's thread and take it over when it is ready."""

        def take(opened: OpenedJob) -> None:
            self.session.adopt(opened, None)
            then()

        self.ask("adopt", lambda _current: make(), take)

    def close(self) -> None:
        self._soon.stop()
        self.followed.stop()
        self.worker.stop()
