"""Whether every source has a size and lies at its own scale."""

from __future__ import annotations

from ...buildup.kind import kind_of
from ...errors import MissingError
from ...job.layers import laid_times
from ...phrases import say
from ...repeat.mend import closed_size
from ..check import Case, Finding, check


@check("size")
def source_size(case: Case) -> Finding:
    """Every source laid in the surface has a size, and lies in it at its own scale."""
    for layer in case.surface.layers:
        sources = layer.what.refers().sources
        if not kind_of(layer.what).laid or not sources:
            continue
        try:
            source = case.job.source(sources[0])
        except MissingError:
            return Finding(
                "size",
                case.surface.id,
                "fault",
                "A source is missing",
                say("{name} has lost its source.", name=layer.name),
            )
        width, height = closed_size(source)
        if width <= 0 or height <= 0:
            told = say("{name} was never given its real size.", name=source.name)
            return Finding("size", case.surface.id, "fault", "A source has no size", told)
        across, up = laid_times(layer)
        sides = ((case.surface.width_mm, across, width), (case.surface.height_mm, up, height))
        stretch = max(abs(whole / times / own - 1) for whole, times, own in sides)
        if stretch > 0.05:
            return Finding(
                "size",
                case.surface.id,
                "caution",
                "A source is stretched",
                say("{name} is stretched by {stretch:.0%} to close in this repeat.", name=source.name, stretch=stretch),
                measures={"stretch": stretch},
            )
    return Finding("size", case.surface.id, "ok", "True size", "Every source lies at its own scale.")
