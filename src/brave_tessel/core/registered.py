"""Imports every module that declares something: operations, kinds of layers, checks, pieces.

The folders named here are the homes of declarations. A file added to one of them is there; nothing else has to be told.
"""

from __future__ import annotations

import importlib
import pkgutil
from types import ModuleType

from . import buildup, gather, light, place, relief, repeat, scatter
from .buildup import kinds, rules
from .handover import checks
from .place import checks as scene_checks
from .place import layings, pieces
from .recipe import steps
from .repeat import methods

HOMES = (steps, kinds, rules, methods, checks, scene_checks, pieces, layings)
"""Packages in which every file declares something."""
OTHERS = {
    gather: ("even_light", "balance", "shadows"),
    repeat: ("touch_up", "break_up", "variants", "edge_kinds"),
    scatter: ("shapes", "strew"),
    place: ("copies",),
    relief: ("estimate",),
    light: ("standing", "skies", "lamps", "tone"),
    buildup: ("laying", "look", "tone", "seat", "brush", "decal", "water", "run", "inscription"),
}
"""Modules that declare among other things."""


def _within(package: ModuleType) -> list[ModuleType]:
    names = sorted(entry.name for entry in pkgutil.iter_modules(package.__path__))
    return [importlib.import_module(f"{package.__name__}.{name}") for name in names]


MODULES = (
    *(module for home in HOMES for module in _within(home)),
    *(importlib.import_module(f"{package.__name__}.{name}") for package, names in OTHERS.items() for name in names),
)
