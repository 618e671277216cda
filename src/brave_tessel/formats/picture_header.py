"""What a picture file says of itself before anything is decoded."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class PictureHeader:
    """Upright width and height in pixels, bits a channel (32 is float), and the format's name. ``alpha`` is
    ``straight``, ``premultiplied`` or empty; ``channels`` how many the file holds, all of which are read.
    """

    width_px: int
    height_px: int
    depth: int
    format: str
    alpha: str = ""
    channels: int = 4
