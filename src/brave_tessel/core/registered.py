"""Imports, by name, every module that declares operations. Nothing is scanned."""

from __future__ import annotations

from .buildup import brush, decal, inscription, laying, look, run, seat, tone, water, where
from .gather import balance, even_light
from .place import layings
from .recipe.steps import (
    adjust,
    blur,
    cellular,
    colours,
    combine,
    form,
    fractal,
    layouts,
    marks,
    move,
    noise,
    pattern,
    piece,
    reliefs,
    sheets,
    stray,
    tune,
)
from .relief import estimate
from .repeat import break_up, mend, touch_up, variants
from .scatter import shapes, strew

MODULES = (
    noise,
    fractal,
    cellular,
    marks,
    pattern,
    layouts,
    sheets,
    piece,
    stray,
    adjust,
    tune,
    blur,
    move,
    form,
    combine,
    colours,
    reliefs,
    even_light,
    balance,
    mend,
    touch_up,
    break_up,
    variants,
    shapes,
    strew,
    estimate,
    where,
    laying,
    look,
    tone,
    seat,
    brush,
    decal,
    water,
    run,
    inscription,
    layings,
)
