"""Letters as outlines, from the fonts that ship with the program and those installed."""

from __future__ import annotations

import os
from collections.abc import Iterable
from functools import cache, lru_cache
from pathlib import Path
from typing import Any

import numpy as np
from fontTools.pens.basePen import BasePen
from fontTools.ttLib import TTFont, TTLibError
from PIL import ImageFont

from ..core.errors import MissingError, UnreadableFileError
from ..core.outlines import Contour, Outline

SHIPPED = Path(__file__).resolve().parents[1] / "ui" / "assets" / "fonts"
_ENDINGS = {".ttf", ".otf", ".woff"}
_STEPS = 8
"""Straight pieces of a curve."""


def _folders() -> Iterable[Path]:
    home = Path(os.environ.get("XDG_DATA_HOME") or Path.home() / ".local/share")
    yield SHIPPED
    yield home / "fonts"
    yield Path.home() / ".fonts"
    for folder in os.environ.get("XDG_DATA_DIRS", "/usr/local/share:/usr/share").split(":"):
        yield Path(folder) / "fonts"


@cache
def fonts() -> dict[str, Path]:
    """Font files by their full name, the shipped ones first; unreadable ones are passed over."""
    found: dict[str, Path] = {}
    for folder in _folders():
        for path in sorted(folder.rglob("*")) if folder.is_dir() else ():
            if path.suffix.lower() not in _ENDINGS:
                continue
            try:
                family, style = ImageFont.truetype(str(path), 16).getname()
            except OSError:
                continue
            name = f"{family} {style}".replace(" Regular", "").replace(" Book", "") if style else str(family)
            found.setdefault(name, path)
    return found


class _Flatten(BasePen):  # type: ignore[misc]
    """Collects contours, curves as short straight pieces; moved right by ``shift``."""

    def __init__(self, glyphs: Any, shift: float) -> None:
        super().__init__(glyphs)
        self.shift = shift
        self.contours: list[list[tuple[float, float]]] = []

    def _put(self, x: float, y: float) -> None:
        self.contours[-1].append((x + self.shift, y))

    def _moveTo(self, point: tuple[float, float]) -> None:
        self.contours.append([])
        self._put(*point)

    def _lineTo(self, point: tuple[float, float]) -> None:
        self._put(*point)

    def _curveToOne(self, one: tuple[float, float], two: tuple[float, float], end: tuple[float, float]) -> None:
        start = self._getCurrentPoint()
        for k in range(1, _STEPS + 1):
            t = k / _STEPS
            a, b, c, d = (1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t**3
            self._put(*(a * p + b * q + c * r + d * s for p, q, r, s in zip(start, one, two, end, strict=True)))

    def _closePath(self) -> None:
        pass


@lru_cache(maxsize=8)
def _opened(path: Path) -> tuple[Any, Any, Any, float]:
    try:
        face = TTFont(str(path), lazy=True)
        return (
            face.getGlyphSet(),
            face.getBestCmap() or {},
            ImageFont.truetype(str(path), 1000),
            float(face["head"].unitsPerEm),
        )
    except (TTLibError, OSError, KeyError) as error:
        raise UnreadableFileError(path.name, value=str(error), allowed="a font") from None


@lru_cache(maxsize=64)
def letters(font: str, text: str) -> Outline:
    """A text's outline, 1 the height of its em, y up; lines below each other at 1.2, centred. Kerned as the font says.

    Raises
    ------
    MissingError
        when there is no such font here.
    UnreadableFileError
        when its file is damaged.
    """
    path = fonts().get(font)
    if path is None:
        raise MissingError("font", value=font, remedy="Choose another one, or install it.")
    glyphs, chart, measured, em = _opened(path)
    contours: list[Contour] = []
    for row, line in enumerate(text.split("\n")):
        wide = measured.getlength(line) / 1000
        for index, letter in enumerate(line):
            name = chart.get(ord(letter), ".notdef")
            # The end of the run up to and with it, less its own width: kerning is in it.
            start = (measured.getlength(line[: index + 1]) - measured.getlength(letter)) / 1000
            pen = _Flatten(glyphs, 0.0)
            glyphs[name].draw(pen)
            for contour in pen.contours:
                if len(contour) > 2:
                    contours.append(np.array(contour, np.float64) / em + (start - wide / 2, -1.2 * row))
    return Outline(tuple(contours))
