"""One open job with its stored files, its cache and its journal. Knows nothing of windows."""

from __future__ import annotations

import os
import time
from collections.abc import Callable
from pathlib import Path

import msgspec

from ..core.job.commands import AnyCommand, Insert
from ..core.job.document import Job, Picture, Source, Straightening, Surface, new_id
from ..core.maps import MapSet
from ..core.outlines import Outline
from ..core.plan.planner import Light, Planner
from ..core.sheet import AnyArray, Grid, Raster
from ..formats.drawings import outline_of
from ..formats.exif import focal_px
from ..formats.images import decode_codes, decode_picture, read_file, read_header
from ..formats.job_file import OpenedJob, blob_name, load_job, save_job
from ..formats.lettering import letters
from ..formats.models import model_relief
from .cache import Cache
from .evaluate import Evaluation, always
from .journal import Journal
from .store import Store


def state_folder() -> Path:
    """Where journals lie: ``$XDG_STATE_HOME/brave-tessel``."""
    base = os.environ.get("XDG_STATE_HOME") or str(Path.home() / ".local" / "state")
    return Path(base) / "brave-tessel"


class Session:
    """The open job and everything that computes on it."""

    def __init__(self, opened: OpenedJob | None = None, *, cache: Cache | None = None, journal: bool = False) -> None:
        opened = opened or OpenedJob(Job())
        self.store = Store(opened.job)
        self.blobs: dict[str, bytes] = dict(opened.blobs)
        self.cache = cache or Cache()
        self.path: Path | None = None
        self.saved_at: float | None = None
        self.journal = Journal(state_folder()) if journal else None
        if self.journal:
            self.store.subscribe(lambda job: job, self._note)
            self.journal.begin(opened.job, "", self.blobs)

    @property
    def job(self) -> Job:
        return self.store.job

    def _note(self, job: Job) -> None:
        if self.journal:
            self.journal.note(job)

    # Files ---------------------------------------------------------------------------------------

    def open(self, path: Path) -> None:
        """Open a job file in place of the current job."""
        opened = load_job(path)
        self.adopt(opened, path)

    def adopt(self, opened: OpenedJob, path: Path | None, *, saved: bool = True) -> None:
        """Take over a job that is already read."""
        self.blobs = dict(opened.blobs)
        self.path = path
        self.saved_at = time.time() if saved and path else None
        if self.journal:
            self.journal.begin(opened.job, str(path or ""), self.blobs)
        self.store.replace(opened.job, saved=saved)

    def save(self, path: Path, thumbnail: bytes = b"") -> None:
        """Write the job file; on failure nothing is lost and the job stays unsaved."""
        job = self.job
        save_job(path, job, self.blobs, thumbnail)
        self.path = path
        self.saved_at = time.time()
        self.store.mark_saved(job)
        if self.journal:
            self.journal.begin(job, str(path), self.blobs)

    def read_source(self, path: Path) -> Source:
        """A picture file as a new source: its bytes are kept, its frame is the whole picture."""
        source = self.make_source(read_file(path), path.name)
        return msgspec.structs.replace(source, path=str(path.absolute()))

    def make_source(self, data: bytes, file_name: str) -> Source:
        """A picture's bytes as a new source.

        Raises
        ------
        UnreadableFileError, TooLargeError
            when it is no picture or beyond the limits; nothing is kept then.
        """
        header = read_header(data, file_name)
        pixels = decode_picture(data, file_name)
        height, width = pixels.shape[:2]
        name = blob_name(data)
        self.blobs[name] = data
        self.cache.put(b"pixels" + name.encode(), pixels)
        corners = ((0.0, 0.0), (float(width), 0.0), (float(width), float(height)), (0.0, float(height)))
        title = Path(file_name).stem.replace("_", " ").replace("-", " ").strip().capitalize() or "Picture"
        return Source(
            id=new_id("source"),
            name=title,
            blob=name,
            file_name=file_name,
            width_px=width,
            height_px=height,
            depth=header.depth,
            alpha=header.alpha,
            straightening=Straightening(corners=corners, focal_px=round(focal_px(data), 2)),
        )

    def keep_bytes(self, data: bytes) -> str:
        """Keep bytes with the job; returns their name."""
        name = blob_name(data)
        self.blobs[name] = data
        return name

    def keep_file(self, path: Path) -> str:
        """Keep a file's bytes with the job; returns their name."""
        data = read_file(path)
        read_header(data, path.name)
        return self.keep_bytes(data)

    @staticmethod
    def dressed(
        source: Source, name: str, pictures: tuple[Picture, ...], role: str, size_mm: tuple[float, float] | None
    ) -> Source:
        """A source with a name, further maps and, if a file told it, its real size."""
        frame = source.straightening
        if size_mm is not None:
            width, height = (round(side, 3) for side in size_mm)
            frame = msgspec.structs.replace(frame, width_mm=width, height_mm=height, size_note="from the file")
        kind = "map set" if pictures else "photo"
        return msgspec.structs.replace(source, name=name, kind=kind, pictures=pictures, role=role, straightening=frame)

    def add_source(self, source: Source) -> AnyCommand:
        """The command that adds a source to the job."""
        if self.journal:
            self.journal.keep_blobs(Job(sources=(source,)), self.blobs)
        return Insert(path=("sources",), item=source, label=f"Add {source.name}")

    # Evaluation ----------------------------------------------------------------------------------

    def load_pixels(self, blob: str) -> Raster:
        """Linear pixels of a stored file, (H, W, 3)."""
        return self._decoded(b"pixels", blob, decode_picture)

    def load_codes(self, blob: str) -> Raster:
        """Codes of a stored file as a data map, (H, W, 4) in [0, 1]."""
        return self._decoded(b"codes", blob, decode_codes)

    def add_drawing(self, path: Path) -> str:
        """Keep a drawing's bytes with the job once they have been read; returns their name.

        Raises
        ------
        UnreadableFileError
            when nothing can be made of it.
        """
        data = read_file(path)
        outline_of(data, path.name)
        name = self.keep_bytes(data)
        if self.journal:
            self.journal.keep_blob(name, data)
        return name

    def load_outline(self, font: str, text: str) -> Outline:
        """The outline of a text in a font, its em 1; without a font ``text`` names a stored drawing."""
        return letters(font, text) if font else outline_of(self.blobs.get(text, b""), "drawing")

    def load_model(self, blob: str) -> Raster:
        """A stored model's relief seen from above, (H, W, 2): height in pixels and cover."""
        return self._decoded(b"model", blob, model_relief)

    def _decoded(self, kind: bytes, blob: str, decode: Callable[[bytes, str], Raster]) -> Raster:
        key = kind + blob.encode()
        pixels = self.cache.get(key)
        if pixels is None:
            pixels = decode(self.blobs.get(blob, b""), "source")
            pixels.flags.writeable = False
            self.cache.put(key, pixels)
        return pixels  # type: ignore[no-any-return]

    def planner(self, job: Job | None = None) -> Planner:
        return Planner(job or self.job, self.load_pixels, self.load_codes, self.load_model, self.load_outline)

    def evaluation(
        self, current: Callable[[], bool] = always, progress: Callable[[str], None] | None = None
    ) -> Evaluation:
        return Evaluation(self.cache, current, progress)

    def finished(self, surface: Surface, px: int, *, evaluation: Evaluation | None = None) -> MapSet:
        """Every map of a surface with ``px`` pixels on its longer side."""
        grid = Grid.for_repeat(surface.width_mm, surface.height_mm, px)
        run = evaluation or self.evaluation()
        return run.value(self.planner().finished(surface, grid))  # type: ignore[no-any-return]

    def with_curvature(self, surface: Surface, maps: MapSet, *, evaluation: Evaluation | None = None) -> MapSet:
        """A finished set with its curvature map beside it."""
        run = evaluation or self.evaluation()
        return maps.with_maps(curvature=run.value(self.planner().curvature(surface, maps.grid)))

    def lit(self, surface: Surface, px: int, light: Light) -> AnyArray:
        """The lit cell, (H, W, 3) uint8."""
        grid = Grid.for_repeat(surface.width_mm, surface.height_mm, px)
        return self.evaluation().value(self.planner().lit(surface, grid, light))  # type: ignore[no-any-return]

    def close(self) -> None:
        if self.journal:
            self.journal.close()
