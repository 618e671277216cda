"""A cast shadow lifted from a photo, told by two places of the same stuff: one in the light, one in the shadow.

What the two differ by is the light that the shadow lacks, a gain for each channel (as in Finlayson, Hordley, Lu and
Drew 2006, where log colours move along one direction from light into shadow). Where it lies is what is nearer to the
dark place than to the light one along that direction, seen broadly enough that the stuff's own grain does not count,
with its edge brought to the picture's (guided filter: He, Sun and Tang 2010). How much it lacks is then read anew from
both sides of that edge, where there is more of the stuff than at two places.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

import cv2
import numpy as np
import numpy.typing as npt

from ..operation import Colour, Fraction, Length, operation
from ..sheet import Grid, Raster
from .even_light import slow_part

_FLOOR = 1e-4
_LEAST_STOPS, _ENOUGH = 0.25, 400
_SEPARATE = 2.0
"""By how many deviations of the broad picture in light the two places have to differ."""


@dataclass(frozen=True, slots=True)
class Shadow:
    """How much of the light a shadow lacks: ``gain`` brings each channel back; ``share`` (H, W) how far each pixel lies
    in it. ``told`` is whether it stands out from the stuff's own tones.
    """

    gain: npt.NDArray[np.float64]
    share: Raster
    told: bool


def find_shadow(
    colour: Raster, grid: Grid, lit: tuple[float, float], shaded: tuple[float, float], *, size: float
) -> Shadow | None:
    """The shadow of linear colour (H, W, 3) that ``shaded`` lies in and ``lit`` does not, both mm, y up; each is read
    over ``size`` mm. None where the dark place is no darker.
    """
    tone = np.log(np.maximum(colour, _FLOOR)).astype(np.float32)
    light, dark = (_mean_at(tone, grid, place, size) for place in (lit, shaded))
    away = light - dark
    length = float(np.linalg.norm(away))
    if float(away.mean()) < _LEAST_STOPS * np.log(2) or length < 1e-6:
        return None
    sigma = max(1.0, size / 3 / grid.pitch_mm)
    share, broad = _share(tone, dark, away, sigma)
    inside, outside = share > 0.9, share < 0.1
    spread = max((float(broad[part].std()) for part in (inside, outside) if part.sum() > 50), default=0.0)
    told = length > _SEPARATE * spread
    near = _mean(share, max(1, round(2 * sigma)))
    inside, outside = inside & (near < 0.98), outside & (near > 0.02)
    if told and min(inside.sum(), outside.sum()) > _ENOUGH:
        closer = tone[outside].mean(0).astype(np.float64) - tone[inside].mean(0)
        if float(closer.mean()) > 0.5 * float(away.mean()):
            away = closer
            share, _ = _share(tone, tone[inside].mean(0).astype(np.float64), away, sigma)
    return Shadow(np.exp(away), share, told)


def _share(
    tone: Raster, dark: npt.NDArray[np.float64], away: npt.NDArray[np.float64], sigma: float
) -> tuple[Raster, Raster]:
    """How far each pixel lies in the shadow, and the broad picture that it is told by."""
    length = float(np.linalg.norm(away))
    along = tone @ (away / length).astype(np.float32)
    broad = slow_part(along, sigma)
    nearer = (broad - float(dark @ away) / length) / length
    share = np.clip((0.75 - nearer) / 0.5, 0, 1).astype(np.float32)
    # Once broadly, then closely on what that told, so that no wide rim is left along the edge.
    share = np.clip((_guided(share, along, max(2, round(sigma))) - 0.5) * 2.5 + 0.5, 0, 1)
    return np.clip(_guided(share, along, max(2, round(sigma / 4))), 0, 1), broad


def _mean_at(tone: Raster, grid: Grid, place: tuple[float, float], size: float) -> npt.NDArray[np.float64]:
    column, row = place[0] / grid.mm_per_px[0], grid.height_px - place[1] / grid.mm_per_px[1]
    reach = max(1, round(size / 2 / grid.pitch_mm))
    rows = slice(max(0, round(row) - reach), max(1, round(row) + reach + 1))
    columns = slice(max(0, round(column) - reach), max(1, round(column) + reach + 1))
    part = tone[rows, columns]
    if not part.size:
        part = tone
    return np.asarray(part.reshape(-1, 3).mean(0), np.float64)


def _guided(share: Raster, guide: Raster, reach: int, *, least: float = 0.02) -> Raster:
    """A share with its edges brought to those of a guide."""
    of_share, of_guide = _mean(share, reach), _mean(guide, reach)
    own = _mean(guide * guide, reach) - of_guide**2 + np.float32(least)
    slope = (_mean(share * guide, reach) - of_share * of_guide) / own
    return np.asarray(_mean(slope, reach) * guide + _mean(of_share - slope * of_guide, reach), np.float32)


def _mean(pixels: Raster, reach: int) -> Raster:
    return np.asarray(cv2.blur(pixels, (2 * reach + 1,) * 2, borderType=cv2.BORDER_REFLECT), np.float32)


@operation("gather.shadow", label="Lift a cast shadow")
def lift_shadow(
    grid: Grid,
    colour: Colour,
    *,
    strength: Annotated[float, Fraction(help="0 leaves the shadow as it fell, 1 lifts it wholly.")] = 0.0,
    size: Annotated[
        float, Length(5, 500, log=True, least=0.5, help="How broadly both places are read: a few units or stones.")
    ] = 60.0,
    lit_x: Annotated[float, Fraction(help="Where the place in the light lies, from the left.")] = 0.75,
    lit_y: Annotated[float, Fraction(help="Where the place in the light lies, from the foot.")] = 0.5,
    dark_x: Annotated[float, Fraction(help="Where the place in the shadow lies, from the left.")] = 0.25,
    dark_y: Annotated[float, Fraction(help="Where the place in the shadow lies, from the foot.")] = 0.5,
) -> Colour:
    """Bring the light back that a cast shadow lacks, told by two places of the same stuff; places are shares of the
    sheet. Where the second is no darker, or hardly stands out, nothing is changed.
    """
    if strength <= 0:
        return colour
    places = [(x * grid.width_mm, y * grid.height_mm) for x, y in ((lit_x, lit_y), (dark_x, dark_y))]
    found = find_shadow(np.asarray(colour), grid, places[0], places[1], size=size)
    if found is None or not found.told:
        return colour
    gain = np.log(found.gain).astype(np.float32) * np.float32(strength)
    return np.asarray(colour * np.exp(found.share[..., None] * gain), np.float32)
