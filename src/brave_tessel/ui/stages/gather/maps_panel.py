"""The maps of a source: what each is, why, and one click to set it right."""

from __future__ import annotations

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QToolButton, QVBoxLayout, QWidget

from ....core.gather.names import UNKNOWN
from ....core.gather.roles import ROLES
from ....core.gather.several import SAME_PATCH
from ....core.job.document import Picture, Source
from ....core.maps import TRAITS, MapKind
from ....engine.gather.reading import missing_roles
from ... import theme
from ...controls.panels import button, words
from ...words import tr

_SEEN = {MapKind.BASE_COLOUR.value, "specular", SAME_PATCH, UNKNOWN}
"""Roles that are colours: a curve is right for them."""


def word_of(role: str) -> str:
    """A role in words."""
    return TRAITS[MapKind(role)].label if role in set(MapKind) else role.replace("_", " ").capitalize()


class MapsPanel(QWidget):
    """One block a map. ``changed`` carries the picture's id, a field and its new value."""

    changed = pyqtSignal(str, str, object)
    removed = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(0, 0, 0, 0)
        self.column.setSpacing(theme.px(8))
        self.shown: object = None
        self.roles: dict[str, QComboBox] = {}

    def show_source(self, source: Source | None) -> None:
        """Rebuilt only when the maps are others than before."""
        pictures = source.pictures if source else ()
        if pictures is self.shown:
            return
        self.shown = pictures
        self.roles = {}
        while self.column.count():
            item = self.column.takeAt(0)
            widget = item.widget() if item else None
            if widget:
                widget.hide()
                widget.deleteLater()
        for picture in pictures:
            self.column.addWidget(self._block(picture))
        lacking = missing_roles(source) if source is not None and pictures else ()
        if lacking:
            self.column.addWidget(
                words(
                    tr(
                        "Missing: {names}; estimated from the others.",
                        names=", ".join(role.replace("_", " ") for role in lacking),
                    )
                )
            )
        if source is not None and not pictures:
            self.column.addWidget(
                words(
                    tr(
                        "Only this picture; relief and roughness are estimated from it. "
                        "Drop a folder to bring a whole set."
                    )
                )
            )

    def _block(self, picture: Picture) -> QWidget:
        block = QWidget()
        column = QVBoxLayout(block)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(theme.px(3))
        row = QHBoxLayout()
        row.setSpacing(theme.px(4))
        role = QComboBox()
        role.setAccessibleName(tr("Role of {file_name}", file_name=picture.file_name))
        for name in ROLES:
            role.addItem(tr(word_of(name)), name)
        role.setCurrentIndex(ROLES.index(str(picture.role)) if picture.role in ROLES else ROLES.index(UNKNOWN))
        role.activated.connect(lambda index, box=role: self.changed.emit(picture.id, "role", box.itemData(index)))
        self.roles[picture.id] = role
        top = QHBoxLayout()
        top.addWidget(role, 1)
        remove = QToolButton()
        remove.setObjectName("flat")
        remove.setIcon(theme.tinted("x", "ink_2", 14))
        remove.setToolTip(tr("Take this map out"))
        remove.setAccessibleName(tr("Take out {file_name}", file_name=picture.file_name))
        remove.clicked.connect(lambda: self.removed.emit(picture.id))
        top.addWidget(remove)
        column.addLayout(top)
        if picture.role == MapKind.NORMAL:
            row.addWidget(self._green(picture))
        if picture.role in {MapKind.NORMAL, MapKind.HEIGHT}:
            over = button(
                tr("Turn over"),
                lambda: self.changed.emit(picture.id, "turned_over", not picture.turned_over),
                tip=tr("Relief that goes in comes out, and the other way round"),
            )
            over.setCheckable(True)
            over.setChecked(picture.turned_over)
            row.addWidget(over)
        if picture.role not in _SEEN:
            curve = button(
                tr("sRGB curve"),
                lambda: self.changed.emit(picture.id, "curved", not picture.curved),
                tip=tr("Whether these numbers were stored with a curve meant for colours"),
            )
            curve.setCheckable(True)
            curve.setChecked(picture.curved)
            row.addWidget(curve)
        if row.count():
            column.addLayout(row)
        channel = "" if picture.channel == "rgb" else tr(", channel {channel}", channel=picture.channel)
        column.addWidget(words(f"{picture.file_name}{channel}"))
        unsure = picture.role == UNKNOWN or (picture.role == MapKind.NORMAL and picture.green == UNKNOWN)
        note = words(tr(picture.reason), "caution" if unsure else "note")
        column.addWidget(note)
        return block

    def _green(self, picture: Picture) -> QWidget:
        following = "up" if picture.green == "down" else "down"
        made = button(
            tr("Green {green}", green=picture.green),
            lambda: self.changed.emit(picture.id, "green", following),
            tip=tr("Which way the green channel of the normal map points; click to change"),
        )
        made.setAccessibleName(tr("Green {green} of {file_name}", green=picture.green, file_name=picture.file_name))
        return made
