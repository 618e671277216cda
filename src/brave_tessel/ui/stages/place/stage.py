"""Stage 4: does it fit the building?"""

from __future__ import annotations

from PyQt6.QtCore import QByteArray, QEvent, QMimeData, QObject, QRectF, QSize, Qt
from PyQt6.QtGui import QDrag, QMouseEvent, QPainter, QPaintEvent, QPen, QPixmap, QResizeEvent
from PyQt6.QtWidgets import QAbstractButton, QGridLayout, QVBoxLayout, QWidget

from ....core.job.commands import Set
from ....core.job.document import Job, Part
from ....core.job.nodes import Setting
from ....core.operation import Value, family
from ....core.place.elevation import ElevationFace, units_of, unroll
from ....core.place.mesh import Hit
from ....core.quantity import format_level, format_number, format_size
from ....engine.intents import scene as scene_intents
from ....engine.intents import sources as source_intents
from ....engine.pictures.results import SceneTextures
from ... import theme
from ...board import to_image
from ...controls.choices import Choices
from ...controls.float_bar import FloatBar
from ...controls.form import OperationForm
from ...controls.panels import Column, Heading, button, words
from ...controls.rows import Row, RowList
from ...controls.title_block import Cell, TitleBlock
from ...desk import Desk
from ...words import tr
from ..stage import LeftPanel, Stage
from .elevation_strip import ElevationStrip
from .scene_view import SURFACE_MIME, SceneView

LOOKS = ("Lit", "Chequer")
MOVES = ("Pick datum", "Whole view")


class SwatchTile(QAbstractButton):
    """A surface to drag onto a part; a click lays it on the chosen one."""

    def __init__(self, surface: str, name: str) -> None:
        super().__init__()
        self.surface, self.name = surface, name
        self.picture: QPixmap | None = None
        self.chosen = False
        self.setAccessibleName(tr("Lay {name}", name=name))
        self.setToolTip(tr("{name}: drag it onto a part, or click to lay it on the chosen part", name=name))
        self._from: object = None

    def sizeHint(self) -> QSize:
        return QSize(theme.px(62), theme.px(80))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        side = min(self.width() - 2, theme.px(62))
        square = QRectF(1, 1, side, side)
        if self.picture:
            painter.drawPixmap(square, self.picture, QRectF(self.picture.rect()))
        else:
            painter.fillRect(square, theme.colour("chalk"))
        painter.setPen(
            QPen(theme.colour("verdigris" if self.chosen or self.hasFocus() else "line"), 2 if self.chosen else 1)
        )
        painter.drawRect(square)
        painter.setFont(theme.font(10))
        painter.setPen(theme.colour("ink"))
        text = painter.fontMetrics().elidedText(self.name, Qt.TextElideMode.ElideRight, self.width())
        painter.drawText(QRectF(0, side + 2, self.width(), theme.px(16)), Qt.AlignmentFlag.AlignLeft, text)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or not event.buttons() & Qt.MouseButton.LeftButton:
            return
        drag = QDrag(self)
        data = QMimeData()
        data.setData(SURFACE_MIME, QByteArray(self.surface.encode()))
        drag.setMimeData(data)
        if self.picture:
            drag.setPixmap(self.picture.scaled(theme.px(48), theme.px(48)))
        drag.exec(Qt.DropAction.CopyAction)
        self.setDown(False)


class PlaceStage(Stage):
    """Parts and surfaces at the left, the model on the board, the elevation below, the laying in the card."""

    name = "Place"

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.view = SceneView()
        self.board = self.view
        self.looks = FloatBar(LOOKS, "Lit", name=tr("Look"), parent=self.view)
        self.moves = FloatBar(MOVES, "", name=tr("View"), parent=self.view)
        self.block = TitleBlock(self.view)
        self.elevation = ElevationStrip()
        self.strip = self.elevation
        self.tiles: dict[str, SwatchTile] = {}
        self.left = self._make_left()
        self.form: OperationForm | None = None
        self.card = self._make_card()
        self._connect()

    def _make_left(self) -> QWidget:
        left = LeftPanel()
        self.heading = Heading(tr("Parts"))
        self.list = RowList(tr("Parts"))
        self.list.chosen.connect(lambda id: self.desk.selection.choose(part=id))
        self.surfaces_heading = Heading(tr("Surfaces"), tr("drag onto a part"))
        left.add(self.heading)
        left.add_list(self.list)
        self.put_up = button(
            tr("Set up a sample corner"),
            self.put_up_corner,
            name="main",
            tip=tr("A corner of two walls, a window and a floor"),
        )
        left.add(self.put_up)
        left.add(self.surfaces_heading)
        self.tile_holder = QWidget()
        self.tile_grid = QGridLayout(self.tile_holder)
        self.tile_grid.setContentsMargins(0, 0, 0, 0)
        self.tile_grid.setSpacing(theme.px(8))
        left.add(self.tile_holder)
        return left

    def _make_card(self) -> Column:
        card = Column(tr("Laying"))
        self.title = words("", "title")
        self.note = words("")
        card.add(self.title)
        card.add(self.note)
        card.add(Heading(tr("Laying"), tr("real size")))
        self.kind = Choices(
            [(entry.id, entry.label) for entry in family("laying")], "laying.flat", name=tr("Laying"), columns=2
        )
        self.kind.changed.connect(self._set_kind)
        card.add(self.kind)
        self.form_holder = QVBoxLayout()
        card.column.addLayout(self.form_holder)
        card.add(Heading(tr("Datum"), tr("picked on the model")))
        self.datum = words("", "mono")
        card.add(self.datum)
        self.pick = button(
            tr("Pick the datum"),
            self._start_picking,
            icon="pin",
            tip=tr("Click a point of the model; it snaps to corners, sill and floor"),
        )
        self.pick.setCheckable(True)
        card.add(self.pick)
        card.add(Heading(tr("Courses")))
        self.courses = words("", "")
        card.add(self.courses)
        self.bare = button(tr("Take the surface off"), lambda: self._lay(""), tip=tr("Leaves the part bare"))
        card.add(self.bare)
        return card

    def _connect(self) -> None:
        desk = self.desk
        self.view.part_chosen.connect(lambda id: desk.selection.choose(part=id))
        self.view.surface_dropped.connect(lambda part, surface: self._lay(surface, part))
        self.view.datum_picked.connect(self._datum_picked)
        self.view.probed.connect(self._probe)
        self.view.installEventFilter(self)
        self.looks.chosen.connect(self._set_look)
        self.moves.chosen.connect(self._move)
        self.elevation.part_chosen.connect(lambda id: desk.selection.choose(part=id))
        self.elevation.dragged.connect(self._shift)
        self.elevation.released.connect(desk.end_gesture)
        self.follow(lambda job: (job.surfaces, job.scene))
        desk.place.ready.connect(self.show_textures)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if isinstance(event, QResizeEvent):
            margin = theme.px(12)
            self.looks.move(margin, margin)
            self.moves.move(self.view.width() - self.moves.width() - margin, margin)
            self.block.place()
        return False

    # Intents -------------------------------------------------------------------------------------

    def put_up_corner(self) -> None:
        """A built-in corner with the first surfaces."""
        self.desk.dispatch(scene_intents.build_scene(self.desk.job))

    def _lay(self, surface: str, part: str = "") -> None:
        target = part or self.desk.selection.part_id
        if target and self.desk.dispatch(scene_intents.lay_on_part(target, surface)):
            self.desk.selection.choose(part=target)

    def _set_kind(self, op: str) -> None:
        part = self.desk.selection.part
        if part:
            path = ("scene", "parts", part.id, "laying")
            self.desk.dispatch(
                Set(path=path, value=Setting(op=op, values=dict(part.laying.values)), label=tr("Change the laying"))
            )

    def _set_laying(self, name: str, value: Value) -> None:
        part = self.desk.selection.part
        if part:
            path = ("scene", "parts", part.id, "laying")
            self.desk.dispatch(
                source_intents.set_value(path, part.laying, name, value, gesture=f"laying-{part.id}-{name}")
            )  # type: ignore[arg-type]

    def _shift(self, part_id: str, across: float, up: float) -> None:
        part = next(part for part in self.desk.job.scene.parts if part.id == part_id)
        values = {**part.laying.values, "across": across, "up": up}
        path = ("scene", "parts", part_id, "laying", "values")
        self.desk.dispatch(Set(path=path, value=values, label=tr("Shift the pattern"), gesture=f"shift-{part_id}"))
        self.desk.tell(
            tr("{name} shifted {across:+.0f} mm along, {up:+.0f} mm up", name=part.name, across=across, up=up)
        )

    def pick_datum(self, on: bool) -> None:
        """Begin or end picking the datum on the model."""
        if on or self.view.picking:
            self.pick.setChecked(on)
            self._start_picking()

    def _start_picking(self) -> None:
        self.view.picking = self.pick.isChecked()
        self.view.setCursor(Qt.CursorShape.CrossCursor if self.view.picking else Qt.CursorShape.ArrowCursor)
        self.desk.tell(
            tr("Click where the laying starts; it snaps to corners, sill and floor.") if self.view.picking else ""
        )

    def _datum_picked(self, point: tuple[float, float, float], name: str) -> None:
        self.desk.dispatch(scene_intents.set_datum(point, name))
        self.pick_datum(False)
        self.desk.tell(tr("Datum at {name}, level {level}", name=name, level=format_level(point[1])))

    def _set_look(self, look: str) -> None:
        self.view.chequer = look == "Chequer"
        self.view.redraw()

    def _move(self, word: str) -> None:
        if word == "Whole view":
            self.view.reset()
        else:
            self.pick_datum(True)
        self.moves.group.setExclusive(False)
        self.moves.buttons[word].setChecked(False)
        self.moves.group.setExclusive(True)

    # Showing -------------------------------------------------------------------------------------

    def show_job(self, job: Job) -> None:
        names = {surface.id: surface.name for surface in job.surfaces}
        rows: list[Row] = []
        for part in job.scene.parts:
            if not rows or part.group not in {row.title for row in rows if row.heading}:
                rows.append(Row(f"group-{part.group}", part.group, heading=True))
            rows.append(Row(part.id, part.name, names.get(part.surface, "bare"), indent=1))
        self.list.show_rows(rows, self.desk.selection.part_id)
        self.heading.note.setText(tr("corner · {count}", count=len(job.scene.parts)) if rows else "")
        self.put_up.setVisible(not rows)
        self._show_tiles(job)
        self.view.show_job(job, self.desk.selection.part_id if self.desk.view.stage == "Place" else "")
        self.elevation.show_job(job, self.desk.selection.part_id)
        self._show_card(job, self.desk.selection.part)

    def _show_tiles(self, job: Job) -> None:
        wanted = [surface.id for surface in job.surfaces]
        if list(self.tiles) != wanted:
            for old in self.tiles.values():
                old.deleteLater()
            self.tiles = {}
            for index, surface in enumerate(job.surfaces):
                made = SwatchTile(surface.id, surface.name)
                made.clicked.connect(lambda _checked=False, id=surface.id: self._lay(id))
                self.tiles[surface.id] = made
                self.tile_grid.addWidget(made, index // 3, index % 3)
        part = self.desk.selection.part
        for surface in job.surfaces:
            made = self.tiles[surface.id]
            made.name = surface.name
            made.chosen = bool(part and part.surface == surface.id)
            made.update()

    def _show_card(self, job: Job, part: Part | None) -> None:
        self.card.setEnabled(part is not None)
        self.block.setVisible(part is not None)
        if part is None:
            self.title.setText(tr("No part chosen"))
            self.note.setText(tr("Set up a sample corner, then click a wall."))
            return
        surface = next((s for s in job.surfaces if s.id == part.surface), None)
        self.title.setText(part.name)
        self.note.setText(f"{surface.name} · {format_size(surface.width_mm, surface.height_mm)}" if surface else "bare")
        self.kind.show_value(part.laying.op)
        if self.form is None or self.form.op != part.laying.op:
            if self.form is not None:
                self.form.hide()
                self.form.deleteLater()
            self.form = OperationForm(part.laying.op, part.laying.values)
            self.form.changed.connect(self._set_laying)
            self.form.released.connect(self.desk.end_gesture)
            self.form.refused.connect(lambda text: self.desk.tell(text, "fault"))
            self.form_holder.addWidget(self.form)
        self.form.show_values(part.laying.values)
        datum = job.scene.datum
        self.datum.setText(f"{job.scene.datum_name}\n{format_level(datum[1])}")
        faces = unroll(job).faces if job.scene.parts else ()
        face = next((f for f in faces if f.part.id == part.id), None)
        self.courses.setText(self._courses_text(face))
        self._show_block(job, part, face)

    def _courses_text(self, face: ElevationFace | None) -> str:
        units = units_of(face.surface) if face and face.surface else None
        if face is None or units is None or face.courses is None:
            return tr("No courses to count here.")
        cut = face.courses.cut_mm
        first = tr(
            "{whole} whole courses of {number} mm.",
            whole=face.courses.whole,
            number=format_number(units.course_mm, decimals=1),
        )
        rest = tr(" and ").join(tr("{value:.0f} mm", value=value) for value in cut)
        return tr("{first} Cut: {rest}.", first=first, rest=rest) if cut else tr("{first} None is cut.", first=first)

    def _show_block(self, job: Job, part: Part, face: ElevationFace | None) -> None:
        surface = next((s for s in job.surfaces if s.id == part.surface), None)
        px = self.desk.view.preview_px / (max(surface.width_mm, surface.height_mm) / 1000) if surface else 0
        courses = tr("{whole} whole", whole=face.courses.whole) if face and face.courses else "–"
        if face and face.courses and face.courses.cut_mm:
            courses += tr(", {count} cut", count=len(face.courses.cut_mm))
        kind = part.laying.op.split(".")[1]
        cells: list[Cell] = [
            ("", tr("Part"), part.name),
            ("", tr("Laying"), kind),
            ("", tr("Datum"), job.scene.datum_name),
            ("", tr("Courses"), courses),
            ("", tr("Repeat"), format_size(surface.width_mm, surface.height_mm) if surface else "–"),
            ("", tr("Density"), tr("{px:.0f} px/m", px=px) if surface else "–"),
        ]
        self.block.show_cells(cells)

    def show_elsewhere(self, job: Job) -> None:
        """Bring the model up to date for a still while another stage is shown."""
        self.view.show_job(job, "")

    def show_textures(self, textures: SceneTextures) -> None:
        self.view.show_textures(textures)
        self.elevation.show_textures(textures)
        for id, codes in textures.swatches.items():
            if id in self.tiles:
                self.tiles[id].picture = QPixmap.fromImage(to_image(codes))
                self.tiles[id].update()

    def _probe(self, found: Hit | None) -> None:
        if found is None:
            self.desk.tell("", "probe")
            return
        job = self.desk.job
        part = next((p for p in job.scene.parts if p.id == found.part), None)
        surface = next((s for s in job.surfaces if part and s.id == part.surface), None)
        x, y, z = (value / 1000 for value in found.point)
        fields = [
            f"{x:.3f}, {y:.3f}, {z:.3f} m",
            f"{part.name if part else ''} · {surface.name if surface else 'bare'}",
        ]
        units = units_of(surface) if surface else None
        if units and part:
            course = int((found.point[1] - job.scene.datum[1] - part.laying.number("up")) // units.course_mm) + 1
            fields.append(tr("course {course} from the datum", course=course))
        self.desk.tell("\t".join(fields), "probe")

    def fit(self) -> None:
        self.view.reset()
