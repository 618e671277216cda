"""The library at the right of Build: search, kinds, own folders, the catalogue; laid on by a double click or a drag."""

from __future__ import annotations

from pathlib import Path

import cv2
import numpy as np
from PyQt6.QtCore import QMimeData, Qt, pyqtSignal
from PyQt6.QtGui import QDrag, QPixmap
from PyQt6.QtWidgets import QComboBox, QFileDialog, QInputDialog, QLabel, QLineEdit, QProgressBar, QVBoxLayout, QWidget

from ....core.buildup.kinds.plain import PlainWhat
from ....core.buildup.kinds.recipe import RecipeWhat
from ....core.errors import TesselError
from ....core.job.document import Job
from ....core.job.layers import Layer, Surface, every_layer
from ....core.quantity import format_size
from ....core.recipe.stock import units_recipe
from ....core.sheet import AnyArray
from ....engine.library.catalogue import FAULTS, Catalogue
from ....engine.library.items import KINDS, Item, home, items, keep_kit, lay_item, search
from ....engine.library.kits import Kit, drop_kit, kit_of
from ....engine.session import Session
from ....engine.wording import sentence
from ....engine.workers import Current
from ....formats.job_file import OpenedJob
from ... import theme
from ...board import to_image
from ...controls.choices import fill
from ...controls.hatch import next_hatch
from ...controls.panels import Heading, button, words
from ...controls.rows import Row, RowList
from ...desk import Desk
from ...words import tr
from ..stage import LeftPanel
from .layer_forms import line
from .surface_board import ITEM_MIME

_SIZES = {"any size": 0.0, "up to 0.5 m": 500.0, "up to 1 m": 1000.0, "up to 2 m": 2000.0}


class _ItemList(RowList):
    """Rows that can be dragged out, to the board or between the layers."""

    def startDrag(self, actions: Qt.DropAction) -> None:
        item = self.currentItem()
        if item is None:
            return
        drag = QDrag(self)
        data = QMimeData()
        data.setData(ITEM_MIME, self.rows[self.row(item)].id.encode())
        drag.setMimeData(data)
        drag.exec(Qt.DropAction.CopyAction)


class LibraryPanel(LeftPanel):
    """Shows what can be laid on; the desk's job is changed only by laying."""

    back = pyqtSignal()

    def __init__(self, desk: Desk) -> None:
        super().__init__()
        self.desk = desk
        self.folders: list[Path] = [home()]
        self.catalogue = Catalogue(home() / "catalogue")
        self.thumbs: dict[str, AnyArray] = {}
        self.every: list[Item] = []
        self.found: list[Item] = []
        self.asked: set[str] = set()
        self.add(button(tr("‹ The layer's card"), self.back.emit, tip=tr("Back to the card (Ctrl+L)")), stretch=True)
        self.text = QLineEdit()
        self.text.setPlaceholderText(tr("Search names and tags"))
        self.text.setAccessibleName(tr("Search the library"))
        self.text.textChanged.connect(lambda _t: self.seek())
        self.add(self.text, stretch=True)
        self.kind, self.largest = QComboBox(), QComboBox()
        fill(self.kind, KINDS)
        self.kind.setAccessibleName(tr("Kind"))
        fill(self.largest, _SIZES)
        self.largest.setAccessibleName(tr("Size"))
        for box in (self.kind, self.largest):
            box.activated.connect(lambda _i: self.seek())
        self.add(
            line((QLabel(tr("Kind")), 0), (self.kind, 1), (QLabel(tr("Size")), 0), (self.largest, 1)), stretch=True
        )
        self.list = _ItemList(tr("Library"))
        self.list.setDragEnabled(True)
        self.list.opened.connect(self.lay)
        self.add_list(self.list)
        self.add(
            button(
                tr("Lay on"),
                self.lay_chosen,
                name="main",
                icon="plus",
                tip=tr("Lays the chosen one on the chosen layer; or drag it on the board or between the layers"),
            ),
            button(tr("Folder…"), self.choose_folder, tip=tr("A further folder of kits")),
            stretch=True,
        )
        self.add(
            button(
                tr("Keep layers as a kit…"),
                self.choose_kit,
                tip=tr("The chosen layers with their rules, into your library"),
            ),
            stretch=True,
        )
        self._build_catalogue()

    def _build_catalogue(self) -> None:
        self.add(Heading(tr("Catalogue"), tr("simulated supplier")))
        self.offers, self.fault = QComboBox(), QComboBox()
        self.offers.setAccessibleName(tr("Offers"))
        self.offers.setMinimumContentsLength(14)
        self.offers.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        fill(self.fault, FAULTS)
        self.fault.setAccessibleName(tr("Simulated fault"))
        self.fault.activated.connect(lambda _i: setattr(self.catalogue, "fault", self.fault.currentData()))
        self.fetch_button = button(
            tr("Fetch"), self.fetch, icon="download", tip=tr("Into your library; goes on where it broke off")
        )
        self.add(self.offers, stretch=True)
        self.bar = QProgressBar()
        self.bar.setTextVisible(False)
        self.bar.setFixedHeight(theme.px(5))
        holder = QWidget()
        column = QVBoxLayout(holder)
        column.setContentsMargins(0, 0, 0, 0)
        self.told = words("")
        column.addWidget(self.fetch_button)
        column.addWidget(line((QLabel(tr("Simulated fault")), 1), (self.fault, 0)))
        column.addWidget(self.bar)
        column.addWidget(self.told)
        self.add(holder, stretch=True)

    # Showing -------------------------------------------------------------------------------------

    def show_items(self) -> None:
        """Read what there is, own folders too, and show what answers the search."""
        self.every = items(self.desk.job, self.desk.selection.surface, self.folders)
        self.seek()

    def seek(self) -> None:
        """What answers the search, among what was read: folders are not read anew at every typed letter."""
        self.found = search(
            self.every, self.text.text(), kind=self.kind.currentData(), largest_mm=_SIZES[self.largest.currentData()]
        )
        self.list.show_rows([self._row(item) for item in self.found], self.found[0].key if self.found else "")
        self._ask_thumbs()
        if not self.offers.count():
            self.show_offers()

    def _row(self, item: Item) -> Row:
        picture = QPixmap(1, 1)
        picture.fill(theme.colour("chalk"))
        if item.key in self.thumbs:
            picture = QPixmap.fromImage(to_image(self.thumbs[item.key]))
        size = f" · {format_size(*item.size_mm)}" if max(item.size_mm) > 0 and item.kind != "kit" else ""
        return Row(
            item.key,
            item.name,
            f"{item.kind}{size}{' · ' + ', '.join(item.tags) if item.kind == 'kit' else ''}",
            picture=picture,
        )

    def _ask_thumbs(self) -> None:
        """Small pictures of what is shown, made off the window's thread."""
        wanted = [item for item in self.found if item.key not in self.asked and (item.kit or item.kind == "recipe")]
        self.asked |= {item.key for item in wanted}
        for item in wanted:
            if item.kind == "recipe":
                icon = (
                    theme.stock_icon(item.name)
                    .pixmap(theme.px(40), theme.px(40))
                    .toImage()
                    .convertToFormat(QPixmap().toImage().Format.Format_RGB888)
                )
                bits = icon.constBits()
                if bits is not None and icon.width():
                    array = np.frombuffer(bits.asstring(icon.sizeInBytes()), np.uint8).reshape(
                        icon.height(), icon.bytesPerLine()
                    )
                    self.thumbs[item.key] = np.ascontiguousarray(
                        array[:, : 3 * icon.width()].reshape(icon.height(), icon.width(), 3)
                    )
        kits = [item for item in wanted if item.kit is not None]
        if kits:
            self.desk.work.ask("library", lambda current: _pictures(kits, current), self._take_thumbs)

    def _take_thumbs(self, made: dict[str, AnyArray]) -> None:
        self.thumbs.update(made)
        self.list.show_rows(
            [self._row(item) for item in self.found], self.list.selected_ids()[0] if self.list.selected_ids() else ""
        )

    # Laying --------------------------------------------------------------------------------------

    def lay_chosen(self) -> None:
        ids = self.list.selected_ids()
        if ids:
            self.lay(ids[0])

    def lay(self, key: str, at: str = "", where: str = "above") -> None:
        """Lay an item above, below or into a layer, by default on the chosen one; a tip goes to the brush."""
        surface = self.desk.selection.surface
        item = next((entry for entry in items(self.desk.job, surface, self.folders) if entry.key == key), None)
        if item is None or surface is None:
            return
        if item.kind == "tip":
            self.desk.brush.values = {
                **self.desk.brush.values,
                "tip": item.key.partition(":")[2],
                "spacing": max(0.2, float(self.desk.brush.values["spacing"])),
            }
            self.desk.brush.changed.emit()
            self.desk.tell(tr("The brush paints with {name}.", name=item.name))
            return
        hatch = next_hatch({layer.hatch for layer, _ in every_layer(surface.layers)})
        try:
            command, layer, told = lay_item(
                self.desk.job, surface, item, at=at or self.desk.selection.layer_id, where=where, hatch=hatch
            )
        except TesselError as error:
            self.desk.tell(tr(sentence(error)), "caution")
            return
        if self.desk.dispatch(command):
            self.desk.selection.choose(layer=layer.id)
            self.desk.tell(
                " ".join(told)
                if told
                else tr("{name} lies on the surface; its rules look at this relief.", name=item.name),
                "caution" if told else "note",
            )

    def choose_kit(self) -> None:
        name, done = QInputDialog.getText(self, tr("Keep layers as a kit"), tr("Name, then tags after a comma"))
        if done and name.strip():
            title, *tags = [part.strip() for part in name.split(",")]
            self.keep(title, tuple(tags))

    def keep(self, name: str, tags: tuple[str, ...] = ()) -> None:
        """Keep the chosen layers as a kit in one's own library."""
        surface = self.desk.selection.surface
        ids = self.desk.selection.layer_ids or (self.desk.selection.layer_id,)
        if surface is None or not any(ids):
            return
        try:
            path = keep_kit(self.folders[0], kit_of(surface, ids, name, tags=tags))
        except TesselError as error:
            self.desk.tell(tr(sentence(error)), "fault")
            return
        self.asked = {key for key in self.asked if not key.endswith(f":{name}")}
        self.show_items()
        self.desk.tell(tr("Kept as {name}.", name=path.name))

    def choose_folder(self) -> None:
        dialog = QFileDialog(self, tr("A folder of kits"))
        dialog.setFileMode(QFileDialog.FileMode.Directory)
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if dialog.exec():
            self.folders.append(Path(dialog.selectedFiles()[0]))
            self.show_items()

    # Catalogue -----------------------------------------------------------------------------------

    def show_offers(self) -> None:
        """What the supplier lists."""
        try:
            offers = self.catalogue.offers()
        except TesselError as error:
            self.told.setText(tr(sentence(error)))
            return
        self.offers.clear()
        for offer in offers:
            have = tr(" · here") if self.catalogue.has(offer.number) else ""
            self.offers.addItem(
                tr("{name} · {bytes:.1f} kB{have}", name=offer.name, bytes=offer.bytes / 1000, have=have), offer.number
            )

    def fetch(self) -> None:
        """Fetch the chosen offer; what broke off goes on."""
        number = str(self.offers.currentData() or "")
        if not number:
            self.show_offers()
            return
        self.bar.setMaximum(100)
        self.bar.setValue(int(100 * self.catalogue.fetched_share(number)))
        self.told.setText(tr("Fetching…"))

        def work(current: Current) -> str:
            try:
                self.catalogue.fetch(
                    number,
                    progress=lambda share: self.desk.work.later(lambda: self.bar.setValue(int(100 * share))),
                    current=current,
                )
            except TesselError as error:
                return tr(sentence(error))
            return ""

        self.desk.work.ask("catalogue", work, self._fetched)

    def _fetched(self, trouble: str) -> None:
        self.told.setText(trouble or tr("Fetched into your library."))
        self.fault.setCurrentIndex(0)
        self.catalogue.fault = "none"
        chosen = self.offers.currentIndex()
        self.show_offers()
        self.offers.setCurrentIndex(chosen)
        if not trouble:
            self.show_items()


def kit_picture(kit: Kit, *, px: int = 192) -> AnyArray:
    """A kit on a plain ground of units, lit, (96, 96, 3) uint8; one that fills the sheet shows itself alone."""
    ground = (
        RecipeWhat(recipe=units_recipe(length=180.0, height=90.0, joint=8.0)) if len(kit.layers) > 1 else PlainWhat()
    )
    side = 600.0 if max(kit.size_mm) > 200 else max(kit.size_mm)
    base = Layer(id="ground", name="Ground", what=ground)
    surface = Surface(id="s", name=kit.name, width_mm=side, height_mm=side, layers=(base,))
    job = Job(id="kit", surfaces=(surface,))
    job = drop_kit(job, surface, kit, above="ground")[0].apply(job)
    lit = Session(OpenedJob(job)).snapshot().lit(job.surfaces[0], px)
    return np.asarray(cv2.resize(np.ascontiguousarray(lit), (96, 96), interpolation=cv2.INTER_AREA), np.uint8)


def _pictures(kits: list[Item], current: Current) -> dict[str, AnyArray]:
    made = {}
    for item in kits:
        if not current() or item.kit is None:
            break
        try:
            made[item.key] = kit_picture(item.kit)
        except TesselError:
            continue
    return made
