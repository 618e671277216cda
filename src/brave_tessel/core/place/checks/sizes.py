"""Surfaces that do not lie at true size, and pictures that are much finer than their neighbours'."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from ...job.commands import Set
from ...job.scene import Place
from ...phrases import say
from ..check import SceneFinding, scene_check, shown
from ..laying import Coordinates
from ..meeting import stretches
from ..mesh import Vector
from ..site import Site, Standing
from .bare import open_share

TRUE, STRETCHED, WORTH = 0.02, 0.1, 0.05
TOUCHING_MM = 12.0
STEP = 2.0
_BY_NATURE = {"laying.path", "laying.pinned"}
DELIVERED_PX = 2048


@scene_check("scale")
def scale_off(site: Site) -> Iterator[SceneFinding]:
    """Something laid is sized by its dial."""
    for one in shown(site):
        for row, laid in enumerate(one.part.laid):
            factor = laid.laying.number("factor") if laid.laying.known else 1.0
            surface = site.surface(laid)
            if surface is None or abs(factor - 1) <= TRUE or not len(one.faces_of(row)):
                continue
            path = ("scene", "parts", one.part.id, "laid", laid.id, "laying", "values")
            values = {name: value for name, value in laid.laying.values.items() if name != "factor"}
            yield SceneFinding(
                "scale", one.part.id, laid.id, "caution", say("Not at true size"),
                say("{surface} lies {factor:g} times as large as it is.", surface=surface.name, factor=factor),
                _middle(one, row), Set(path=path, value=values, label="True size"), say("Lay it at true size"),
            )  # fmt: skip


def _middle(one: Standing, row: int) -> Place:
    faces = one.faces_of(row)
    best = faces[int(one.mesh.areas[faces].argmax())]
    x, y, z = (float(v) for v in one.mesh.corners[best].mean(0))
    return x, y, z


@scene_check("stretch")
def stretched(site: Site) -> Iterator[SceneFinding]:
    """A twentieth of the faces or more take the surface a tenth too wide or too narrow."""
    for one in shown(site):
        for row, laid in enumerate(one.part.laid):
            surface = site.surface(laid)
            # Along a path joints stand square to it, so that stones of a bend are wedges: that is how they are cut.
            if surface is None or not len(one.faces_of(row)) or laid.laying.op in _BY_NATURE or not laid.laying.known:
                continue
            found = site.coordinates(one, row)
            areas = one.mesh.areas[found.faces]
            sizes = stretch_of(found) / laid.laying.number("factor")
            worst = np.maximum(sizes.max(1), 1 / np.maximum(sizes.min(1), 1e-9))
            bad = worst > 1 + STRETCHED
            share = float(areas[bad].sum() / max(areas.sum(), 1e-9))
            if share < WORTH or share * open_share(site, one, found.faces[bad])[0] < WORTH:
                continue
            at = int(np.where(bad, areas, -1.0).argmax())
            x, y, z = (float(v) for v in one.mesh.corners[found.faces[at]].mean(0))
            yield SceneFinding(
                "stretch", one.part.id, laid.id, "caution", say("Stretched"),
                say("{surface} is stretched by {percent:.0f} % on {share:.0f} % of its faces.", surface=surface.name,
                    percent=100 * (_typical(worst[bad], areas[bad]) - 1), share=100 * share),
                (x, y, z),
            )  # fmt: skip


def _typical(values: Vector, weights: Vector) -> float:
    order = np.argsort(values)
    held = np.cumsum(weights[order])
    return float(values[order][int(np.searchsorted(held, held[-1] / 2))])


def stretch_of(found: Coordinates) -> Vector:
    """(N, 2): how many mm of the part lie on one of the pattern; 1 for faces without area, which say nothing."""
    sizes = stretches(found.mesh.corners[found.faces], found.flat_corners())
    sizes[found.mesh.areas[found.faces] < 1e-6] = 1.0
    return sizes


@scene_check("density")
def density_steps(site: Site) -> Iterator[SceneFinding]:
    """Parts that touch have pictures of which one is more than twice as fine; told once of each that is finer."""
    known = shown(site)
    told: set[str] = set()
    boxes = [one.mesh.box for one in known]
    finest = [_densities(site, one) for one in known]
    for i, one in enumerate(known):
        for j in range(i + 1, len(known)):
            apart = np.maximum(boxes[i][0] - boxes[j][1], boxes[j][0] - boxes[i][1]).max()
            if apart > TOUCHING_MM:
                continue
            for name, fine, laid in finest[i]:
                for other_name, other, other_laid in finest[j]:
                    finer = name if fine > other else other_name
                    ratio = max(fine, other) / max(min(fine, other), 1e-9)
                    if ratio <= STEP * 1.0001 or finer in told:
                        continue
                    told.add(finer)
                    coarse = one if fine < other else known[j]
                    yield SceneFinding(
                        "density", coarse.part.id, laid if fine < other else other_laid, "caution",
                        say("Density steps"),
                        say("{one} has {fine:.0f} px/m beside {other} with {coarse:.0f}.",
                            one=finer, fine=max(fine, other),
                            other=other_name if fine > other else name, coarse=min(fine, other)),
                    )  # fmt: skip


def _densities(site: Site, one: Standing) -> list[tuple[str, float, str]]:
    """Surfaces on a part: name, pixels a metre where each is delivered as large, and what is laid."""
    out = []
    for row, laid in enumerate(one.part.laid):
        surface = site.surface(laid)
        if surface is not None and len(one.faces_of(row)):
            factor = laid.laying.number("factor") if laid.laying.known else 1.0
            size = max(surface.width_mm, surface.height_mm) * factor
            out.append((surface.name, DELIVERED_PX / size * 1000, laid.id))
    return out
