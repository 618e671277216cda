"""Small pictures of sources, made once."""

from __future__ import annotations

import cv2
import numpy as np
from PyQt6.QtGui import QPixmap

from ..core.colour import display_codes
from ..core.errors import TesselError
from ..core.job.document import Source
from ..core.sheet import AnyArray
from ..engine.session import Session
from . import theme
from .board import to_image

_MADE: dict[str, QPixmap] = {}


def source_thumb(session: Session, source: Source) -> QPixmap | None:
    """The middle of the photo, square; of a scatter sheet, what was last seen of it."""
    if source.scatter is not None:
        return _MADE.get(source.id) or _blank()
    if source.blob not in _MADE:
        try:
            pixels = session.load_pixels(source.blob)
        except TesselError:
            return None
        side = min(pixels.shape[:2])
        top, left = (pixels.shape[0] - side) // 2, (pixels.shape[1] - side) // 2
        crop = np.ascontiguousarray(pixels[top : top + side, left : left + side])
        small = np.asarray(cv2.resize(crop, (80, 80), interpolation=cv2.INTER_AREA), np.float32)
        _MADE[source.blob] = QPixmap.fromImage(to_image(display_codes(small)))
    return _MADE[source.blob]


def _blank() -> QPixmap:
    """What stands in until a sheet was seen."""
    pixmap = QPixmap(80, 80)
    pixmap.fill(theme.colour("board"))
    return pixmap


def unseen(source: Source) -> bool:
    """Whether a scatter sheet's picture is still to be made."""
    return source.scatter is not None and source.id not in _MADE


def keep_thumb(source: Source, codes: AnyArray) -> bool:
    """Remember how a scatter sheet looks; whether it is the first time."""
    first = source.id not in _MADE
    side = min(codes.shape[:2])
    small = cv2.resize(np.ascontiguousarray(codes[:side, :side]), (80, 80), interpolation=cv2.INTER_AREA)
    _MADE[source.id] = QPixmap.fromImage(to_image(np.asarray(small, np.uint8)))
    return first
