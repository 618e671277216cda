"""Photos made for tests: a camera's raw file, and a chart of 24 patches seen by a strange camera."""

from __future__ import annotations

import io
import json

import cv2
import numpy as np
import tifffile

from brave_tessel.core.gather.chart import REFERENCE
from brave_tessel.engine.gather.rig import LIGHTS_FILE, LightRig, RigSettings
from brave_tessel.formats.images import encode_png

XYZ_TO_RGB = np.array(
    [[3.2404542, -1.5371385, -0.4985314], [-0.9692660, 1.8760108, 0.0415560], [0.0556434, -0.2040259, 1.0572252]]
)
CROSSTALK = np.array([[0.8, 0.15, 0.05], [0.1, 0.8, 0.1], [0.02, 0.18, 0.8]])


def ratios(values):
    return [number for value in np.ravel(values) for number in (round(value * 1_000_000), 1_000_000)]


def dng(linear, *, crosstalk=CROSSTALK, orientation=1):
    """A DNG of linear sRGB (H, W, 3) seen through a sensor whose channels overlap (DNG specification 1.4)."""
    seen, neutral = linear @ crosstalk.T, crosstalk @ np.ones(3)
    mosaic = seen[..., 1].copy()
    mosaic[0::2, 0::2], mosaic[1::2, 1::2] = seen[0::2, 0::2, 0], seen[1::2, 1::2, 2]
    tags = [
        (50706, "B", 4, (1, 4, 0, 0), True),
        (50708, "s", 0, "Made camera", True),
        (33421, "H", 2, (2, 2), True),
        (33422, "B", 4, (0, 1, 1, 2), True),
        (50714, "H", 1, 512, True),
        (50717, "H", 1, 15000, True),
        (50721, 10, 9, ratios(crosstalk @ XYZ_TO_RGB), True),
        (50778, "H", 1, 21, True),
        (50728, 5, 3, ratios(neutral), True),
        (274, "H", 1, orientation, True),
        (271, "s", 0, "Made", True),
        (272, "s", 0, "Made camera", True),
    ]
    out = io.BytesIO()
    codes = np.rint(512 + mosaic * (15000 - 512)).astype(np.uint16)
    tifffile.imwrite(out, codes, photometric=32803, extratags=tags, metadata=None, software=None)
    return out.getvalue()


def chart_photo(*, exposure=0.6, crosstalk=CROSSTALK, noise=0.002, bright=None):
    """A slanted chart on grey, (700, 1000, 3) linear; and the outer corners of its patches."""
    px, gap = 60, 8
    sheet = np.full((4 * px + 5 * gap, 6 * px + 7 * gap, 3), 0.03)
    for index, colour in enumerate(np.clip(REFERENCE, 0, None)):
        y, x = (gap + n * (px + gap) for n in divmod(index, 6))
        sheet[y : y + px, x : x + px] = colour
    rows, columns = sheet.shape[:2]
    corners = np.float32([[220, 180], [760, 220], [740, 560], [200, 520]])
    matrix = cv2.getPerspectiveTransform(np.float32([[0, 0], [columns, 0], [columns, rows], [0, rows]]), corners)
    photo = np.full((700, 1000, 3), 0.18)
    cv2.warpPerspective(sheet, matrix, (1000, 700), dst=photo, borderMode=cv2.BORDER_TRANSPARENT)
    photo = photo @ crosstalk.T * exposure + np.random.default_rng(4).normal(0, noise, photo.shape)
    photo = np.clip(photo, 0, bright) if bright else np.maximum(photo, 0)
    return photo.astype(np.float32), tuple(tuple(float(v) for v in corner) for corner in corners)


def write_frames(folder):
    """Eight frames of the rig's sample under single lights, with their light file."""
    capture = LightRig(RigSettings(frames=8, seconds=0)).take(lambda *_: None)
    told = {"size_mm": [120, 120], "frames": []}
    for number, (frame, light) in enumerate(zip(capture.frames, capture.lights, strict=True)):
        codes = np.where(frame <= 0.0031308, 12.92 * frame, 1.055 * np.maximum(frame, 1e-9) ** (1 / 2.4) - 0.055)
        (folder / f"f{number}.png").write_bytes(encode_png(np.rint(np.clip(codes, 0, 1) * 65_535).astype(np.uint16)))
        told["frames"].append({"file": f"f{number}.png", "light": list(light)})
    (folder / LIGHTS_FILE).write_text(json.dumps(told))
