"""Pictures that hold light and not codes: OpenEXR and Radiance HDR, linear float."""

from __future__ import annotations

import re
import tempfile
from pathlib import Path
from typing import Any

import cv2
import numpy as np
import OpenEXR

from ..core.errors import UnreadableFileError
from ..core.sheet import Raster
from .picture_header import PictureHeader

_EXR = b"\x76\x2f\x31\x01"
_SIZE = re.compile(rb"[-+]Y\s+(\d{1,6})\s+[-+]X\s+(\d{1,6})\s*\n")


def is_light(data: bytes) -> bool:
    """Whether the bytes begin as OpenEXR or Radiance HDR do."""
    return data[:4] == _EXR or data[:2] == b"#?"


def _damaged(name: str) -> UnreadableFileError:
    return UnreadableFileError(name, allowed="OpenEXR or Radiance HDR", remedy="The file is damaged; choose another.")


def light_header(data: bytes, name: str) -> PictureHeader:
    """Size by the header alone."""
    if data[:4] == _EXR:
        with tempfile.TemporaryDirectory() as folder:
            part = _open_exr(data, name, Path(folder), header_only=True)
        return _exr_header(part, name)
    found = _SIZE.search(data[:4096])
    if found is None:
        raise _damaged(name)
    return PictureHeader(int(found.group(2)), int(found.group(1)), 32, "HDR")


def _exr_header(part: dict[str, Any], name: str) -> PictureHeader:
    try:
        window = part["dataWindow"]
        width, height = (int(v) for v in (np.asarray(window[1], np.int64) - np.asarray(window[0], np.int64) + 1))
        alpha = any(str(channel.name).rsplit(".", 1)[-1].upper() == "A" for channel in part.get("channels", ()))
    except (ValueError, TypeError, KeyError, IndexError, OverflowError):
        raise _damaged(name) from None
    return PictureHeader(width, height, 32, "EXR", "premultiplied" if alpha else "")


def _open_exr(data: bytes, name: str, folder: Path, *, header_only: bool) -> Any:
    """Header of the first part, or its channels by name."""
    path = folder / "picture.exr"
    path.write_bytes(data)
    try:
        with OpenEXR.File(str(path), separate_channels=True, header_only=header_only) as file:
            part = file.parts[0]
            if header_only:
                return dict(part.header)
            return {channel: np.array(held.pixels) for channel, held in part.channels.items()}
    except (RuntimeError, ValueError, TypeError, KeyError, IndexError, OSError, MemoryError):
        raise _damaged(name) from None


def decode_light(data: bytes, name: str) -> Raster:
    """Linear (H, W, 3) float32; negative and infinite values are brought to 0 and a large number.

    Channels R, G, B, or Y, or the first one there is; layers before a dot are honoured by their last name.
    """
    if data[:4] != _EXR:
        picture = cv2.imdecode(np.frombuffer(data, np.uint8), cv2.IMREAD_UNCHANGED)
        if picture is None or picture.ndim != 3:
            raise _damaged(name)
        return _finite(picture[..., [2, 1, 0]])
    with tempfile.TemporaryDirectory() as folder:
        channels = _open_exr(data, name, Path(folder), header_only=False)
    last = {key.rsplit(".", 1)[-1].upper(): pixels for key, pixels in channels.items()}
    if not last:
        raise _damaged(name)
    if {"R", "G", "B"} <= set(last):
        colour = _finite(np.stack([last[key] for key in "RGB"], 2))
        if "A" not in last:
            return colour
        # OpenEXR holds colours multiplied by their alpha ("Technical introduction to OpenEXR").
        alpha = np.clip(np.nan_to_num(np.asarray(last["A"], np.float32)), 0, 1)[..., None]
        return np.asarray(np.where(alpha > 0, colour / np.maximum(alpha, 1e-4), colour), np.float32)
    grey = last.get("Y", next(iter(last.values())))
    return _finite(np.repeat(grey[..., None], 3, 2))


def _finite(pixels: Any) -> Raster:
    values = np.nan_to_num(np.asarray(pixels, np.float32), nan=0.0, posinf=65_504.0, neginf=0.0)
    return np.ascontiguousarray(np.maximum(values, 0))
