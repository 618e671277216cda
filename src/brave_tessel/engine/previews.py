"""Pictures of surfaces that are kept with the job, so that it is seen at once when it is opened."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ..core.job.layers import Surface
from ..core.sheet import AnyArray, Grid
from ..formats.job_file import Preview
from .snapshot import Snapshot

PREVIEW_PX = 512
_QUALITY = 90


@dataclass(frozen=True, slots=True)
class Stored:
    """A surface as it was last seen: the size of its cell in mm, and its picture (H, W, 3) uint8."""

    surface: Surface
    grid: Grid
    codes: AnyArray


def key_of(snapshot: Snapshot, surface: Surface) -> str:
    """What a preview of the surface hangs on: everything its maps are made of."""
    grid = Grid.for_repeat(surface.width_mm, surface.height_mm, PREVIEW_PX)
    return snapshot.planner().finished(surface, grid).key.hex()


def make_preview(snapshot: Snapshot, surface: Surface, codes: AnyArray) -> Preview:
    """A preview from a lit cell (H, W, 3) uint8 of any size."""
    grid = Grid.for_repeat(surface.width_mm, surface.height_mm, min(PREVIEW_PX, max(codes.shape[:2])))
    small = cv2.resize(codes, grid.shape[::-1], interpolation=cv2.INTER_AREA)
    _, data = cv2.imencode(".jpg", small[..., ::-1], [cv2.IMWRITE_JPEG_QUALITY, _QUALITY])
    return Preview(key_of(snapshot, surface), data.tobytes())


def stored_picture(snapshot: Snapshot, surface: Surface, preview: Preview | None) -> Stored | None:
    """A surface's preview, if there is one and it shows the surface as it is."""
    if preview is None or preview.key != key_of(snapshot, surface):
        return None
    codes = cv2.imdecode(np.frombuffer(preview.jpeg, np.uint8), cv2.IMREAD_COLOR_RGB)
    if codes is None:
        return None
    rows, columns = codes.shape[:2]
    return Stored(surface, Grid(columns, rows, surface.width_mm, surface.height_mm), np.asarray(codes, np.uint8))
