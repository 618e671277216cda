"""Pictures that hold light and not codes: OpenEXR and Radiance HDR, linear float."""

from __future__ import annotations

import re
import struct
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
        return _exr_header(_exr_attributes(data, name), name)
    found = _SIZE.search(data[:4096])
    if found is None:
        raise _damaged(name)
    return PictureHeader(int(found.group(2)), int(found.group(1)), 32, "HDR")


def _exr_attributes(data: bytes, name: str) -> dict[bytes, bytes]:
    """The attributes of the first part, by name ("OpenEXR File Layout": name, type, size, value; an empty name ends).

    Read here and not by the library: nothing of it is trusted before its size is known.
    """
    found: dict[bytes, bytes] = {}
    at = 8
    while at < len(data) and data[at] != 0:
        named, typed = data.find(b"\0", at, at + 256), -1
        if named >= 0:
            typed = data.find(b"\0", named + 1, named + 258)
        if typed < 0 or typed + 5 > len(data):
            raise _damaged(name)
        (size,) = struct.unpack_from("<i", data, typed + 1)
        if size < 0 or typed + 5 + size > len(data):
            raise _damaged(name)
        found[data[at:named]] = data[typed + 5 : typed + 5 + size]
        at = typed + 5 + size
    return found


def _exr_channels(value: bytes) -> list[str]:
    """Names of channels: each with 16 bytes of traits after it; an empty name ends."""
    names, at = [], 0
    while at < len(value) and value[at] != 0:
        end = value.find(b"\0", at)
        if end < 0:
            break
        names.append(value[at:end].decode("latin-1"))
        at = end + 17
    return names


def _exr_header(attributes: dict[bytes, bytes], name: str) -> PictureHeader:
    try:
        left, low, right, high = struct.unpack("<4i", attributes[b"dataWindow"])
    except (struct.error, KeyError):
        raise _damaged(name) from None
    channels = _exr_channels(attributes.get(b"channels", b""))
    alpha = any(channel.rsplit(".", 1)[-1].upper() == "A" for channel in channels)
    # Every channel is read whole, as floats.
    count = max(4, len(channels))
    return PictureHeader(right - left + 1, high - low + 1, 32, "EXR", "premultiplied" if alpha else "", count)


def _open_exr(data: bytes, name: str, folder: Path) -> Any:
    """Channels of the first part, by name."""
    path = folder / "picture.exr"
    path.write_bytes(data)
    try:
        with OpenEXR.File(str(path), separate_channels=True) as file:
            part = file.parts[0]
            return {channel: np.array(held.pixels) for channel, held in part.channels.items()}
    except MemoryError:
        raise
    except (RuntimeError, ValueError, TypeError, KeyError, IndexError, OSError):
        raise _damaged(name) from None


def decode_light(data: bytes, name: str) -> Raster:
    """Linear (H, W, 3) float32; negative and infinite values are brought to 0 and a large number. Run in a process of
    its own, see :mod:`.limited`.

    Channels R, G, B, or Y, or the first one there is; layers before a dot are honoured by their last name.
    """
    if data[:4] != _EXR:
        picture = cv2.imdecode(np.frombuffer(data, np.uint8), cv2.IMREAD_UNCHANGED)
        if picture is None or picture.ndim != 3:
            raise _damaged(name)
        return _finite(picture[..., [2, 1, 0]])
    with tempfile.TemporaryDirectory() as folder:
        channels = _open_exr(data, name, Path(folder))
    last = _layer_of(channels)
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


def _layer_of(channels: dict[str, Any]) -> dict[str, Any]:
    """The channels of one layer by their last names: the one without a name, else the first that has a colour."""
    layers: dict[str, dict[str, Any]] = {}
    for key, pixels in channels.items():
        layer, _, channel = key.rpartition(".")
        layers.setdefault(layer, {})[channel.upper()] = pixels
    whole = [held for held in layers.values() if {"R", "G", "B"} <= set(held)]
    if "" in layers and ({"R", "G", "B"} <= set(layers[""]) or not whole):
        return layers[""]
    return whole[0] if whole else next(iter(layers.values()), {})


def _finite(pixels: Any) -> Raster:
    values = np.nan_to_num(np.asarray(pixels, np.float32), nan=0.0, posinf=65_504.0, neginf=0.0)
    return np.ascontiguousarray(np.maximum(values, 0))
