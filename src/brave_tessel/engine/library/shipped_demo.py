"""The demo job as it ships: made, with its previews."""

from __future__ import annotations

from pathlib import Path

from ...formats.job_file import OpenedJob, load_job

SHIPPED = Path(__file__).resolve().parents[2] / "demo" / "saltreach.tessel"


def shipped_demo() -> OpenedJob:
    """The demo job from its file."""
    return load_job(SHIPPED)
