"""What a camera wrote into a photo: its focal length."""

from __future__ import annotations

import io
import math

from PIL import ExifTags, Image

_FILM_DIAGONAL = math.hypot(36, 24)


def focal_px(data: bytes) -> float:
    """Focal length in pixels of the stored photo, 0 where the file does not tell it.

    ``FocalLengthIn35mmFilm`` (Exif 2.3, tag 41989) is by definition the focal length whose diagonal view on
    36 × 24 mm film is the same; where only FocalLength and FocalPlaneXResolution are given, those tell.
    """
    try:
        with Image.open(io.BytesIO(data)) as picture:
            told = picture.getexif().get_ifd(ExifTags.IFD.Exif)
            diagonal = math.hypot(*picture.size)
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
