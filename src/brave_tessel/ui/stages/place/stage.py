"""Stage 4: does it fit the building?"""

from __future__ import annotations

from pathlib import Path

import numpy as np
from PyQt6.QtCore import QEvent, QObject, Qt
from PyQt6.QtGui import QPixmap, QResizeEvent
from PyQt6.QtWidgets import QFileDialog, QLineEdit, QMenu, QSplitter, QWidget

from ....core.errors import TesselError
from ....core.job.document import Job
from ....core.job.scene import Part, Place
from ....core.phrases import say
from ....core.place.elevation import Courses
from ....core.place.rays import Hit
from ....core.place.site import Site, worn
from ....core.quantity import format_size, parse_length
from ....engine.intents import scene as intents
from ....engine.pictures.results import SceneTextures
from ....engine.place.bring import Brought, add_parts, parts_of, told_of
from ....engine.place.starters import STARTERS, starter
from ....engine.wording import sentence
from ....formats.drawings import svg_contours
from ....formats.images import read_file
from ....formats.scene_models import SUFFIXES
from ....view3d.drawn import DrawPart
from ... import theme
from ...board import to_image
from ...controls.float_bar import FloatBar
from ...controls.panels import Column, Heading, button, words
from ...controls.title_block import Cell, TitleBlock
from ...desk import Desk
from ...words import tr
from ..stage import LeftPanel, Stage
from .add_sheet import AddSheet
from .elevation_strip import ElevationStrip
from .findings_panel import FindingsPanel
from .hand import KIND_WORDS, TOOLS, PlaceHand
from .laid_card import LaidCard
from .laying_work import LayingWork
from .looks import LOOKS
from .part_card import PartCard, told_name
from .part_work import PartWork
from .probe import ModelProbe
from .scene_view import SceneView
from .setting_work import SettingWork
from .tiles import SurfaceTiles
from .tree import PartTree

MOVES = ("Orbit", "Walk", "Views", "Whole view")


class PlaceStage(Stage):
    """Parts and surfaces at the left, the model on the board, the elevation below, the laying in the card."""

    name = "Place"

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.view = SceneView()
        self.view.light_turned.connect(desk.turn_light)
        desk.session.store.subscribe(lambda job: job.rig, lambda _rig: self.view.show_light(desk.scene_light()))
        self.board = self.view
        self.view.sheet_px = lambda: desk.view.preview_px
        self.hand = PlaceHand(desk, self.view)
        self.probe = ModelProbe(desk)
        self.hand.colour_at = self.probe.colour_at
        self.looks = FloatBar(tuple(LOOKS), "Lit", name=tr("Look"), parent=self.view)
        self.tools = FloatBar(TOOLS, "Choose", name=tr("Tool"), parent=self.view)
        self.kinds = FloatBar(KIND_WORDS, "Flat", name=tr("Faces"), parent=self.view)
        self.moves = FloatBar(MOVES, "Orbit", name=tr("View"), parent=self.view)
        self.block = TitleBlock(self.view)
        self.elevation = ElevationStrip(desk.work)
        self.strip = self.elevation
        self.sheet = AddSheet(self.view)
        self.findings = FindingsPanel(desk, self.view)
        self.part_card, self.laid_card = PartCard(desk), LaidCard(desk)
        self.site: Site | None = None
        self.face = -1
        self.left = self._make_left()
        self.column = Column(tr("Part"))
        self.card = self.column
        self._card_key: object = None
        self.title = QLineEdit()
        self.note = words("")
        self.parts = PartWork(desk, self.tree)
        self.laying = LayingWork(desk, self.view, self.hand, self.laid_card)
        self.setting = SettingWork(desk, self.view, self.laid_card, lambda: self.site)
        self.kinds.hide()
        self._connect()

    def _make_left(self) -> QWidget:
        left = LeftPanel()
        self.heading = Heading(tr("Parts"))
        self.tree = PartTree()
        self.add = button(tr("Add…"), self.open_sheet, name="main", icon="plus", tip=tr("Pieces, scenes, models"))
        self.tiles_area = SurfaceTiles()
        self.surfaces_heading = Heading(tr("Surfaces"), tr("drag onto faces"))
        upper, lower = LeftPanel(), LeftPanel()
        upper.add(self.heading)
        upper.add_list(self.tree)
        upper.add(self.add)
        lower.add(self.surfaces_heading)
        lower.add_list(self.tiles_area)
        split = QSplitter(Qt.Orientation.Vertical)
        split.addWidget(upper)
        split.addWidget(lower)
        split.setHandleWidth(1)
        split.setChildrenCollapsible(False)
        split.setSizes([theme.px(420), theme.px(250)])
        left.column.setContentsMargins(0, 0, 0, 0)
        left.add_list(split)
        return left

    @property
    def tiles(self) -> dict[str, QWidget]:
        """The tiles of the surfaces, by surface."""
        return dict(self.tiles_area.tiles)

    def _connect(self) -> None:
        desk, view, hand = self.desk, self.view, self.hand
        self.tree.chosen.connect(lambda id: desk.selection.choose(part=id))
        self.tiles_area.laid.connect(self.laying.lay)
        view.files_dropped.connect(lambda paths: self.open_models([Path(path) for path in paths]))
        view.hovered.connect(lambda event: self.probe.tell(view.hit(event.position())))
        view.pressed.connect(self._pressed)
        view.installEventFilter(self)
        hand.tool_changed.connect(self._tool_changed)
        hand.picked_changed.connect(hand.show_marked)
        hand.pinned.connect(self.laid_card.add_pin)
        self.looks.chosen.connect(self._set_look)
        self.tools.chosen.connect(hand.take)
        self.kinds.chosen.connect(self._set_kind)
        self.moves.chosen.connect(self._move)
        self.sheet.piece_chosen.connect(hand.stand)
        self.sheet.scene_chosen.connect(self.put_up)
        self.sheet.model_wanted.connect(self.choose_models)
        self.laid_card.chosen.connect(lambda _id: self.show_laid())
        self.laid_card.datum_wanted.connect(self.pick_datum_for)
        self.laid_card.pins_wanted.connect(lambda: hand.take("Pin"))
        self.laid_card.path_wanted.connect(hand.draw_path)
        self.laid_card.edge_wanted.connect(hand.draw_edge)
        self.laid_card.previewed.connect(self.setting.preview)
        self.laid_card.sheet_wanted.connect(self.setting.ask_for_sheet)
        self.laid_card.fit_again.connect(self._show_card)
        self.elevation.sliver_chosen.connect(lambda mark: self.setting.look_at_place(mark.sliver.place))
        self.elevation.place_chosen.connect(self.setting.look_at_place)
        self.findings.look_at.connect(self.setting.look_at)
        self.part_card.asked.connect(self._asked)
        self.title.editingFinished.connect(self._renamed)
        self.elevation.part_chosen.connect(lambda id: desk.selection.choose(part=id))
        self.elevation.dragged.connect(self.laying.shift)
        self.elevation.released.connect(desk.end_gesture)
        self.elevation.counted.connect(self._counted)
        self.follow(lambda job: (job.surfaces, job.scene))
        desk.place.ready.connect(self.show_textures)
        desk.place.first_look = lambda: self.view.isVisible() and not (self.view.seen or self.view.failed)
        desk.place.standing.connect(self._stands)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if isinstance(event, QResizeEvent):
            self._lay_out_bars()
        return False

    def _lay_out_bars(self) -> None:
        margin = theme.px(12)
        self.looks.move(margin, margin)
        self.tools.move(margin, margin + self.looks.height() + theme.px(6))
        self.kinds.move(margin, self.tools.y() + self.tools.height() + theme.px(6))
        self.moves.move(self.view.width() - self.moves.width() - margin, margin)
        self.block.place()
        self.findings.place()

    # Adding ------------------------------------------------------------------------------------------

    def open_sheet(self) -> None:
        """The sheet of what can be added."""
        self.sheet.open()

    def put_up(self, name: str = "room") -> None:
        """A whole scene in place of this one, with the job's first surfaces."""
        scene = starter(name, self.desk.job)
        self.view.see_anew()
        self.desk.dispatch(intents.replace_scene(scene, say("Put up: {name}", name=STARTERS[name][0])))

    def put_up_corner(self) -> None:
        """The corner of a room."""
        self.put_up("room")

    def choose_models(self) -> None:
        """Ask for model files."""
        dialog = QFileDialog(self.view, tr("Open a model"))
        dialog.setFileMode(QFileDialog.FileMode.ExistingFiles)
        dialog.setNameFilter(tr("Models ({suffixes})", suffixes=" ".join(f"*{suffix}" for suffix in SUFFIXES)))
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if dialog.exec():
            self.open_models([Path(path) for path in dialog.selectedFiles()])

    def open_models(self, paths: list[Path]) -> None:
        """Bring models in, one after the other; what cannot be read is told."""
        if paths:
            first, rest = paths[0], paths[1:]

            def then(brought: Brought) -> None:
                self._brought(brought)
                self.open_models(rest)

            self.desk.place.bring(first, then, failed=lambda _error: self.open_models(rest))

    def _brought(self, brought: Brought) -> None:
        parts = parts_of(brought)
        empty = not self.desk.job.scene.parts
        if self.desk.dispatch(add_parts(parts, say("Add {name}", name=brought.file_name))):
            self.desk.selection.choose(part=parts[1].id if len(parts) > 1 else parts[0].id)
            self.part_card.open["Model"] = True
            self.desk.tell(tr(told_of(brought)), "note" if brought.guess.sure else "caution")
            if empty:
                self.view.see_anew()

    def _renamed(self) -> None:
        part = self.desk.selection.part
        name = self.title.text().strip()
        if part is not None and name and name != part.name:
            self.desk.dispatch(intents.rename(part.id, name))

    # Tools -------------------------------------------------------------------------------------------

    def pick_datum(self, on: bool) -> None:
        """Begin or end picking the datum on the model."""
        if on:
            self.pick_datum_for("")
        else:
            self.sheet.hide()
            if self.hand.tool != "Choose" or len(self.hand.picked):
                self.hand.leave()

    def pick_datum_for(self, laid: str) -> None:
        """Pick a datum for the scene, or for one laying."""
        self.hand.take("Datum")
        self.hand.datum_for = laid

    def _asked(self, what: str) -> None:
        if what == "path":
            self.hand.draw_path()
        elif what == "profile":
            self._choose_profile()
        elif what == "duplicate":
            self.parts.duplicate()
        else:
            self.hand.standing_up = what
            self.hand.take("Opening", told=tr("Click the wall where it goes."))

    def _choose_profile(self) -> None:
        dialog = QFileDialog(self.view, tr("Open a drawing of the profile"))
        dialog.setNameFilter(tr("Drawings ({suffixes})", suffixes="*.svg"))
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if dialog.exec():
            self.take_profile(Path(dialog.selectedFiles()[0]))

    def take_profile(self, path: Path) -> None:
        """Give the chosen moulding the outline of a drawing, 1 unit of it 1 mm."""
        part = self.desk.selection.part
        if part is None or not intents.takes(part, "profile"):
            return
        try:
            contours = svg_contours(read_file(path), path.name)
        except TesselError as error:
            self.desk.tell(tr(sentence(error)), "fault")
            return
        ring = max(contours, key=len)
        ring = ring - ring.min(0)
        points = [(float(x), float(y)) for x, y in ring]
        self.desk.dispatch(intents.set_profile(part, points))

    def _tool_changed(self, tool: str) -> None:
        if tool in TOOLS:
            self.tools.show_word(tool)
        self.kinds.setVisible(tool == "Faces")
        self._lay_out_bars()

    def _set_kind(self, word: str) -> None:
        if word in {"More", "Fewer"}:
            self.hand.more() if word == "More" else self.hand.fewer()
            self.kinds.show_word(self.hand.kind)
        else:
            self.hand.kind = word

    def _pressed(self, hit: Hit | None, _event: object) -> None:
        if hit is not None and self.hand.tool == "Choose":
            self.face = self.laid_card.face = hit.face
            row = int(hit.standing.covering[hit.face])
            if row >= 0:
                self.laid_card.laid_id = hit.standing.part.laid[row].id
                self._show_card()
            self._show_elevation()

    def show_laid(self) -> None:
        """Show what is chosen of a part's surfaces: its card, and the elevation of where it lies."""
        self.face = self.laid_card.face = -1
        self._show_card()
        self._show_elevation()

    def _set_look(self, look: str) -> None:
        self.view.shows = LOOKS[look]
        self.view.redraw()

    def _move(self, word: str) -> None:
        if word in {"Orbit", "Walk"}:
            self.view.walking = word == "Walk"
            self.desk.tell(
                tr("Drag to look around; W, A, S and D walk, Page Up and Down rise and sink.") if word == "Walk" else ""
            )
            return
        if word == "Whole view":
            self.view.frame_all()
        else:
            self._eyes_menu()
        self.moves.show_word("Walk" if self.view.walking else "Orbit")

    def _eyes_menu(self) -> None:
        menu = QMenu(self.view)
        for eye in self.desk.job.scene.eyes:
            action = menu.addAction(eye.name)
            if action is not None:
                action.triggered.connect(lambda _checked=False, e=eye: self.view.stand_at(e.at, e.toward, e.angle))
        menu.addSeparator()
        keep = menu.addAction(tr("Keep this view"))
        if keep is not None:
            keep.triggered.connect(lambda _checked=False: self.keep_eye())
        menu.exec(self.moves.mapToGlobal(self.moves.rect().bottomLeft()))

    def keep_eye(self) -> None:
        """Keep the view as it is now."""
        camera = self.view.camera
        at = _mm(camera.eye)
        name = tr("View {number}", number=len(self.desk.job.scene.eyes) + 1)
        self.desk.dispatch(intents.keep_eye(name, at, _mm(np.array(camera.target)), camera.field_of_view))

    def set_level(self, text: str) -> None:
        """Name a height of the building, as in ``sill 936``."""
        name, _, height = text.strip().rpartition(" ")
        try:
            self.desk.dispatch(intents.add_level(name or tr("level"), parse_length(height)))
        except TesselError as error:
            self.desk.tell(tr(sentence(error)), "fault")

    def clear_lines(self) -> None:
        """Take all measured lines away."""
        for line in self.desk.job.scene.lines:
            self.desk.dispatch(intents.remove_line(line.id))

    # Showing -----------------------------------------------------------------------------------------

    def show_job(self, job: Job) -> None:
        chosen = self.desk.selection.part_id
        part = self.desk.selection.part
        self.tree.show_job(job, chosen)
        count = sum(1 for one in job.scene.parts if not one.group)
        self.heading.note.setText(tr("{count} pieces", count=count) if count else "")
        laid = self.laid_card.laid_of(part)
        self.tiles_area.show_job(job, part, laid.surface if laid else "")
        self._show_card()
        self.hand.show_marked()
        self.hand.show_grips()
        self._show_elevation()

    def _stands(self, site: Site, parts: list[DrawPart]) -> None:
        """The scene has been set up: everything that looks at it follows."""
        self.site = self.probe.site = site
        self.view.show_site(site, parts)
        if site.scene == self.desk.job.scene:
            self.findings.check(site)
        point, along = site.main_datum()
        name = site.scene.main_datum().name
        self.view.overlay.datum = (point, along, name) if site.scene.datum else None
        if self.here:
            self.hand.show_marked()
            self.hand.show_grips()
            self._show_elevation()
            self._show_card()

    def _show_elevation(self) -> None:
        part = self.desk.selection.part
        laid = self.laid_card.laid_of(part)
        row = part.laid.index(laid) if part is not None and laid is not None else -1
        self.elevation.show_site(self.site, self.desk.selection.part_id, self.face, row)
        if part is not None:
            self._show_block(part)

    def _show_card(self) -> None:
        job, part = self.desk.job, self.desk.selection.part
        self.card.setEnabled(part is not None)
        self.block.setVisible(part is not None and not part.group)
        if part is None:
            if self._card_key is not None or self.column.column.count() == 0:
                self._fill_empty()
            return
        key = (self.part_card.key_of(part), self.laid_card.key_of(part), self._mesh_there(part))
        if key != self._card_key:
            self._fill_card(job, part)
            self._card_key = key
        if not self.title.hasFocus():
            self.title.setText(part.name)
        self.note.setText(told_name(part))
        self.part_card.show_values(part)
        self.laid_card.show_values(job, part, self.site)
        self._show_pins(part)
        self._show_block(part)

    def _mesh_there(self, part: Part) -> int:
        one = self.site.of_part(part.id) if self.site else None
        return one.mesh.count if one and part.model is not None else 0

    def _fill_empty(self) -> None:
        self._take_out_kept()
        self.laid_card.nothing()
        self.column.add(words(tr("No part chosen"), "title"))
        self.column.add(words(tr("Add a piece, put up a scene or open a model; then click a part of it.")))
        self._card_key = None

    def _take_out_kept(self) -> None:
        """Empty the card, but for what is used again."""
        for kept in (self.title, self.note):
            kept.setParent(None)
        self.column.empty()

    def _fill_card(self, job: Job, part: Part) -> None:
        self._take_out_kept()
        self.title = QLineEdit(part.name)
        self.title.setObjectName("title")
        self.title.setAccessibleName(tr("Name of the part"))
        self.title.editingFinished.connect(self._renamed)
        self.note = words("")
        one = self.site.of_part(part.id) if self.site else None
        self.column.add(self.title)
        self.column.add(self.note)
        laid = self.laid_card.nothing() if part.group else self.laid_card.widgets(job, part)
        for widget in (*laid, *self.part_card.widgets(job, part, one)):
            self.column.add(widget)

    def _show_pins(self, part: Part) -> None:
        laid = self.laid_card.laid_of(part)
        pins = laid.pins if laid is not None and laid.laying.op == "laying.pinned" else ()
        self.view.overlay.pins = tuple((np.array(pin.at), str(number + 1)) for number, pin in enumerate(pins))

    def courses(self) -> Courses | None:
        """Courses of what the card shows, on its largest drawn face."""
        part = self.desk.selection.part
        laid = self.laid_card.laid_of(part)
        return self.elevation.courses_of(part.id, part.laid.index(laid)) if part and laid else None

    def _counted(self) -> None:
        part = self.desk.selection.part
        if part is not None and self.here:
            self._show_block(part)

    def _show_block(self, part: Part) -> None:
        self.laid_card.show_courses(self.courses(), waiting=self.elevation.waiting)
        laid = self.laid_card.laid_of(part)
        surface = worn(self.desk.job, laid) if laid else None
        factor = laid.laying.number("factor") if laid and laid.laying.known else 1.0
        px = self.desk.view.preview_px / (max(surface.width_mm, surface.height_mm) * factor / 1000) if surface else 0
        wide, tall = self.site.repeat(laid) if self.site is not None and laid is not None else (0.0, 0.0)
        counted = self.courses()
        courses = tr("{whole} whole", whole=counted.whole) if counted else "–"
        if counted and counted.cut_mm:
            courses += tr(", {count} cut", count=len(counted.cut_mm))
        datum = self.desk.job.scene.datum_of(laid.datum if laid else "")
        cells: list[Cell] = [
            ("", tr("Part"), part.name),
            ("", tr("Laying"), tr(laid.laying.operation.label).lower() if laid else "–"),
            ("", tr("Datum"), datum.name or "–"),
            ("", tr("Courses"), courses),
            ("", tr("Repeat"), format_size(wide * factor, tall * factor) if surface else "–"),
            ("", tr("Density"), tr("{px:.0f} px/m", px=px) if surface else "–"),
        ]
        self.block.show_cells(cells)

    def show_textures(self, textures: SceneTextures) -> None:
        self.view.show_textures(textures)
        self.elevation.show_textures(textures)
        self.probe.bases = {surface: shown.base for surface, shown in textures.surfaces.items()}
        self.laid_card.pictures = self.probe.bases
        for id, codes in textures.swatches.items():
            tile = self.tiles_area.tiles.get(id)
            if tile is not None:
                tile.picture = QPixmap.fromImage(to_image(codes))
                tile.update()

    def fit(self) -> None:
        self.view.reset()


def _mm(point: np.ndarray) -> Place:  # type: ignore[type-arg]
    x, y, z = (round(float(v) * 1000, 1) for v in point)
    return x, y, z
