"""Small pictures of sources, made once."""

from __future__ import annotations

import cv2
import numpy as np
from PyQt6.QtGui import QPixmap

from ..core.job.document import Source
from ..core.sheet import AnyArray
from . import theme
from .board import to_image

_MADE: dict[str, QPixmap] = {}


def _key(source: Source) -> str:
    return source.id if source.scatter is not None else source.blob


def source_thumb(source: Source) -> QPixmap:
    """The middle of the photo, square; of a scatter sheet, what was last seen of it. Grey until it was made."""
    return _MADE.get(_key(source)) or _blank()


def _blank() -> QPixmap:
    """What stands in until a source was seen."""
    pixmap = QPixmap(80, 80)
    pixmap.fill(theme.colour("board"))
    return pixmap


def unseen(source: Source) -> bool:
    """Whether a source's picture is still to be made."""
    return _key(source) not in _MADE


def keep_thumb(source: Source, codes: AnyArray) -> bool:
    """Remember how a source looks; whether it is the first time."""
    first = unseen(source)
    side = min(codes.shape[:2])
    small = cv2.resize(np.ascontiguousarray(codes[:side, :side]), (80, 80), interpolation=cv2.INTER_AREA)
    _MADE[_key(source)] = QPixmap.fromImage(to_image(np.asarray(small, np.uint8)))
    return first
