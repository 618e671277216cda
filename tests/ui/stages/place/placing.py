"""A person's hand on the model."""

from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest


def part(stage, id="north-wall"):
    return stage.desk.job.scene.part(id)


def dado(stage):
    return next(one for one in part(stage).laid if "dado" in one.groups)


def on(view, point, aside=(0, 0)):
    """Where a point of the scene is in the picture, in whole pixels."""
    spot = view.on_screen(point)
    return QPoint(round(spot.x()) + aside[0], round(spot.y()) + aside[1])


def press(view, point, keys=Qt.KeyboardModifier.NoModifier, aside=(0, 0)):
    QTest.mouseClick(view, Qt.MouseButton.LeftButton, keys, on(view, point, aside))
