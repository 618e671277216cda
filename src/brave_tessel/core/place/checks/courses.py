"""Pieces that nobody would cut, and courses that do not begin at the datum."""

from __future__ import annotations

from collections.abc import Iterator

from ...errors import TesselError
from ...job.commands import AnyCommand, Set
from ...operation import Value
from ...phrases import Phrase, say
from ..check import SceneFinding, scene_check, shown
from ..fit import told
from ..fitting import ask, change_of, fit_command
from ..regions import main_region, regions_of
from ..schedule import Sliver, schedule_of
from ..site import Site, Standing

OFF_MM = 1.5
WORTH = 0.2
"""A region that is smaller than this share of the largest is no wall of its own: returns of a course are not judged."""


@scene_check("slivers")
def slivers(site: Site) -> Iterator[SceneFinding]:
    """Units are cut to pieces under a third of them."""
    for one in shown(site):
        for row, laid in enumerate(one.part.laid):
            surface = site.surface(laid)
            regions = regions_of(site, one, row) if surface is not None else []
            if surface is None or not regions:
                continue
            largest = regions[0].shape.area
            kept = [region for region in regions if region.shape.area > WORTH * largest]
            schedule = schedule_of(site, kept)
            if schedule is None or not schedule.slivers:
                continue
            small = schedule.slivers
            mend, label = _mend(site, one, row, len(small))
            yield SceneFinding(
                "slivers", one.part.id, laid.id, "caution", say("Pieces under a third"),
                say("{surface} on {part}: {count} pieces, the smallest {mm:.0f} mm.", surface=surface.name,
                    part=one.part.name, count=len(small), mm=min(piece.mm for piece in small)),
                _smallest(small).place, mend, label,
            )  # fmt: skip


def _smallest(small: tuple[Sliver, ...]) -> Sliver:
    return min(small, key=lambda piece: piece.mm)


def _mend(site: Site, one: Standing, row: int, count: int) -> tuple[AnyCommand | None, Phrase | str]:
    """The best way to fit, up or along, that leaves no piece under a third."""
    for along in (False, True):
        try:
            asked = ask(site, one.part.id, row, along=along)
        except TesselError:
            continue
        found = asked.fit()
        if not found.now.slivers:
            continue
        best = next(iter(found.proposals), None)
        if best is not None and len(best.slivers) < len(found.now.slivers):
            change = change_of(asked, best)
            return fit_command(one.part.id, asked.laid, change), told(asked.span, best, along=along)
    return None, ""


@scene_check("datum")
def datum_ignored(site: Site) -> Iterator[SceneFinding]:
    """Courses neither fit where they lie nor begin at the datum."""
    datum, _ = site.main_datum()
    for one in shown(site):
        for row, laid in enumerate(one.part.laid):
            try:
                asked = ask(site, one.part.id, row)
            except TesselError:
                continue
            region = main_region(regions_of(site, one, row))
            if not asked.rise or region is not asked.region or not asked.fit().now.cuts:
                continue
            course = asked.pitch.mm
            # A pattern that begins within a course lies right too when it begins at the datum.
            at = float(datum[2]) * asked.rise + asked.zero
            begun, off = (
                ((place + course / 2) % course - course / 2) * asked.size
                for place in (at, at - asked.pitch.start * course)
            )
            if min(abs(begun), abs(off)) <= OFF_MM or asked.region.standing.part.piece is None:
                continue
            up = laid.laying.number("up") + off
            values: dict[str, Value] = {**laid.laying.values, "up": round(up, 6)}
            surface = site.surface(laid)
            x, y, z = (float(v) for v in one.mesh.corners[region.faces[0]].mean(0))
            yield SceneFinding(
                "datum", one.part.id, laid.id, "caution", say("Datum ignored"),
                say("Courses of {surface} on {part} lie {mm:.0f} mm off the datum.",
                    surface=surface.name if surface else "", part=one.part.name, mm=abs(off)),
                (x, y, z),
                Set(path=("scene", "parts", one.part.id, "laid", laid.id, "laying", "values"), value=values,
                    label="Start from the datum"),
                say("Start them from the datum"),
            )  # fmt: skip
