"""Left of a recipe's steps: the way back, its sections, the dials opened to the layer, what feeds which map, files."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QImage, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QComboBox, QGridLayout, QHBoxLayout, QLabel, QMenu, QWidget

from .....core.job.layers import Recipe, Surface
from .....core.maps import BLENDED, TRAITS, MapKind
from .....core.operation import REGISTRY
from .....core.quantity import format_size
from .....core.recipe.edit import kind_of, map_kind
from .....engine.pictures.results import VariantPictures
from .... import theme
from ....board import to_image
from ....controls.panels import Column, Heading, button, words
from ....controls.rows import Row, RowList
from ....words import tr, tr_count
from .rows import shown_value

_FEEDS = BLENDED


class SeedStrip(QWidget):
    """The recipe with its next seeds; a click takes one."""

    taken = pyqtSignal(int)

    def __init__(self) -> None:
        super().__init__()
        self.looks: list[tuple[int, QImage]] = []
        self.seed = 0
        self.setAccessibleName(tr("Variants by seed"))
        self.setToolTip(tr("The same recipe with other seeds; click one to take it"))
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def sizeHint(self) -> QSize:
        return QSize(theme.px(150), theme.px(136))

    def show_variants(self, done: VariantPictures | None) -> None:
        self.looks = [(seed, to_image(codes)) for seed, codes in done.looks.items()] if done else []
        self.update()

    def cell(self, index: int) -> QRectF:
        gap = theme.px(8)
        side = min(theme.px(60), (self.width() - 2 * gap) / 3)
        return QRectF((index % 3) * (side + gap), (index // 3) * (side + theme.px(18)) * 0.87, side, side * 0.8)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        for index, (seed, image) in enumerate(self.looks):
            box = self.cell(index)
            painter.drawImage(box, image, QRectF(0, 0, image.width(), image.height() * 0.8))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(
                QPen(theme.colour("verdigris" if seed == self.seed else "line"), 2 if seed == self.seed else 1)
            )
            painter.drawRect(box)
            painter.setFont(theme.font(10, mono=True))
            painter.setPen(theme.colour("ink_2"))
            painter.drawText(
                QRectF(box.left(), box.bottom() + 1, box.width(), theme.px(14)),
                Qt.AlignmentFlag.AlignHCenter,
                str(seed),
            )

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        for index, (seed, _) in enumerate(self.looks):
            if self.cell(index).contains(event.position()):
                self.taken.emit(seed)


class RecipeLeft(Column):
    """What stands beside the steps."""

    back = pyqtSignal()
    section_chosen = pyqtSignal(str)
    fed = pyqtSignal(object, str)
    stock_taken = pyqtSignal(str)
    import_wanted = pyqtSignal()
    export_wanted = pyqtSignal()
    step_chosen = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__(tr("Recipe"), margin=12)
        self.back_button = button(tr("‹ Build-up"), self.back.emit, tip=tr("Back to the layers (Esc)"))
        self.title, self.note = words("", "title"), words("")
        for widget in (self.back_button, self.title, self.note):
            self.add(widget)
        self.add(Heading(tr("Sections")))
        self.sections = RowList(tr("Sections"))
        self.sections.chosen.connect(self.section_chosen)
        self.add(self.sections)
        self.opened_heading = Heading(tr("On the layer's card"), "")
        self.add(self.opened_heading)
        self.opened = RowList(tr("Dials on the layer's card"))
        self.opened.chosen.connect(lambda id: self.step_chosen.emit(id.split("/")[0]))
        self.add(self.opened)
        self._build_yields()
        self.add(Heading(tr("Seeds"), tr("variants")))
        self.seeds = SeedStrip()
        self.add(self.seeds)
        self._build_files()

    def _build_yields(self) -> None:
        self.add(Heading(tr("Maps and their steps")))
        holder = QWidget()
        grid = QGridLayout(holder)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setSpacing(theme.px(4))
        self.feeds: dict[MapKind, QComboBox] = {}
        for index, kind in enumerate(_FEEDS):
            box = QComboBox()
            box.setAccessibleName(tr("{label} from", label=tr(TRAITS[kind].label)))
            box.setMinimumContentsLength(5)
            box.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
            box.activated.connect(lambda _index, key=kind, b=box: self.fed.emit(key, b.currentData()))
            grid.addWidget(QLabel(tr(TRAITS[kind].label)), index, 0)
            grid.addWidget(box, index, 1)
            self.feeds[kind] = box
        self.add(holder)

    def _build_files(self) -> None:
        self.add(Heading(tr("Recipes")))
        stock = button(tr("Start from…"), lambda: None, tip=tr("Puts a stock recipe in this one's place"))
        self.stock_menu = QMenu(stock)
        stock.setMenu(self.stock_menu)
        row = QWidget()
        line = QHBoxLayout(row)
        line.setContentsMargins(0, 0, 0, 0)
        line.addWidget(button(tr("Import…"), self.import_wanted.emit, tip=tr("A recipe from a JSON file")), 1)
        line.addWidget(button(tr("Export…"), self.export_wanted.emit, tip=tr("This recipe as a JSON file")), 1)
        self.add(stock)
        self.add(row)
        self.column.addStretch(1)

    def show_recipe(self, surface: Surface, name: str, recipe: Recipe, selected: str) -> None:
        self.title.setText(name)
        count = len(recipe.steps)
        self.note.setText(
            tr_count(
                count,
                "recipe · {size} · {n} step",
                "recipe · {size} · {n} steps",
                size=format_size(surface.width_mm, surface.height_mm),
            )
        )
        names = list(dict.fromkeys(step.section for step in recipe.steps))
        rows = [
            Row(
                f"s{n}",
                f"{n + 1}  {section or 'Steps'}",
                tr("{sum} steps", sum=sum(s.section == section for s in recipe.steps)),
            )
            for n, section in enumerate(names)
        ]
        here = next(
            (
                f"s{n}"
                for n, section in enumerate(names)
                if any(s.name == selected and s.section == section for s in recipe.steps)
            ),
            "",
        )
        self.sections.show_rows(rows, here)
        self.sections.setFixedHeight(theme.px(40 * max(1, min(6, len(rows))) + 4))
        dials = []
        for step in recipe.steps:
            for dial in step.opened:
                param = REGISTRY[step.op].params[dial] if step.op in REGISTRY else None
                if param is not None:
                    dials.append(
                        Row(
                            f"{step.name}/{dial}",
                            f"{tr(param.label)}, {step.name}",
                            shown_value(param, step.values.get(dial, param.default)),
                        )
                    )
        self.opened.show_rows(dials, "")
        self.opened.setVisible(bool(dials))
        self.opened.setFixedHeight(theme.px(40 * max(1, min(4, len(dials))) + 4))
        self.opened_heading.note.setText(tr_count(len(dials), "{n} dial", "{n} dials") if dials else tr("all"))
        self._show_feeds(recipe)
        self.seeds.seed = recipe.seed
        self.seeds.update()

    def _show_feeds(self, recipe: Recipe) -> None:
        for kind, box in self.feeds.items():
            wanted = ["", *(step.name for step in recipe.steps if kind_of(step) == map_kind(kind))]
            if [box.itemData(n) for n in range(box.count())] != wanted:
                box.clear()
                for name in wanted:
                    box.addItem(name or "–", name)
            box.setCurrentIndex(max(0, box.findData(recipe.yields.get(kind, ""))))
