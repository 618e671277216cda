"""How single maps of a layer are laid on what lies beneath: modes of the compositing standard, finer normals."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from ..job.layers import MapMix
from ..kernels.bands import by_strips
from ..kernels.blend import PRODUCTS, product_of_light
from ..kernels.curve import decoded, encoded
from ..kernels.join import Planes, mix_by_share
from ..kernels.normals import reoriented_slopes, slopes_of
from ..kernels.relief import normal_of_height
from ..kernels.unit_vectors import to_unit
from ..maps import FINISH, LAYERED, MapKind, MapSet
from ..recipe.steps.combine import NON_SEPARABLE, SEPARABLE, blended, blended_colours
from ..sheet import Raster

COLOUR_MODES = (*SEPARABLE, *NON_SEPARABLE)
NORMAL_MODES = ("over", "reoriented", "added")
MODES: Mapping[MapKind, tuple[str, ...]] = {
    MapKind.BASE_COLOUR: COLOUR_MODES,
    MapKind.HEIGHT: ("over",),
    MapKind.ROUGHNESS: SEPARABLE,
    MapKind.METALNESS: SEPARABLE,
    MapKind.NORMAL: NORMAL_MODES,
    MapKind.AMBIENT_OCCLUSION: ("over",),
    MapKind.OPACITY: ("over",),
    **dict.fromkeys(FINISH, ("over",)),
}
"""Modes a map may be laid on by; heights meet by the seat."""


def mixed_planes(ground: Planes, layer: MapSet, mixes: Mapping[MapKind, MapMix], cover: Raster) -> Planes:
    """The layer's planes with their modes carried out against the ground: B(ground, layer) of W3C Compositing and
    Blending Level 1, colours on their sRGB codes. What it does not cover need not be its own.
    """
    made = []
    for kind, beneath in zip(LAYERED, ground, strict=True):
        if kind not in layer:
            # What the layer does not bring is not mixed; the ground stands in for it.
            made.append(np.zeros_like(beneath) if kind is MapKind.HEIGHT else beneath)
            continue
        own = np.ascontiguousarray(layer[kind], np.float32)
        mode = mixes[kind].mode if kind in mixes else "over"
        if mode != "over" and kind is MapKind.BASE_COLOUR:
            own = _blended_codes(mode, beneath, own, cover)
        elif mode != "over":
            own = by_strips(lambda b, s: blended(mode, np.clip(b, 0, 1), np.clip(s, 0, 1)), beneath, own)  # noqa: B023
        made.append(np.ascontiguousarray(own, np.float32))
    return tuple(made)  # type: ignore[return-value]


def _blended_codes(mode: str, beneath: Raster, own: Raster, cover: Raster) -> Raster:
    if mode in PRODUCTS:
        return product_of_light(mode, beneath, own, cover)
    return by_strips(lambda b, s: decoded(blended_colours(mode, encoded(b), encoded(s))), beneath, own)


def own_detail(layer: MapSet) -> Raster | None:
    """Slopes (H, W, 2) that a layer's normals hold beyond its relief; None where it has no normals."""
    if MapKind.NORMAL not in layer:
        return None
    own = slopes_of(layer[MapKind.NORMAL])
    if MapKind.HEIGHT not in layer:
        return own
    return np.asarray(
        own - slopes_of(normal_of_height(np.ascontiguousarray(layer[MapKind.HEIGHT]), layer.grid)), np.float32
    )


def detail_onto(ground: Raster | None, own: Raster | None, share: Raster, mix: MapMix) -> Raster:
    """Finer slopes after a layer: its own in its share, laid on the ground's by the mode."""
    if own is None:
        assert ground is not None
        # A layer without normals of its own covers those beneath it.
        return by_strips(lambda share, beneath: beneath - share[..., None] * beneath, share, ground)
    if ground is None:
        return by_strips(lambda share, own: np.float32(mix.strength) * share[..., None] * own, share, own)
    if mix.mode == "added":
        return by_strips(
            lambda share, beneath, own: beneath + np.float32(mix.strength) * share[..., None] * own, share, ground, own
        )
    after = reoriented_slopes(ground, own) if mix.mode == "reoriented" else own
    return mix_by_share(ground, after, share, mix.strength)


def finish_onto(below: MapSet | None, layer: MapSet, share: Raster, mixes: Mapping[MapKind, MapMix]) -> MapSet | None:
    """Maps of finishes after a layer: its own in its share; where it lies without one, what lay there is covered.

    A layer without a colour of its own, such as grime in the roughness alone, leaves them as they are. None where there
    are none.
    """
    kinds = [kind for kind in FINISH if kind in layer or (below is not None and kind in below)]
    if not kinds:
        return below
    grid = layer.grid
    before = below or MapSet(grid)
    made = dict(before.maps)
    for kind in kinds:
        if kind not in layer and MapKind.BASE_COLOUR not in layer:
            continue
        mix = mixes.get(kind, MapMix())
        ground, own = before.or_default(kind), layer.or_default(kind)
        if kind is MapKind.ANISOTROPY_ANGLE:
            made[kind] = _turned(ground, own, share * np.float32(mix.strength))
            continue
        mixed = mix_by_share(ground, own, np.ascontiguousarray(share, np.float32), mix.strength)
        if kind is MapKind.COAT_NORMAL:
            to_unit(mixed)
        made[kind] = mixed
    return MapSet(grid, made)


def _turned(ground: Raster, own: Raster, weight: Raster) -> Raster:
    """Angles in half turns mixed as doubled vectors: a brushing has no beginning and no end."""
    before, after = (np.exp(2j * np.pi * angle) for angle in (ground, own))
    turned = np.angle(before + weight * (after - before)) / (2 * np.pi) % 1
    return np.ascontiguousarray(turned, np.float32)
