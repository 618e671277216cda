"""The demo job as it ships: made, with its previews."""

from __future__ import annotations

from pathlib import Path

from ...formats.job_file import OpenedJob, load_folder

SHIPPED = Path(__file__).resolve().parents[2] / "demo" / "shipped"
"""Unpacked, so that each of its files can be read and compared by itself."""


def shipped_demo() -> OpenedJob:
    """The demo job from its files.

    Raises
    ------
    UnreadableFileError
        when the installation is not whole.
    """
    return load_folder(SHIPPED)
