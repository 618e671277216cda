"""The light rig: set it up, take frames, see them arrive, get a source."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import numpy as np
from PyQt6.QtCore import QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QImage, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QWidget

from ....core.colour import display_codes
from ....core.operation import Angle, Choice, Fraction, Param, Whole
from ....core.sheet import AnyArray
from ....engine.gather.rig import FAULTS, SAMPLES, Capture, LightRig, RigSettings, frames_as_codes, measure
from ....engine.gather.scans import Scan, scan_source
from ....engine.wording import sentence
from ....engine.workers import Current
from ... import theme
from ...board import to_image
from ...controls.form import control_for
from ...controls.panels import Column, Heading, button, words
from ...desk import Desk
from ...words import tr
from ...workroom import Pace

_FIELDS: dict[str, tuple[str, Param]] = {
    "sample": ("Sample", Choice(*SAMPLES, help="What lies under the lights; the stand-in's samples are made up.")),
    "frames": ("Frames", Whole(8, 12, help="How many lights, one frame each.")),
    "height": (
        "Height of the lights",
        Angle(15, 70, help="Over the sheet; low lights show fine relief and cast more shadow."),
    ),
    "exposure": ("Exposure", Fraction(-3, 3, unit="stops", help="What is too bright is cut off at white.")),
    "noise": ("Noise", Fraction(0, 5, most=50, unit="%", help="Spread of the sensor's noise on a mid grey.")),
    "fault": ("Simulated fault", Choice(*FAULTS, help="What the stand-in should do wrong halfway through.")),
}


_SHOWN_TIMES = {"noise": 100}


class RigCard(Column):
    """Settings and the button. ``frames_taken`` carries pictures as they arrive, ``scanned`` the finished source."""

    frames_taken = pyqtSignal(object)
    scanned = pyqtSignal(object)

    def __init__(self, desk: Desk) -> None:
        super().__init__(tr("Light rig"))
        self.desk = desk
        self.settings = RigSettings()
        self.add(words(tr("Light rig"), "title"))
        self.add(words(tr("Simulated device: single lights from all round give relief and true colour of a sample.")))
        self.take = button(
            tr("Take frames"),
            self.start,
            name="main",
            icon="sun",
            tip=tr("One frame per light, then relief and colour are worked out"),
        )
        self.stop = button(tr("Stop"), self.halt, icon="player-stop", tip=tr("Ends the taking; nothing is added (Esc)"))
        self.stop.setEnabled(False)
        self.add(self.take)
        self.add(self.stop)
        self.state = words("")
        self.fault = words("", "fault")
        self.told = words("", "note")
        for line in (self.state, self.fault, self.told):
            line.hide()
            self.add(line)
        self.add(Heading(tr("Set-up")))
        self.controls: dict[str, Any] = {}
        for name, (label, param) in _FIELDS.items():
            value = getattr(self.settings, name) * _SHOWN_TIMES.get(name, 1)
            control = control_for(replace(param, label=label, default=value), value)
            control.changed.connect(lambda value, key=name: self._set(key, value))
            if hasattr(control, "refused"):
                control.refused.connect(lambda text: desk.tell(text, "fault"))
            self.controls[name] = control
            self.add(control)

    def _set(self, name: str, value: Any) -> None:
        kind = type(getattr(self.settings, name))
        self.settings = replace(
            self.settings, **{name: kind(value / _SHOWN_TIMES[name] if name in _SHOWN_TIMES else value)}
        )

    def _say(self, label: Any, text: str) -> None:
        label.setText(text)
        label.setVisible(bool(text))

    def start(self) -> None:
        """Take the frames off the window's thread."""
        settings, desk = self.settings, self.desk
        for label in (self.state, self.fault, self.told):
            self._say(label, "")
        self._working(True)
        self.frames_taken.emit([])

        intake = desk.session.intake()

        def told(text: str, share: float) -> None:
            desk.work.later(lambda: self._say(self.state, f"{text} · {share:.0%}"))

        def work(current: Current) -> Scan:
            capture = LightRig(settings).take(told, current)
            desk.work.later(lambda: self.frames_taken.emit(pictures_of(capture)))
            desk.work.later(lambda: self._say(self.state, tr("Working out relief and colour…")))
            return scan_source(intake, capture, measure(capture))

        desk.work.ask("rig", work, self._done, pace=Pace.LONG, failed=self._failed, ended=self._ended)

    def halt(self) -> None:
        self.desk.work.cancel("rig")
        self._say(self.state, tr("Stopped; nothing was added."))

    def _working(self, on: bool) -> None:
        self.take.setEnabled(not on)
        self.stop.setEnabled(on)

    def _done(self, scan: Scan) -> None:
        self._say(self.state, "")
        self._say(self.told, scan.told)
        self.scanned.emit(scan)

    def _failed(self, error: Exception) -> None:
        self._say(self.state, "")
        self._say(self.fault, tr(sentence(error)))

    def _ended(self) -> None:
        """However it ended, the button comes back."""
        self._working(False)


def pictures_of(capture: Capture) -> list[tuple[AnyArray, tuple[float, float, float]]]:
    """Small pictures of the frames and where their lights stand."""
    return [
        (display_codes(np.ascontiguousarray(frame[::4, ::4])), light)
        for frame, light in zip(frames_as_codes(capture.frames), capture.lights, strict=True)
    ]


class FramesStrip(QWidget):
    """The frames side by side, each with a mark where its light stood."""

    def __init__(self) -> None:
        super().__init__()
        self.frames: list[tuple[QImage, tuple[float, float, float]]] = []
        self.setMinimumHeight(theme.px(150))
        self.setAccessibleName(tr("Frames of the light rig"))

    def show_frames(self, frames: list[tuple[AnyArray, tuple[float, float, float]]]) -> None:
        self.frames = [(to_image(codes), light) for codes, light in frames]
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        left, top = theme.px(12), theme.px(8)
        painter.setFont(theme.font(12, weight=600))
        painter.setPen(theme.colour("ink"))
        painter.drawText(QRectF(left, top, 300, theme.px(18)), Qt.AlignmentFlag.AlignVCenter, tr("Frames"))
        painter.setFont(theme.font(11))
        painter.setPen(theme.colour("ink_2"))
        if not self.frames:
            painter.drawText(
                QRectF(left, top + theme.px(22), self.width(), theme.px(20)),
                tr("Take frames to see them here, one per light."),
            )
            return
        gap, count = theme.px(8), len(self.frames)
        side = min(self.height() - top - theme.px(52), (self.width() - 2 * left - gap * (count - 1)) / count)
        for index, (image, light) in enumerate(self.frames):
            box = QRectF(left + index * (side + gap), top + theme.px(26), side, side)
            painter.drawImage(box, image)
            painter.setPen(QPen(theme.colour("line"), 1))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(box)
            self._paint_light(painter, box, light)
            painter.setPen(theme.colour("ink_2"))
            turn = math.degrees(math.atan2(light[1], light[0])) % 360
            painter.drawText(QRectF(box.left(), box.bottom() + 2, side, theme.px(18)), f"{turn:.0f}°")

    def _paint_light(self, painter: QPainter, box: QRectF, light: tuple[float, float, float]) -> None:
        reach = 0.44 * box.width()
        x, y = box.center().x() + light[0] * reach, box.center().y() - light[1] * reach
        painter.setPen(QPen(theme.colour("ink"), 1))
        painter.setBrush(theme.colour("white"))
        painter.drawEllipse(QRectF(x - theme.px(3.5), y - theme.px(3.5), theme.px(7), theme.px(7)))
