"""Stills as files: PNG in 8 or 16 bits, EXR with its layers; a caption and a scale bar where they are wanted."""

from __future__ import annotations

import io
import os
import tempfile
from dataclasses import dataclass
from pathlib import Path

import numpy as np
import OpenEXR
from PIL import Image, ImageDraw, ImageFont

from ...core.errors import CannotWriteError
from ...core.light.tone import show
from ...core.quantity import format_number
from ...core.sheet import AnyArray
from ...formats.disk import write_atomically
from ...formats.images import encode_png
from .run import Still

SUFFIXES = (".png", ".exr")
_CHEQUER, _CHEQUERED = 12, (96, 132)
_ROUND = (1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000)
_FONT = Path(__file__).parents[2] / "ui" / "assets" / "fonts" / "ibm-plex-sans-latin-400-normal.woff"


Label = tuple[float, float, float, str]
"""Words under something, a line each: where their upper left corner lies, and how wide they may be, as shares of the
picture from its upper left.
"""


@dataclass(frozen=True, slots=True)
class Finish:
    """How a still is written: bits a channel of PNG, its exposure and view transform, whether what is open stays
    transparent, what is written below it, how many pixels a millimetre has in its middle (0 without a scale bar),
    what is written under single things, and the codes of an even ground in place of the sky.
    """

    transform: str
    exposure: float = 1.0
    depth: int = 8
    open_ground: bool = False
    caption: str = ""
    px_per_mm: float = 0.0
    labels: tuple[Label, ...] = ()
    ground: tuple[float, float, float] | None = None


def write_still(path: Path, still: Still, finish: Finish) -> None:
    """Write a still by the file's suffix.

    Raises
    ------
    CannotWriteError
        when the suffix is another, or the folder cannot be written.
    """
    suffix = path.suffix.lower()
    if suffix == ".exr":
        write_atomically(path, _exr(still, finish))
    elif suffix == ".png":
        write_atomically(path, png_of(still.smooth(), still.cover, finish))
    else:
        raise CannotWriteError(
            path.name, value="a still is PNG or EXR", remedy="Give it a name that ends in .png or .exr."
        )


def png_of(light: AnyArray, cover: AnyArray, finish: Finish) -> bytes:
    """Exposed linear light (H, W, 3) and what of it is there (H, W) as PNG."""
    if finish.open_ground or finish.ground is not None:
        # Colours of edges are those of what is there, not mixed with the black behind.
        light = light / np.maximum(cover, 1e-3)[..., None]
    codes = show(light * finish.exposure, finish.transform)
    if finish.ground is not None and not finish.open_ground:
        there = np.clip(cover, 0, 1)[..., None]
        codes = np.asarray(codes * there + (1 - there) * np.array(finish.ground, np.float32))
    there = np.clip(cover, 0, 1)
    if finish.caption or finish.labels or finish.px_per_mm > 0:
        codes, written = _captioned(codes, finish)
        there = np.maximum(there, written)
    if finish.open_ground:
        codes = np.concatenate([codes, there[..., None]], -1)
    top, kind = (65_535, np.uint16) if finish.depth == 16 else (255, np.uint8)
    return encode_png(np.asarray(np.rint(codes * top), kind), srgb=True)


def _exr(still: Still, finish: Finish) -> bytes:
    light = still.smooth() * finish.exposure
    channels = {name: np.ascontiguousarray(light[..., k], np.float32) for k, name in enumerate("RGB")}
    channels["A"] = np.ascontiguousarray(np.clip(still.cover, 0, 1), np.float32)
    for layer, pixels in (("noisy", still.light * finish.exposure), ("albedo", still.albedo), ("normal", still.normal)):
        for k, name in enumerate("XYZ" if layer == "normal" else "RGB"):
            channels[f"{layer}.{name}"] = np.ascontiguousarray(pixels[..., k], np.float32)
    channels["depth.Z"] = np.ascontiguousarray(still.depth, np.float32)
    header = {"compression": OpenEXR.ZIP_COMPRESSION, "type": OpenEXR.scanlineimage}
    with tempfile.TemporaryDirectory() as folder:
        path = os.path.join(folder, "still.exr")
        with OpenEXR.File(header, channels) as file:
            file.write(path)
        return Path(path).read_bytes()


def _captioned(codes: AnyArray, finish: Finish) -> tuple[AnyArray, AnyArray]:
    """The picture with a line of text below left and a bar of a round length below right, on the picture; and how far
    each pixel (H, W) is covered by those.
    """
    rows, columns = codes.shape[:2]
    size = max(11, round(rows / 42))
    base = Image.fromarray(np.asarray(np.rint(codes * 255), np.uint8))
    mask = Image.new("L", base.size, 0)
    draw = ImageDraw.Draw(mask)
    font = _font(size)
    margin = size
    least = min((_fitting(label, size, columns) for label in finish.labels), default=size)
    for x, y, _, text in finish.labels:
        for line, words in enumerate(text.splitlines()):
            below = y * rows + least // 2 + line * 1.3 * least
            draw.text((x * columns, below), words, font=_font(least), fill=255, anchor="lt")
    if finish.caption:
        draw.text((margin, rows - margin), finish.caption, font=font, fill=255, anchor="lb")
    if finish.px_per_mm > 0:
        length = max((mm for mm in _ROUND if mm * finish.px_per_mm < 0.28 * columns), default=_ROUND[0])
        wide = round(length * finish.px_per_mm)
        right, foot = columns - margin, rows - margin
        draw.rectangle((right - wide, foot - max(2, size // 6), right, foot), fill=255)
        text = f"{format_number(length)} mm" if length < 1000 else f"{format_number(length / 1000)} m"
        draw.text((right - wide, foot - size // 3), text, font=font, fill=255, anchor="lb")
    seen = np.asarray(mask, np.float32)[..., None] / 255
    # Pale on dark ground and dark on pale, by what lies behind.
    behind = float(codes[int(0.9 * rows) :].mean())
    return np.asarray(codes * (1 - seen) + seen * (0.08 if behind > 0.55 else 0.96)), seen[..., 0]


def _fitting(label: Label, size: int, columns: int) -> int:
    """The largest size up to one in which a label is no wider than it may be."""
    *_, wide, text = label
    longest = max(_font(size).getlength(line) for line in text.splitlines())
    return max(8, min(size, int(size * wide * columns / max(longest, 1))))


def _font(size: int) -> ImageFont.FreeTypeFont:
    return ImageFont.truetype(str(_FONT), size)


def codes_of(data: bytes) -> AnyArray:
    """Codes (H, W, 3) uint8 of a PNG just made, for the screen: where it is open a chequer is seen through it."""
    codes = np.asarray(Image.open(io.BytesIO(data)))
    if codes.shape[2] == 3:
        return codes
    rows, columns = np.indices(codes.shape[:2])
    chequer = np.where((rows // _CHEQUER + columns // _CHEQUER) % 2, *_CHEQUERED)[..., None]
    there = codes[..., 3:] / np.float32(255)
    return np.asarray(np.rint(codes[..., :3] * there + chequer * (1 - there)), np.uint8)
