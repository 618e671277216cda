"""What the window's parts share. It holds nothing itself: the job is the session's, what is chosen the selection's,
how it is shown the view's, and each stage's requests ask the workroom for its pictures.

Widgets show what these hold and send intents; they compute nothing.
"""

from __future__ import annotations

import time
from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from ..core.errors import TesselError
from ..core.job.commands import AnyCommand
from ..core.job.document import Job
from ..core.job.light import WALL
from ..core.light.dome import LUMA, eye_of
from ..core.light.tone import unshow
from ..engine.gather.scanned import Remark
from ..engine.intents import light as light_intents
from ..engine.session import Session
from ..engine.wording import sentence
from ..view3d.drawn import SceneLight, scene_light
from .dropper import Dropper
from .file_work import FileWork
from .followers import LinkFollower
from .requests.base import Requests
from .requests.build import BuildRequests
from .requests.gather import GatherRequests
from .requests.hand_over import HandOverRequests
from .requests.place import PlaceRequests
from .requests.repeat import RepeatRequests
from .selection import Selection
from .view_state import STAGES, BrushState, ViewState
from .words import tr
from .workroom import STOPS, Workroom

FRAME_IT = "Drag the frame's corners onto something rectangular, then type its size."


_READ_S = 2.0
"""How long an answer stands in the status line before progress may take its place."""


class Desk(QObject):
    """Brings the parts together: the job's moves to selection and pictures, intents to the store."""

    message = pyqtSignal(str, str)
    timed = pyqtSignal(float)
    job_moved = pyqtSignal(object)
    """The job, whatever of it has changed. Stages watch what they show instead; see :meth:`watch`."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.selection = Selection(session.store)
        self.view = ViewState()
        self.brush = BrushState()
        self.work = Workroom(session)
        shared = (session, self.selection, self.view, self.work)
        self.gather = GatherRequests(*shared)
        self.repeat = RepeatRequests(*shared)
        self.build = BuildRequests(*shared)
        self.place = PlaceRequests(*shared)
        self.hand_over = HandOverRequests(self.place)
        self.requests: dict[str, Requests] = dict(
            zip(STAGES, (self.gather, self.repeat, self.build, self.place, self.hand_over), strict=True)
        )
        self.files = FileWork(session, self.work, self.tell)
        self.followed = LinkFollower(session, self.work, self.dispatch, self.tell)
        self._told_progress = False
        self._stands_until = 0.0
        self._asked = ""
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.timeout.connect(self._request)
        # A drag of the light is one step, until the hand rests.
        self._turned = QTimer(self)
        self._turned.setSingleShot(True)
        self._turned.setInterval(700)
        self._turned.timeout.connect(self.end_gesture)
        self._connect()
        if session.journal is not None:
            session.journal.trouble = lambda text: self.work.later(lambda: self._journal_trouble(text))
        self._era = session.era
        session.store.subscribe(lambda job: job, self._job_moved)

    def _connect(self) -> None:
        for requests in self.requests.values():
            requests.timed.connect(self.timed)
        self.view.changed.connect(self.refresh)
        self.view.stage_changed.connect(self._stage_changed)
        self.selection.changed.connect(self.refresh)
        self.work.told.connect(self.tell)
        self.work.busy_changed.connect(self._work_changed)
        self.build.stroke_ended.connect(self.end_stroke)
        self.gather.files_read.connect(self._files_read)

    # The job -------------------------------------------------------------------------------------

    @property
    def job(self) -> Job:
        return self.session.job

    def dispatch(self, command: AnyCommand) -> bool:
        """Carry out an intent; what it refuses is told, and the job stays as it was."""
        try:
            self.session.store.dispatch(command)
        except TesselError as error:
            self.tell(tr(sentence(error)), "fault")
            return False
        return True

    def end_gesture(self) -> None:
        """The drag is released: what follows is a step of its own."""
        self.session.store.end_gesture()

    def end_stroke(self) -> None:
        """A stroke is done: what looks at the whole sheet is worked out again."""
        self.repeat.stroking = False
        self.end_gesture()
        self.refresh()

    def _job_moved(self, job: Job) -> None:
        if self.session.era != self._era:
            self._era = self.session.era
            self.work.leave_job()
        self.selection.follow(job)
        self.job_moved.emit(job)
        self.refresh()

    # Light ---------------------------------------------------------------------------------------

    def turn_light(self, right: float, down: float) -> None:
        """The light is dragged, pixels; in every stage the same light."""
        surface = self.selection.surface
        stance = surface.stance if surface is not None and self.view.stage == "Build" else WALL
        self.dispatch(light_intents.turn_sun(self.job.rig, right, down, stance))
        self._turned.start()

    def scene_light(self) -> Callable[[bool], SceneLight]:
        """The job's light as it is now, for a scene; made by whoever calls it, at once where it is only moving."""
        rig, pictures = self.job.rig, self.session.snapshot().sky_picture
        return lambda moving: scene_light(rig, pictures, quick=moving)

    def expose_for_point(self) -> None:
        """The next click says what shall show as 18 % grey."""
        self.tell(tr("Click what shall show as 18 % grey · Esc leaves it"))

        def took(colour: str) -> None:
            codes = np.array([int(colour[k : k + 2], 16) / 255 for k in (1, 3, 5)])
            shown = float(unshow(codes, eye_of(self.job.rig).transform) @ LUMA)
            self.dispatch(light_intents.expose_for(self.job.rig, shown))

        Dropper(self, took, lambda: self.tell(""))

    # Pictures ------------------------------------------------------------------------------------

    def go(self, stage: str) -> None:
        """Turn to a stage."""
        self.view.go(stage)

    def _stage_changed(self, stage: str) -> None:
        if self._asked and self._asked != stage:
            self.requests[self._asked].leave()
        self.refresh()

    def refresh(self) -> None:
        """Ask for the stage's picture, once for all changes of this turn of the event loop."""
        if not self._soon.isActive():
            self._soon.start(0)

    @property
    def about_to_ask(self) -> bool:
        """Whether a picture is about to be asked for."""
        return self._soon.isActive() or self.place.holding

    def _request(self) -> None:
        self._asked = self.view.stage
        self.requests[self._asked].request()

    # Telling -------------------------------------------------------------------------------------

    def tell(self, text: str, meant: str = "note") -> None:
        """One sentence for the status line."""
        if meant == "progress" and time.monotonic() < self._stands_until:
            # An answer just given is read before what goes on takes its place.
            return
        self._stands_until = time.monotonic() + _READ_S if text and not text.endswith(STOPS) else 0.0
        # Another sentence takes the place of what goes on, and is not wiped when that ends.
        self._told_progress = text.endswith(STOPS)
        self.message.emit(text, meant)

    def _journal_trouble(self, text: str) -> None:
        """Told once, and once more when it works again."""
        if text:
            self.tell(
                tr("Unsaved work cannot be kept safe: {value}. Save the job, or free some space.", value=text), "fault"
            )
        else:
            self.tell(tr("Unsaved work is kept safe again."))

    def _work_changed(self, busy: bool) -> None:
        if not busy and self._told_progress:
            self.tell("")

    # Files ---------------------------------------------------------------------------------------

    def _files_read(self, made: list[object], troubles: list[str]) -> None:
        for command, source in self.files.added(made):
            if self.dispatch(command):
                self.selection.choose(source=source.id)
                maps = tr(" with {count} maps", count=len(source.pictures) + 1) if source.pictures else ""
                told = tr("{name} added{maps}.", name=source.name, maps=maps)
                self.tell(told if source.sized else f"{told} {tr(FRAME_IT)}")
        if not made:
            self.tell("")
        faults = [one for one in troubles if not isinstance(one, Remark)]
        if troubles:
            said = (faults or troubles)[-1]
            self.tell(said, "fault" if faults else "note" if isinstance(said, Remark) and said.sure else "caution")

    def close(self, last: Callable[[], None] | None = None) -> None:
        """End every thread."""
        self._soon.stop()
        self.followed.stop()
        self.work.close()
        if last is not None:
            last()
