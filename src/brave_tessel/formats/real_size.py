"""The real size a picture file says it has, where that is plausible."""

from __future__ import annotations

import io
import json
import struct

from PIL import Image, UnidentifiedImageError

_USUAL_DPI = (72, 75, 96, 100, 120, 150, 180, 200, 240, 300, 350, 360, 400, 600, 720, 1200)
"""Densities that programs write without meaning them (common practice)."""


def real_size(data: bytes) -> tuple[float, float] | None:
    """Width and height in mm, or None where nothing is said or it is a screen's or printer's density.

    PNG ``sCAL``, our text, or ``pHYs``; TIFF resolution. Sources: W3C PNG, PNG extensions register, TIFF 6.0.
    """
    size = _told_size(data)
    # A picture is between a tenth of a millimetre and a kilometre wide, or the file says nothing of use.
    return size if size is not None and all(0.1 <= side <= 1e6 for side in size) else None


def _told_size(data: bytes) -> tuple[float, float] | None:
    if data[:8] == b"\x89PNG\r\n\x1a\n":
        return _png_size(data) if len(data) > 24 else None
    try:
        with Image.open(io.BytesIO(data), formats=("TIFF",)) as picture:
            tags = picture.tag_v2  # type: ignore[attr-defined]
            across, up, unit = tags.get(282), tags.get(283), tags.get(296, 2)
            if not across or not up or unit not in {2, 3}:
                return None
            mm = 25.4 if unit == 2 else 10.0
            if _usual(float(across) * 25.4 / mm):
                return None
            return picture.width / float(across) * mm, picture.height / float(up) * mm
    except (
        UnidentifiedImageError,
        OSError,
        ValueError,
        SyntaxError,
        TypeError,
        KeyError,
        ZeroDivisionError,
        struct.error,
    ):
        return None


def _usual(dpi: float) -> bool:
    return any(abs(dpi - usual) < 0.011 * usual for usual in _USUAL_DPI)


_SIZE_TEXTS = (b"Repeat\0", b"RealWorldSize\0")
"""Keywords of the text that says a picture's size: ours, and what earlier versions wrote."""


def _png_size(data: bytes) -> tuple[float, float] | None:
    chunks = _chunks(data)
    width, height = struct.unpack(">II", data[16:24])
    try:
        if b"sCAL" in chunks and chunks[b"sCAL"][:1] == b"\x01":
            across, up = (float(text) for text in chunks[b"sCAL"][1:].split(b"\0")[:2])
            return across * width * 1000, up * height * 1000
        if b"iTXt" in chunks and chunks[b"iTXt"].startswith(_SIZE_TEXTS):
            told = json.loads(chunks[b"iTXt"].split(b"\0", 5)[5])
            return float(told["width_m"]) * 1000, float(told["height_m"]) * 1000
        if b"pHYs" in chunks:
            across_ppu, up_ppu, unit = struct.unpack(">IIB", chunks[b"pHYs"])
            if unit == 1 and across_ppu and up_ppu and not _usual(across_ppu * 0.0254):
                return width / across_ppu * 1000, height / up_ppu * 1000
    except (ValueError, KeyError, IndexError, struct.error):
        return None
    return None


def _chunks(data: bytes) -> dict[bytes, bytes]:
    """PNG chunks before the pixels, by kind."""
    found: dict[bytes, bytes] = {}
    at = 8
    while at + 8 <= len(data):
        (size,) = struct.unpack(">I", data[at : at + 4])
        kind = data[at + 4 : at + 8]
        if kind == b"IDAT":
            break
        found[kind] = data[at + 8 : at + 8 + size]
        at += 12 + size
    return found
