"""Which maps of finishes a surface has, known without working it out."""

from __future__ import annotations

from ..errors import MissingError
from ..job.document import Job
from ..job.layers import Layer, Surface
from ..maps import FINISH, SOMETIMES, SURFACE_MAPS, WET, MapKind


def surface_maps(job: Job, surface: Surface) -> tuple[MapKind, ...]:
    """The maps a surface yields, in their order: the usual ones, and those of finishes and opacity it has."""
    own = finishes_of(job, surface) | ({MapKind.OPACITY} if surface.cut_out else set())
    return tuple(kind for kind in SURFACE_MAPS if kind in own or kind not in SOMETIMES)


def finishes_of(job: Job, surface: Surface, within: tuple[str, ...] = ()) -> set[MapKind]:
    """Maps of finishes that any of its layers brings and changes."""
    if surface.id in within:
        return set()
    found: set[MapKind] = set()
    for layer in surface.layers:
        if layer.shown:
            found |= _of_layer(job, layer, (*within, surface.id))
    return found


def _of_layer(job: Job, layer: Layer, within: tuple[str, ...]) -> set[MapKind]:
    refers = layer.what.refers()
    found, inside = set(layer.what.finishes()), set[MapKind]()
    for held in layer.what.held():
        if held.shown:
            inside |= _of_layer(job, held, within)
    found |= inside if layer.what.passing else _laid_wet(inside)
    for id in refers.sources:
        found |= {
            MapKind(p.role) for source in job.sources if source.id == id for p in source.pictures if p.role in FINISH
        }
    for id in refers.surfaces:
        try:
            found |= _laid_wet(finishes_of(job, job.surface(id), within))
        except MissingError:
            continue
    return found & layer.maps.union(WET)


def _laid_wet(kinds: set[MapKind]) -> set[MapKind]:
    """What a finished thing brings as a layer: its water is a coat on it."""
    if not kinds.intersection(WET):
        return kinds
    return kinds.difference(WET) | {MapKind.COAT, MapKind.COAT_ROUGHNESS, MapKind.COAT_NORMAL}
