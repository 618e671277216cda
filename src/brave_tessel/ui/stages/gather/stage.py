"""Stage 1: what do I have, and how big is it really?"""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtGui import QDragEnterEvent, QDropEvent
from PyQt6.QtWidgets import QFileDialog, QWidget

from ....core.errors import TesselError
from ....core.job.document import Job, Source
from ....core.quantity import format_size
from ....core.sheet import AnyArray
from ....engine.gather.scans import Scan
from ....engine.gather.trees import Tree
from ....engine.intents import sheets as sheet_intents
from ....engine.intents import sources as source_intents
from ....engine.pictures.results import GatherPicture, ScatterPicture
from ....engine.wording import sentence
from ....formats.images import SUFFIXES
from ....formats.scanned_models import SUFFIXES as SCAN_SUFFIXES
from ...board import to_pixmaps
from ...controls.panels import Heading, button
from ...controls.rows import Row, RowList
from ...desk import Desk
from ...thumbs import keep_thumb, source_thumb, unseen
from ...words import tr
from ..stage import LeftPanel, Stage, stacked
from .card import SourceCard
from .frame_board import FrameBoard
from .maps_panel import word_of
from .rig_card import FramesStrip, RigCard
from .scatter_board import VIEWS, ScatterBoard
from .scatter_card import ScatterCard
from .sets_dialog import SetsDialog
from .sheet_strip import SheetStrip


def lacks(source: Source, *, lost: bool = False) -> str:
    """What a source still lacks, or its size."""
    if source.scatter is not None:
        return tr("scatter · {size}", size=format_size(*source.sheet_mm))
    if lost:
        return tr("{kind} · file missing", kind=source.kind)
    if any(picture.role == "normal" and picture.green == "unknown" for picture in source.pictures):
        return tr("{kind} · green unknown", kind=source.kind)
    if not source.sized:
        return " + ".join([tr("{kind} · no size yet", kind=source.kind), *held(source)])
    size = format_size(source.straightening.width_mm, source.straightening.height_mm)
    return " + ".join([size, *held(source)]) if source.pictures else f"{size} · {source.kind}"


def held(source: Source) -> list[str]:
    """Which maps a set holds beside its main one, as one part of a note; nothing for a picture alone."""
    roles = dict.fromkeys(picture.role for picture in source.pictures)
    return [", ".join(tr(word_of(role)).lower() for role in roles)] if source.pictures else []


class GatherStage(Stage):
    """Sources at the left, the photo with its frame, the sheet below, size and colours in the card.

    A scatter sheet has a board and a card of its own, and so has the light rig.
    """

    name = "Gather"

    def __init__(self, desk: Desk) -> None:
        super().__init__(desk)
        self.left = self._make_left()
        self.frame = FrameBoard(desk)
        self.scatter = ScatterBoard(desk)
        self.sheet, self.frames = SheetStrip(), FramesStrip()
        self.source_card = SourceCard(desk, self.frame)
        self.scatter_card = ScatterCard(desk, self.scatter)
        self.rig = RigCard(desk)
        self.sets: SetsDialog | None = None
        self.boards = stacked(self.frame, self.scatter)
        self.strips = stacked(self.sheet, self.frames)
        self.cards = stacked(self.source_card, self.scatter_card, self.rig)
        self.board, self.strip, self.card = self.boards, self.strips, self.cards
        self._connect()

    def _connect(self) -> None:
        desk = self.desk
        self.frame.probed.connect(lambda x, y: desk.tell(tr("{x:7.1f}, {y:7.1f} px", x=x, y=y), "probe"))
        self.scatter.probed.connect(lambda x, y: desk.tell(tr("x {x:6.1f}  y {y:6.1f} mm", x=x, y=y), "probe"))
        self.frame.light_turned.connect(desk.turn_light)
        self.scatter.view_chosen.connect(self._show_view)
        self.rig.frames_taken.connect(self.frames.show_frames)
        self.rig.scanned.connect(self._scanned)
        self.follow(lambda job: (job.sources, job.palettes))
        desk.followed.badges_changed.connect(self.moved)
        desk.gather.thumb_ready.connect(self._thumb_ready)
        desk.gather.ready.connect(self.show_picture)
        desk.gather.scatter_ready.connect(self._show_scatter)
        desk.gather.sets_found.connect(self._show_sets)

    def _make_left(self) -> QWidget:
        left = LeftPanel()
        self.heading = Heading(tr("Sources"))
        left.add(self.heading)
        self.list = RowList(tr("Sources"))
        self.list.chosen.connect(self._choose)
        self.list.deleted.connect(self._remove)
        left.add_list(self.list)
        self.open_button = button(
            tr("Add pictures…"),
            self.choose_files,
            name="main",
            icon="plus",
            tip=tr("PNG, JPEG, TIFF, EXR, HDR, WebP, BMP, TGA; or drop them anywhere"),
        )
        folder = button(
            "",
            self.choose_folder,
            icon="folder-open",
            tip=tr("Add a folder of map sets, or of frames with a light file"),
        )
        folder.setAccessibleName(tr("Add a folder"))
        self.new_scatter = button(
            tr("Scatter sheet"), self._new_scatter, tip=tr("A new sheet of pieces, strewn or laid by hand")
        )
        self.rig_button = button(
            tr("Light rig"),
            self._toggle_rig,
            icon="sun",
            tip=tr("Take frames under single lights with the simulated device"),
        )
        self.rig_button.setCheckable(True)
        left.add(self.open_button, folder, stretch=True)
        left.add(self.new_scatter, self.rig_button, stretch=True)
        return left

    @property
    def ruled_board(self) -> QWidget:
        return self.scatter if self.boards.currentWidget() is self.scatter else self.frame

    # Intents -----------------------------------------------------------------------------------------

    def choose_files(self) -> None:
        dialog = QFileDialog(self.left, tr("Add pictures"))
        dialog.setFileMode(QFileDialog.FileMode.ExistingFiles)
        names = " ".join("*" + suffix for suffix in (*SUFFIXES, *SCAN_SUFFIXES))
        dialog.setNameFilter(tr("Pictures and scanned meshes ({names})", names=names))
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if dialog.exec():
            self.desk.gather.read([Path(name) for name in dialog.selectedFiles()])

    def choose_folder(self) -> None:
        dialog = QFileDialog(self.left, tr("Add a folder of map sets"))
        dialog.setFileMode(QFileDialog.FileMode.Directory)
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if dialog.exec():
            self.desk.gather.read([Path(dialog.selectedFiles()[0])])

    def _show_sets(self, tree: Tree) -> None:
        """A drop of many sets is chosen from before it is read."""
        self.sets = SetsDialog(self.left.window() or self.left, tree, self.desk.gather.take)
        self.sets.show()

    def _choose(self, id: str) -> None:
        self.rig_button.setChecked(False)
        # What was said of another source is not of this one.
        self.desk.tell("")
        self.desk.selection.choose(source=id)

    def _remove(self, id: str) -> None:
        try:
            command = source_intents.remove_source(self.desk.job, self.desk.job.source(id))
        except TesselError as error:
            self.desk.tell(tr(sentence(error)), "caution")
            return
        self.desk.dispatch(command)

    def _new_scatter(self) -> None:
        command, source = sheet_intents.new_scatter(self.desk.job)
        if self.desk.dispatch(command):
            self._choose(source.id)

    def _toggle_rig(self) -> None:
        self.show_job(self.desk.job)

    def _scanned(self, scan: Scan) -> None:
        if self.desk.dispatch(source_intents.add_source(scan.source)):
            self.desk.selection.choose(source=scan.source.id)
            self.desk.tell(tr("{name} added. {told}", name=scan.source.name, told=scan.told))

    def leave_tools(self) -> None:
        """Every tool put down."""
        self.frame.leave_tool()
        self.scatter.set_laying(False)
        self.scatter_card.lay.setChecked(False)

    # Showing -----------------------------------------------------------------------------------------

    def show_job(self, job: Job) -> None:
        self._ask_thumbs(job)
        badge = self.desk.followed.badge
        rows = [
            Row(
                source.id,
                source.name,
                f"{badge(source.name)}{lacks(source, lost=self.desk.followed.lost(source))}",
                picture=source_thumb(source),
                severity="" if source.sized else "caution",
            )
            for source in job.sources
        ]
        self.list.show_rows(rows, self.desk.selection.source_id)
        self.heading.note.setText(str(len(rows)) if rows else "")
        source = self.desk.selection.source
        strewn = source is not None and source.scatter is not None
        if self.rig_button.isChecked():
            self.cards.setCurrentWidget(self.rig)
        else:
            self.cards.setCurrentWidget(self.scatter_card if strewn else self.source_card)
        self.strips.setCurrentWidget(self.frames if self.rig_button.isChecked() else self.sheet)
        self.boards.setCurrentWidget(self.scatter if strewn else self.frame)
        self.scatter.show_source(source if strewn else None)
        self.frame.show_source(None if strewn else source)
        self.source_card.show_job(job, None if strewn else source)
        if strewn and source is not None:
            self.scatter_card.show_source(source)

    def show_picture(self, done: GatherPicture | None) -> None:
        if done is None:
            self.sheet.show_picture(None)
            return
        if done.photo is not None:
            self.frame.show_photo(to_pixmaps(done.photo))
        self.sheet.show_picture(done)
        self.source_card.show_picture(done)

    def _show_view(self, word: str) -> None:
        self.desk.view.show_scatter_map(VIEWS[word])

    def _show_scatter(self, done: ScatterPicture) -> None:
        self.scatter.show_picture(done)
        self.sheet.show_scatter(done)
        if done.fine and keep_thumb(done.source, done.mips[0]):
            self.moved()

    def _ask_thumbs(self, job: Job) -> None:
        for source in job.sources:
            if unseen(source):
                self.desk.gather.ask_thumb(source)

    def _thumb_ready(self, source: Source, codes: AnyArray) -> None:
        if keep_thumb(source, codes):
            self.moved()

    def fit(self) -> None:
        (self.scatter if self.boards.currentWidget() is self.scatter else self.frame).fit()


def accepts(event: QDragEnterEvent | QDropEvent) -> list[Path]:
    """The picture files of a drop."""
    data = event.mimeData()
    urls = data.urls() if data else []
    return [Path(url.toLocalFile()) for url in urls if url.isLocalFile()]
