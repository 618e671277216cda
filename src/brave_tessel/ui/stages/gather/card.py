"""The card of a source: how big it is, what its maps are, and how its colours are put right."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtWidgets import QFileDialog, QHBoxLayout

from ....core.job.document import Job, Picture, Source
from ....core.quantity import format_number
from ....core.relief.told import ToldRelief
from ....engine.gather.links import link_note, look_for, missing_files, relink, set_linked
from ....engine.gather.reading import read_maps
from ....engine.intents import sources as source_intents
from ....engine.pictures.results import GatherPicture
from ....formats.images import SUFFIXES
from ...controls.form import OperationForm
from ...controls.panels import Section, button, words
from ...desk import Desk
from ...words import tr
from ..page import Page
from .chart_section import ChartSection
from .frame_board import FrameBoard
from .frame_sections import FrameSection, LineSection
from .lens_section import LensSection
from .maps_panel import MapsPanel
from .palettes_panel import PalettesSection
from .shadow_section import ShadowSection


class SourceCard(Page):
    """One foldable section a question."""

    def __init__(self, desk: Desk, board: FrameBoard) -> None:
        super().__init__(desk, "", "")
        self.board = board
        self._build_link()
        self.frame = FrameSection(desk)
        self.line = LineSection(desk, board, self.frame)
        self.lens = LensSection(desk, board)
        self.maps_section = Section(tr("Maps"), tr("what each is"))
        self.maps = MapsPanel()
        self.maps.changed.connect(self._set_map)
        self.maps.removed.connect(self._remove_map)
        self.add_map = button(
            tr("Add a map…"),
            lambda: self.choose_maps(same_patch=False),
            icon="plus",
            tip=tr("A further map of this source: normal, height, roughness and so on"),
        )
        self.add_same = button(
            tr("Same patch…"),
            lambda: self.choose_maps(same_patch=True),
            icon="plus",
            tip=tr("Another picture of the same patch, under other light: highlights and cast shadows are lessened"),
        )
        self.maps_section.add(self.maps)
        self.maps_section.add(self.add_map, self.add_same)
        self.light = self._section(tr("Even out light"), tr("shading and drift"), "gather.even_light", "light")
        self.shadow = ShadowSection(desk, board, self.follow(OperationForm("gather.shadow", {}), "shadow"))
        self._build_colour()
        self.relief_section = Section(tr("Relief and roughness"), tr("estimated"))
        self.shadow_line = button(
            tr("Draw along a cast shadow"),
            self._draw_shadow,
            icon="sun",
            tip=tr("Drag on the photo from what throws a shadow to its tip: that tells where the light came from"),
        )
        self.shadow_line.setCheckable(True)
        self.board.tool_changed.connect(lambda name: self.shadow_line.setChecked(name == "light"))
        self.estimates: dict[str, OperationForm] = {}
        for part, op in (("height", "estimate.height"), ("roughness", "estimate.roughness")):
            self.relief_section.add(words(tr(part.capitalize()), "section"))
            form = self.follow(OperationForm(op, {}), part)
            self.estimates[part] = form
            if part == "height":
                self.told = words("")
                self.relief_section.add(self.told)
                self.relief_section.add(self.shadow_line)
            self.relief_section.add(form)
        self.chart = ChartSection(desk, board)
        self.palettes = PalettesSection(desk, board)
        self.sections = (
            self.frame,
            self.line,
            self.maps_section,
            self.light_section,
            self.shadow,
            self.colour_section,
            self.chart,
            self.relief_section,
            self.lens,
            self.palettes,
        )
        for section in self.sections:
            self.add(section)

    def _section(self, title: str, note: str, op: str, part: str) -> OperationForm:
        self.light_section = Section(title, note)
        form = self.follow(OperationForm(op, {}), part)
        self.light_section.add(form)
        return form

    def _build_colour(self) -> None:
        self.colour_section = Section(tr("Colour"), tr("white, grey, tint"))
        self.grey = button(
            tr("Pick grey or white on the photo"),
            self._pick_grey,
            icon="dropper",
            tip=tr("Click something there that is really neutral"),
        )
        self.grey.setCheckable(True)
        self.board.tool_changed.connect(lambda name: self.grey.setChecked(name == "grey"))
        self.balance = self.follow(OperationForm("gather.balance", {}), "balance")
        self.tint = self.follow(OperationForm("gather.tint", {}), "tint")
        for widget in (self.grey, self.balance, words(tr("Tint"), "section"), self.tint):
            self.colour_section.add(widget)

    def _build_link(self) -> None:
        self.follows = button(
            tr("Follow its file"),
            self._toggle_link,
            name="badge",
            tip=tr("Reads the file again whenever it changes on disk; the job keeps the pixels last read"),
        )
        self.follows.setCheckable(True)
        self.relink = button(
            tr("Find the missing file…"), self.choose_file, name="main", tip=tr("Point to where the file is now")
        )
        self.relink_all = button(
            tr("Look in a folder for all…"),
            self.choose_folder,
            tip=tr("Every missing file that lies in a folder or below it is found by its name"),
        )
        self.missing = words("", "caution")
        beside = QHBoxLayout()
        beside.addStretch(1)
        beside.addWidget(self.follows)
        self.column.addLayout(beside)
        for widget in (self.missing, self.relink, self.relink_all):
            self.add(widget)

    # Intents -----------------------------------------------------------------------------------------

    def _pick_grey(self) -> None:
        self.board.use("grey" if self.grey.isChecked() else "frame")

    def _draw_shadow(self) -> None:
        self.board.use("light" if self.shadow_line.isChecked() else "frame")

    def _set_map(self, id: str, field: str, value: object) -> None:
        source = self.desk.selection.source
        picture = next((p for p in source.pictures if p.id == id), None) if source else None
        if source and picture:
            self.desk.dispatch(source_intents.set_picture(source, picture, **{field: value}))

    def _remove_map(self, id: str) -> None:
        source = self.desk.selection.source
        if source:
            self.desk.dispatch(source_intents.remove_picture(source, id))

    def choose_maps(self, *, same_patch: bool) -> None:
        dialog = QFileDialog(self, tr("Another picture of the same patch") if same_patch else tr("Add a map"))
        dialog.setFileMode(QFileDialog.FileMode.ExistingFiles)
        dialog.setNameFilter(tr("Pictures ({names})", names=" ".join("*" + suffix for suffix in SUFFIXES)))
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if dialog.exec():
            self.take_maps([Path(name) for name in dialog.selectedFiles()], same_patch=same_patch)

    def take_maps(self, paths: list[Path], *, same_patch: bool) -> None:
        """Read further maps off the window's thread and add them to the chosen source."""
        id, intake = self.desk.selection.source_id, self.desk.session.intake()

        def put(done: tuple[list[Picture], list[str]]) -> None:
            pictures, troubles = done
            source = next((s for s in self.desk.job.sources if s.id == id), None)
            if source is not None and pictures:
                self.desk.dispatch(source_intents.add_pictures(source, tuple(pictures)))
            if troubles:
                self.desk.tell(troubles[-1], "fault")

        self.desk.work.ask("maps", lambda _current: read_maps(intake, paths, same_patch=same_patch), put)

    def _toggle_link(self) -> None:
        source = self.desk.selection.source
        if source:
            self.desk.dispatch(set_linked(source, not source.linked))

    def choose_file(self) -> None:
        dialog = QFileDialog(self, tr("Where is the file now?"))
        dialog.setFileMode(QFileDialog.FileMode.ExistingFile)
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if dialog.exec():
            self.relink_to(Path(dialog.selectedFiles()[0]))

    def relink_to(self, path: Path) -> None:
        """Follow another file in place of the chosen source's first missing one."""
        source = self.desk.selection.source
        gone = [link for link in missing_files(self.desk.job) if source and link.source == source.id]
        if gone:
            self._take_over({gone[0].path: str(path)})

    def choose_folder(self) -> None:
        dialog = QFileDialog(self, tr("Look in a folder for all missing files"))
        dialog.setFileMode(QFileDialog.FileMode.Directory)
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if dialog.exec():
            self.look_in(Path(dialog.selectedFiles()[0]))

    def look_in(self, folder: Path) -> None:
        """Relink every missing file that lies in a folder or below."""
        found = look_for(self.desk.job, folder)
        if not found:
            self.desk.tell(tr("None of the missing files lies in {name} or below it.", name=folder.name), "caution")
            return
        self._take_over(found)
        left = len(missing_files(self.desk.job))
        told = "{count} found, {left} still missing." if left else "{count} found."
        self.desk.tell(tr(told, count=len(found), left=left))

    def _take_over(self, found: dict[str, str]) -> None:
        command = relink(self.desk.job, found)
        if command is not None and self.desk.dispatch(command):
            self.desk.followed.read_now(set(found.values()))

    # Showing -----------------------------------------------------------------------------------------

    def show_job(self, job: Job, source: Source | None) -> None:
        self.palettes.show_job(job)
        self.maps.show_source(source)
        self.setEnabled(source is not None)
        self._show_link(source)
        for section in self.sections:
            section.setVisible(source is not None)
        if source is None:
            self.title.setText(tr("No picture yet"))
            self.note.setText(tr("Add a photo, or drop one on the window."))
            return
        self.title.setText(source.name)
        alpha = tr(" · alpha {alpha}", alpha=source.alpha) if source.alpha else ""
        self.note.setText(
            tr(
                "{width_px} × {height_px} px · {depth} bit{alpha} · {link_note}",
                width_px=source.width_px,
                height_px=source.height_px,
                depth=source.depth,
                alpha=alpha,
                link_note=link_note(source),
            )
        )
        self.frame.show_source(source)
        self.lens.show_source(source)
        self.chart.show_source(job, source)
        self.shadow.show_source(source)
        count = len(source.pictures)
        self.maps_section.say(tr("{count} maps", count=count + 1) if count else tr("only this picture"))
        self._show_values(source)

    def _show_values(self, source: Source) -> None:
        self.light.show_values(source.light.values)
        self.balance.show_values(source.balance.values)
        self.tint.show_values(source.tint.values)
        as_needed = bool(source.light.values.get("as_needed"))
        for name, control in self.light.controls.items():
            control.setVisible(name == "as_needed" or not as_needed)
        strength = source.light.number("strength")
        self.light_section.say(tr("as needed") if as_needed else f"{strength:.0%}" if strength else tr("off"))
        for part, form in self.estimates.items():
            values = getattr(source, part).values
            form.show_values(values)
            own, idle = source.brings(part), form.idle(values)
            for name, control in form.controls.items():
                control.setVisible(name == "rise" if own else name not in idle)
        self.shadow_line.setVisible(not source.brings("height") and source.sized)
        brought = [part for part in self.estimates if source.brings(part)]
        some = tr("{part} its own", part=tr(brought[0])) if brought else tr("estimated")
        self.relief_section.say(tr("its own maps") if len(brought) == 2 else some)

    def _show_link(self, source: Source | None) -> None:
        self.follows.setVisible(source is not None and bool(source.path))
        self.follows.setChecked(source is not None and source.linked)
        gone = self.desk.followed.gone if source is not None and source.linked else ()
        here = [link for link in gone if source is not None and link.source == source.id]
        lost = source is not None and self.desk.followed.lost(source)
        self.missing.setVisible(bool(here) or lost)
        self.missing.setText(
            tr("{name} is not where it was; the pixels last read are used.", name=Path(here[0].path).name)
            if here
            else tr("Its picture is damaged or missing in the job file. Add the picture again.")
            if lost
            else ""
        )
        self.relink.setVisible(bool(here))
        self.relink_all.setVisible(bool(here) and len(gone) > 1)

    def show_picture(self, done: GatherPicture) -> None:
        self.frame.show_picture(done)
        self.told.setVisible(done.told is not None)
        if done.told is not None:
            one_side = bool(done.source.height.values.get("one_side"))
            self.told.setText(_lit_told(done.told) if one_side else _told_of(done.told))


def _lit_told(told: ToldRelief) -> str:
    """How far a picture may be read by a light from one side."""
    if told.sure < _SURE:
        return tr("Part of its tone is paint, and is taken for shading: a light from one side tells of one material.")
    return tr("Read from its shading: what faces the light rises towards it. Paint would be taken for relief.")


def _told_of(told: ToldRelief) -> str:
    """What the picture tells of its relief, and how sure that is."""
    if told.sure < _FLAT:
        return tr("Taken for flat colour: where its tone changes, its hue changes too. Say a rise if it is relief.")
    rise, broad = format_number(told.rise), format_number(told.broad, decimals=0)
    if told.one_hue:
        return tr(
            "Relief of {rise} mm in shapes of {broad} mm, if it is no paint: a picture of one hue does not tell.",
            rise=rise,
            broad=broad,
        )
    if told.sure < _SURE:
        return tr(
            "Perhaps relief, {rise} mm in shapes of {broad} mm: part of its tone is paint.", rise=rise, broad=broad
        )
    return tr(
        "Relief of {rise} mm in shapes of {broad} mm: its tone changes, its hue hardly does.", rise=rise, broad=broad
    )


_FLAT, _SURE = 0.15, 0.6
