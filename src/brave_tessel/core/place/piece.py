"""Made scenes: each is declared once, in a file of ``core/place/pieces``."""

from __future__ import annotations

from collections.abc import Callable

from ..job.document import Scene
from .mesh import PartMesh

Meshes = Callable[[], dict[str, PartMesh]]
PIECES: dict[str, Meshes] = {}
"""The meshes of each made scene's parts, by the name a job knows it by."""


def piece(name: str) -> Callable[[Meshes], Meshes]:
    """Declare a made scene by the function that makes its meshes."""

    def declare(make: Meshes) -> Meshes:
        PIECES[name] = make
        return make

    return declare


def scene_meshes(scene: Scene) -> dict[str, PartMesh]:
    """The meshes of a scene's parts, by part id; none for a scene or a part that this version does not have."""
    meshes = PIECES[scene.piece]() if scene.piece in PIECES else {}
    return {part.id: meshes[part.id] for part in scene.parts if part.id in meshes}
