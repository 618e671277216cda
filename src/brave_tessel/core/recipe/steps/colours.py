"""Colour steps: ramps, tints, hue and lightness, channels, masks from colours."""

from __future__ import annotations

from typing import Annotated

import numpy as np
import numpy.typing as npt

from ...colour import decode_srgb, encode_srgb, hex_to_linear, lab_of, luminance
from ...kernels.bands import pointwise
from ...kernels.ramps import look_up
from ...operation import Angle, Choice, Colour, Field, Fraction, Paint, Pieces, Stops, called, operation
from ...operation import Seed as SeedParam
from ...sheet import Grid, Raster
from .form import of_each
from .rims import painted, rimmed

_F = npt.NDArray[np.float64]
_TABLE = 1024
SPACES = ("linear", "encoded", "even")
# Björn Ottosson, "A perceptual color space for image processing" (2020), OKLab, public domain.
_TO_LMS = np.array(
    [
        [0.4122214708, 0.5363325363, 0.0514459929],
        [0.2119034982, 0.6806995451, 0.1073969566],
        [0.0883024619, 0.2817188376, 0.6299787005],
    ]
)
_TO_OK = np.array(
    [
        [0.2104542553, 0.7936177850, -0.0040720468],
        [1.9779984951, -2.4285922050, 0.4505937099],
        [0.0259040371, 0.7827717662, -0.8086757660],
    ]
)


def oklab_of(linear: npt.ArrayLike) -> _F:
    """OKLab of linear sRGB, (…, 3)."""
    return np.asarray(np.cbrt(np.maximum(np.asarray(linear, np.float64), 0) @ _TO_LMS.T) @ _TO_OK.T)


def linear_of_oklab(lab: npt.ArrayLike) -> _F:
    """Linear sRGB of OKLab, (…, 3); what no sRGB colour can be is cut off."""
    return np.asarray(np.clip((np.asarray(lab) @ np.linalg.inv(_TO_OK).T) ** 3 @ np.linalg.inv(_TO_LMS).T, 0, 1))


def stops_of(text: str) -> tuple[_F, _F]:
    """Places (n,) in rising order and linear colours (n, 3) of a ramp's text."""
    parts = [part.partition("@") for part in text.split(",")]
    places = np.array([float(place) if at else k / max(1, len(parts) - 1) for k, (_, at, place) in enumerate(parts)])
    colours = np.array([hex_to_linear(colour.strip()) for colour, _, _ in parts])
    order = np.argsort(places, kind="stable")
    return places[order], colours[order]


def ramp_table(text: str, space: str) -> Raster:
    """A ramp as a table (1024, 3) of linear colours."""
    places, colours = stops_of(text)
    into = {"linear": lambda c: c, "encoded": encode_srgb, "even": oklab_of}[space]
    back = {"linear": lambda c: c, "encoded": decode_srgb, "even": linear_of_oklab}[space]
    t, mixed = np.linspace(0, 1, _TABLE), np.asarray(into(colours))
    return np.asarray(back(np.stack([np.interp(t, places, mixed[:, k]) for k in range(3)], 1)), np.float32)


@operation("colour.stops", label="Ramp of colours")
def stops(
    grid: Grid,
    field: Field,
    *,
    colours: Annotated[str, Stops(help="From 0 to 1.")] = "#3B3A36,#8C8474,#D9D2C0",
    mixed: Annotated[
        str, Choice(*SPACES, help="Between stops in light, in sRGB codes, or in even steps for the eye (OKLab).")
    ] = "even",
) -> Colour:
    """Several colours spread over a field in [0, 1]."""
    return look_up(field, ramp_table(colours, mixed))


@rimmed("colour.pieces", label="Ramp over pieces")
def over_pieces(
    grid: Grid,
    pieces: Pieces,
    *,
    colours: Annotated[str, Stops(help="Each piece takes one at random.")] = "#5A4A3A,#8A7458,#B59B74",
    joint: Annotated[str, Paint(help="Colour of the joint.")] = "#8E887B",
    mixed: Annotated[
        str, Choice(*SPACES, help="Between stops in light, in sRGB codes, or in even steps for the eye (OKLab).")
    ] = "even",
    seed: Annotated[int, SeedParam()] = 1,
) -> Colour:
    """Every piece one colour of a ramp; edges one pixel soft."""
    table = ramp_table(colours, mixed)
    palette = table[(of_each(pieces, 61, seed) * (_TABLE - 1)).astype(np.int32)]
    palette[-1] = hex_to_linear(joint)
    return painted(grid, pieces, palette)


@operation("colour.plain", label="One colour")
def plain(grid: Grid, *, colour: Annotated[str, Paint(help="The colour.")] = "#B9B2A3") -> Colour:
    """One colour everywhere."""
    return np.ascontiguousarray(np.broadcast_to(np.asarray(hex_to_linear(colour), np.float32), (*grid.shape, 3)))


@operation("colour.tint", label="Tint")
@pointwise
def tint(
    grid: Grid,
    colour: Colour,
    *,
    tint: Annotated[str, Paint(help="What everything leans to.")] = "#C8B58A",
    amount: Annotated[float, Fraction(help="How far.")] = 0.3,
) -> Colour:
    """Multiply with a colour, brightness kept."""
    by = np.asarray(hex_to_linear(tint), np.float32)
    by = by / max(float(luminance(by[None])[0]), 1e-4)
    return np.asarray(np.clip(colour * (1 + np.float32(amount) * (by - 1)), 0, 1), np.float32)


@operation("colour.hsl", label="Hue, saturation, lightness")
@pointwise
def hsl(
    grid: Grid,
    colour: Colour,
    *,
    hue: Annotated[float, Angle(-180, 180, help="Turns all hues.")] = 0.0,
    saturation: Annotated[float, Fraction(0, 2, least=0, most=4, help="1 leaves it, 0 is grey.")] = 1.0,
    lightness: Annotated[float, Fraction(-0.5, 0.5, least=-1, most=1, help="Raises or lowers everything.")] = 0.0,
) -> Colour:
    """Turned and stretched in OKLab, where hue and lightness stay apart."""
    lab = oklab_of(colour)
    a = np.radians(hue)
    u, v = lab[..., 1] * saturation, lab[..., 2] * saturation
    lab = np.stack([lab[..., 0] + lightness, u * np.cos(a) - v * np.sin(a), u * np.sin(a) + v * np.cos(a)], -1)
    return np.asarray(linear_of_oklab(lab), np.float32)


@operation("colour.vary", label="Vary a colour by a field")
@pointwise
def vary(
    grid: Grid,
    colour: Colour,
    field: Field,
    *,
    lightness: Annotated[float, Fraction(-1, 1, least=-2, most=2, help="How much lighter where the field is 1.")] = 0.3,
    warmth: Annotated[float, Fraction(-1, 1, least=-2, most=2, help="How much warmer where the field is 1.")] = 0.0,
) -> Colour:
    """Lighter and warmer where a field is high, darker and cooler where it is low; a half leaves it."""
    t = (field - np.float32(0.5)) * 2
    gain = np.exp2(t * np.float32(lightness))
    warm = t * np.float32(0.35 * warmth)
    return np.asarray(np.clip(colour * np.stack([gain * (1 + warm), gain, gain * (1 - warm)], 2), 0, 1), np.float32)


@operation("colour.channel", label="One channel")
def channel(
    grid: Grid,
    colour: Colour,
    *,
    takes: Annotated[
        str, called("Channel", Choice("brightness", "red", "green", "blue", help="What is taken."))
    ] = "brightness",
) -> Field:
    """One channel as a field, in light; or its luminance."""
    if takes == "brightness":
        return np.asarray(luminance(colour), np.float32)
    return np.ascontiguousarray(colour[..., ("red", "green", "blue").index(takes)])


@operation("colour.join", label="Join channels")
@pointwise
def join(grid: Grid, red: Field, green: Field, blue: Field) -> Colour:
    """Three fields as red, green and blue light."""
    return np.ascontiguousarray(np.clip(np.stack([red, green, blue], 2), 0, 1), np.float32)


@operation("colour.mask", label="Mask of a colour")
@pointwise
def mask(
    grid: Grid,
    colour: Colour,
    *,
    wanted: Annotated[str, Paint(help="The colour looked for.")] = "#808080",
    reach: Annotated[float, Fraction(0, 60, most=200, unit="ΔE", help="How far from it still counts (CIELAB).")] = 15.0,
    soft: Annotated[float, Fraction(0, 40, least=0, most=200, unit="ΔE", help="Over how much further it fades.")] = 8.0,
) -> Field:
    """1 where the colour is like another."""
    away = np.linalg.norm(lab_of(np.clip(colour, 0, 1)) - lab_of(np.asarray(hex_to_linear(wanted))), axis=-1)
    return np.asarray(np.clip((reach + soft - away) / max(soft, 1e-3), 0, 1), np.float32)


@operation("colour.match", label="Match a colour's spread")
def match(
    grid: Grid, colour: Colour, like: Colour, *, amount: Annotated[float, Fraction(help="How far.")] = 1.0
) -> Colour:
    """Mean and spread of the second in CIELAB given to the first (Reinhard et al. 2001, in OKLab)."""
    here, there = oklab_of(colour), oklab_of(like)
    mean_here, mean_there = here.mean((0, 1)), there.mean((0, 1))
    scale = there.std((0, 1)) / np.maximum(here.std((0, 1)), 1e-4)
    made = linear_of_oklab((here - mean_here) * np.minimum(scale, 8) + mean_there)
    return np.asarray(colour + np.float32(amount) * (made.astype(np.float32) - colour), np.float32)


@operation("colour.plausible", label="Keep plausible")
def plausible(
    grid: Grid,
    colour: Colour,
    *,
    darkest: Annotated[
        float, Fraction(0, 0.2, least=0, most=1, help="No channel is below this, in light; 0.013 is code 30.")
    ] = 0.013,
    lightest: Annotated[
        float, Fraction(0.5, 1, least=0, most=1, help="No channel is above this, in light; 0.871 is code 240.")
    ] = 0.871,
) -> Colour:
    """Base colour kept within what real materials reflect (common practice)."""
    return np.clip(colour, np.float32(min(darkest, lightest)), np.float32(max(darkest, lightest)))
