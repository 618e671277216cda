"""Relief and roughness estimated from one picture; honest guesses, labelled as such."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ..colour import encode_srgb, hex_to_linear, lab_of, luminance
from ..operation import Colour, Field, Fraction, Length, Paint, Toggle, called, operation
from ..sheet import Grid, Raster
from .told import Bands, tell_relief
from .wrapped_blur import wrapped_gaussian


@operation("estimate.height", label="Height from the picture")
def height_from_colour(
    grid: Grid,
    colour: Colour,
    *,
    as_told: Annotated[
        bool, called("As the picture tells", Toggle(help="Rise and sizes are read from the picture; off to say them."))
    ] = False,
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

    ``rise`` spans five standard deviations, by a fixed scale for tone, not by the picture's extremes.
    """
    if as_told:
        found = tell_relief(colour, grid)
        rise, broad, fine = found.rise, found.broad, found.fine
    tone = encode_srgb(np.clip(luminance(colour), 0, 1)).astype(np.float32)
    if leave_out_reach > 0:
        tone = _without(tone, colour, leave_out, leave_out_reach, broad / 2, grid)
    bands = Bands(broad, fine, grain, broad_weight, middle_weight)
    relief = np.float32(rise) * bands.shaped(tone, grid)
    if sharpen > 0:
        relief += np.float32(sharpen) * (relief - wrapped_gaussian(relief, sharpen_radius / 2, grid))
    return np.asarray(-relief if dark_is_high else relief, np.float32)


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
