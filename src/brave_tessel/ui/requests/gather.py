"""What Gather asks for: a photo with its straight sheet, a scatter sheet, small pictures, files read in."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import pyqtSignal

from ...core.colour import display_codes
from ...core.job.document import Source
from ...engine.gather.reading import read_sources, take_set
from ...engine.gather.trees import Proposed, Tree, walk
from ...engine.pictures.gather import gather_picture, scatter_picture, small_photo
from ...engine.pictures.results import GatherPicture, ScatterPicture
from ...engine.workers import Current
from ..words import tr
from ..workroom import Pace, Send
from .base import COARSE_PX, Requests

MANY = 6
"""Sets of one drop from which on they are shown in a list first."""


class GatherRequests(Requests):
    """``files_read`` brings the sources made of dropped files, and a sentence for each that could not be read;
    ``sets_found`` a tree of so many sets that one chooses from a list.
    """

    ready = pyqtSignal(object)
    scatter_ready = pyqtSignal(object)
    thumb_ready = pyqtSignal(object, object)
    palette_found = pyqtSignal(object)
    files_read = pyqtSignal(object, object)
    sets_found = pyqtSignal(object)
    channels = ("gather", "scatter")

    def __init__(self, *parts: object) -> None:
        super().__init__(*parts)  # type: ignore[arg-type]
        self._photo_shown = ""
        self._thumbs: set[str] = set()
        self._reads = 0

    def request(self) -> None:
        source = self.selection.source
        if source is None:
            self.ready.emit(None)
        elif source.scatter is not None:
            self._request_scatter(source)
        else:
            self._request_photo(source)

    def _request_photo(self, source: Source) -> None:
        snapshot, lighting = self.session.snapshot(), self.lighting()
        with_photo = self._photo_shown != source.blob

        def work(current: Current) -> GatherPicture:
            return gather_picture(snapshot, source, with_photo=with_photo, lighting=lighting, current=current)

        self.work.ask("gather", work, self._deliver)

    def _deliver(self, done: GatherPicture) -> None:
        if done.photo is not None:
            self._photo_shown = done.source.blob
        self.ready.emit(done)

    def _request_scatter(self, source: Source) -> None:
        snapshot, lighting, view, px = (
            self.session.snapshot(),
            self.lighting(),
            self.view.scatter_view,
            self.view.preview_px,
        )
        sizes = self.sizes(px)

        def work(current: Current, send: Send) -> None:
            for size in sizes:
                send(
                    scatter_picture(
                        snapshot, source, px=size, view=view, lighting=lighting, fine=size == px, current=current
                    )
                )

        self.work.stream("scatter", work, self._deliver_scatter)

    def _deliver_scatter(self, done: ScatterPicture) -> None:
        self.timed.emit(done.ms)
        self.scatter_ready.emit(done)

    # Small pictures ------------------------------------------------------------------------------

    def ask_thumb(self, source: Source) -> None:
        """A source's small picture, once; ``thumb_ready`` brings it."""
        key = source.id if source.scatter is not None else source.blob
        if key in self._thumbs or self.session.is_lost(source.blob):
            # What is missing has been told already.
            return
        self._thumbs.add(key)
        snapshot, lighting = self.session.snapshot(), self.lighting()

        def work(current: Current) -> object:
            if source.scatter is None:
                return display_codes(small_photo(snapshot, source))
            done = scatter_picture(
                snapshot, source, px=COARSE_PX, view=None, lighting=lighting, fine=False, current=current
            )
            return done.mips[0]

        self.work.ask(f"thumb {key}", work, lambda codes: self.thumb_ready.emit(source, codes), behind=True)

    # Files ---------------------------------------------------------------------------------------

    def read(self, paths: list[Path]) -> None:
        """Read files and folders off the window's thread; a further drop goes on beside the first."""
        intake, progress = self.session.intake(), self.work.progress()
        self._reads += 1

        def work(current: Current) -> Tree | tuple[list[Source], list[str]]:
            tree = walk(paths, current=current, tell=lambda count: progress(tr("{count} files found", count=count)))
            if len(tree.proposed) > MANY:
                return tree
            return read_sources(intake, paths, current=current)

        def deliver(found: Tree | tuple[list[Source], list[str]]) -> None:
            if isinstance(found, Tree):
                self.sets_found.emit(found)
            else:
                self.files_read.emit(*found)

        self.work.ask(f"read {self._reads}", work, deliver, pace=Pace.LONG)

    def take(self, chosen: list[Proposed]) -> None:
        """Read sets of a list; each comes when it is there, and Esc stops the rest."""
        intake, progress = self.session.intake(), self.work.progress()
        self._reads += 1

        def work(current: Current, send: Send) -> None:
            for number, proposed in enumerate(chosen):
                if not current():
                    return
                progress(tr("{number} of {count}: {name}", number=number + 1, count=len(chosen), name=proposed.name))
                source, troubles = take_set(intake, proposed)
                send(([source] if source else [], troubles))

        self.work.stream(f"read {self._reads}", work, lambda read: self.files_read.emit(*read), pace=Pace.LONG)
