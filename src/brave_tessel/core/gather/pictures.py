"""The further pictures of a map set, brought onto the straight sheet as maps with one convention."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from ..colour import decode_srgb
from ..job.document import Picture
from ..maps import MapKind, MapSet
from ..sheet import Grid, Raster
from .lens import STRAIGHT, Lens
from .names import GLOSSINESS, SPECULAR
from .roles import two_channels
from .several import SAME_PATCH, aligned, lessened
from .specular import metalness_of
from .straighten import Corners, straighten

LIGHT_ROLES = frozenset({MapKind.BASE_COLOUR.value, SPECULAR, SAME_PATCH})
"""Roles whose pixels are colour, stored with the sRGB curve."""
_CHANNEL = {"r": 0, "g": 1, "b": 2, "a": 3}


def role_kind(role: str) -> MapKind | None:
    """The map a role becomes; None for roles that become none (specular, unknown)."""
    if role == GLOSSINESS:
        return MapKind.ROUGHNESS
    return MapKind(role) if role in set(MapKind) else None


def frame_turn(corners: Corners) -> float:
    """How far the frame is turned on the picture, radians anticlockwise: its upper edge against level."""
    (x0, y0), (x1, y1) = corners[0], corners[1]
    return math.atan2(-(y1 - y0), x1 - x0)


def as_map(codes: Raster, picture: Picture, *, turn: float = 0.0) -> Raster:
    """Codes (H, W, 4) in [0, 1] as the map the picture is.

    Base colour is decoded from sRGB. Normals become unit vectors with green up, relief coming out, and
    are turned with the frame. Glossiness becomes roughness. Height lies in [−0.5, 0.5].
    """
    if picture.curved and picture.role not in LIGHT_ROLES:
        codes = decode_srgb(codes).astype(np.float32)
    if picture.role == MapKind.NORMAL:
        return _normals(codes, picture, turn)
    if picture.role in LIGHT_ROLES:
        return np.ascontiguousarray(decode_srgb(codes[..., :3]), np.float32)
    values = codes[..., _CHANNEL[picture.channel]] if picture.channel in _CHANNEL else codes[..., :3].mean(2)
    if picture.role == GLOSSINESS:
        values = 1 - values
    if picture.role == MapKind.HEIGHT:
        values = (values - np.float32(0.5)) * np.float32(picture.rise_mm or 1.0)
        values = -values if picture.turned_over else values
    return np.ascontiguousarray(values, np.float32)


def _normals(codes: Raster, picture: Picture, turn: float) -> Raster:
    vectors = codes[..., :3] * 2 - 1
    if two_channels(codes[..., :3]):
        # Slopes in two channels: the third follows, as the vectors are unit.
        third = np.sqrt(np.maximum(1 - (vectors[..., :2] ** 2).sum(-1), 0.01))
        vectors = np.concatenate([vectors[..., :2], third[..., None]], -1)
    if picture.green == "down":
        vectors = vectors * np.array([1, -1, 1], np.float32)
    if picture.turned_over:
        vectors = vectors * np.array([-1, -1, 1], np.float32)
    if abs(turn) > 1e-4:
        c, s = math.cos(-turn), math.sin(-turn)
        x, y = vectors[..., 0], vectors[..., 1]
        vectors = np.stack([c * x - s * y, s * x + c * y, vectors[..., 2]], 2)
    length = np.linalg.norm(vectors, axis=2, keepdims=True)
    return np.ascontiguousarray(vectors / np.maximum(length, 1e-6), np.float32)


def straight_map(
    raw: Raster, picture: Picture, corners: Corners, size_px: tuple[int, int], grid: Grid, lens: Lens = STRAIGHT
) -> Raster:
    """One further picture on the straight sheet, as the map it is.

    ``corners`` are in pixels of a picture of ``size_px`` (width, height); pictures of other sizes are
    framed alike.
    """
    made = as_map(raw, picture, turn=frame_turn(corners))
    sx, sy = raw.shape[1] / size_px[0], raw.shape[0] / size_px[1]
    scaled = tuple((x * sx, y * sy) for x, y in corners)
    signed = picture.role in {MapKind.NORMAL, MapKind.HEIGHT}
    lift = np.float32(max(1.0, picture.rise_mm))
    lifted = made + lift if signed else made
    # The straightening keeps light from going negative; signed maps are lifted over zero for it.
    straight = straighten(lifted, scaled, width_px=grid.width_px, height_px=grid.height_px, lens=lens)  # type: ignore[arg-type]
    if signed:
        straight = straight - lift
    if picture.role == MapKind.NORMAL:
        straight = straight / np.maximum(np.linalg.norm(straight, axis=2, keepdims=True), 1e-6)
    elif picture.role != MapKind.HEIGHT and picture.role not in LIGHT_ROLES:
        straight = np.clip(straight, 0, 1)
    return np.ascontiguousarray(straight, np.float32)


def onto_sheet(
    flat: MapSet,
    codes: Sequence[Raster],
    pictures: Sequence[Picture],
    corners: Corners,
    size_px: tuple[int, int],
    lens: Lens = STRAIGHT,
) -> MapSet:
    """The sheet with every further picture straightened by the same frame.

    A specular map turns the base colour into that of a metal where it is one; see :mod:`.specular`.
    """
    grid: Grid = flat.grid
    maps = dict(flat.maps)
    specular = None
    for raw, picture in zip(codes, pictures, strict=True):
        kind = role_kind(picture.role)
        if kind is not None:
            maps[kind] = straight_map(raw, picture, corners, size_px, grid, lens)
        elif picture.role == SPECULAR:
            specular = straight_map(raw, picture, corners, size_px, grid, lens)
    if specular is not None and MapKind.BASE_COLOUR in maps:
        maps[MapKind.BASE_COLOUR], maps[MapKind.METALNESS] = metalness_of(
            np.clip(maps[MapKind.BASE_COLOUR], 0, 1), np.clip(specular, 0, 1)
        )
    return MapSet(grid, maps)


def merged(
    main: Raster,
    codes: Sequence[Raster],
    pictures: Sequence[Picture],
    corners: Corners,
    size_px: tuple[int, int],
    grid: Grid,
    lens: Lens = STRAIGHT,
) -> Raster:
    """The straight main picture and others of the same patch as one; see :mod:`.several`."""
    others = [
        aligned(main, straight_map(raw, picture, corners, size_px, grid, lens))
        for raw, picture in zip(codes, pictures, strict=True)
        if picture.role == SAME_PATCH
    ]
    return lessened([main, *others])
