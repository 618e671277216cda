"""The title block of a surface: what it is, its scale and repeat, how its courses close; most can be set there."""

from __future__ import annotations

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QMenu

from ....core.handover.checks.whole_units import fit_repeat
from ....core.job.commands import Set
from ....core.job.layers import Surface
from ....core.job.light import STANCES
from ....core.maps import MapKind
from ....core.place.gauge import Closing, closing_of
from ....core.quantity import format_number, format_size
from ....engine.intents.light import set_stance
from ....engine.pictures.results import SurfacePicture
from ...board import SCALES
from ...controls.title_block import Cell, TitleBlock
from ...desk import Desk
from ...words import tr
from .repeat_panel import RepeatPanel
from .surface_board import SurfaceBoard


class SurfaceBlock(TitleBlock):
    """Cells that can be clicked are green: stance, scale, repeat, light, courses."""

    light_asked = pyqtSignal(object)
    """Where on the screen the light menu is wanted."""

    def __init__(self, desk: Desk, board: SurfaceBoard) -> None:
        super().__init__(board)
        self.desk, self.board = desk, board
        self.repeat = RepeatPanel(desk, self)
        self.clicked.connect(self._clicked)

    def _clicked(self, key: str) -> None:
        if key == "scale":
            self._next_scale()
        elif key == "size":
            self.repeat.open_above()
        elif key == "repeat":
            self._fit_repeat()
        elif key == "surface":
            self._ask_stance()
        elif key == "light":
            self.light_asked.emit(self.mapToGlobal(self.rect().topRight()))

    def _ask_stance(self) -> None:
        """What the surface is for: how it lies to the light, and whether it is open where nothing lies."""
        surface = self.desk.selection.surface
        if surface is None:
            return
        menu = QMenu(self)
        for stance in STANCES:
            action = menu.addAction(tr(stance).capitalize())
            if action:
                action.setCheckable(True)
                action.setChecked(surface.stance == stance)
                action.triggered.connect(
                    lambda _c=False, chosen=stance, id=surface.id: self.desk.dispatch(set_stance(id, chosen))
                )
        menu.addSeparator()
        cut = menu.addAction(tr("Open where nothing lies"))
        if cut:
            cut.setCheckable(True)
            cut.setChecked(surface.cut_out)
            path = ("surfaces", surface.id, "cut_out")
            cut.triggered.connect(
                lambda on, path=path: self.desk.dispatch(
                    Set(path=path, value=bool(on), label=tr("Open where nothing lies"))
                )
            )
        menu.popup(self.mapToGlobal(self.rect().topLeft()))

    def _next_scale(self) -> None:
        """The next smaller drawing scale, or back to the largest."""
        ratio = self.board.px_per_mm_at(1) / self.board.scale
        following = next((scale for scale in SCALES if scale > ratio * 1.01), SCALES[0])
        self.board.set_scale(self.board.px_per_mm_at(following))

    def _fit_repeat(self) -> None:
        surface = self.desk.selection.surface
        closing = closing_of(surface) if surface else None
        if surface and closing and closing.stretched():
            self.desk.dispatch(fit_repeat(surface, closing))

    def show_done(self, done: SurfacePicture | None) -> None:
        """Show what a surface's picture tells of it; nothing until there is one."""
        self.setVisible(done is not None)
        if done is None:
            return
        surface = done.surface
        height = done.maps[MapKind.HEIGHT]
        closing = closing_of(surface)
        stretched = closing is not None and bool(closing.stretched())
        grid = done.grid
        relief = tr(
            "{number} … {number_2} mm",
            number=format_number(float(height.min()), decimals=1),
            number_2=format_number(float(height.max()), decimals=1),
        )
        cells: list[Cell] = [
            ("surface", tr("Surface"), f"{surface.name}, {tr(surface.stance)}"),
            ("scale", tr("Scale"), self.board.scale_name()),
            ("size", tr("Repeat"), format_size(surface.width_mm, surface.height_mm)),
            (
                "",
                tr("Sheet"),
                tr(
                    "{width_px} × {height_px}, {pitch_mm:.2f} px/mm",
                    width_px=grid.width_px,
                    height_px=grid.height_px,
                    pitch_mm=1 / grid.pitch_mm,
                ),
            ),
            ("", tr("Relief"), relief),
            ("light", tr("Light"), tr(self.desk.job.rig.name) or tr("own light")),
            ("repeat" if stretched else "", tr("Courses"), _courses(surface, closing)),
            ("", tr("Fit"), "–" if closing is None else tr("click to fit") if stretched else tr("whole units")),
        ]
        self.show_cells(cells)


def _courses(surface: Surface, closing: Closing | None) -> str:
    """How many courses a repeat has; of what has units along alone, how many of those."""
    units, courses = closing.real if closing else (None, None)
    if courses is not None:
        whole = round(surface.height_mm / courses.mm)
        return tr("{courses} × {number} mm", courses=whole, number=format_number(courses.mm, decimals=1))
    if units is not None:
        whole = round(surface.width_mm / units.mm)
        return tr("{count} × {number} mm along", count=whole, number=format_number(units.mm, decimals=1))
    return tr("no courses")
