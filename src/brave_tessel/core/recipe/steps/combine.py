"""Two results joined: by arithmetic, by the modes of the compositing standard, by mask, by height."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated, Any

import numpy as np

from ...colour import decode_srgb, encode_srgb
from ...kernels.bands import pointwise
from ...kernels.normals import joined_normals
from ...operation import Choice, Colour, Field, Fraction, Length, Vector, called, operation
from ...sheet import Grid, Raster

SEPARABLE = (
    "over",
    "multiply",
    "screen",
    "overlay",
    "darken",
    "lighten",
    "dodge",
    "burn",
    "hard light",
    "soft light",
    "difference",
    "exclusion",
)
NON_SEPARABLE = ("hue", "saturation", "colour", "luminosity")


def _dodge(b: Raster, s: Raster) -> Raster:
    return np.where(b <= 0, 0, np.where(s >= 1, 1, np.minimum(1, b / np.maximum(1 - s, 1e-9))))


def _burn(b: Raster, s: Raster) -> Raster:
    return np.where(b >= 1, 1, np.where(s <= 0, 0, 1 - np.minimum(1, (1 - b) / np.maximum(s, 1e-9))))


def _soft(b: Raster, s: Raster) -> Raster:
    d = np.where(b <= 0.25, ((16 * b - 12) * b + 4) * b, np.sqrt(np.maximum(b, 0)))
    return np.where(s <= 0.5, b - (1 - 2 * s) * b * (1 - b), b + (2 * s - 1) * (d - b))


def _hard(b: Raster, s: Raster) -> Raster:
    return np.asarray(np.where(s <= 0.5, 2 * b * s, b + (2 * s - 1) - b * (2 * s - 1)), np.float32)


_FORMULAS: dict[str, Callable[[Raster, Raster], Any]] = {
    "over": lambda b, s: s,
    "multiply": lambda b, s: b * s,
    "screen": lambda b, s: b + s - b * s,
    "overlay": lambda b, s: _hard(s, b),
    "darken": np.minimum,
    "lighten": np.maximum,
    "dodge": _dodge,
    "burn": _burn,
    "hard light": _hard,
    "soft light": _soft,
    "difference": lambda b, s: np.abs(b - s),
    "exclusion": lambda b, s: b + s - 2 * b * s,
}


def blended(mode: str, b: Raster, s: Raster) -> Raster:
    """B(Cb, Cs) of W3C Compositing and Blending Level 1, on values in [0, 1]."""
    return np.asarray(_FORMULAS[mode](b, s), np.float32)


def _lum(c: Raster) -> Raster:
    return np.asarray(c @ np.array([0.3, 0.59, 0.11], np.float32), np.float32)


def _clipped(c: Raster) -> Raster:
    light, low, high = _lum(c)[..., None], c.min(-1, keepdims=True), c.max(-1, keepdims=True)
    c = np.asarray(np.where(low < 0, light + (c - light) * light / np.maximum(light - low, 1e-9), c), np.float32)
    return np.asarray(
        np.where(high > 1, light + (c - light) * (1 - light) / np.maximum(high - light, 1e-9), c), np.float32
    )


def _with_lum(c: Raster, light: Raster) -> Raster:
    return _clipped(c + (light - _lum(c))[..., None])


def _with_sat(c: Raster, sat: Raster) -> Raster:
    low, high = c.min(-1, keepdims=True), c.max(-1, keepdims=True)
    return np.asarray(np.where(high > low, (c - low) * sat[..., None] / np.maximum(high - low, 1e-9), 0), np.float32)


def blended_colours(mode: str, b: Raster, s: Raster) -> Raster:
    """B(Cb, Cs) for colours (…, 3), also the four modes that are not separable."""
    if mode not in NON_SEPARABLE:
        return blended(mode, b, s)
    sat_b, sat_s = b.max(-1) - b.min(-1), s.max(-1) - s.min(-1)
    if mode == "hue":
        return _with_lum(_with_sat(s, sat_b), _lum(b))
    if mode == "saturation":
        return _with_lum(_with_sat(b, sat_s), _lum(b))
    return _with_lum(s, _lum(b)) if mode == "colour" else _with_lum(b, _lum(s))


Strength = Annotated[float, Fraction(help="How far the upper one shows.")]


@operation("combine.blend", label="Blend")
@pointwise
def blend(
    grid: Grid,
    lower: Field,
    upper: Field,
    *,
    mode: Annotated[str, Choice(*SEPARABLE, help="How the upper one is laid on the lower.")] = "multiply",
    strength: Strength = 1.0,
) -> Field:
    """Two fields by a mode of W3C Compositing and Blending Level 1."""
    return np.asarray(
        lower + np.float32(strength) * (blended(mode, np.clip(lower, 0, 1), np.clip(upper, 0, 1)) - lower), np.float32
    )


@operation("combine.colours", label="Blend colours")
@pointwise
def blend_colours(
    grid: Grid,
    lower: Colour,
    upper: Colour,
    *,
    mode: Annotated[
        str, Choice(*SEPARABLE, *NON_SEPARABLE, help="How the upper one is laid on the lower.")
    ] = "multiply",
    strength: Strength = 1.0,
    on: Annotated[
        str,
        Choice(
            "encoded",
            "linear",
            help="Whether the formulas are used on sRGB codes, as pictures usually are, or on light.",
        ),
    ] = "encoded",
) -> Colour:
    """Two colours by a mode of W3C Compositing and Blending Level 1."""
    if on == "linear":
        mixed = blended_colours(mode, np.clip(lower, 0, 1), np.clip(upper, 0, 1))
    else:
        codes = blended_colours(
            mode,
            encode_srgb(np.clip(lower, 0, 1)).astype(np.float32),
            encode_srgb(np.clip(upper, 0, 1)).astype(np.float32),
        )
        mixed = np.asarray(decode_srgb(codes), np.float32)
    return np.asarray(lower + np.float32(strength) * (mixed - lower), np.float32)


_ARITHMETIC: dict[str, Callable[[Raster, Raster], Any]] = {
    "add": lambda a, b: a + b,
    "subtract": lambda a, b: a - b,
    "multiply": lambda a, b: a * b,
    "divide": lambda a, b: a / np.where(np.abs(b) < 1e-6, np.float32(1e-6), b),
    "lowest": np.minimum,
    "highest": np.maximum,
    "difference": lambda a, b: np.abs(a - b),
    "mean": lambda a, b: np.float32(0.5) * (a + b),
}
SUMS = tuple(_ARITHMETIC)


@operation("combine.sum", label="Arithmetic")
@pointwise
def arithmetic(
    grid: Grid,
    first: Field,
    second: Field,
    *,
    how: Annotated[str, Choice(*SUMS, help="What is done with both.")] = "add",
    share: Annotated[
        float, Fraction(-2, 2, least=-100, most=100, help="The second is multiplied by this first.")
    ] = 1.0,
) -> Field:
    """Two fields by plain arithmetic, nothing cut off."""
    b = second * np.float32(share)
    return np.asarray(_ARITHMETIC[how](first, b), np.float32)


@operation("combine.smooth", label="Smooth lowest or highest")
@pointwise
def smooth(
    grid: Grid,
    first: Field,
    second: Field,
    *,
    takes: Annotated[str, called("Result", Choice("highest", "lowest", help="Which of both is taken."))] = "highest",
    soft: Annotated[
        float, Fraction(0.001, 1, least=1e-4, most=10, help="Over how much difference one passes into the other.")
    ] = 0.15,
) -> Field:
    """The higher or lower of two fields with a rounded seam between them (polynomial smooth minimum)."""
    sign = np.float32(1 if takes == "lowest" else -1)
    a, b = first * sign, second * sign
    h = np.clip(0.5 + 0.5 * (b - a) / np.float32(soft), 0, 1)
    low = b + (a - b) * h - np.float32(soft) * h * (1 - h)
    return np.asarray(low * sign, np.float32)


@operation("combine.by_mask", label="Mix by a mask")
@pointwise
def by_mask(grid: Grid, lower: Field, upper: Field, mask: Field) -> Field:
    """The upper field where the mask is 1, the lower where it is 0."""
    return np.asarray(lower + np.clip(mask, 0, 1) * (upper - lower), np.float32)


@operation("combine.colours_by_mask", label="Mix colours by a mask")
@pointwise
def colours_by_mask(grid: Grid, lower: Colour, upper: Colour, mask: Field) -> Colour:
    """The upper colour where the mask is 1, the lower where it is 0, in linear light."""
    return np.asarray(lower + np.clip(mask, 0, 1)[..., None] * (upper - lower), np.float32)


@operation("combine.join", label="Join by height")
@pointwise
def join(
    grid: Grid,
    lower: Field,
    upper: Field,
    *,
    lift: Annotated[float, Length(-10, 10, least=-500, most=500, help="How far the upper one is raised first.")] = 0.0,
    feather: Annotated[
        float, Length(0, 5, least=0, most=200, help="Over how much difference in height one passes into the other.")
    ] = 0.2,
) -> Field:
    """Two heights in mm: the higher one shows, mixed over the feather."""
    raised = upper + np.float32(lift)
    if feather < 1e-6:
        return np.asarray(np.maximum(lower, raised))
    share = np.clip(0.5 + (raised - lower) / np.float32(feather), 0, 1)
    return np.asarray(lower + share * (raised - lower), np.float32)


@operation("combine.winner", label="Who is higher")
def winner(
    grid: Grid,
    lower: Field,
    upper: Field,
    *,
    feather: Annotated[
        float, Length(0, 5, least=0, most=200, help="Over how much difference in height one passes into the other.")
    ] = 0.2,
) -> Field:
    """1 where the upper height is higher, 0 where the lower is; a mask for colours that go with them."""
    soft = max(feather, 1e-4)
    return np.asarray(np.clip(0.5 + (upper - lower) / np.float32(soft), 0, 1), np.float32)


@operation("combine.band", label="Copy a band")
def band(
    grid: Grid,
    lower: Field,
    upper: Field,
    *,
    at: Annotated[float, Length(0, 1000, least=-1e5, most=1e5, help="Where the band's middle lies.")] = 200.0,
    width: Annotated[float, Length(1, 1000, log=True, least=0.1, help="Width of the band.")] = 120.0,
    soft: Annotated[float, Length(0, 100, least=0, most=1e4, help="How soft its edges are.")] = 10.0,
    runs: Annotated[str, Choice("across", "upright", help="Which way it runs.")] = "across",
) -> Field:
    """The upper field within a band, the lower outside it; the band wraps."""
    whole, place = (grid.height_mm, grid.y_mm()) if runs == "across" else (grid.width_mm, grid.x_mm())
    away = np.abs((place - at + whole / 2) % whole - whole / 2)
    share = np.clip((width / 2 - away) / max(soft, grid.pitch_mm) + 0.5, 0, 1).astype(np.float32)
    mask = share[:, None] if runs == "across" else share[None, :]
    return np.asarray(lower + mask * (upper - lower), np.float32)


NORMALS = ("reoriented", "whiteout", "slopes added", "plain")


@operation("combine.normals", label="Combine normals")
def normals(
    grid: Grid,
    base: Vector,
    detail: Vector,
    *,
    how: Annotated[str, Choice(*NORMALS, help="How detail is laid on the base.")] = "reoriented",
    strength: Strength = 1.0,
) -> Vector:
    """Detail normals on base normals (Barré-Brisebois and Hill 2012, "Blending in Detail")."""
    return joined_normals(base, detail, NORMALS.index(how), strength)
