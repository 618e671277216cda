"""How things are shown: stage, view, preview size, where the eye is. Nothing of it is in the job."""

from __future__ import annotations

from typing import Any

from PyQt6.QtCore import QObject, pyqtSignal

from ..core.light.lighting import Eye
from ..core.maps import MapKind
from ..core.operation import find
from ..engine.pictures.surface import FAR

STAGES = ("Gather", "Repeat", "Build", "Place", "Hand over")


class ViewState(QObject):
    """``changed`` says that pictures look different now; the others what in particular has changed."""

    changed = pyqtSignal()
    stage_changed = pyqtSignal(str)
    solo_changed = pyqtSignal()
    step_changed = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        self.stage = "Gather"
        self.view = "Lit"
        self.solo = ""
        self.preview_px = 1024
        self.repeat_step = "mend"
        self.scatter_view: MapKind | None = None
        self.eye = FAR

    def go(self, stage: str) -> None:
        """Turn to a stage."""
        if stage != self.stage:
            self.stage = stage
            self.stage_changed.emit(stage)

    def show_view(self, view: str) -> None:
        """Show another map, or the surface lit."""
        if view != self.view:
            self.view = view
            self.changed.emit()

    def show_solo(self, layer: str) -> None:
        """Show one layer alone on the bare sheet, or everything."""
        if layer != self.solo:
            self.solo = layer
            self.solo_changed.emit()
            self.changed.emit()

    def show_scatter_map(self, kind: MapKind | None) -> None:
        """Show a scatter sheet as one of its maps, or lit."""
        self.scatter_view = kind
        self.changed.emit()

    def set_preview(self, px: int) -> None:
        """Sample previews so finely."""
        if px != self.preview_px:
            self.preview_px = px
            self.changed.emit()

    def set_step(self, step: str) -> None:
        """Turn to a step of Repeat."""
        if step != self.repeat_step:
            self.repeat_step = step
            self.step_changed.emit(step)
            self.changed.emit()

    def look_from(self, eye: Eye) -> None:
        """Look at the sheet from elsewhere: what a gloss mirrors is another part of the sky."""
        if eye != self.eye:
            self.eye = eye
            self.changed.emit()


class BrushState(QObject):
    """The brush in hand: its declared values, and whether it rubs out."""

    changed = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self.values: dict[str, Any] = find("brush.paint").defaults()
        self.erasing = False

    def set_value(self, name: str, value: object) -> None:
        """Set one value; what shows the brush follows."""
        self.values = {**self.values, name: value}
        self.changed.emit()
