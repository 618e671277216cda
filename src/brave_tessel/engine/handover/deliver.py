"""Deliveries: everything asked for written to a folder, of one state of the job, with progress and stop."""

from __future__ import annotations

from pathlib import Path

from ...core.job.document import Delivery, Job
from ...core.job.layers import Surface
from ..memory import give_back_freed_memory
from .output import Output, Planned, Writing, load_outputs


def outputs_of(delivery: Delivery) -> list[Output]:
    """The formats a delivery asks for; those that this version does not have are left out."""
    known = load_outputs()
    return [known[id] for id in delivery.outputs if id in known]


def unknown_outputs(delivery: Delivery) -> list[str]:
    """Formats that were asked for by another version; they are kept in the job and not written."""
    known = load_outputs()
    return [id for id in delivery.outputs if id not in known]


def planned_files(job: Job, delivery: Delivery, surfaces: tuple[Surface, ...]) -> list[Planned]:
    """Every file as it will be, before anything is computed."""
    return [file for output in outputs_of(delivery) for file in output.planned(job, delivery, surfaces)]


def deliver(writing: Writing) -> list[Path]:
    """Write a whole delivery. Afterwards the memory that only it needed is given back.

    Raises
    ------
    CannotWriteError, CancelledError
        see :meth:`.output.Output.write`.
    """
    outputs = outputs_of(writing.delivery)
    # A surface is as much work as a scene.
    steps = [len(writing.surfaces) if output.id.startswith("maps") else 1 for output in outputs]
    whole, done, written = max(sum(steps), 1), 0, []
    try:
        for output, step in zip(outputs, steps, strict=True):
            written += output.write(writing.within(done / whole, (done + step) / whole))
            done += step
    finally:
        give_back_freed_memory()
    writing.progress("Done", 1.0)
    return written
