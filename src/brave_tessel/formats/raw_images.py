"""Camera raw: what the sensor saw, in linear light, developed without curves or automatic brightness.

Decoded by a kept library in the limited process (:mod:`.limited`); this module's tests of bytes are all that runs in
the program's own.
"""

from __future__ import annotations

import io

import numpy as np
import tifffile

from ..core.sheet import AnyArray

SUFFIXES = (".dng", ".cr2", ".cr3", ".nef", ".arw", ".raf", ".orf", ".rw2", ".pef", ".srw")
FORMAT = "RAW"
_SENSOR = {32803, 34892}
"""Photometric interpretations of a mosaic and of linear sensor colours (DNG specification 1.4; TIFF/EP)."""
_DNG_VERSION, _PHOTOMETRIC, _PARTS = 50706, 262, 330


def is_raw(data: bytes) -> bool:
    """Whether the bytes are a camera's raw file rather than a picture."""
    if data[:16] == b"FUJIFILMCCD-RAW " or data[:4] in {b"IIRO", b"IIRS", b"MMOR", b"IIU\x00"}:
        return True
    if data[4:12] == b"ftypcrx " or (data[:4] == b"II*\x00" and data[8:10] == b"CR"):
        return True
    if data[:4] not in {b"II*\x00", b"MM\x00*"}:
        return False
    try:
        with tifffile.TiffFile(io.BytesIO(data)) as file:
            first = file.pages[0]
            pages = [first, *(first.pages or ())] if _PARTS in first.tags else [first]  # type: ignore[union-attr]
            kinds = {int(page.tags[_PHOTOMETRIC].value) for page in pages if _PHOTOMETRIC in page.tags}  # type: ignore[union-attr]
            return _DNG_VERSION in first.tags or bool(kinds & _SENSOR)  # type: ignore[union-attr]
    except Exception:  # noqa: BLE001 - what is no readable TIFF is told so by the reader of pictures
        return False


def raw_size(data: bytes, name: str) -> list[AnyArray]:
    """``[width, height]`` of the upright picture; run in the limited process."""
    import rawpy

    with rawpy.imread(io.BytesIO(data)) as raw:
        sizes = raw.sizes
        wide, high = sizes.iwidth, sizes.iheight
        return [np.array([high, wide] if sizes.flip in {5, 6} else [wide, high], np.int64)]


def raw_linear(data: bytes, name: str) -> list[AnyArray]:
    """Linear sRGB as (H, W, 3) uint16, white-balanced as the camera was; run in the limited process.

    The top of the sensor is code 65 535; nothing is brightened, so exposure stays that of the shot.
    """
    import rawpy

    with rawpy.imread(io.BytesIO(data)) as raw:
        return [
            np.asarray(
                raw.postprocess(
                    gamma=(1, 1),
                    no_auto_bright=True,
                    use_camera_wb=True,
                    output_bps=16,
                    output_color=rawpy.ColorSpace.sRGB,
                ),
                np.uint16,
            )
        ]
