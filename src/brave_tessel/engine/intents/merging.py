"""Layers merged down to a map set, kept as they were so that they can be opened again."""

from __future__ import annotations

from collections.abc import Callable, Collection

import msgspec
import numpy as np

from ...core.buildup.kinds.bundle import BundleWhat
from ...core.buildup.kinds.source import SourceWhat, unmerged
from ...core.colour import encode_srgb
from ...core.errors import MissingError
from ...core.job.commands import AnyCommand, Batch, Set
from ...core.job.document import Picture, Source
from ...core.job.layers import Layer, Surface
from ...core.job.nodes import Setting, new_id
from ...core.maps import MapKind, MapSet
from ...core.phrases import say
from ...core.sheet import AnyArray, Grid
from ...formats.images import encode_png
from ..evaluate import always
from ..gather.intake import Intake
from ..snapshot import Snapshot
from .layers import Layers, chosen_layers, put_in, refuse_locked, take_out
from .sources import add_source

MERGE_PX = 2048


def joined_maps(
    snapshot: Snapshot, surface: Surface, layers: Layers, *, px: int = MERGE_PX, current: Callable[[], bool] = always
) -> MapSet:
    """Some layers joined by themselves on an empty sheet, their opacity where any of them lies."""
    bundle = Layer(id="merge", name="Merge", what=BundleWhat(layers=layers, passing=False))
    planner, run = snapshot.planner(), snapshot.evaluation(current)
    grid = Grid.for_repeat(surface.width_mm, surface.height_mm, px)
    maps: MapSet = run.value(planner.made_of(bundle, grid, None))
    return maps


def merged_name(surface: Surface, ids: Collection[str]) -> str:
    """What some layers are called once they are merged."""
    return f"{chosen_layers(surface, ids)[-1].name}, merged"


def keep_maps(intake: Intake, surface: Surface, name: str, maps: MapSet) -> Source:
    """Joined maps kept as a source of their own, in 16 bits; off the window's thread."""
    height = maps[MapKind.HEIGHT]
    low, high = float(height.min()), float(height.max())
    rise, middle = max(high - low, 1e-3), (high + low) / 2
    colour = _code(encode_srgb(np.clip(maps[MapKind.BASE_COLOUR], 0, 1)))
    source = intake.make_source(encode_png(colour, srgb=True), f"{name}.png")
    pictures = [_picture(intake, MapKind.HEIGHT, (height - middle) / rise + 0.5, rise)]
    pictures += [
        _picture(intake, kind, maps.or_default(kind))
        for kind in (MapKind.ROUGHNESS, MapKind.METALNESS, MapKind.OPACITY)
    ]
    frame = msgspec.structs.replace(
        source.straightening, width_mm=surface.width_mm, height_mm=surface.height_mm, size_note=f"{middle:.4f}"
    )
    return msgspec.structs.replace(
        source,
        name=name,
        kind="map set",
        straightening=frame,
        pictures=tuple(pictures),
        mend=Setting(op="mend.level"),
        light=Setting(op="gather.even_light", values={"strength": 0.0}),
    )


def merge_layers(surface: Surface, ids: Collection[str], source: Source) -> tuple[AnyCommand, Layer]:
    """Layers as one layer of the source their joined maps are kept in; what they were is kept in it.

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
    # The kept heights are about their middle; the layer brings it back.
    middle = round(float(source.straightening.size_note or 0), 4)
    frame = msgspec.structs.replace(source.straightening, size_note="merged")
    source = msgspec.structs.replace(source, straightening=frame)
    drape = 0.0 if layers[0].id == surface.layers[0].id else 1.0
    layer = Layer(
        id=new_id("layer"),
        name=source.name,
        what=SourceWhat(source=source.id, merged=layers),
        hatch=layers[-1].hatch,
        seat=Setting(op="seat.by_height", values={"level": middle, "feather": 0.3, "drape": drape}),
    )
    placed = put_in(surface.layers, (layer,), layers[-1].id, "above")
    rest = take_out(placed, [entry.id for entry in layers])[0]
    label = say("Merge {count} layers", count=len(layers))
    path = ("surfaces", surface.id, "layers")
    return Batch(commands=(add_source(source), Set(path=path, value=rest, label=label)), label=label), layer


def open_merged(surface: Surface, layer: Layer) -> AnyCommand:
    """The layers that were merged, in place of their map set; the source stays in the job."""
    placed = put_in(surface.layers, unmerged(layer), layer.id, "above")
    return Set(
        path=("surfaces", surface.id, "layers"),
        value=take_out(placed, [layer.id])[0],
        label=say("Open {name}", name=layer.name),
    )


def _code(values: AnyArray) -> AnyArray:
    return np.asarray(np.rint(np.clip(values, 0, 1) * 65535), np.uint16)


def _picture(intake: Intake, kind: MapKind, values: AnyArray, rise: float = 0.0) -> Picture:
    """A data map as a stored 16-bit picture."""
    blob = intake.kept.keep(encode_png(np.ascontiguousarray(_code(values))))
    return Picture(
        id=new_id("picture"), role=kind.value, blob=blob, file_name=f"{kind.value}.png", rise_mm=rise, reason="merged"
    )
