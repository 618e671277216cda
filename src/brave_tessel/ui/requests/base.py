"""What the requesters of all stages share."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QObject, pyqtSignal

from ...core.job.light import WALL
from ...core.light.lighting import Lighting
from ...engine.pictures.surface import FAR
from ...engine.session import Session
from ..selection import Selection
from ..view_state import ViewState
from ..workroom import Workroom

COARSE_PX = 256


class Requests(QObject):
    """Asks for what one stage shows. ``timed`` says how long a picture took, ms."""

    timed = pyqtSignal(float)
    channels: ClassVar[tuple[str, ...]] = ()
    """What is asked for only to be shown: overtaken with nothing when the stage is left."""

    def __init__(self, session: Session, selection: Selection, view: ViewState, work: Workroom) -> None:
        super().__init__()
        self.session = session
        self.selection = selection
        self.view = view
        self.work = work

    def request(self) -> None:
        """Ask for the stage's picture as the job and the view are now."""

    def lighting(self, stance: str = WALL) -> Lighting:
        """The job's light on a sheet that is seen from afar, so that its repeats join."""
        return self.session.snapshot().lighting(stance, FAR)

    def leave(self) -> None:
        """The stage is no longer shown."""
        self.work.cancel(*self.channels)

    def sizes(self, px: int) -> tuple[int, ...]:
        """Coarse, then fine."""
        return tuple(dict.fromkeys((min(COARSE_PX, px), px)))
