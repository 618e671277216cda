"""What a camera wrote into a photo: its focal length."""

from __future__ import annotations

import io
import math
from typing import Any

from PIL import ExifTags, Image

_FILM_DIAGONAL = math.hypot(36, 24)


def _taken_size(size: tuple[int, int], told: Image.Exif | dict[int, Any]) -> tuple[float, float]:
    """The size that was taken: larger than the picture where one was cut from it, as another shape tells."""
    try:
        taken = (
            float(told.get(ExifTags.Base.ExifImageWidth, 0) or 0),
            float(told.get(ExifTags.Base.ExifImageHeight, 0) or 0),
        )
    except (TypeError, ValueError, OverflowError):
        return size
    shapes = [max(one) / max(min(one), 1.0) for one in (taken, size)]
    larger = min(taken) >= min(size) and max(taken) >= max(size)
    return taken if larger and abs(shapes[0] / shapes[1] - 1) > 0.01 and max(taken) < 1e6 else size


def focal_px(data: bytes, size: tuple[int, int] | None = None) -> float:
    """Focal length in pixels of the stored photo, 0 where the file does not tell it; ``size`` where the photo is not
    the first picture in the file, as in camera raw.

    ``FocalLengthIn35mmFilm`` (Exif 2.3, tag 41989) is by definition the focal length whose diagonal view on
    36 × 24 mm film is the same; where only FocalLength and FocalPlaneXResolution are given, those tell.
    """
    try:
        with Image.open(io.BytesIO(data)) as picture:
            told = picture.getexif().get_ifd(ExifTags.IFD.Exif)
            diagonal = math.hypot(*(size or _taken_size(picture.size, told)))
    except (OSError, ValueError, SyntaxError, KeyError, TypeError, EOFError, Image.DecompressionBombError):
        # A picture without readable notes is a picture all the same.
        return 0.0
    try:
        film = float(told.get(ExifTags.Base.FocalLengthIn35mmFilm, 0) or 0)
        if 4 <= film <= 2000:
            return film / _FILM_DIAGONAL * diagonal
        length = float(told.get(ExifTags.Base.FocalLength, 0) or 0)
        per_unit = float(told.get(ExifTags.Base.FocalPlaneXResolution, 0) or 0)
        unit_mm = {2: 25.4, 3: 10.0, 4: 1.0}.get(int(told.get(ExifTags.Base.FocalPlaneResolutionUnit, 2) or 2), 25.4)
        focal = length * per_unit / unit_mm
    except (TypeError, ValueError, ZeroDivisionError, OverflowError):
        return 0.0
    return focal if math.isfinite(focal) and 50 <= focal <= 1e6 else 0.0
