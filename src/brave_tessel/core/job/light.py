"""The light of a job, by which all its pictures are lit."""

from __future__ import annotations

from .nodes import Node, Setting

WALL, FLOOR, CEILING = "wall", "floor", "ceiling"
STANCES = (WALL, FLOOR, CEILING)
"""How a sheet lies to sun and sky."""


class Lamp(Setting, frozen=True, kw_only=True):
    """A lamp: a declared operation with its values."""

    id: str
    name: str = ""
    off: bool = False


class Rig(Node, frozen=True, kw_only=True):
    """Sun, sky, lamps, and how the eye or the camera takes them in. ``picture`` is the stored file of an own sky.

    ``name`` is that of the preset it was taken from, empty once it was changed by hand.
    """

    name: str = "Afternoon"
    sun: Setting = Setting(op="light.sun")
    sky: Setting = Setting(op="sky.clear")
    lamps: tuple[Lamp, ...] = ()
    picture: str = ""
    picture_name: str = ""
    eye: Setting = Setting(op="light.eye")


class KeptLight(Node, frozen=True, kw_only=True):
    """A light that was kept under a name."""

    id: str
    name: str
    rig: Rig
