"""From luminance to what a screen shows: exposure, white point, view transform."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

import numpy as np

from ..colour import decode_srgb, encode_srgb
from ..operation import Choice, Fraction, called, settings
from ..sheet import AnyArray

TRUE, WIDE, STRAIGHT = "true mid tones", "wide range", "straight"
KNEES = {TRUE: 0.8, WIDE: 0.35, STRAIGHT: 1.0}
"""From where on a transform bends towards white, in linear light."""
AS_LIT, TYPED = "as lit", "typed"
EV_FACTOR = 1.2
"""Luminance that shows as 1.0 is 1.2 · 2^EV100 cd/m² (ISO 12232 saturation, as in Lagarde and de Rousiers 2014)."""


@settings("light.eye", label="Exposure and white")
@dataclass(frozen=True, slots=True)
class EyeSettings:
    """How light becomes a picture."""

    ev100: Annotated[
        float, called("Exposure (EV 100)", Fraction(-2, 17, least=-12, most=24, help="Higher is darker."))
    ] = 14.56
    white: Annotated[str, called("White point", Choice(AS_LIT, TYPED, help="What looks neutral."))] = AS_LIT
    kelvin: Annotated[
        float, called("White", Fraction(2000, 10_000, least=1700, most=25_000, unit="K", help="A typed white point."))
    ] = 6500.0
    transform: Annotated[
        str, called("View transform", Choice(TRUE, WIDE, STRAIGHT, help="How bright light bends into white."))
    ] = TRUE


def shoulder(linear: AnyArray, knee: float) -> AnyArray:
    """Linear light unchanged up to ``knee``, above it bent so that it reaches 1 at infinity; smooth in value and slope.

    y = k + (1 − k) o / (o + 1 − k) with o = x − k.
    """
    if knee >= 1:
        return np.clip(linear, 0, 1)
    over = np.maximum(linear - knee, 0)
    return np.asarray(np.minimum(linear, knee) + (1 - knee) * over / (over + 1 - knee))


def unshoulder(shown: AnyArray, knee: float) -> AnyArray:
    """The way back of :func:`shoulder`, below 1."""
    if knee >= 1:
        return np.asarray(shown)
    share = np.clip((shown - knee) / (1 - knee), 0, 1 - 1e-7)
    return np.asarray(np.minimum(shown, knee) + (1 - knee) * share / (1 - share))


def show(linear: AnyArray, transform: str = TRUE) -> AnyArray:
    """SRGB code values in [0, 1] of exposed linear light."""
    return np.asarray(encode_srgb(np.clip(shoulder(np.maximum(linear, 0), KNEES[transform]), 0, 1)))


def unshow(codes: AnyArray, transform: str = TRUE) -> AnyArray:
    """Exposed linear light of sRGB code values in [0, 1]."""
    return unshoulder(decode_srgb(np.asarray(codes)), KNEES[transform])


TABLE = 1 << 14


def tone_table(transform: str) -> np.ndarray:  # type: ignore[type-arg]
    """Codes (TABLE,) uint8 of exposed light x, found at x / (1 + x) · TABLE: fine where it is dark, without an end."""
    share = (np.arange(TABLE) + 0.5) / TABLE
    out = np.rint(show(share / (1 - share), transform) * 255).astype(np.uint8)
    out.flags.writeable = False
    return np.asarray(out)
