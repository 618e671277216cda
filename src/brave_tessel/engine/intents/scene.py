"""What people want to do with the scene, as commands."""

from __future__ import annotations

from ...core.job.commands import AnyCommand, Batch, Set
from ...core.job.document import Job
from ...core.place.pieces.corner import corner_scene


def lay_on_part(part: str, surface: str) -> AnyCommand:
    """Lay a surface on a part of the scene."""
    return Set(path=("scene", "parts", part, "surface"), value=surface, label="Lay on the part")


def set_datum(point: tuple[float, float, float], name: str) -> AnyCommand:
    """Start all layings from a point."""
    return Batch(
        commands=(
            Set(path=("scene", "datum"), value=point, label="datum"),
            Set(path=("scene", "datum_name"), value=name, label="datum"),
        ),
        label="Set the datum",
    )


def build_scene(job: Job) -> AnyCommand:
    """Put up the built-in corner with the job's first surfaces."""
    ids = [surface.id for surface in job.surfaces]
    scene = corner_scene(**dict(zip(("dado", "wall", "floor"), ids, strict=False)))
    return Set(path=("scene",), value=scene, label="Set up a sample corner")
