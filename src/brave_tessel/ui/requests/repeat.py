"""What Repeat asks for: the closed sheet with its meters, the sheet to choose from, the beat of a pattern."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import TypeVar

from PyQt6.QtCore import pyqtSignal

from ...core.job.document import Source
from ...engine.gather.analyses import find_beat, find_overlap
from ...engine.pictures.repeat import choice_picture, estimated_seams, rough_picture, sheet_picture, stroke_picture
from ...engine.pictures.results import SheetPicture
from ...engine.pictures.verdicts import judged
from ...engine.workers import Current
from ..workroom import Pace, Send
from .base import Requests

T = TypeVar("T")


class RepeatRequests(Requests):
    """``stroking`` while a stroke is drawn: its picture comes without the meters, which are read when it ends."""

    ready = pyqtSignal(object)
    choice_ready = pyqtSignal(object)
    beat_found = pyqtSignal(str, object)
    overlap_found = pyqtSignal(str, object)
    failed = pyqtSignal()
    channels = ("sheet", "choice")

    def __init__(self, *parts: object) -> None:
        super().__init__(*parts)  # type: ignore[arg-type]
        self.stroking = False
        self.shown: SheetPicture | None = None

    def request(self) -> None:
        source = self.selection.source
        if source is None or not source.sized:
            self._deliver(None)
            return
        shown = self.shown
        if self.stroking and shown is not None and shown.source.id == source.id and not shown.rough:
            self._request_stroke(source, shown)
        else:
            self._request_sheet(source)
        if self.view.repeat_step == "choose" and source.scatter is None:
            snapshot = self.session.snapshot()
            self.work.ask(
                "choice", lambda current: choice_picture(snapshot, source, current=current), self.choice_ready.emit
            )

    def _request_stroke(self, source: Source, shown: SheetPicture) -> None:
        snapshot = self.session.snapshot()

        def work(current: Current, send: Send) -> None:
            send(stroke_picture(snapshot, source, shown, current=current), anyway=True)

        self.work.stream("sheet", work, self._deliver)

    def _request_sheet(self, source: Source) -> None:
        snapshot, shown, progress = self.session.snapshot(), self.shown, self.work.progress()
        other = shown is None or shown.source.mend != source.mend or shown.source.id != source.id
        slow = source.mend.op == "mend.regrow" and other

        def work(current: Current, send: Send) -> None:
            if slow:
                send(rough_picture(snapshot, source, current=current))
            send(sheet_picture(snapshot, source, current=current, progress=progress))

        # What one pace began the other must not leave going on.
        self.work.cancel("sheet", "verdicts")
        pace = Pace.LONG if slow else Pace.QUICK
        self.work.stream("sheet", work, self._deliver, pace=pace, failed=lambda _error: self.failed.emit())

    def _deliver(self, done: SheetPicture | None) -> None:
        self.shown = done
        if done is not None:
            self.timed.emit(done.ms)
        self.ready.emit(done)
        if done is not None and not (done.verdicts or done.rough or done.source.scatter or self.stroking):
            self._ask_verdicts(done)

    def _ask_verdicts(self, done: SheetPicture) -> None:
        """Judge the joins of a sheet that is shown, beside what a hand goes on doing."""
        snapshot = self.session.snapshot()

        def work(current: Current) -> SheetPicture:
            joins, maps = judged(snapshot, done.source, current=current)
            estimated = estimated_seams(snapshot, done.source, current=current)
            return replace(done, verdicts=joins, of_maps=maps, per_map=(*done.per_map, *estimated))

        def deliver(seen: SheetPicture) -> None:
            if self.shown is done:
                self.shown = seen
                self.ready.emit(seen)

        self.work.ask("verdicts", work, deliver, pace=Pace.LONG)

    def ask_beat(self, source: Source) -> None:
        """Measure a source's beat; ``beat_found`` brings it."""
        self._ask_of(source, find_beat, self.beat_found.emit)

    def ask_overlap(self, source: Source) -> None:
        """Search for overlaps under which a pattern meets itself in step; ``overlap_found`` brings them."""
        self._ask_of(source, find_overlap, self.overlap_found.emit)

    def _ask_of(self, source: Source, find: Callable[..., T], found: Callable[[str, T], None]) -> None:
        """One question at a time about a source's beat."""
        snapshot = self.session.snapshot()

        def work(current: Current) -> T:
            return find(snapshot, source, current=current)

        self.work.ask("beat", work, lambda answer: found(source.id, answer), pace=Pace.LONG)
