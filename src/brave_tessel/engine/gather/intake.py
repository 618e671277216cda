"""Bytes from outside as sources of a job. Used off the window's thread; changes nothing of the job itself."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

import msgspec

from ...core.job.document import Picture, Source, Straightening
from ...core.job.nodes import Setting, new_id
from ...formats.drawings import outline_of
from ...formats.exif import focal_px
from ...formats.images import decode_picture, read_file, read_header
from ...formats.skies import decode_sky
from ..cache import Cache
from ..kept import KeptFiles


@dataclass(frozen=True, slots=True)
class Intake:
    """Keeps what it reads with one job; a job that is opened meanwhile has an intake of its own."""

    kept: KeptFiles
    cache: Cache

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
        name = self.kept.keep(data)
        self.cache.put(b"pixels" + name.encode(), pixels)
        focal = focal_px(data, (width, height) if header.format == "RAW" else None)
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
            straightening=Straightening(corners=corners, focal_px=round(focal, 2)),
            light=Setting(op="gather.even_light", values={"as_needed": True, "contrast": 1.0}),
            height=Setting(op="estimate.height", values={"as_told": True}),
        )

    def keep_file(self, path: Path) -> str:
        """Keep a picture file's bytes once its header has been read; returns their name."""
        data = read_file(path)
        read_header(data, path.name)
        return self.kept.keep(data)

    def keep_drawing(self, path: Path) -> str:
        """Keep a drawing's bytes once they have been read; returns their name.

        Raises
        ------
        UnreadableFileError
            when nothing can be made of it.
        """
        data = read_file(path)
        outline_of(data, path.name)
        return self.kept.keep(data)

    def keep_sky(self, path: Path) -> str:
        """Keep the bytes of a picture of the whole sky once they have been read; returns their name.

        Raises
        ------
        UnreadableFileError
            when it cannot be read, or is not twice as wide as high.
        """
        data = read_file(path)
        decode_sky(data, path.name)
        return self.kept.keep(data)


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
