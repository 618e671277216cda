"""What lies under the pointer, explained in numbers."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from ...core.colour import display_codes, encode_srgb, luminance
from ...core.job.layers import Layer, Rule, Surface
from ...core.maps import EMISSION_CD, IN_MM, TRAITS, MapKind
from ...core.phrases import Phrase, say
from ...core.plan.planner import seated_layers
from ...core.quantity import format_number
from ...core.sheet import AnyArray, Grid
from ..snapshot import Snapshot
from .results import SurfacePicture


@dataclass(frozen=True, slots=True)
class Probe:
    """One point of a surface: place and heights in mm, slope in degrees."""

    x: float
    y: float
    layer: str
    beneath: str
    over: float
    height: float
    slope: float
    roughness: float
    reflectance: float


def probe_at(done: SurfacePicture, x: float, y: float) -> Probe:
    """Read the evaluated maps at a wrapped point."""
    grid = done.grid
    row, column = grid.row_column(x, y)
    stack = done.stack
    shown = [layer for layer in seated_layers(done.surface.layers) if layer.id not in done.faults]
    number = int(stack.top[row, column])
    layer = shown[number - 1].name if 0 < number <= len(shown) else "Nothing"
    beneath = shown[number - 2].name if number > 1 else ""
    normal = done.maps[MapKind.NORMAL][row, column]
    return Probe(
        x % grid.width_mm,
        y % grid.height_mm,
        layer,
        beneath,
        float(stack.margin[row, column]),
        float(done.maps[MapKind.HEIGHT][row, column]),
        math.degrees(math.acos(min(1.0, float(normal[2])))),
        float(done.maps[MapKind.ROUGHNESS][row, column]),
        float(luminance(done.maps[MapKind.BASE_COLOUR][row, column][None])[0]),
    )


def values_at(done: SurfacePicture, x: float, y: float) -> Phrase:
    """Every map's value at a wrapped point, each with its unit: colours as sRGB codes, a normal by its slope, an angle
    in degrees, light it gives in cd/m².
    """
    row, column = done.grid.row_column(x, y)
    told = []
    for kind, pixels in done.maps.maps.items():
        if kind is MapKind.HEIGHT or not TRAITS[kind].mixes:
            continue
        told.append(f"{TRAITS[kind].label.lower()} {_value(kind, pixels[row, column])}")
    return say("{values}", values=", ".join(told))


def _value(kind: MapKind, value: AnyArray) -> str:
    if kind is MapKind.EMISSION:
        return f"{EMISSION_CD * float(luminance(value[None])[0]):.0f} cd/m²"
    if TRAITS[kind].colour:
        return "#" + "".join(f"{code:02X}" for code in display_codes(value[None, None])[0, 0])
    if kind in {MapKind.NORMAL, MapKind.COAT_NORMAL}:
        return f"{math.degrees(math.acos(min(1.0, float(value[2])))):.0f}°"
    if kind is MapKind.ANISOTROPY_ANGLE:
        return f"{180 * float(value):.0f}°"
    return f"{float(value):.2f}" + (" mm" if kind in IN_MM else "")


def explain(found: Probe) -> tuple[Phrase, Phrase, Phrase]:
    """The probe as the status line says it: where, what lies on top, what it is like there."""
    on_top = say("{layer} lies on top", layer=found.layer)
    if found.beneath:
        over = format_number(found.over, decimals=2)
        on_top = say(
            "{layer} lies on top by {over} mm, over {beneath}", layer=found.layer, over=over, beneath=found.beneath
        )
    return (
        say("x {x:6.1f}  y {y:6.1f} mm", x=found.x, y=found.y),
        on_top,
        say(
            "height {number} mm   slope {slope:.0f}°   roughness {roughness:.2f}   reflectance {reflectance:.2f}",
            number=format_number(found.height, decimals=2),
            slope=found.slope,
            roughness=found.roughness,
            reflectance=found.reflectance,
        ),
    )


def id_at(
    snapshot: Snapshot, surface: Surface, layer: Layer, rule: Rule, x: float, y: float, *, current: Callable[[], bool]
) -> str:
    """The colour that an ID rule's source has at a point, as ``#RRGGBB``; empty without a source."""
    planner, run = snapshot.planner(), snapshot.evaluation(current)
    grid = Grid.for_repeat(surface.width_mm, surface.height_mm, 1024)
    task = planner.rule_picture(rule, grid, layer.id)
    if task is None:
        return ""
    # Exactly, not by the display's table: the colour must be found again.
    codes = np.rint(encode_srgb(np.clip(run.value(task)[grid.row_column(x, y)], 0, 1)) * 255)
    return "#{:02X}{:02X}{:02X}".format(*(int(c) for c in codes))


def rules_at(
    snapshot: Snapshot, surface: Surface, layer: Layer, x: float, y: float, *, current: Callable[[], bool]
) -> str:
    """What each where-rule of a layer gives at a point, and what comes of them."""
    planner, run = snapshot.planner(), snapshot.evaluation(current)
    grid = Grid.for_repeat(surface.width_mm, surface.height_mm, 512)
    row, column = grid.row_column(x, y)
    place = planner.under(surface, layer.id, grid)
    told = []
    for rule in layer.where:
        value = float(run.value(planner.shaped_rule(rule, place.below, grid, layer.id, place.known))[row, column])
        label = rule.rule.operation.label.lower()
        told.append(f"{rule.mode} {label} {value:.2f}{'' if rule.shown else ' (hidden)'}")
    cover = planner.coverage(layer, place.below, grid, place.known)
    whole = 1.0 if cover is None else float(run.value(cover)[row, column])
    return f"{layer.name}: {', '.join(told)} → {whole:.2f}"
