"""Imports, by name, every module that declares operations. Nothing is scanned."""

from __future__ import annotations

from .buildup import seat, where
from .gather import even_light
from .place import layings
from .recipe import adjust, noise, pattern, piece
from .relief import estimate
from .repeat import break_up, mend

MODULES = (noise, pattern, piece, adjust, even_light, mend, break_up, estimate, where, seat, layings)
