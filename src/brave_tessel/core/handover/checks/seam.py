"""Whether every map closes across both joins."""

from __future__ import annotations

import numpy as np

from ...colour import encode_srgb
from ...maps import MapKind, MapSet
from ...phrases import say
from ...repeat.meters import SeamReading, read_seam
from ..check import Case, Finding, check


def seam_readings(maps: MapSet) -> dict[MapKind, tuple[SeamReading, SeamReading]]:
    """Seam of x and y for base colour, height and roughness of a finished surface."""
    kinds = [kind for kind in (MapKind.BASE_COLOUR, MapKind.HEIGHT, MapKind.ROUGHNESS) if kind in maps]
    readings = {}
    for kind in kinds:
        pixels = maps[kind]
        if kind is MapKind.BASE_COLOUR:
            pixels = encode_srgb(np.clip(pixels, 0, 1)).astype(np.float32)
        if float(np.ptp(pixels)) < 1e-5:
            continue
        x, y = (read_seam(pixels, axis=axis, structured=True) for axis in (1, 0))
        readings[kind] = (x, y)
    return readings


@check("seam")
def seam(case: Case) -> Finding:
    """Every map closes across both joins."""
    worst, where = 0.0, ""
    closes = True
    for kind, pair in seam_readings(case.maps).items():
        for axis, reading in zip("xy", pair, strict=True):
            closes = closes and reading.closes
            if reading.score > worst:
                worst, where = reading.score, f"{kind.replace('_', ' ')}, {axis}"
    severity = "ok" if closes else "fault"
    cause = (
        say("Seam score {worst:.2f} at its worst ({where}).", worst=worst, where=where)
        if where
        else "Plain: nothing to join."
    )
    if not closes:
        cause += " The step across the join is rougher than any inside."
    return Finding(
        "seam",
        case.surface.id,
        severity,
        "Closes on itself" if closes else "A seam shows",
        cause,
        measures={"score": worst},
    )
