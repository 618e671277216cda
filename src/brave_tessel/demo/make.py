"""Makes the demo job from its scripts, as it ships: ``./dev docs`` writes it again, byte for byte."""

from __future__ import annotations

import sys
from pathlib import Path

from ..engine.previews import PREVIEW_PX, make_preview
from ..engine.session import Session
from ..formats.disk import write_atomically
from ..formats.job_file import OpenedJob, Preview, members
from .job import demo_job


def with_previews(opened: OpenedJob) -> OpenedJob:
    """The job with a picture of each of its surfaces."""
    snapshot = Session(opened).snapshot()
    previews: dict[str, Preview] = {}
    for surface in opened.job.surfaces:
        codes = snapshot.lit(surface, 2 * PREVIEW_PX)
        previews[surface.id] = make_preview(snapshot, surface, codes)
    return OpenedJob(opened.job, opened.blobs, previews)


def write(folder: Path) -> list[Path]:
    """Write the demo job's files into a folder; what lies there of an earlier one goes."""
    opened = with_previews(demo_job())
    made = members(opened.job, opened.blobs, opened.previews)
    for old in folder.rglob("*"):
        if old.is_file() and str(old.relative_to(folder)) not in made:
            old.unlink()
    for name, data in made.items():
        write_atomically(folder / name, data)
    return [folder / name for name in made]


if __name__ == "__main__":
    write(Path(sys.argv[1]))
