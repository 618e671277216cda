"""States of a surface that are kept with the job, to be compared with what comes after and gone back to."""

from __future__ import annotations

from ...core.job.commands import AnyCommand, Insert, Remove, Set
from ...core.job.document import Job, KeptState
from ...core.job.layers import Surface
from ...core.job.nodes import new_id
from ...core.phrases import say


def keep_state(job: Job, surface: Surface) -> tuple[AnyCommand, KeptState]:
    """Keep a surface as it is now, and the light on it, under the next free number."""
    taken = {state.name for state in job.states if state.surface.id == surface.id}
    name = next(one for k in range(1, len(taken) + 2) if (one := f"{k}") not in taken)
    state = KeptState(id=new_id("state"), name=name, surface=surface, rig=job.rig)
    return Insert(path=("states",), item=state, label=say("Keep {name} as it is", name=surface.name)), state


def same_state(job: Job, surface: Surface) -> KeptState | None:
    """The state that keeps a surface and the light just as they are, if there is one."""
    return next((one for one in job.states if one.surface == surface and one.rig == job.rig), None)


def go_back(job: Job, state: KeptState) -> AnyCommand:
    """Make a surface again what it was; one that is gone comes back."""
    label = say("Go back to {name}", name=state.surface.name)
    if any(surface.id == state.surface.id for surface in job.surfaces):
        return Set(path=("surfaces", state.surface.id), value=state.surface, label=label)
    return Insert(path=("surfaces",), item=state.surface, label=label)


def drop_state(state: KeptState) -> AnyCommand:
    """Let a kept state go."""
    return Remove(path=("states", state.id), label="Let a kept state go")
