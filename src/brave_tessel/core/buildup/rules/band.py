"""Covered in a band."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated

import numpy as np

from ...job.layers import Surface
from ...operation import Choice, Field, Length, Value, operation
from ...sheet import Grid
from ..handles import Handle, Handles, SettingHandles

Values = Mapping[str, Value]


def _shown(surface: Surface, v: Values) -> Handles:
    upright, at, half = v["runs"] == "upright", float(v["at"]), float(v["width"]) / 2
    w, h = surface.width_mm, surface.height_mm
    lines = tuple(((x, 0.0), (x, h)) if upright else ((0.0, x), (w, x)) for x in (at - half, at + half))
    middle, edge = ((at, h / 2), (at + half, h / 2)) if upright else ((w / 2, at), (w / 2, at + half))
    return Handles((Handle("middle", *middle, "middle"), Handle("edge", *edge)), lines)


def _dragged(v: Values, name: str, x: float, y: float, unequal: bool) -> dict[str, Value]:
    place = x if v["runs"] == "upright" else y
    if name == "middle":
        return {"at": round(place, 2)}
    return {"width": max(1.0, round(2 * abs(place - float(v["at"])), 2))}


@operation("where.band", label="Band", handles=SettingHandles(_shown, _dragged))
def band(
    grid: Grid,
    *,
    at: Annotated[
        float,
        Length(0, 1000, least=-1e5, most=1e5, help="Where the middle of the band lies, from the foot or the left."),
    ] = 150.0,
    width: Annotated[float, Length(1, 1000, log=True, least=0.1, help="Width of the band.")] = 120.0,
    soft: Annotated[float, Length(0, 200, least=0, most=1e4, help="How soft its edges are.")] = 20.0,
    runs: Annotated[str, Choice("across", "upright", help="Which way it runs.")] = "across",
) -> Field:
    """A band over the whole sheet."""
    upright = runs == "upright"
    whole, place = grid.across(upright=upright)
    away = np.abs((place - at + whole / 2) % whole - whole / 2)
    line = np.clip((width / 2 - away) / max(soft, grid.pitch_mm) + 0.5, 0, 1)
    return np.asarray(grid.spread(line, upright=upright), np.float32)
