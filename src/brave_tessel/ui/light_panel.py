"""The one light menu: presets, exposure, sun, sky, lamps, white, and where one looks from."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import Any

from PyQt6.QtCore import QDate, QLocale, QPoint, QRect, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QPen, QPixmap
from PyQt6.QtWidgets import (
    QAbstractButton,
    QComboBox,
    QFileDialog,
    QFrame,
    QGridLayout,
    QInputDialog,
    QMenu,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from ..core.job.light import Rig
from ..core.job.nodes import Setting
from ..core.light.dome import sun_of
from ..core.light.lighting import Eye
from ..core.light.presets import PRESETS, make_preset
from ..core.light.standing import BY_HOUR, SunSettings
from ..core.operation import REGISTRY, Angle, Fraction, Param, called
from ..engine.intents import light as intents
from ..engine.pictures.light import sky_strip
from . import theme
from .board import to_image
from .controls.choices import fill
from .controls.form import OperationForm
from .controls.panels import Column, Section, button, words
from .controls.ruled_scale import RuledScale
from .desk import Desk
from .words import tr
from .workroom import Pace

STRIP = (146, 48)
SKIES = ("sky.clear", "sky.overcast", "sky.room", "sky.picture")
LAMPS = ("lamp.soft_box", "lamp.strip", "lamp.bulb")
_STOPS = called("Exposure", Fraction(-3, 3, least=-12, most=12, unit="stops", help="0 shows 18 % grey as it is."))
_OFF = called(
    "Off the upright", Angle(0, 75, help="How far aside one looks from: a gloss mirrors another part of the sky.")
)
_SIDE = called("Side", Angle(0, 360, help="On which side the eye is: 0 right, 90 above, 180 left, 270 below."))


class LightPanel(QFrame):
    """A panel that opens over the window; everything in it changes the job's light at once."""

    def __init__(self, desk: Desk, parent: QWidget) -> None:
        super().__init__(parent, Qt.WindowType.Popup)
        self.desk = desk
        self.setObjectName("light_panel")
        self.setStyleSheet(f"QFrame#light_panel {{ border: 1px solid {theme.tokens().ink_2}; }}")
        self.setAccessibleName(tr("Light"))
        self.setFixedWidth(theme.px(332))
        whole = QVBoxLayout(self)
        whole.setContentsMargins(1, 1, 1, 1)
        self.column = Column(tr("Light"))
        whole.addWidget(self.column)
        self.presets: dict[str, _Preset] = {}
        self.column.add(self._make_presets())
        self.stops = self._scale(_STOPS, lambda v: self._do(intents.expose(self.rig, v, self.pictures)))
        self.column.add(self.stops)
        self.point = button(tr("Expose for a point…"), self._pick, tip=tr("Click what shall show as 18 % grey"))
        self.column.add(self.point)
        self.sun = self._setting("sun", tr("Sun"))
        self.stand = words("")
        self.sun.layout().addWidget(self.stand)  # type: ignore[union-attr]
        self.sky = Section(tr("Sky"))
        self.skies = QComboBox()
        self.skies.setAccessibleName(tr("Kind of sky"))
        fill(self.skies, [])
        for op in SKIES:
            self.skies.addItem(tr(REGISTRY[op].label), op)
        self.skies.activated.connect(lambda index: self._take_sky(self.skies.itemData(index)))
        self.sky.add(self.skies)
        self.sky_form: OperationForm | None = None
        self.column.add(self.sky)
        self.lamps = Section(tr("Lamps"))
        self.lamp_forms: dict[str, OperationForm] = {}
        self.lamp_rows = QWidget()
        self.lamp_column = QVBoxLayout(self.lamp_rows)
        self.lamp_column.setContentsMargins(0, 0, 0, 0)
        self.lamps.add(self.lamp_rows)
        self.lamps.add(self._add_button())
        self.column.add(self.lamps)
        self.eye = self._setting("eye", tr("White and view transform"), only=("white", "kelvin", "transform"))
        self.view = Section(tr("View from"))
        self.off = self._scale(_OFF, lambda v: self._look(off=v))
        self.side = self._scale(_SIDE, lambda v: self._look(side=v))
        self.view.add(words(tr("Where one looks at the sheet from, for what it mirrors."), "note"))
        self.view.add(self.off)
        self.view.add(self.side)
        self.column.add(self.view)
        self.kept = Section(tr("Kept lights"))
        self.kept_rows = QWidget()
        self.kept_column = QVBoxLayout(self.kept_rows)
        self.kept_column.setContentsMargins(0, 0, 0, 0)
        self.kept.add(self.kept_rows)
        self.kept.add(button(tr("Keep this light…"), self._keep))
        self.column.add(self.kept)
        self._shown: tuple[object, ...] = ()
        desk.session.store.subscribe(lambda job: (job.rig, job.lights), self._follow)

    # What is there -------------------------------------------------------------------------------

    @property
    def rig(self) -> Rig:
        """The job's light."""
        return self.desk.job.rig

    @property
    def pictures(self) -> Any:
        """Own sky pictures, by their stored file."""
        return self.desk.session.snapshot().sky_picture

    def _make_presets(self) -> QWidget:
        holder = QWidget()
        grid = QGridLayout(holder)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setSpacing(theme.px(6))
        for index, name in enumerate(PRESETS):
            made = _Preset(tr(name))
            made.clicked.connect(partial(self._do_preset, name))
            self.presets[name] = made
            grid.addWidget(made, index // 2, index % 2)
        return holder

    def _scale(self, param: Param, run: Callable[[float], object]) -> RuledScale:
        made = RuledScale(param)
        made.changed.connect(lambda value: run(float(value)))
        made.released.connect(self.desk.end_gesture)
        made.refused.connect(lambda text: self.desk.tell(text, "fault"))
        return made

    def _form(self, setting: Setting, part: str, only: tuple[str, ...] | None = None) -> OperationForm:
        form = OperationForm(setting.op, setting.values, only=only)
        form.changed.connect(
            lambda name, value: self._do(intents.set_value(self.rig, part, name, value, self.pictures))
        )
        form.released.connect(self.desk.end_gesture)
        form.refused.connect(lambda text: self.desk.tell(text, "fault"))
        return form

    def _setting(self, part: str, title: str, only: tuple[str, ...] | None = None) -> OperationForm:
        section = Section(title, unfolded=part == "sun")
        form = self._form(getattr(self.rig, part), part, only)
        section.add(form)
        self.column.add(section)
        return form

    def _add_button(self) -> QWidget:
        made = button(tr("Add a lamp"), lambda: None, icon="plus")
        menu = QMenu(made)
        for op in LAMPS:
            action = menu.addAction(tr(REGISTRY[op].label))
            if action:
                action.triggered.connect(
                    lambda _c=False, chosen=op: self._do(intents.add_lamp(self.rig, chosen, self.pictures))
                )
        made.setMenu(menu)
        return made

    # What is done --------------------------------------------------------------------------------

    def _do(self, command: Any) -> None:
        self.desk.dispatch(command)

    def _do_preset(self, name: str) -> None:
        self._do(intents.take_preset(name))

    def _change_lamp(self, change: Callable[..., Any], id: str) -> None:
        self._do(change(self.rig, id, self.pictures))

    def _look(self, **eye: float) -> None:
        now = self.desk.view.eye
        self.desk.view.look_from(Eye(eye.get("off", now.off), eye.get("side", now.side), now.near))

    def _pick(self) -> None:
        self.hide()
        self.desk.expose_for_point()

    def _take_sky(self, op: str) -> None:
        if op == "sky.picture" and not self.rig.picture:
            self.choose_picture()
        elif op != self.rig.sky.op:
            self._do(intents.take_sky(self.rig, op, self.pictures))

    def choose_picture(self) -> None:
        """Ask for an own sky picture."""
        dialog = QFileDialog(self.parentWidget(), tr("A picture of the whole sky"))
        dialog.setNameFilter(tr("Sky pictures (*.hdr *.exr *.png *.jpg *.tif)"))
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if dialog.exec():
            self.take_picture(Path(dialog.selectedFiles()[0]))
        self._follow(None)

    def take_picture(self, path: Path) -> None:
        """An own picture from a file as the sky; what cannot be read is told."""
        desk, intake = self.desk, self.desk.session.intake()

        def then(blob: str) -> None:
            self._do(intents.take_picture(self.rig, blob, path.name, self.pictures))

        desk.work.ask("sky", lambda _current: intake.keep_sky(path), then, pace=Pace.FILES)

    def _keep(self) -> None:
        name, done = QInputDialog.getText(self.parentWidget(), tr("Keep this light"), tr("Name"))
        if done and name.strip():
            self._do(intents.keep_light(self.desk.job, name.strip()))

    # Showing -------------------------------------------------------------------------------------

    def open_at(self, corner: QPoint) -> None:
        """Open with the upper right corner at a place of the screen."""
        self.setFixedHeight(theme.px(600))
        self.move(corner - QPoint(self.width(), 0))
        self.show()
        self._follow(None)
        self._ask_strips()

    def _ask_strips(self) -> None:
        """The presets' skies, once, off the window's thread."""
        width, height = (theme.px(side) for side in STRIP)

        def make(_current: object) -> dict[str, Any]:
            return {name: sky_strip(make_preset(name), width, height) for name in PRESETS}

        def put(strips: dict[str, Any]) -> None:
            for name, codes in strips.items():
                self.presets[name].show_strip(QPixmap.fromImage(to_image(codes)))

        if any(made.strip.isNull() for made in self.presets.values()):
            self.desk.work.ask("light_strips", make, put, pace=Pace.LONG)

    def _follow(self, _seen: object) -> None:
        # Metering asks for the sky: nobody waits for it while the menu is shut, least of all a hand that turns the sun.
        if not self.isVisible():
            return
        rig = self.rig
        for name, made in self.presets.items():
            made.setChecked(rig.name == name)
        self.stops.show_value(round(intents.stops_of(rig, self.pictures), 2))
        self.sun.show_values(rig.sun.values)
        by_hour = rig.sun.value("by") == BY_HOUR
        for dial, control in self.sun.controls.items():
            control.setVisible(dial == "by" or (dial in {"hour", "day", "latitude"}) == by_hour)
        self.stand.setVisible(by_hour)
        if by_hour:
            self.stand.setText(_told_of(sun_of(rig)))
        self.eye.show_values(rig.eye.values)
        self.skies.setCurrentIndex(max(0, self.skies.findData(rig.sky.op)))
        self.sky.say(rig.picture_name if rig.sky.op == "sky.picture" else tr(rig.sky.operation.label))
        eye = self.desk.view.eye
        self.off.show_value(eye.off)
        self.side.show_value(eye.side)
        shape = (rig.sky.op, tuple((lamp.id, lamp.op, lamp.off) for lamp in rig.lamps), self.desk.job.lights)
        if shape != self._shown:
            self._shown = shape
            self._rebuild(rig)
        assert self.sky_form is not None
        self.sky_form.show_values(rig.sky.values)
        for lamp in rig.lamps:
            if lamp.id in self.lamp_forms:
                self.lamp_forms[lamp.id].show_values(lamp.values)

    def _rebuild(self, rig: Rig) -> None:
        """Forms of what has come or gone."""
        if self.sky_form is not None:
            self.sky_form.hide()
            self.sky_form.deleteLater()
        self.sky_form = self._form(rig.sky, "sky")
        self.sky.add(self.sky_form)
        if rig.sky.op == "sky.picture":
            self.sky_form.layout().addWidget(button(tr("Another picture…"), self.choose_picture))  # type: ignore[union-attr]
        _emptied(self.lamp_column)
        self.lamp_forms = {}
        for lamp in rig.lamps:
            section = Section(tr(lamp.operation.label), tr("off") if lamp.off else "")
            form = self._form(lamp, lamp.id)
            switch = button(
                tr("Switch on") if lamp.off else tr("Switch off"),
                partial(self._change_lamp, intents.switch_lamp, lamp.id),
            )
            away = button(tr("Take away"), partial(self._change_lamp, intents.remove_lamp, lamp.id), icon="trash")
            section.add(switch, away)
            section.add(form)
            self.lamp_forms[lamp.id] = form
            self.lamp_column.addWidget(section)
        self.lamps.say(str(len(rig.lamps)) if rig.lamps else tr("none"))
        _emptied(self.kept_column)
        for kept in self.desk.job.lights:
            row = QWidget()
            line = QGridLayout(row)
            line.setContentsMargins(0, 0, 0, 0)
            line.addWidget(button(kept.name, partial(self._do, intents.take_rig(kept.rig, kept.name))), 0, 0)
            line.addWidget(button("", partial(self._do, intents.drop_light(kept.id)), icon="trash"), 0, 1)
            line.setColumnStretch(0, 1)
            self.kept_column.addWidget(row)
        self.kept.say(str(len(self.desk.job.lights)) if self.desk.job.lights else "")


def _told_of(sun: SunSettings) -> str:
    """The day by its date, and where the sun stands then."""
    date = QLocale().toString(QDate(2025, 1, 1).addDays(sun.day - 1), "d MMMM")
    bearing, height = (round(degrees) for degrees in sun.stand)
    if height < 0:
        return tr("{date}: the sun is down.", date=date)
    return tr("{date}: {height}° high, bearing {bearing}°.", date=date, height=height, bearing=bearing)


class _Preset(QAbstractButton):
    """A light by its sky and its name."""

    def __init__(self, name: str) -> None:
        super().__init__()
        self.setText(name)
        self.setCheckable(True)
        self.setAccessibleName(tr("Light: {name}", name=name))
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setFixedSize(theme.px(STRIP[0]), theme.px(STRIP[1] + 20))
        self.strip = QPixmap()

    def show_strip(self, strip: QPixmap) -> None:
        self.strip = strip
        self.update()

    def nextCheckState(self) -> None:
        """What is chosen is the job's to say."""

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        top = QRect(0, 0, self.width(), theme.px(STRIP[1]))
        painter.fillRect(top, theme.colour("board"))
        if not self.strip.isNull():
            painter.drawPixmap(top, self.strip)
        here = self.isChecked()
        painter.fillRect(QRect(0, top.height(), self.width(), self.height()), theme.colour("wash" if here else "panel"))
        painter.setPen(theme.colour("ink"))
        painter.setFont(theme.font(11, weight=600 if here else 400))
        name = QRect(theme.px(6), top.height(), self.width() - theme.px(8), self.height() - top.height())
        painter.drawText(name, Qt.AlignmentFlag.AlignVCenter, self.text())
        painter.setPen(QPen(theme.colour("verdigris" if here or self.hasFocus() else "line"), 2 if here else 1))
        painter.drawRect(self.rect().adjusted(0, 0, -1, -1))


def _emptied(column: QVBoxLayout) -> None:
    while column.count():
        item = column.takeAt(0)
        widget = item.widget() if item else None
        if widget:
            widget.hide()
            widget.deleteLater()


class LightButton(QToolButton):
    """Says by which light all is seen; opens the light menu."""

    def __init__(self, desk: Desk, window: QWidget) -> None:
        super().__init__()
        self.desk = desk
        self.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextBesideIcon)
        self.setIcon(theme.tinted("sun"))
        self.setIconSize(QSize(theme.px(16), theme.px(16)))
        self.setToolTip(tr("Light (Ctrl+J); the right mouse button turns it in every picture"))
        self.panel = LightPanel(desk, window)
        self.clicked.connect(self.open)
        desk.session.store.subscribe(lambda job: job.rig, lambda _rig: self._name())
        self._name()

    def _name(self) -> None:
        name = self.desk.job.rig.name
        text = tr(name) if name else tr("Own light")
        self.setText(text)
        self.setAccessibleName(tr("Light: {name}", name=text))

    def open(self) -> None:
        """Open the menu below the button."""
        self.panel.open_at(self.mapToGlobal(QPoint(self.width(), self.height() + theme.px(4))))
