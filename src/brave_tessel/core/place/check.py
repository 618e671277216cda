"""Checks of a scene, each declared once: what is wrong, why, where, and how to mend it."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from ..job.commands import AnyCommand
from ..job.scene import Place
from .site import Site, Standing

WORST_FIRST = {"fault": 0, "caution": 1}


@dataclass(frozen=True, slots=True)
class SceneFinding:
    """One finding on a part: ``laid`` is what of it lies wrong, empty where it is the part itself; ``place`` where to
    look, mm; ``mend`` the command that helps, where one does.
    """

    check: str
    part: str
    laid: str
    severity: str
    title: str
    cause: str
    place: Place | None = None
    mend: AnyCommand | None = None
    mend_label: str = ""


SceneCheck = Callable[[Site], Iterable[SceneFinding]]
SCENE_CHECKS: dict[str, SceneCheck] = {}


def scene_check(id: str) -> Callable[[SceneCheck], SceneCheck]:
    """Declare a check of a whole scene."""

    def declare(function: SceneCheck) -> SceneCheck:
        SCENE_CHECKS[id] = function
        return function

    return declare


def check_scene(site: Site, current: Callable[[], bool] = lambda: True) -> list[SceneFinding]:
    """Everything that is wrong with how surfaces lie in a scene, worst first."""
    found: list[SceneFinding] = []
    for function in SCENE_CHECKS.values():
        if not current():
            break
        found += function(site)
    return sorted(found, key=lambda one: WORST_FIRST[one.severity])


def shown(site: Site) -> list[Standing]:
    """What stands, each part once."""
    return [one for one in site.standing if one.copy == 0 and one.mesh.count]
