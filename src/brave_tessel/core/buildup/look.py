"""What a layer's maps look like before they are laid: colour, roughness, metalness, height."""

from __future__ import annotations

from typing import Annotated

import numpy as np

from ..colour import hex_to_linear, luminance
from ..maps import MapKind, MapSet
from ..operation import Angle, Fraction, Paint, Toggle, called, operation
from ..recipe.steps.colours import linear_of_oklab, oklab_of
from ..sheet import Grid, Raster


@operation("look.adjust", label="Look")
def adjust(
    grid: Grid,
    maps: MapSet,
    *,
    hue: Annotated[float, Angle(-180, 180, help="Turns every hue round the circle.")] = 0.0,
    saturation: Annotated[float, Fraction(0, 2, least=0, most=10, help="0 grey, 1 as it is, more is stronger.")] = 1.0,
    lightness: Annotated[float, Fraction(-1, 1, least=-8, most=8, unit="stops", help="Lighter or darker.")] = 0.0,
    contrast: Annotated[
        float, Fraction(0, 2, least=0, most=10, help="About its own mean: below 1 flatter, above 1 stronger.")
    ] = 1.0,
    tint: Annotated[str, Paint(help="A colour it is tinted with.")] = "#C9A36A",
    tinted: Annotated[float, Fraction(help="How far it takes the tint; its light and dark stay.")] = 0.0,
    rough_shift: Annotated[
        float, called("Roughness shift", Fraction(-1, 1, help="Rougher or smoother by so much."))
    ] = 0.0,
    rough_low: Annotated[
        float, called("Least roughness", Fraction(help="Roughness where it is smoothest: 0 becomes this."))
    ] = 0.0,
    rough_high: Annotated[
        float, called("Most roughness", Fraction(help="Roughness where it is roughest: 1 becomes this."))
    ] = 1.0,
    metal_shift: Annotated[
        float, called("Metalness shift", Fraction(-1, 1, help="More or less metallic by so much."))
    ] = 0.0,
    height_gain: Annotated[
        float, Fraction(-2, 2, least=-100, most=100, help="Its relief is multiplied by this.")
    ] = 1.0,
    green_inverted: Annotated[
        bool, Toggle(help="Turns its normals' green round, for a map made the other way.")
    ] = False,
) -> MapSet:
    """The layer's maps with their colour, roughness, metalness and relief changed; at its defaults they stay the
    same object.
    """
    changed: dict[str, Raster] = {}
    if MapKind.BASE_COLOUR in maps and (hue, saturation, lightness, contrast, tinted) != (0, 1, 0, 1, 0):
        changed["base_colour"] = _coloured(
            maps[MapKind.BASE_COLOUR], hue, saturation, lightness, contrast, tint, tinted
        )
    if MapKind.ROUGHNESS in maps and (rough_shift, rough_low, rough_high) != (0, 0, 1):
        spread = np.float32(rough_low) + maps[MapKind.ROUGHNESS] * np.float32(rough_high - rough_low)
        changed["roughness"] = np.clip(spread + np.float32(rough_shift), 0, 1)
    if metal_shift != 0:
        changed["metalness"] = np.clip(maps.or_default(MapKind.METALNESS) + np.float32(metal_shift), 0, 1)
    if MapKind.HEIGHT in maps and height_gain != 1:
        changed["height"] = maps[MapKind.HEIGHT] * np.float32(height_gain)
    if MapKind.NORMAL in maps and (height_gain != 1 or green_inverted):
        normal = maps[MapKind.NORMAL] * np.array(
            [height_gain, -height_gain if green_inverted else height_gain, 1], np.float32
        )
        changed["normal"] = np.asarray(normal / np.linalg.norm(normal, axis=2, keepdims=True), np.float32)
    return maps.with_maps(**changed) if changed else maps


def _coloured(
    colour: Raster, hue: float, saturation: float, lightness: float, contrast: float, tint: str, tinted: float
) -> Raster:
    made = colour
    if contrast != 1:
        mean = made.mean((0, 1), dtype=np.float64).astype(np.float32)
        made = np.maximum(mean + np.float32(contrast) * (made - mean), 0)
    if hue != 0 or saturation != 1:
        lab = oklab_of(made)
        turn = np.radians(hue)
        cosine, sine = np.float32(saturation * np.cos(turn)), np.float32(saturation * np.sin(turn))
        a, b = lab[..., 1].copy(), lab[..., 2].copy()
        lab[..., 1], lab[..., 2] = a * cosine - b * sine, a * sine + b * cosine
        made = np.maximum(linear_of_oklab(lab), 0)
    if tinted > 0:
        paint = np.array(hex_to_linear(tint), np.float32)
        light = luminance(made)[..., None] / np.float32(max(float(luminance(paint[None])[0]), 1e-4))
        made = made + np.float32(tinted) * (light * paint - made)
    return np.asarray(np.clip(made * np.float32(2.0**lightness), 0, 1), np.float32)
