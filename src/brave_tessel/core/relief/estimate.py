"""Relief and roughness estimated from one picture; honest guesses, labelled as such."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Any

import numpy as np

from ..colour import decode_srgb, encode_srgb, hex_to_linear, lab_of, luminance
from ..operation import Angle, Colour, Field, Fraction, Length, Paint, Toggle, called, operation
from ..sheet import Grid, Raster
from .shading import height_from_shading
from .told import Bands, ToldRelief, tell_relief
from .wrapped_blur import wrapped_gaussian


def _idle(values: Mapping[str, Any]) -> set[str]:
    """What the picture tells is not asked for; of one side's light no bands of tone are made."""
    told = {"rise", "broad", "fine"} if values["as_told"] else set()
    return told | (_TONES if values["one_side"] else _SIDE)


_SIDE, _TONES = {"light_bearing", "light_height"}, {"broad_weight", "middle_weight", "fine", "grain"}


@operation("estimate.height", label="Height from the picture", idle=_idle)
def height_from_colour(
    grid: Grid,
    colour: Colour,
    *,
    as_told: Annotated[
        bool, called("As the picture tells", Toggle(help="Rise and sizes are read from the picture; off to say them."))
    ] = False,
    one_side: Annotated[
        bool,
        called(
            "Lit from one side",
            Toggle(help="For one material under a low light: what faces the light is bright, and its height follows."),
        ),
    ] = False,
    light_bearing: Annotated[
        float, Angle(help="Where the light came from, anticlockwise from the right; 90 is from above.")
    ] = 90.0,
    light_height: Annotated[float, Angle(5, 80, help="How high the light stood over the sheet.")] = 30.0,
    rise: Annotated[
        float, Length(0, 20, least=-200, most=200, help="Height of the relief, from its low to its high parts.")
    ] = 4.0,
    broad: Annotated[
        float,
        Length(2, 200, log=True, least=0.1, help="Shapes up to this size count; broader tone is taken for colour."),
    ] = 40.0,
    broad_weight: Annotated[float, Fraction(0, 2, most=4, help="How much the broad shapes count.")] = 1.0,
    middle_weight: Annotated[float, Fraction(0, 2, most=4, help="How much shapes between broad and fine count.")] = 1.0,
    fine: Annotated[float, Length(0.2, 20, log=True, least=0.05, help="Where shape ends and fine grain begins.")] = 3.0,
    grain: Annotated[float, Fraction(0, 1, most=4, help="How much of the fine grain becomes relief.")] = 0.35,
    sharpen: Annotated[float, Fraction(0, 2, most=6, help="How far edges are steepened.")] = 0.0,
    sharpen_radius: Annotated[
        float, Length(0.2, 20, log=True, least=0.05, help="Width over which edges are steepened.")
    ] = 1.5,
    leave_out: Annotated[
        str, Paint(help="A colour that is only colour and no relief, such as a stain or moss.")
    ] = "#808080",
    leave_out_reach: Annotated[
        float, Fraction(help="How far from that colour is left out too; 0 leaves out nothing.")
    ] = 0.0,
    dark_is_high: Annotated[bool, Toggle(help="Turns the relief over, where joints are lighter than stones.")] = False,
) -> Field:
    """Height in mm about 0 from lightness in three bands of wavelength; an estimate, mean 0.

    ``rise`` spans five standard deviations, by a fixed scale for tone, not by the picture's extremes. Of one material
    lit from one side the slopes towards that light are read from its shading; a ``rise`` of 4 mm takes them as they
    are.
    """
    if as_told:
        found = told_values(tell_relief(colour, grid), one_side=one_side)
        rise, broad, fine = found["rise"], found["broad"], found["fine"]
    tone = encode_srgb(np.clip(luminance(colour), 0, 1)).astype(np.float32)
    if leave_out_reach > 0:
        tone = _without(tone, colour, leave_out, leave_out_reach, broad / 2, grid)
    if one_side:
        light = np.asarray(decode_srgb(tone), np.float32)
        relief = height_from_shading(light, grid, bearing=light_bearing, height=light_height, broad=broad)
        relief *= np.float32(rise / TRUE_RISE)
    else:
        bands = Bands(broad, fine, grain, broad_weight, middle_weight)
        relief = np.float32(rise) * bands.shaped(tone, grid)
    if sharpen > 0:
        relief += np.float32(sharpen) * (relief - wrapped_gaussian(relief, sharpen_radius / 2, grid))
    return np.asarray(-relief if dark_is_high else relief, np.float32)


TRUE_RISE = 4.0
"""At this rise (the default) a height integrated from slopes is true to them."""


def told_values(found: ToldRelief, *, one_side: bool) -> dict[str, float]:
    """What a picture tells as parameters of the estimate; its shading tells the rise itself."""
    return {**found.values, "rise": TRUE_RISE} if one_side else found.values


def _without(tone: Raster, colour: Raster, left_out: str, reach: float, sigma_mm: float, grid: Grid) -> Raster:
    """Tone in which pixels of a colour take the local tone of the others; reach 1 is 100 in CIELAB."""
    away = np.linalg.norm(lab_of(colour) - lab_of(hex_to_linear(left_out)), axis=2).astype(np.float32)
    kept = np.clip(away / np.float32(100 * reach) - np.float32(0.5), 0, 1)
    share = np.maximum(wrapped_gaussian(kept, sigma_mm, grid), np.float32(1e-3))
    local = wrapped_gaussian(tone * kept, sigma_mm, grid) / share
    return np.asarray(tone * kept + local * (1 - kept), np.float32)


@operation("estimate.roughness", label="Roughness from the picture")
def roughness_from_colour(
    grid: Grid,
    colour: Colour,
    *,
    mean: Annotated[float, Fraction(help="Mean roughness.")] = 0.65,
    contrast: Annotated[
        float, Fraction(-1, 1, help="How far lighter parts are rougher; below 0 they are smoother.")
    ] = 0.3,
) -> Field:
    """Roughness in [0, 1]: a mean, moved by local lightness."""
    tone = encode_srgb(np.clip(luminance(colour), 0, 1)).astype(np.float32)
    return np.asarray(np.clip(mean + contrast * (tone - tone.mean()), 0.02, 1), np.float32)
