"""Pictures in formats that come now and then: netpbm, GIF, AVIF, JPEG 2000, DDS, and the flat picture of a PSD.

Decoded by a kept library, and never in the program's own process; see :mod:`.limited`.
"""

from __future__ import annotations

import io

import numpy as np
from PIL import Image, ImageOps

from ..core.sheet import AnyArray

FORMATS = ("PPM", "GIF", "AVIF", "JPEG2000", "DDS", "PSD")
SUFFIXES = (".ppm", ".pgm", ".pnm", ".gif", ".avif", ".jp2", ".j2k", ".dds", ".psd")


def is_other(data: bytes) -> bool:
    """Whether the bytes begin as one of these formats does."""
    return (
        data[:4] in {b"DDS ", b"8BPS", b"GIF8", b"\xff\x4f\xff\x51"}
        or (data[:1] == b"P" and data[1:2] in b"123456" and data[2:3].isspace())
        or data[4:12] in {b"ftypavif", b"ftypavis"}
        or data[:12] == b"\x00\x00\x00\x0cjP  \r\n\x87\n"
    )


def other_codes(data: bytes) -> AnyArray:
    """Codes of the first frame, upright: (H, W) uint16 of deep greys, else (H, W, 4) uint8."""
    with Image.open(io.BytesIO(data), formats=FORMATS) as picture:
        picture.load()
        upright = ImageOps.exif_transpose(picture)
        if upright.mode.startswith("I"):
            return np.asarray(np.clip(np.asarray(upright), 0, 65_535), np.uint16)
        return np.asarray(upright.convert("RGBA"), np.uint8)
