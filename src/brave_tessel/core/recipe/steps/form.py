"""Shapes: masks grown and shrunk, distances, rims, slopes, and what light and hollows make of a relief."""

from __future__ import annotations

import math
from typing import Annotated

import cv2
import numpy as np
from scipy import ndimage

from ...kernels.relief import normal_of_height, occlusion
from ...lattice import units_many
from ...operation import Angle, Choice, Field, Fraction, Length, Pieces, Seed, operation
from ...relief.curvature import curvature
from ...relief.wrapped_blur import wrapped_gaussian
from ...sheet import Grid, Raster
from .move import slopes
from .rims import painted, rimmed

Reach = Annotated[float, Length(0.1, 200, log=True, least=0.01, help="How far it reaches.")]
_MASK = "Where the field is above a half counts as inside."


def distance_to(inside: np.typing.NDArray[np.bool_], grid: Grid, reach_mm: float) -> Raster:
    """Distance in mm of every pixel to the nearest one inside, wrapped, capped at a reach."""
    if not inside.any():
        return np.full(grid.shape, reach_mm, np.float32)
    across, down = grid.mm_per_px
    margin = min(math.ceil(reach_mm / min(across, down)) + 1, max(grid.shape))
    padded = np.pad(~inside, margin, mode="wrap")
    if abs(across / down - 1) < 2e-3:
        # Pixels as good as square: the exact transform of the picture library (Felzenszwalb and Huttenlocher 2012) is
        # quicker, and off by a thousandth of the way at most.
        pitch = np.float32(grid.pitch_mm)
        away = cv2.distanceTransform(padded.astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_PRECISE) * pitch
    else:
        away = ndimage.distance_transform_edt(padded, sampling=(down, across))
    away = away[margin:-margin, margin:-margin]
    return np.asarray(np.minimum(away, reach_mm), np.float32)


def signed_distance(field: Raster, grid: Grid, reach_mm: float) -> Raster:
    """Distance to where a field crosses a half, mm: positive inside, capped; refined below a pixel by the field
    itself.
    """
    inside = field > 0.5
    half = np.float32(0.5 * grid.pitch_mm)
    out = np.where(inside, distance_to(~inside, grid, reach_mm) - half, half - distance_to(inside, grid, reach_mm))
    gx, gy = slopes(field, grid)
    steep = np.sqrt(gx * gx + gy * gy)
    near = (np.abs(out) < 1.5 * grid.pitch_mm) & (steep > 0.02 / grid.pitch_mm)
    fine = (field - np.float32(0.5)) / np.maximum(steep, 1e-9)
    return np.asarray(np.where(near & (np.abs(fine) < 2 * grid.pitch_mm), fine, out), np.float32)


def _edge(distance: Raster, grid: Grid) -> Raster:
    """A mask from a signed distance, one pixel soft."""
    return np.asarray(np.clip(distance / np.float32(grid.pitch_mm) + np.float32(0.5), 0, 1), np.float32)


@operation("form.distance", label="Distance to a mask", version=2)
def distance(
    grid: Grid,
    field: Field,
    *,
    reach: Reach = 20.0,
    side: Annotated[str, Choice("outside", "inside", "both", help="On which side it is measured.")] = "outside",
) -> Field:
    """1 at the mask's edge, falling to 0 at the reach; Euclidean and wrapped. Where the field is above a half
    counts as inside.
    """
    # A pixel further than asked, so that what lies beyond the reach is 0 and not half a pixel's worth.
    return _by_distance(signed_distance(field, grid, reach + 2 * grid.pitch_mm), reach, side)


@operation("form.distance", label="Distance to a mask", superseded=True)
def _distance_before(
    grid: Grid,
    field: Field,
    *,
    reach: Reach = 20.0,
    side: Annotated[str, Choice("outside", "inside", "both", help="On which side it is measured.")] = "outside",
) -> Field:
    """1 at the mask's edge; at the reach half a pixel's worth is left."""
    return _by_distance(signed_distance(field, grid, reach), reach, side)


def _by_distance(away: Raster, reach: float, side: str) -> Raster:
    if side == "outside":
        return np.asarray(np.clip(1 + away / np.float32(reach), 0, 1), np.float32)
    if side == "inside":
        return np.asarray(np.clip(1 - away / np.float32(reach), 0, 1), np.float32)
    return np.asarray(np.clip(1 - np.abs(away) / np.float32(reach), 0, 1), np.float32)


@operation("form.grow", label="Grow or shrink")
def grow(
    grid: Grid,
    field: Field,
    *,
    by: Annotated[
        float, Length(-30, 30, least=-500, most=500, help="How far a mask's edge moves out; below 0 it moves in.")
    ] = 3.0,
) -> Field:
    """A mask with its edge moved. Where the field is above a half counts as inside."""
    return _edge(signed_distance(field, grid, abs(by) + 4 * grid.pitch_mm) + np.float32(by), grid)


@operation("form.open", label="Open or close")
def open_(
    grid: Grid,
    field: Field,
    *,
    by: Annotated[
        float,
        Length(
            -30,
            30,
            least=-500,
            most=500,
            help="Above 0 parts narrower than twice this go; below 0 gaps narrower than that close.",
        ),
    ] = 3.0,
) -> Field:
    """Shrink and grow again (opening), or grow and shrink (closing). Where the field is above a half counts as
    inside.
    """
    first = grow(grid, field, by=-by)
    return np.asarray(grow(grid, first, by=by), np.float32)


@operation("form.fill", label="Fill holes")
def fill(
    grid: Grid,
    field: Field,
    *,
    largest: Annotated[float, Length(0.5, 300, log=True, least=0.1, help="Holes up to this width are filled.")] = 30.0,
) -> Field:
    """Gaps inside a mask that are smaller than a width are filled."""
    return _by_size(field, grid, largest, holes=True)


@operation("form.keep", label="Keep by size")
def keep(
    grid: Grid,
    field: Field,
    *,
    least: Annotated[
        float, Length(0.5, 300, log=True, least=0.1, help="Parts narrower than this are taken out.")
    ] = 10.0,
) -> Field:
    """Parts of a mask that are smaller than a width are taken out."""
    return _by_size(field, grid, least, holes=False)


def _by_size(field: Raster, grid: Grid, width: float, *, holes: bool) -> Raster:
    inside = field <= 0.5 if holes else field > 0.5
    labels, count = ndimage.label(inside)
    labels = _joined(labels, count)
    area = np.bincount(labels.ravel()) * grid.mm_per_px[0] * grid.mm_per_px[1]
    small = area < math.pi * width * width / 4
    small[0] = False
    flip = small[labels]
    return np.asarray(np.where(flip, 1.0 if holes else 0.0, field), np.float32)


def _joined(labels: np.typing.NDArray[np.int32], count: int) -> np.typing.NDArray[np.int32]:
    """Labels of parts that meet over the sheet's edges made one."""
    parent = np.arange(count + 1)

    def root(k: int) -> int:
        while parent[k] != k:
            parent[k] = parent[parent[k]]
            k = parent[k]
        return k

    for a, b in ((labels[0], labels[-1]), (labels[:, 0], labels[:, -1])):
        for x, y in np.unique(np.stack([a, b], 1)[(a > 0) & (b > 0)], axis=0):
            parent[root(int(x))] = root(int(y))
    return np.array([root(k) for k in range(count + 1)], np.int32)[labels]


@operation("form.rim", label="Rims of pieces")
def rim(
    grid: Grid,
    pieces: Pieces,
    *,
    width: Annotated[float, Length(0.2, 60, log=True, least=0.05, help="Width of the rim.")] = 4.0,
    round_: Annotated[float, Fraction(help="0 a straight slope, 1 a rounded one.")] = 0.4,
) -> Field:
    """1 at the edge of each piece and in joints, 0 where the rim ends inside."""
    t = np.clip(pieces.edge / np.float32(width), 0, 1)
    arch = np.sqrt(np.clip(1 - (1 - t) ** 2, 0, 1))
    return np.asarray(1 - (t + np.float32(round_) * (arch - t)), np.float32)


@operation("form.joints", label="Joints")
def joints(grid: Grid, pieces: Pieces) -> Field:
    """1 in joints, 0 on pieces, one pixel soft."""
    return np.asarray(1 - np.clip(pieces.edge / np.float32(grid.pitch_mm) + np.float32(0.5), 0, 1), np.float32)


PROFILES = ("straight", "round", "hollow", "step")


@operation("form.bevel", label="Bevel")
def bevel(
    grid: Grid,
    field: Field,
    *,
    width: Annotated[float, Length(0.2, 100, log=True, least=0.05, help="How far in the slope goes.")] = 6.0,
    profile: Annotated[str, Choice(*PROFILES, help="Shape of the slope.")] = "round",
) -> Field:
    """A mask with a slope inside its edge: 0 outside, 1 from the width inward. Where the field is above a half
    counts as inside.
    """
    t = np.clip(signed_distance(field, grid, width) / np.float32(width), 0, 1)
    if profile == "round":
        t = np.sqrt(np.clip(1 - (1 - t) ** 2, 0, 1))
    elif profile == "hollow":
        t = 1 - np.sqrt(np.clip(1 - t * t, 0, 1))
    elif profile == "step":
        t = 0.5 * (t > 0.02) + 0.5 * (t > 0.55)
    return np.asarray(t, np.float32)


@operation("form.spread", label="Spread outward")
def spread(grid: Grid, field: Field, value: Field, *, reach: Reach = 20.0) -> Field:
    """The second field's value at the nearest place inside a mask, carried outward and falling to 0 at the reach."""
    inside = field > 0.5
    if not inside.any():
        return np.zeros(grid.shape, np.float32)
    across, down = grid.mm_per_px
    margin = min(math.ceil(reach / min(across, down)) + 1, max(grid.shape))
    away, nearest = ndimage.distance_transform_edt(
        np.pad(~inside, margin, mode="wrap"), sampling=(down, across), return_indices=True
    )
    rows, columns = (index[margin:-margin, margin:-margin] for index in nearest)
    carried = value[(rows - margin) % grid.height_px, (columns - margin) % grid.width_px]
    return np.asarray(carried * np.clip(1 - away[margin:-margin, margin:-margin] / reach, 0, 1), np.float32)


@operation("form.skeleton", label="Skeleton")
def skeleton(
    grid: Grid,
    field: Field,
    *,
    width: Annotated[float, Length(0.2, 30, log=True, least=0.05, help="Width of the line.")] = 2.0,
) -> Field:
    """The middle line of a mask as a line of a width: the ridge of the distance inside it."""
    reach = 0.25 * min(grid.width_mm, grid.height_mm)
    inside = signed_distance(field, grid, reach)
    fine = wrapped_gaussian(inside, grid.pitch_mm, grid)
    bend = (
        np.roll(fine, 1, 1) + np.roll(fine, -1, 1) + np.roll(fine, 1, 0) + np.roll(fine, -1, 0) - 4 * fine
    ) / np.float32(grid.pitch_mm)
    ridge = (bend < -0.35) & (inside > grid.pitch_mm)
    return _edge(np.float32(0.5 * width) - distance_to(ridge, grid, width + 4 * grid.pitch_mm), grid)


Rise = Annotated[float, Length(0.1, 100, log=True, least=0.001, help="Height of the field from 0 to 1.")]


@operation("form.slope", label="Slope")
def slope(
    grid: Grid,
    field: Field,
    *,
    rise: Rise = 4.0,
    steepest: Annotated[float, Angle(5, 89, help="What is so steep or steeper becomes 1.")] = 45.0,
) -> Field:
    """How steep a relief is: 0 where it is flat, 1 at the steepest."""
    gx, gy = slopes(field, grid)
    angle = np.degrees(np.arctan(np.sqrt(gx * gx + gy * gy) * np.float32(rise)))
    return np.asarray(np.clip(angle / np.float32(steepest), 0, 1), np.float32)


@operation("form.facing", label="Facing a side")
def facing(
    grid: Grid,
    field: Field,
    *,
    rise: Rise = 4.0,
    angle: Annotated[float, Angle(-180, 180, help="Which side, anticlockwise from the right; 90 faces up.")] = 90.0,
) -> Field:
    """How far a relief looks to one side: 0.5 where it is flat, 1 steeply to it, 0 steeply away."""
    gx, gy = slopes(field, grid)
    toward = -(
        gx * np.float32(math.cos(math.radians(angle))) + gy * np.float32(math.sin(math.radians(angle)))
    ) * np.float32(rise)
    return np.asarray(0.5 + np.arctan(toward) / np.float32(math.pi), np.float32)


@operation("form.curvature", label="Ridges and hollows")
def bend(
    grid: Grid,
    field: Field,
    *,
    rise: Rise = 4.0,
    radius: Annotated[float, Length(0.5, 100, log=True, least=0.05, help="At what size it is judged.")] = 6.0,
) -> Field:
    """0.5 flat, above it ridges and edges, below it hollows."""
    return curvature(np.asarray(field * np.float32(rise), np.float32), grid, radius_mm=radius)


@operation("form.occlusion", label="Occlusion")
def shaded(
    grid: Grid,
    field: Field,
    *,
    rise: Rise = 4.0,
    reach: Annotated[float, Length(1, 100, log=True, least=0.1, help="How far neighbours shade.")] = 12.0,
) -> Field:
    """How much of the sky is seen, cosine-weighted, by horizons in eight directions."""
    return occlusion(np.ascontiguousarray(field * np.float32(rise)), grid, reach_mm=reach)


@operation("form.light", label="Lit from a side")
def lit(
    grid: Grid,
    field: Field,
    *,
    rise: Rise = 4.0,
    angle: Annotated[float, Angle(-180, 180, help="Where the light stands, anticlockwise from the right.")] = 135.0,
    height: Annotated[float, Angle(5, 90, help="How high it stands.")] = 40.0,
) -> Field:
    """How bright a matte relief is under one light: the cosine to it."""
    normal = normal_of_height(np.ascontiguousarray(field * np.float32(rise)), grid)
    a, h = math.radians(angle), math.radians(height)
    light = np.array([math.cos(a) * math.cos(h), math.sin(a) * math.cos(h), math.sin(h)], np.float32)
    return np.asarray(np.clip(normal @ light, 0, 1), np.float32)


def of_each(pieces: Pieces, salt: int, seed: int) -> Raster:
    """A random number in [0, 1) for each piece, one more for the joint."""
    return units_many(np.arange(pieces.count + 1), np.full(pieces.count + 1, salt), seed)


@operation("piece.number", label="Random value of pieces", version=2, rehashed=True)
def number(
    grid: Grid,
    pieces: Pieces,
    *,
    in_joints: Annotated[float, Fraction(help="Value in the joints.")] = 0.0,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """One random value in [0, 1) for each piece."""
    values = of_each(pieces, 51, seed)
    return np.asarray(np.where(pieces.number >= 0, values[pieces.number], np.float32(in_joints)), np.float32)


@rimmed("piece.share", label="Pick a share of pieces")
def share(
    grid: Grid,
    pieces: Pieces,
    *,
    share: Annotated[float, Fraction(help="Share of pieces that are picked.")] = 0.3,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """1 on picked pieces, 0 elsewhere; edges one pixel soft."""
    picked = (of_each(pieces, 52, seed) < share).astype(np.float32)
    picked[-1] = 0
    return painted(grid, pieces, picked[:, None])[..., 0]


@operation("piece.drop", label="Missing pieces", version=2, rehashed=True)
def drop(
    grid: Grid,
    pieces: Pieces,
    *,
    share: Annotated[float, Fraction(0, 0.5, least=0, most=1, help="Share of pieces that are missing.")] = 0.08,
    seed: Annotated[int, Seed()] = 1,
) -> Pieces:
    """Some pieces taken out; the joint goes on where they were."""
    gone = of_each(pieces, 55, seed) < share
    out = (pieces.number >= 0) & gone[pieces.number]
    number = np.where(out, np.int32(-1), pieces.number)
    edge = np.where(out, -np.abs(pieces.edge), pieces.edge)
    return Pieces(np.asarray(number, np.int32), np.asarray(edge, np.float32), pieces.across, pieces.up, pieces.count)


@operation("piece.edge", label="Distance to the edge")
def to_edge(grid: Grid, pieces: Pieces, *, reach: Reach = 20.0) -> Field:
    """0 at a piece's edge and in joints, 1 at the reach inside."""
    return np.asarray(np.clip(pieces.edge / np.float32(reach), 0, 1), np.float32)


@operation("piece.tilt", label="Lean of pieces", version=2, rehashed=True)
def lean(
    grid: Grid,
    pieces: Pieces,
    *,
    amount: Annotated[float, Fraction(help="How far pieces lean at most.")] = 1.0,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Each piece a plane that leans its own way, in [0, 1], a half at its middle and in joints."""
    turn = (2 * math.pi * of_each(pieces, 56, seed)).astype(np.float32)
    much = (np.float32(0.5 * amount) * of_each(pieces, 57, seed)).astype(np.float32)
    at = pieces.number
    rise = (pieces.across * np.cos(turn)[at] + pieces.up * np.sin(turn)[at]) * much[at] * np.float32(0.7)
    return np.asarray(np.where(at >= 0, np.clip(np.float32(0.5) + rise, 0, 1), np.float32(0.5)), np.float32)


@operation("piece.gradient", label="Gradient across pieces", version=2, rehashed=True)
def gradient(
    grid: Grid,
    pieces: Pieces,
    *,
    angle: Annotated[float, Angle(-180, 180, help="Which way it rises within a piece.")] = 0.0,
    stray: Annotated[float, Angle(0, 180, help="How far pieces differ.")] = 0.0,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """0 to 1 from one side of each piece to the other; a half in joints."""
    turn = np.radians(angle + stray * (2 * of_each(pieces, 53, seed) - 1)).astype(np.float32)[pieces.number]
    along = pieces.across * np.cos(turn) + pieces.up * np.sin(turn)
    return np.asarray(np.where(pieces.number >= 0, np.clip(0.5 + 0.5 * along, 0, 1), np.float32(0.5)), np.float32)


@operation("piece.size", label="Size of pieces")
def size(grid: Grid, pieces: Pieces) -> Field:
    """How large each piece is against the largest, in [0, 1]; 0 in joints."""
    counts = np.bincount(pieces.number[pieces.number >= 0].ravel(), minlength=pieces.count + 1).astype(np.float32)
    scaled = np.sqrt(counts / max(float(counts.max()), 1.0)).astype(np.float32)
    return np.asarray(np.where(pieces.number >= 0, scaled[pieces.number], np.float32(0)), np.float32)


@operation("piece.dome", label="Dome of pieces", version=2, rehashed=True)
def dome(
    grid: Grid,
    pieces: Pieces,
    *,
    width: Annotated[float, Length(0.5, 200, log=True, least=0.05, help="How far in the face still rises.")] = 30.0,
    flat: Annotated[float, Fraction(help="0 a tent, 1 a flat top with a round edge.")] = 0.6,
    corners: Annotated[float, Length(0, 60, least=0, most=500, help="How far corners are rounded off.")] = 0.0,
    spread: Annotated[float, Fraction(help="How far pieces differ in height.")] = 0.2,
    seed: Annotated[int, Seed()] = 1,
) -> Field:
    """Each piece rounded like a stone, in [0, 1]; 0 in joints."""
    inside = pieces.edge
    if corners > 0:
        # Blurred, the distance falls off at corners first; moved back, its zero cuts them off.
        inside = np.minimum(
            inside, wrapped_gaussian(np.maximum(inside, 0), 0.5 * corners, grid) - np.float32(0.3 * corners)
        )
    t = np.clip(inside / np.float32(width), 0, 1)
    arch = np.clip(1 - (1 - t) ** 2, 0, 1) ** np.float32(0.5 + 0.45 * (1 - flat))
    tall = (1 - np.float32(spread) * of_each(pieces, 54, seed))[pieces.number]
    return np.asarray(np.where(inside > 0, arch * tall, 0), np.float32)
