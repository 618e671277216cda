"""Setting out by hand: a fit shown before it is done, the sheet on paper, and places to look at."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

import numpy as np
from PyQt6.QtWidgets import QFileDialog, QScrollArea

from ....core.errors import TesselError
from ....core.job.commands import AnyCommand
from ....core.job.scene import Place
from ....core.place.check import SceneFinding
from ....core.place.setting_out import setting_out
from ....core.place.site import Site
from ....core.quantity import format_number
from ....formats.disk import write_atomically
from ....formats.papers import WRITERS
from ... import theme
from ...desk import Desk
from ...words import tr
from ...workroom import Pace
from .laid_card import LaidCard
from .scene_view import SceneView

AWAY_MM = 2200.0


class SettingWork:
    """Sends nothing of its own: it shows, writes sheets and turns the view."""

    def __init__(self, desk: Desk, view: SceneView, card: LaidCard, site: Callable[[], Site | None]) -> None:
        self.desk, self.view, self.card, self.site = desk, view, card, site

    def preview(self, command: Callable[[], AnyCommand] | None) -> None:
        """Show what a command would do to the scene; None shows the scene as it is."""
        try:
            job = command().apply(self.desk.job) if command is not None else None
        except TesselError:
            job = None
        self.desk.place.preview(job)

    def fit_courses(self) -> None:
        """Go to the ways to fit what is laid on the chosen part; the best is seen at once."""
        panel = self.card.fit
        if panel is None:
            self.desk.tell(tr("Choose a part with a surface first."), "caution")
            return
        around = panel.parentWidget()
        while around is not None and not isinstance(around, QScrollArea):
            around = around.parentWidget()
        if around is not None:
            around.ensureWidgetVisible(panel, 0, theme.px(40))
        (panel.ways[0] if panel.ways else panel.direction.box).setFocus()

    # The sheet ---------------------------------------------------------------------------------------

    def ask_for_sheet(self) -> None:
        """Ask where the setting-out sheet goes, and write it."""
        part = self.desk.selection.part
        if part is None or self.card.laid_of(part) is None:
            self.desk.tell(tr("Choose a part with a surface first."), "caution")
            return
        start = f"{part.name}.pdf"
        kinds = ";;".join((tr("PDF (*.pdf)"), tr("SVG (*.svg)"), tr("Picture (*.png)")))
        dialog = QFileDialog(self.view, tr("Setting-out sheet"), start, kinds)
        dialog.setAcceptMode(QFileDialog.AcceptMode.AcceptSave)
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if dialog.exec():
            path = Path(dialog.selectedFiles()[0])
            wanted = f".{dialog.selectedNameFilter().rpartition('*.')[2].rstrip(')')}"
            self.write_sheet(path if path.suffix.lower() in WRITERS else path.with_name(path.name + wanted))

    def write_sheet(self, path: Path) -> None:
        """Write the sheet of what the card shows."""
        part, site = self.desk.selection.part, self.site()
        laid = self.card.laid_of(part)
        if part is None or site is None or laid is None:
            self.desk.tell(tr("Choose a part with a surface first."), "caution")
            return
        row = part.laid.index(laid)

        def work(_current: object) -> str:
            paper = setting_out(site, part.id, row, tr=tr)
            write_atomically(path, WRITERS[path.suffix.lower()](paper))
            return path.name

        self.desk.work.ask(
            "sheet", work, lambda name: self.desk.tell(tr("Wrote {name}", name=name)), pace=Pace.LONG
        )  # fmt: skip

    # Places to look at -------------------------------------------------------------------------------

    def look_at(self, finding: SceneFinding) -> None:
        """Choose the part of a finding and look at its place."""
        self.desk.selection.choose(part=finding.part)
        if finding.laid:
            self.card.laid_id = finding.laid
        if finding.place is not None:
            self.look_at_place(finding.place)

    def look_at_place(self, place: Place) -> None:
        """Stand before a place of the model, square to the face it is on, from the side that is open."""
        site, part = self.site(), self.desk.selection.part
        one = site.of_part(part.id) if site is not None and part is not None else None
        if one is None:
            return
        point = np.array(place)
        face = int(np.linalg.norm(one.mesh.corners.mean(1) - point, axis=1).argmin())
        planes = np.abs(np.einsum("ij,ij->i", one.mesh.corners[:, 0] - point, one.mesh.normals))
        near = np.flatnonzero(planes < 2.0)
        if len(near):
            away = np.linalg.norm(one.mesh.corners[near].mean(1) - point, axis=1)
            face = int(near[away.argmin()])
        normal = one.mesh.normals[face]
        aside = np.cross(normal, [0.0, 0.0, 1.0])
        eye = point + AWAY_MM * normal + 0.28 * AWAY_MM * aside + np.array([0.0, 0.0, 0.12 * AWAY_MM])
        x, y, z = (float(v) for v in eye)
        self.view.stand_at((x, y, z), place, 46.0)
        self.view.overlay.spot = point
        told = tr("At {x}, {y}, {z} mm", **{k: format_number(v, decimals=0) for k, v in zip("xyz", place, strict=True)})
        self.desk.tell(told)
