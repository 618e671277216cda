"""A layer made of another surface of the job, laid in whole repeats."""

from __future__ import annotations

from collections.abc import Iterable

from ...job.document import Job
from ...job.layers import Layer, References, Surface, What
from ...job.nodes import Node
from ...plan.protocol import Plans
from ...plan.tasks import Task
from ...quantity import format_size
from ...sheet import Grid
from ..form_rows import Act, FormRow, Note
from ..kind import LayerKind, layer_kind
from ..repeats import whole_count


class SurfaceWhat(Node, What, frozen=True, kw_only=True, tag="surface"):
    """Another surface of the job, laid in whole repeats."""

    surface: str
    across: int = 1
    up: int = 1

    def refers(self) -> References:
        """The surface it lays."""
        return References(surfaces=(self.surface,))


@layer_kind(SurfaceWhat, label="Surface")
class SurfaceKind(LayerKind[SurfaceWhat]):
    """All that another surface yields."""

    group = "Surface"
    rides = True
    laid = True

    def offers(self, job: Job, surface: Surface | None) -> list[str]:
        return [other.name for other in job.surfaces if surface is None or other.id != surface.id]

    def fresh(self, job: Job, surface: Surface, name: str) -> SurfaceWhat:
        other = next(other for other in job.surfaces if other.name == name)
        return SurfaceWhat(
            surface=other.id,
            across=whole_count(surface.width_mm, other.width_mm),
            up=whole_count(surface.height_mm, other.height_mm),
        )

    def maps(self, planner: Plans, layer: Layer, grid: Grid, below: Task | None) -> Task:
        assert isinstance(layer.what, SurfaceWhat)
        return planner.surface_maps(layer.what.surface, layer.what.across, layer.what.up, grid, layer)

    def own_size(self, job: Job, what: SurfaceWhat) -> tuple[float, float] | None:
        other = _other(job, what)
        return (other.width_mm, other.height_mm) if other else None

    def form(self, job: Job, surface: Surface, layer: Layer) -> Iterable[FormRow]:
        assert isinstance(layer.what, SurfaceWhat)
        other = _other(job, layer.what)
        if other is None:
            yield Note("The surface is gone.", tone="fault")
            return
        yield Note(f"{other.name}, {format_size(other.width_mm, other.height_mm)}")
        yield Act("Go to that surface", "Shows its own build-up", asks="surface", about=other.id)

    def level(self, layer: Layer) -> float:
        return layer.seat.number("level")


def _other(job: Job, what: SurfaceWhat) -> Surface | None:
    return next((other for other in job.surfaces if other.id == what.surface), None)
