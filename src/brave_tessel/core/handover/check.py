"""Checks of stage 5, each declared once: what is wrong, why, how bad, and how to mend it."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

from ..job.commands import AnyCommand
from ..job.document import Job
from ..job.layers import Surface
from ..maps import MapSet

WORST_FIRST = {"fault": 0, "caution": 1, "ok": 2}


@dataclass(frozen=True, slots=True)
class Finding:
    """One finding. ``spot`` is the place on the cell in mm, if it has one; ``mend`` the command that helps."""

    check: str
    surface: str
    severity: str
    title: str
    cause: str
    spot: tuple[float, float] | None = None
    mend: AnyCommand | None = None
    mend_label: str = ""
    measures: dict[str, float] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Case:
    """What a check looks at."""

    job: Job
    surface: Surface
    maps: MapSet


Check = Callable[[Case], Finding]
CHECKS: dict[str, Check] = {}


def check(id: str) -> Callable[[Check], Check]:
    """Declare a check."""

    def declare(function: Check) -> Check:
        CHECKS[id] = function
        return function

    return declare


def run_checks(job: Job, surface: Surface, maps: MapSet) -> list[Finding]:
    """All checks of one finished surface, worst first."""
    return sorted(_run(Case(job, surface, maps)), key=lambda finding: WORST_FIRST[finding.severity])


def _run(case: Case) -> Iterator[Finding]:
    for function in CHECKS.values():
        yield function(case)
