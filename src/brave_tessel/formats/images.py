"""Pictures from files, refused by their header when they are too large or no pictures."""

from __future__ import annotations

import io
import os
import re
import stat
import struct
import zlib
from pathlib import Path

import cv2
import numpy as np
import tifffile
from PIL import Image, ImageOps, UnidentifiedImageError

from ..core.colour import decode_srgb, encode_srgb, linear_from_codes
from ..core.errors import TooLargeError, UnreadableFileError
from ..core.phrases import say
from ..core.sheet import MAX_PX, AnyArray, Raster
from .light_images import decode_light, is_light, light_header
from .limited import read_limited
from .other_images import FORMATS as OTHER_FORMATS
from .other_images import SUFFIXES as OTHER_SUFFIXES
from .other_images import is_other, other_codes
from .picture_header import PictureHeader
from .profiles import linear_by_profile
from .raw_images import FORMAT as RAW
from .raw_images import SUFFIXES as RAW_SUFFIXES
from .raw_images import is_raw

MAX_PIXELS = 16_384 * 16_384
_BYTES_A_PIXEL, _BYTES_A_CHANNEL = 24, 8
"""What a picture takes at its largest while it is read: as floats, twice; and each channel beyond four."""
"""Of a picture while it is decoded: its codes, and three linear channels twice."""
_USUAL = (".png", ".jpg", ".jpeg", ".tif", ".tiff", ".exr", ".hdr", ".webp", ".bmp", ".tga")
SUFFIXES = (*_USUAL, *OTHER_SUFFIXES, *RAW_SUFFIXES)
_KINDS = "PNG, JPEG, TIFF, EXR, HDR, WebP, BMP, TGA, GIF, AVIF, JPEG 2000, DDS, PSD, PPM or camera raw"
_LIBRARY = ("PNG", "JPEG", "TIFF", "WEBP", "BMP")
_PNG = b"\x89PNG\r\n\x1a\n"
_TIFF_ALPHA = {1: "premultiplied", 2: "straight"}
# What a decoder raises on a damaged file.
_DAMAGED = (
    UnidentifiedImageError,
    OSError,
    ValueError,
    SyntaxError,
    struct.error,
    zlib.error,
    TypeError,
    KeyError,
    IndexError,
    EOFError,
    OverflowError,
    MemoryError,
    AttributeError,
    ZeroDivisionError,
    ArithmeticError,
)
Image.MAX_IMAGE_PIXELS = None  # our own limit is checked before anything is decoded


def read_header(data: bytes, name: str) -> PictureHeader:
    """Size and depth without decoding.

    Raises
    ------
    UnreadableFileError
        when the bytes are no picture of a known kind.
    TooLargeError
        when it has more pixels than can be worked with.
    """
    if not data:
        raise UnreadableFileError(name, value="empty", allowed=_KINDS, remedy="Choose another file; this one is empty.")
    if data[:8] == _PNG and data[12:16] == b"IHDR" and len(data) > 25:
        return _png_header(data, name)
    if is_light(data):
        return _within_limits(light_header(data, name), name)
    if is_raw(data):
        width, height = (int(side) for side in read_limited("raw size", data, name)[0])
        return _within_limits(PictureHeader(width, height, 16, RAW, ""), name)
    try:
        with Image.open(io.BytesIO(data), formats=_formats(name)) as picture:
            width, height = picture.size
            turned = picture.getexif().get(0x0112, 1) in {5, 6, 7, 8}
            kind = picture.format or ""
            deep = _is_deep(picture)
            alpha = _alpha(picture)
    except _DAMAGED:
        if _is_tiff(data):
            return _tiff_header(data, name)
        raise _unreadable(name) from None
    return _within_limits(
        PictureHeader(*((height, width) if turned else (width, height)), 16 if deep else 8, kind, alpha), name
    )


def _alpha(picture: Image.Image) -> str:
    """How colours and alpha go together (TIFF 6.0, ExtraSamples: 1 associated, 2 unassociated)."""
    if picture.format == "TIFF":
        extra = picture.tag_v2.get(338, (0,))  # type: ignore[attr-defined]
        first = extra[0] if isinstance(extra, tuple) and extra else extra
        return _TIFF_ALPHA.get(int(first or 0), "")
    return "straight" if "A" in picture.getbands() or "transparency" in picture.info else ""


def _png_header(data: bytes, name: str) -> PictureHeader:
    """W3C PNG: IHDR comes first, so a huge picture is known by its first 26 bytes."""
    width, height = struct.unpack(">II", data[16:24])
    alpha = "straight" if data[25] in {4, 6} or b"tRNS" in data[:4096] else ""
    header = _within_limits(PictureHeader(width, height, 16 if data[24] == 16 else 8, "PNG", alpha), name)
    if b"eXIf" not in data[:4096]:
        return header
    try:
        with Image.open(io.BytesIO(data), formats=("PNG",)) as picture:
            turned = picture.getexif().get(0x0112, 1) in {5, 6, 7, 8}
    except _DAMAGED:
        raise _unreadable(name) from None
    return PictureHeader(height, width, header.depth, "PNG", header.alpha) if turned else header


def _within_limits(header: PictureHeader, name: str) -> PictureHeader:
    width, height = header.width_px, header.height_px
    if width < 1 or height < 1:
        raise _unreadable(name)
    if max(width, height) > MAX_PX or width * height > MAX_PIXELS:
        raise TooLargeError(
            name,
            value=say("{width} × {height} px", width=width, height=height),
            allowed=say("up to {max_px} px a side", max_px=MAX_PX),
            remedy="Scale it down first.",
        )
    if width * height * (_BYTES_A_PIXEL + _BYTES_A_CHANNEL * (header.channels - 4)) > memory_budget():
        raise TooLargeError(
            name,
            value=say("{width} × {height} px", width=width, height=height),
            allowed=say("what fits into {memory_budget} GB here", memory_budget=memory_budget() >> 30),
            remedy="Scale it down first.",
        )
    return header


def memory_budget(spare: int = 0) -> int:
    """Bytes that one thing may take when it is read or made: half of what the machine has, and not more than three
    quarters of what is free, with ``spare`` bytes of our own that would be given up.
    """
    page = os.sysconf("SC_PAGE_SIZE")
    whole = os.sysconf("SC_PHYS_PAGES") * page
    return min(whole // 2, 3 * (_free_memory(whole) + spare) // 4)


def _free_memory(whole: int) -> int:
    """Bytes that may be taken without anything being put out (Linux, ``/proc/meminfo``)."""
    try:
        found = re.search(rb"MemAvailable:\s+(\d+) kB", Path("/proc/meminfo").read_bytes())
    except OSError:
        found = None
    return int(found[1]) << 10 if found else whole


def _unreadable(name: str) -> UnreadableFileError:
    if Path(name).suffix.lower() not in SUFFIXES:
        return UnreadableFileError(
            name, allowed=_KINDS, remedy="It is not a format this program reads; save it as PNG or TIFF."
        )
    return UnreadableFileError(name, allowed=_KINDS, remedy="The file is damaged or no picture; choose another.")


def _is_tiff(data: bytes) -> bool:
    return data[:4] in {b"II*\x00", b"MM\x00*"}


def _is_deep(picture: Image.Image) -> bool:
    if picture.format == "TIFF":
        bits = picture.tag_v2.get(258, (8,))  # type: ignore[attr-defined]
        return bool(max(bits if isinstance(bits, tuple) else (bits,)) > 8)
    return picture.format in OTHER_FORMATS and picture.mode.startswith("I")


def _tiff_header(data: bytes, name: str) -> PictureHeader:
    try:
        with tifffile.TiffFile(io.BytesIO(data)) as file:
            page = file.pages[0]
            shape = page.shape
            bits = page.dtype.itemsize * 8 if page.dtype is not None else 8
            samples = getattr(page, "extrasamples", ())
    except Exception:  # noqa: BLE001 - a damaged file fails in many ways, all meaning the same
        raise _unreadable(name) from None
    if len(shape) == 3 and shape[0] in {3, 4} and shape[2] > 4:
        shape = (shape[1], shape[2], shape[0])  # stored plane by plane
    if len(shape) not in {2, 3} or not all(isinstance(side, int) for side in shape):
        raise _unreadable(name)
    return _within_limits(
        PictureHeader(
            shape[1],
            shape[0],
            bits,
            "TIFF",
            _TIFF_ALPHA.get(int(samples[0]), "") if samples else "",
            max(4, shape[2] if len(shape) == 3 else 1),
        ),
        name,
    )


def decode_picture(data: bytes, name: str) -> Raster:
    """Linear (H, W, 3) float32 with sRGB primaries, upright, 16-bit codes kept exactly.

    Greys become three equal channels; an embedded ICC profile of an RGB space is honoured. Alpha is left out, after
    premultiplied colours are divided by it.
    """
    header = read_header(data, name)
    if header.depth == 32 and is_light(data):
        return read_limited("picture", data, name)[0]
    if header.format == RAW:
        return read_limited("raw", data, name)[0].astype(np.float32) / np.float32(65_535)
    told = embedded_profile(data, name)
    codes = _decode_eight(data, name) if header.depth == 8 else _decode_deep(data, name, header)
    if codes.dtype == np.float32:
        return np.asarray(np.maximum(np.nan_to_num(codes), 0), np.float32)
    linear = linear_by_profile(codes, told) if told else None
    if linear is None:
        linear = linear_from_codes(codes)
    return _unmultiplied(linear, data, name, header)


def _unmultiplied(linear: Raster, data: bytes, name: str, header: PictureHeader) -> Raster:
    """Colours as they are where the file has them multiplied by its alpha (TIFF 6.0, ExtraSamples 1)."""
    # The library for 8 bits has divided already.
    if header.alpha != "premultiplied" or header.depth == 8:
        return linear
    alpha = decode_codes(data, name)[..., 3:]
    encoded = encode_srgb(linear) / np.maximum(alpha, 1 / 255)
    return np.asarray(decode_srgb(np.clip(encoded, 0, 1)), np.float32)


def embedded_profile(data: bytes, name: str) -> bytes:
    """The picture's ICC profile, empty where it has none."""
    try:
        if _is_tiff(data):
            with tifffile.TiffFile(io.BytesIO(data)) as file:
                tag = file.pages[0].tags.get(34675)  # type: ignore[union-attr]
                return bytes(tag.value) if tag is not None else b""
        with Image.open(io.BytesIO(data), formats=_formats(name)) as picture:
            return bytes(picture.info.get("icc_profile") or b"")
    except Exception:  # noqa: BLE001 - a picture whose notes cannot be read is a picture all the same
        return b""


def decode_codes(data: bytes, name: str) -> Raster:
    """Codes as stored, in [0, 1] and upright, for data maps: (H, W, 4) float32; alpha 1 where there is none.

    No curve and no profile is applied; 16 bits survive. Float files keep their values.
    """
    header = read_header(data, name)
    if header.depth == 8:
        codes = _decode_eight(data, name, mode="RGBA").astype(np.float32) / np.float32(255)
        return np.asarray(codes, np.float32)
    if header.depth == 32 and is_light(data):
        rgb = read_limited("picture", data, name)[0]
    elif header.format == RAW:
        rgb = decode_picture(data, name)
    else:
        deep = _decode_deep(data, name, header, channels=4)
        top = {np.dtype(np.uint16): 65_535, np.dtype(np.uint8): 255}.get(deep.dtype, 1)
        rgb = np.asarray(deep, np.float32) / np.float32(top)
    if rgb.shape[2] == 4:
        return np.ascontiguousarray(rgb)
    return np.concatenate([rgb, np.ones((*rgb.shape[:2], 1), np.float32)], 2)


def _formats(name: str) -> tuple[str, ...]:
    """TGA has no mark of its own, so only its name can tell it."""
    known = (*_LIBRARY, *OTHER_FORMATS)
    return (*known, "TGA") if name.lower().endswith(".tga") else known


def _decode_eight(data: bytes, name: str, *, mode: str = "RGB") -> AnyArray:
    if is_other(data):
        (codes,) = read_limited("picture", data, name)
        if codes.ndim == 2:
            codes = np.dstack([np.repeat((codes >> 8)[..., None], 3, 2), np.full_like(codes, 255)]).astype(np.uint8)
        return np.ascontiguousarray(codes[..., : len(mode)])
    try:
        with Image.open(io.BytesIO(data), formats=_formats(name)) as picture:
            picture.load()
            upright = ImageOps.exif_transpose(picture)
            return np.asarray(upright.convert(mode), np.uint8)
    except _DAMAGED:
        raise _unreadable(name) from None


def _decode_deep(data: bytes, name: str, header: PictureHeader, *, channels: int = 3) -> AnyArray:
    codes: AnyArray | None
    if header.format == "TIFF" or is_other(data):
        (codes,) = read_limited("picture", data, name)
        if codes.ndim == 3 and codes.shape[0] in {3, 4} and codes.shape[2] > 4:
            codes = np.moveaxis(codes, 0, 2)
    else:
        codes = cv2.imdecode(np.frombuffer(data, np.uint8), cv2.IMREAD_UNCHANGED)
        if codes is not None and codes.ndim == 3:
            order = [2, 1, 0, 3][: codes.shape[2]]
            codes = codes[..., order] if codes.shape[2] >= 3 else codes[..., :1]
    if codes is None or codes.ndim not in {2, 3} or codes.size == 0:
        raise _unreadable(name)
    codes = upright(codes[..., None] if codes.ndim == 2 else codes, _orientation(data, name))
    codes = codes[..., :channels] if codes.shape[2] >= 3 else np.repeat(codes[..., :1], 3, 2)
    if codes.dtype.kind == "f":
        return np.ascontiguousarray(codes, np.float32)
    if codes.dtype == np.uint32:
        return np.asarray(codes // 65_536, np.uint16)
    return np.ascontiguousarray(codes.astype(np.uint8 if codes.dtype == np.uint8 else np.uint16))


def exotic_codes(data: bytes, name: str) -> list[AnyArray]:
    """What an OpenEXR, Radiance or TIFF file holds, as one array; run in a process of its own, see :mod:`.limited`."""
    if is_light(data):
        return [decode_light(data, name)]
    try:
        if is_other(data):
            return [other_codes(data)]
        with tifffile.TiffFile(io.BytesIO(data)) as file:
            # Of several pages the first is the picture; those after it are smaller ones, or others.
            return [np.asarray(file.pages[0].asarray())]
    except MemoryError:
        raise
    except Exception:  # noqa: BLE001 - a damaged file fails in many ways, all meaning the same
        raise _unreadable(name) from None


def _orientation(data: bytes, name: str) -> int:
    """How the picture has to be turned, by EXIF or TIFF 6.0 tag 274; 1 is as it is."""
    if not (_is_tiff(data) or b"eXIf" in data[:4096]):
        return 1
    try:
        if _is_tiff(data):
            with tifffile.TiffFile(io.BytesIO(data)) as file:
                tag = file.pages[0].tags.get(274)  # type: ignore[union-attr]
                return int(tag.value) if tag is not None else 1
        with Image.open(io.BytesIO(data), formats=_formats(name)) as picture:
            return int(picture.getexif().get(274, 1))
    except Exception:  # noqa: BLE001 - without a readable note the picture stays as it is
        return 1


def upright(codes: AnyArray, orientation: int) -> AnyArray:
    """A picture (H, W, C) turned and mirrored as its orientation 1 to 8 says (TIFF 6.0, tag 274)."""
    turns = {3: 2, 4: 2, 5: 3, 6: 3, 7: 1, 8: 1}.get(orientation, 0)
    turned = np.rot90(codes, turns)
    return np.ascontiguousarray(turned[:, ::-1] if orientation in {2, 4, 5, 7} else turned)


def read_file(path: Path) -> bytes:
    """A file's bytes, with its trouble told in our own errors."""
    try:
        traits = path.stat()
        if not stat.S_ISREG(traits.st_mode) and not path.is_dir():
            raise UnreadableFileError(path.name, value="no plain file", remedy="Choose a file.")
        if traits.st_size > memory_budget():
            raise TooLargeError(
                path.name,
                value=say("{size} MB", size=traits.st_size >> 20),
                allowed=say("{size} MB here", size=memory_budget() >> 20),
            )
        return path.read_bytes()
    except IsADirectoryError:
        raise UnreadableFileError(path.name, allowed=_KINDS, remedy="That is a folder; choose a file.") from None
    except FileNotFoundError:
        raise UnreadableFileError(path.name, value="missing", remedy="There is no such file.") from None
    except OSError as error:
        raise UnreadableFileError(path.name, value=error.strerror, remedy="Check that you may read it.") from None


# Writing -------------------------------------------------------------------------------------------


def _chunk(kind: bytes, body: bytes) -> bytes:
    return struct.pack(">I", len(body)) + kind + body + struct.pack(">I", zlib.crc32(kind + body))


def size_chunks(width_px: int, height_px: int, width_mm: float, height_mm: float, *, note: str = "") -> bytes:
    """PNG chunks that carry the real size: sCAL (exact), pHYs (whole pixels a metre) and iTXt.

    W3C PNG 3rd edition (pHYs, iTXt); PNG extensions register (sCAL).
    """
    width_m, height_m = width_mm / 1000, height_mm / 1000
    scale = b"\x01" + f"{width_m / width_px:.12g}".encode() + b"\0" + f"{height_m / height_px:.12g}".encode()
    physical = struct.pack(">IIB", round(width_px / width_m), round(height_px / height_m), 1)
    text = f'{{"width_m": {width_m:.9g}, "height_m": {height_m:.9g}{note}}}'
    words = b"Repeat\0\0\0\0\0" + text.encode()
    return _chunk(b"sCAL", scale) + _chunk(b"pHYs", physical) + _chunk(b"iTXt", words)


def encode_png(
    codes: AnyArray, *, width_mm: float = 0, height_mm: float = 0, srgb: bool = False, note: str = ""
) -> bytes:
    """PNG bytes of (H, W), (H, W, 3) or (H, W, 4) uint8 or uint16 codes, with their real size if given."""
    ordered = codes
    if codes.ndim == 3:
        ordered = cv2.cvtColor(codes, cv2.COLOR_RGBA2BGRA if codes.shape[2] == 4 else cv2.COLOR_RGB2BGR)
    # In a photographed or grained surface nothing longer than a run comes again: looking for it, and for the best
    # filter of every row, costs twice the time and saves no byte.
    quickly = [
        cv2.IMWRITE_PNG_COMPRESSION,
        1,
        cv2.IMWRITE_PNG_STRATEGY,
        cv2.IMWRITE_PNG_STRATEGY_RLE,
        cv2.IMWRITE_PNG_FILTER,
        cv2.IMWRITE_PNG_FILTER_AVG,
    ]
    done, buffer = cv2.imencode(".png", np.ascontiguousarray(ordered), quickly)
    if not done:
        raise UnreadableFileError("picture", remedy="The picture could not be encoded.")
    data = bytes(buffer)
    at = 8 + 25  # after the signature and IHDR
    extra = _chunk(b"sRGB", b"\0") if srgb else b""
    if width_mm > 0:
        extra += size_chunks(codes.shape[1], codes.shape[0], width_mm, height_mm, note=note)
    return data[:at] + extra + data[at:]
