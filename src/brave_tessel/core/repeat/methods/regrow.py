"""Regrow: a new sheet from samples of this one."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, ClassVar

import numpy as np
import numpy.typing as npt

from ...colour import encode_srgb
from ...errors import OutOfRangeError
from ...maps import MapKind, MapSet
from ...operation import Length, Seed, Value
from ...phrases import say
from ...sheet import Grid
from ..cut import Pin
from ..method import Method, mending
from ..regrow import Quilt, apply_quilt, quilt

QUILT_PX = 512
LARGEST_PX = 4096


@mending("mend.regrow", label="Regrow")
class Regrow(Method):
    """A new sheet of any size from patches of this one, laid so that it wraps. All maps move together.

    Efros and Freeman 2001; see :mod:`brave_tessel.core.repeat.regrow`.
    """

    note: ClassVar[str] = "new sheet from samples of this one"
    found_by: ClassVar[tuple[str, ...]] = ("width", "height", "block", "overlap", "seed")
    find_px: ClassVar[int] = QUILT_PX
    width: Annotated[float, Length(50, 5000, log=True, least=1, help="Width of the new sheet.")] = 600.0
    height: Annotated[float, Length(50, 5000, log=True, least=1, help="Height of the new sheet.")] = 600.0
    block: Annotated[
        float,
        Length(
            5,
            500,
            log=True,
            least=0.5,
            help="Size of the patches: larger than the largest thing that should stay whole.",
        ),
    ] = 120.0
    overlap: Annotated[
        float, Length(1, 200, log=True, least=0.2, help="Width in which patches lie over each other and are cut.")
    ] = 30.0
    seed: Annotated[int, Seed()] = 1

    @classmethod
    def fresh(cls, width_mm: float, height_mm: float) -> dict[str, Value]:
        least = min(width_mm, height_mm)
        return {
            "width": round(width_mm, 1),
            "height": round(height_mm, 1),
            "block": round(0.28 * least, 1),
            "overlap": round(0.07 * least, 1),
        }

    def closed(self, width_mm: float, height_mm: float) -> tuple[float, float]:
        return self.width, self.height

    def find(self, flat: MapSet, pins: Sequence[Pin]) -> Quilt:
        pitch = flat.grid.pitch_mm
        encoded = encode_srgb(np.clip(flat[MapKind.BASE_COLOUR], 0, 1)).astype(np.float32)
        across, down = flat.grid.mm_per_px
        shape = max(4, round(self.height / down)), max(4, round(self.width / across))
        if max(shape) > LARGEST_PX:
            raise OutOfRangeError(
                "Width",
                value=say("{width:g} mm", width=self.width),
                allowed=say("up to {largest_px:.0f} mm from this sample", largest_px=LARGEST_PX * pitch),
                remedy="Choose a smaller sheet.",
            )
        overlap = max(3, round(self.overlap / pitch))
        block = min(max(2 * overlap + 2, round(self.block / pitch)), min(encoded.shape[:2]) - 1, min(shape))
        return quilt(encoded, shape, block=block, overlap=min(overlap, (block - 1) // 2), seed=self.seed)

    def apply(self, flat: MapSet, found: Quilt) -> MapSet:
        across, down = flat.grid.mm_per_px
        px = max(4, round(self.width / across)), max(4, round(self.height / down))
        return apply_quilt(flat, found, Grid(*px, self.width, self.height))

    def seams_of(self, found: Quilt) -> npt.NDArray[np.bool_]:
        return found.seams
