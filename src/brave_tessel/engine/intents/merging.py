"""Layers merged down to a map set, kept as they were so that they can be opened again."""

from __future__ import annotations

from collections.abc import Callable, Collection

import msgspec
import numpy as np

from ...core.colour import encode_srgb
from ...core.errors import MissingError
from ...core.job.commands import AnyCommand, Batch, Set
from ...core.job.document import BundleWhat, Layer, Picture, Setting, SourceWhat, Surface, new_id
from ...core.maps import MapKind, MapSet
from ...core.sheet import AnyArray, Grid
from ...formats.images import encode_png
from ..evaluate import always
from ..session import Session
from .layers import Layers, chosen_layers, put_in, refuse_locked, take_out

MERGE_PX = 2048


def joined_maps(
    session: Session, surface: Surface, layers: Layers, *, px: int = MERGE_PX, current: Callable[[], bool] = always
) -> MapSet:
    """Some layers joined by themselves on an empty sheet, their opacity where any of them lies."""
    bundle = Layer(id="merge", name="Merge", what=BundleWhat(layers=layers, passing=False))
    planner, run = session.planner(), session.evaluation(current)
    alone = msgspec.structs.replace(surface, layers=(bundle,))
    grid = Grid.for_repeat(surface.width_mm, surface.height_mm, px)
    below = planner.stacks(msgspec.structs.replace(alone, layers=()), grid)[0]
    return run.value(planner.closed_bundle(bundle, below, grid))  # type: ignore[no-any-return]


def merge_layers(session: Session, surface: Surface, ids: Collection[str], maps: MapSet) -> tuple[AnyCommand, Layer]:
    """Layers as one layer of a map set; what they were is kept in it.

    Raises
    ------
    MissingError
        when there are fewer than two.
    DoesNotFitError
        when one of them is locked.
    """
    refuse_locked(surface, ids)
    layers = chosen_layers(surface, ids)
    if len(layers) < 2:
        raise MissingError("second layer", remedy="Choose the layers to merge, with Ctrl or Shift.")
    name = f"{layers[-1].name}, merged"
    height = maps[MapKind.HEIGHT]
    low, high = float(height.min()), float(height.max())
    rise, middle = max(high - low, 1e-3), (high + low) / 2
    source = session.make_source(
        encode_png(_code(encode_srgb(np.clip(maps[MapKind.BASE_COLOUR], 0, 1))), srgb=True), f"{name}.png"
    )
    pictures = [_picture(session, MapKind.HEIGHT, (height - middle) / rise + 0.5, rise)]
    pictures += [
        _picture(session, kind, maps.or_default(kind))
        for kind in (MapKind.ROUGHNESS, MapKind.METALNESS, MapKind.OPACITY)
    ]
    frame = msgspec.structs.replace(
        source.straightening, width_mm=surface.width_mm, height_mm=surface.height_mm, size_note="merged"
    )
    source = msgspec.structs.replace(
        source,
        name=name,
        kind="map set",
        straightening=frame,
        pictures=tuple(pictures),
        mend=Setting(op="mend.level"),
        light=Setting(op="gather.even_light", values={"strength": 0.0}),
    )
    level = round(middle, 4)
    layer = Layer(
        id=new_id("layer"),
        name=name,
        what=SourceWhat(source=source.id, merged=layers),
        hatch=layers[-1].hatch,
        seat=Setting(
            op="seat.by_height",
            values={"level": level, "feather": 0.3, "drape": 0.0 if layers[0].id == surface.layers[0].id else 1.0},
        ),
    )
    placed = put_in(surface.layers, (layer,), layers[-1].id, "above")
    rest = take_out(placed, [entry.id for entry in layers])[0]
    label = f"Merge {len(layers)} layers"
    return Batch(
        commands=(session.add_source(source), Set(path=("surfaces", surface.id, "layers"), value=rest, label=label)),
        label=label,
    ), layer


def open_merged(surface: Surface, layer: Layer) -> AnyCommand:
    """The layers that were merged, in place of their map set; the source stays in the job."""
    assert isinstance(layer.what, SourceWhat)
    placed = put_in(surface.layers, layer.what.merged, layer.id, "above")
    return Set(
        path=("surfaces", surface.id, "layers"), value=take_out(placed, [layer.id])[0], label=f"Open {layer.name}"
    )


def _code(values: AnyArray) -> AnyArray:
    return np.asarray(np.rint(np.clip(values, 0, 1) * 65535), np.uint16)


def _picture(session: Session, kind: MapKind, values: AnyArray, rise: float = 0.0) -> Picture:
    """A data map as a stored 16-bit picture."""
    blob = session.keep_bytes(encode_png(np.ascontiguousarray(_code(values))))
    return Picture(
        id=new_id("picture"), role=kind.value, blob=blob, file_name=f"{kind.value}.png", rise_mm=rise, reason="merged"
    )
