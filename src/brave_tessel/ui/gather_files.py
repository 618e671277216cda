"""Files and folders read in off the window's thread."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

from ..core.job.document import Source
from ..engine.gather.reading import read_sources

if TYPE_CHECKING:
    from .desk import Desk


def gather_files(desk: Desk, paths: list[Path]) -> None:
    """Read files and folders off the window's thread; what they hold is added, what went wrong is told."""
    session = desk.session

    def then(read: tuple[list[Source], list[str]]) -> None:
        made, troubles = read
        for source in made:
            desk.dispatch(session.add_source(source))
        desk.tell("")
        if made:
            last = made[-1]
            desk.select(source=last.id)
            maps = f" with {len(last.pictures) + 1} maps" if last.pictures else ""
            desk.tell(
                f"{last.name} added{maps}. Drag the frame's corners onto something rectangular, then type its size."
            )
        if troubles:
            desk.tell(troubles[-1], "fault")

    desk.tell("Looking at the files…")
    desk.ask(f"gather {id(paths)}", lambda current: read_sources(session, paths, current=current), then)
