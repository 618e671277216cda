"""Where-rules: each says in [0, 1] where a layer lies; they combine top to bottom."""

from __future__ import annotations

import math
from typing import Annotated

import numpy as np

from ..colour import encode_srgb, hex_to_linear, luminance
from ..kernels.relief import normal_of_height
from ..kernels.wrapped import sample_moved
from ..lattice import units_many
from ..operation import (
    Angle,
    BelowLayer,
    Choice,
    Colour,
    Field,
    Fraction,
    Gathered,
    Ground,
    Length,
    Pieces,
    Seed,
    Stops,
    Toggle,
    Whole,
    operation,
)
from ..recipe.steps.form import signed_distance
from ..recipe.steps.noise import clouds
from ..relief.estimate import wrapped_gaussian
from ..sheet import Grid, Raster
from .strokes import lay_strokes

MODES = ("keep", "add", "cut", "multiply", "lighter", "darker")
"""How a rule goes together with those above it."""
Fade = Annotated[float, Length(0, 5, least=0, most=100, help="Height over which the cover fades at either limit.")]


# A Gaussian is done with at four standard deviations: what is left beyond is under a ten-thousandth.
_SIGMAS = 4.0


@operation("rule.shape", label="Shape of the rule", reach=lambda v: abs(v["spread"]) * 1.05 + _SIGMAS * v["soften"] / 2)
def shaped(
    grid: Grid,
    field: Field,
    *,
    low: Annotated[float, Fraction(least=-4, most=5, help="What counts as nothing.")] = 0.0,
    high: Annotated[float, Fraction(least=-4, most=5, help="What counts as all.")] = 1.0,
    invert: Annotated[bool, Toggle(help="Everywhere but there.")] = False,
    spread: Annotated[
        float, Length(-30, 30, least=-500, most=500, help="How far its edge moves out; below 0 it moves in.")
    ] = 0.0,
    soften: Annotated[float, Length(0, 60, least=0, most=2000, help="How far its edge is blurred.")] = 0.0,
    strength: Annotated[float, Fraction(help="How much the rule counts.")] = 1.0,
) -> Field:
    """What a rule gives, stretched, turned over, spread and softened; ``strength`` counts where rules combine."""
    made = field
    if (low, high) != (0, 1):
        made = np.clip((made - np.float32(low)) / np.float32((high - low) or 1e-6), 0, 1)
    if invert:
        made = np.asarray(1 - made, np.float32)
    if spread != 0:
        moved = signed_distance(made, grid, abs(spread) + 4 * grid.pitch_mm) + np.float32(spread)
        edge = np.clip(moved / np.float32(grid.pitch_mm) + np.float32(0.5), 0, 1)
        made = np.asarray(np.maximum(made, edge) if spread > 0 else np.minimum(made, edge), np.float32)
    return wrapped_gaussian(made, soften / 2, grid) if soften > 0 else made


@operation("where.noise", label="Noise")
def by_noise(
    grid: Grid,
    *,
    size: Annotated[
        float,
        Length(
            5, 1000, log=True, least=0.5, help="Size of the patches; snapped so that whole patches fill the repeat."
        ),
    ] = 180.0,
    cover: Annotated[float, Fraction(help="Share of the sheet that is covered.")] = 0.5,
    soften: Annotated[float, Fraction(help="0 a crisp edge, 1 a long fade.")] = 0.15,
    octaves: Annotated[int, Whole(1, 10, help="How ragged the edge is.")] = 7,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Patches of fractal noise over a threshold chosen for the cover."""
    noise = clouds(grid, size=size, octaves=octaves, gain=0.6, seed=seed)
    # The noise spans five standard deviations about one half; the threshold follows its normal law.
    from scipy.special import ndtri

    at = 0.5 - 0.2 * float(ndtri(min(max(cover, 1e-4), 1 - 1e-4)))
    width = max(0.5 * soften, 0.02)
    t = np.clip((noise - np.float32(at - width / 2)) * np.float32(1 / width), 0, 1)
    return np.asarray(t * t * (3 - 2 * t), np.float32)


@operation("where.height", label="By height", reach=lambda v: 0.0)
def by_height(
    grid: Grid,
    ground: Ground,
    *,
    above: Annotated[
        float, Length(-20, 20, least=-1000, most=1000, help="Covered from this height of the ground upward.")
    ] = -20.0,
    below: Annotated[
        float, Length(-20, 20, least=-1000, most=1000, help="Covered up to this height of the ground.")
    ] = 0.0,
    soften: Fade = 0.3,
) -> Field:
    """Between two heights of what lies beneath, mm."""
    width = np.float32(max(soften, 1e-3))
    rising = np.clip((ground.height - np.float32(above)) / width + np.float32(0.5), 0, 1)
    falling = np.clip((np.float32(below) - ground.height) / width + np.float32(0.5), 0, 1)
    return np.asarray(np.minimum(rising, falling), np.float32)


Radius = Annotated[float, Length(0.5, 60, log=True, least=0.05, most=2000, help="How wide the shapes are that count.")]


@operation("where.slope", label="By slope", reach=lambda v: _SIGMAS * v["radius"] / 4)
def by_slope(
    grid: Grid,
    ground: Ground,
    *,
    above: Annotated[float, Angle(0, 90, help="Covered from this slope.")] = 0.0,
    below: Annotated[float, Angle(0, 90, help="Covered up to this slope.")] = 25.0,
    soften: Annotated[float, Angle(0, 45, help="Slope over which the cover fades.")] = 8.0,
    radius: Radius = 1.0,
    side: Annotated[str, Choice("any", "one side", help="Whether it matters which way a slope falls.")] = "any",
    towards: Annotated[
        float, Angle(-180, 180, help="The way slopes fall that count: 0 right, 90 up, −90 down.")
    ] = -90.0,
) -> Field:
    """Between two slopes of what lies beneath, in degrees from level; only those that fall one way, if wanted."""
    normal = normal_of_height(np.ascontiguousarray(wrapped_gaussian(ground.height, radius / 4, grid)), grid)
    slope = np.degrees(np.arctan2(np.hypot(normal[..., 0], normal[..., 1]), normal[..., 2]))
    width = np.float32(max(soften, 0.1))
    made = np.minimum(np.clip((slope - above) / width + 0.5, 0, 1), np.clip((below - slope) / width + 0.5, 0, 1))
    if side != "any":
        a = math.radians(towards)
        fall = normal[..., 0] * math.cos(a) + normal[..., 1] * math.sin(a)
        made = made * np.clip(fall / np.maximum(np.hypot(normal[..., 0], normal[..., 1]), 1e-3), 0, 1)
    return np.asarray(made, np.float32)


def _against_mean(ground: Ground, radius: float, grid: Grid) -> Raster:
    """Height over the mean of its neighbourhood, mm."""
    return np.asarray(ground.height - wrapped_gaussian(ground.height, radius / 2, grid), np.float32)


@operation("where.hollows", label="Hollows", reach=lambda v: _SIGMAS * v["radius"] / 2)
def hollows(
    grid: Grid,
    ground: Ground,
    *,
    radius: Radius = 8.0,
    depth: Annotated[
        float,
        Length(
            0.05,
            10,
            log=True,
            least=0.005,
            most=500,
            help="How deep a hollow lies beneath its neighbourhood where it is fully covered.",
        ),
    ] = 0.6,
    from_depth: Annotated[
        float, Length(0, 5, least=-500, most=500, help="How deep a hollow must be to be covered at all.")
    ] = 0.0,
) -> Field:
    """Where the ground lies beneath its neighbourhood."""
    return np.asarray(
        np.clip((-_against_mean(ground, radius, grid) - np.float32(from_depth)) / np.float32(depth), 0, 1), np.float32
    )


@operation("where.edges", label="Edges", reach=lambda v: _SIGMAS * v["radius"] / 2)
def edges(
    grid: Grid,
    ground: Ground,
    *,
    radius: Radius = 4.0,
    height: Annotated[
        float,
        Length(
            0.02,
            10,
            log=True,
            least=0.002,
            most=500,
            help="How far an edge stands over its neighbourhood where it is fully covered.",
        ),
    ] = 0.4,
    from_height: Annotated[
        float, Length(0, 5, least=-500, most=500, help="How far it must stand out to be covered at all.")
    ] = 0.05,
) -> Field:
    """Where the ground stands over its neighbourhood: what rubs off first."""
    return np.asarray(
        np.clip((_against_mean(ground, radius, grid) - np.float32(from_height)) / np.float32(height), 0, 1), np.float32
    )


@operation("where.id", label="By ID colour")
def by_id(
    grid: Grid,
    colour: Colour,
    *,
    source: Annotated[str, Gathered(help="A source with an ID map, or any picture in flat colours.")] = "",
    takes: Annotated[str, Choice("kind ID", "piece ID", "colour", help="Which of its maps is read.")] = "kind ID",
    colours: Annotated[str, Stops(help="Colours that are covered; pick them on the board.")] = "#000000,#000000",
    reach: Annotated[float, Fraction(0, 0.5, most=2, help="How far from such a colour still counts.")] = 0.03,
) -> Field:
    """Where a source's map has one of some colours."""
    codes = np.asarray(encode_srgb(np.clip(colour, 0, 1)), np.float32)
    made = np.zeros(grid.shape, bool)
    for stop in colours.split(","):
        paint = np.asarray(encode_srgb(np.array(hex_to_linear(stop.partition("@")[0]))), np.float32)
        made |= np.abs(codes - paint).max(2) <= max(reach, 0.004)
    return made.astype(np.float32)


@operation("where.picture", label="Picture")
def by_picture(
    grid: Grid,
    colour: Colour,
    *,
    source: Annotated[str, Gathered(help="A gathered picture that has its real size.")] = "",
    takes: Annotated[
        str, Choice("lightness", "red", "green", "blue", "opacity", help="What of it is the cover.")
    ] = "lightness",
    across: Annotated[int, Whole(1, 12, most=64, unit="×", help="Whole repeats of it across.")] = 1,
    up: Annotated[int, Whole(1, 12, most=64, unit="×", help="Whole repeats of it up.")] = 1,
) -> Field:
    """The lightness, or one channel, of a gathered picture."""
    light = (
        luminance(colour) if takes in {"lightness", "opacity"} else colour[..., ["red", "green", "blue"].index(takes)]
    )
    return np.asarray(np.clip(encode_srgb(np.clip(light, 0, 1)), 0, 1), np.float32)


@operation("where.gradient", label="Gradient")
def gradient(
    grid: Grid,
    *,
    from_right: Annotated[float, Length(0, 1000, least=-1e5, most=1e5, help="Where it begins, from the left.")] = 0.0,
    from_up: Annotated[float, Length(0, 1000, least=-1e5, most=1e5, help="Where it begins, from the foot.")] = 0.0,
    to_right: Annotated[float, Length(0, 1000, least=-1e5, most=1e5, help="Where it is full, from the left.")] = 0.0,
    to_up: Annotated[float, Length(0, 1000, least=-1e5, most=1e5, help="Where it is full, from the foot.")] = 300.0,
) -> Field:
    """From nothing to all between two points, and back again where the sheet closes.

    It runs along the axis that the points lie further apart on, so that it closes; full at its end, nothing half a
    repeat on.
    """
    level = abs(to_right - from_right) > abs(to_up - from_up)
    whole, place = grid.across(upright=level)
    start, end = (from_right, to_right) if level else (from_up, to_up)
    length = max(abs(end - start), 1e-3)
    away = np.abs((place - end + whole / 2) % whole - whole / 2)
    return np.asarray(grid.spread(np.clip(1 - away / length, 0, 1), upright=level), np.float32)


@operation("where.band", label="Band")
def band(
    grid: Grid,
    *,
    at: Annotated[
        float,
        Length(0, 1000, least=-1e5, most=1e5, help="Where the middle of the band lies, from the foot or the left."),
    ] = 150.0,
    width: Annotated[float, Length(1, 1000, log=True, least=0.1, help="Width of the band.")] = 120.0,
    soft: Annotated[float, Length(0, 200, least=0, most=1e4, help="How soft its edges are.")] = 20.0,
    runs: Annotated[str, Choice("level", "upright", help="Which way it runs.")] = "level",
) -> Field:
    """A band over the whole sheet."""
    upright = runs == "upright"
    whole, place = grid.across(upright=upright)
    away = np.abs((place - at + whole / 2) % whole - whole / 2)
    line = np.clip((width / 2 - away) / max(soft, grid.pitch_mm) + 0.5, 0, 1)
    return np.asarray(grid.spread(line, upright=upright), np.float32)


@operation("where.shape", label="Shape")
def by_shape(
    grid: Grid,
    *,
    shape: Annotated[str, Choice("disc", "box", "ring", help="What is drawn.")] = "disc",
    right: Annotated[
        float, Length(0, 1000, least=-1e5, most=1e5, help="Where its middle lies, from the left.")
    ] = 150.0,
    up: Annotated[float, Length(0, 1000, least=-1e5, most=1e5, help="Where its middle lies, from the foot.")] = 150.0,
    width: Annotated[float, Length(1, 1000, log=True, least=0.1, help="Its width.")] = 160.0,
    height: Annotated[float, Length(1, 1000, log=True, least=0.1, help="Its height.")] = 160.0,
    turn: Annotated[float, Angle(-180, 180, help="Turned anticlockwise.")] = 0.0,
    soft: Annotated[float, Length(0, 200, least=0, most=1e4, help="How soft its edge is.")] = 20.0,
) -> Field:
    """One shape on the wrapped sheet."""
    dx = (grid.x_mm()[None, :] - right + grid.width_mm / 2) % grid.width_mm - grid.width_mm / 2
    dy = (grid.y_mm()[:, None] - up + grid.height_mm / 2) % grid.height_mm - grid.height_mm / 2
    a = math.radians(turn)
    x, y = dx * math.cos(a) + dy * math.sin(a), -dx * math.sin(a) + dy * math.cos(a)
    if shape == "box":
        inside = np.minimum(width / 2 - np.abs(x), height / 2 - np.abs(y))
    else:
        mean = math.sqrt(width * height) / 2
        inside = mean * (1 - np.hypot(2 * x / width, 2 * y / height))
        inside = 0.15 * mean - np.abs(inside - 0.15 * mean) if shape == "ring" else inside
    return np.asarray(np.clip(inside / max(soft, grid.pitch_mm) + 0.5, 0, 1), np.float32)


@operation("where.after", label="After another layer", reach=lambda v: math.hypot(v["right"], v["up"]))
def after(
    grid: Grid,
    field: Field,
    *,
    layer: Annotated[str, BelowLayer(help="A layer beneath this one.")] = "",
    takes: Annotated[
        str, Choice("where it shows", "its coverage", help="Where it lies on top now, or where its own rules put it.")
    ] = "where it shows",
    right: Annotated[float, Length(-60, 60, least=-5000, most=5000, help="Moved to the right.")] = 0.0,
    up: Annotated[float, Length(-60, 60, least=-5000, most=5000, help="Moved up.")] = 0.0,
) -> Field:
    """Where another layer lies; spread, softened and moved it makes halos, contact shadows, rust beneath bolts."""
    if right == 0 and up == 0:
        return field
    full = np.ones(grid.shape, np.float32)
    return sample_moved(np.ascontiguousarray(field), full * np.float32(-right), full * np.float32(-up), grid)


@operation("where.pieces", label="Random pieces")
def by_pieces(
    grid: Grid,
    pieces: Pieces,
    *,
    layer: Annotated[str, BelowLayer(help="A layer beneath this one whose recipe has pieces.")] = "",
    share: Annotated[float, Fraction(help="Share of the pieces that are covered.")] = 0.3,
    vary: Annotated[float, Fraction(help="How far the cover of single pieces varies.")] = 0.0,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Some of the pieces of a layer beneath, each covered whole."""
    count = max(pieces.count, 1)
    chosen = units_many(np.arange(count), np.full(count, 71), seed) < share
    cover = chosen * (1 - np.float32(vary) * units_many(np.arange(count), np.full(count, 72), seed))
    face = np.clip(pieces.edge / np.float32(grid.pitch_mm) + np.float32(0.5), 0, 1)
    return np.asarray(
        np.where(pieces.number >= 0, cover.astype(np.float32)[np.maximum(pieces.number, 0)], 0) * face, np.float32
    )


@operation("where.painted", label="Painted")
def painted(grid: Grid, ground: Ground) -> Field:
    """Brush strokes, stored as paths in mm and replayed at any size; they wrap over every edge."""
    return lay_strokes(np.zeros(grid.shape, np.float32), ground.strokes, grid)


@operation("where.recipe", label="Recipe")
def by_recipe(grid: Grid, ground: Ground) -> Field:
    """Steps of its own: what they yield as opacity is the cover; *What lies beneath* is a step there."""
    return np.ones(grid.shape, np.float32)


def combine(coverage: Raster | None, rule: Raster, mode: str, strength: float = 1.0) -> Raster:
    """One more rule: ``keep`` only there, ``add`` there too, ``cut`` it away there, ``multiply`` by it, ``lighter`` the
    greater, ``darker`` the lesser of both.

    ``coverage`` None means nothing has been said: everywhere for those that take away, nowhere for those that add.
    """
    s = np.float32(strength)
    if mode in {"add", "lighter"}:
        weighed = rule if strength == 1 else s * rule
        if coverage is None:
            return np.asarray(weighed, np.float32)
        return np.asarray(
            coverage + (1 - coverage) * weighed if mode == "add" else np.maximum(coverage, weighed), np.float32
        )
    rest = 1 - rule if mode == "cut" else rule
    left = rest if strength == 1 else 1 - s + s * rest
    if coverage is None:
        return np.asarray(left, np.float32)
    return np.asarray(np.minimum(coverage, left) if mode == "darker" else coverage * left, np.float32)
