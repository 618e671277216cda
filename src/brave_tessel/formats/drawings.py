"""Drawings as outlines: SVG paths and shapes, and cut-out pictures by their alpha or their darker part."""

from __future__ import annotations

import io
from typing import Any

import cv2
import numpy as np
from svgelements import SVG, Path, Shape, SVGElement

from ..core.errors import UnreadableFileError
from ..core.outlines import Contour, Outline
from ..core.phrases import say
from ..core.sheet import AnyArray
from .images import decode_codes
from .limited import read_limited

_STEPS = 12
_MOST_POINTS = 200_000


def is_svg(data: bytes) -> bool:
    """Whether bytes are an SVG drawing."""
    return b"<svg" in data[:4096].lower()


def outline_of(data: bytes, name: str) -> Outline:
    """A drawing's outline, y up, in its own unit.

    Raises
    ------
    UnreadableFileError
        when nothing can be made of it.
    """
    found = _svg(data, name) if is_svg(data) else _cut_out(data, name)
    if not found.contours:
        raise UnreadableFileError(
            name, value="nothing is drawn in it", allowed="an SVG with shapes, or a cut-out picture"
        )
    return found


def _svg(data: bytes, name: str) -> Outline:
    lengths, points = read_limited("drawing", data, name)
    return Outline(tuple(np.split(points, np.cumsum(lengths)[:-1])) if len(lengths) else ())


def svg_contours(data: bytes, name: str) -> list[AnyArray]:
    """How many points each contour of an SVG has, and all of them, (N, 2), y up; run in a process of its own.

    Raises
    ------
    UnreadableFileError
        when it is no drawing or has too many points.
    """
    try:
        drawn = SVG.parse(io.BytesIO(data), reify=True)
        contours: list[Contour] = []
        for element in drawn.elements():
            if isinstance(element, Shape) and _is_shown(element):
                contours += _contours(Path(element))
    except MemoryError:
        raise
    except Exception as error:  # noqa: BLE001 - whatever a broken drawing does to its reader is told as one thing
        raise UnreadableFileError(name, value=str(error)[:80], allowed="an SVG drawing") from None
    if sum(map(len, contours)) > _MOST_POINTS:
        raise UnreadableFileError(
            name, value="too many points", allowed=say("up to {most_points} points", most_points=_MOST_POINTS)
        )
    points = np.concatenate(contours) if contours else np.zeros((0, 2))
    return [np.array([len(contour) for contour in contours], np.int64), points]


def _is_shown(element: SVGElement) -> bool:
    """Filled shapes; lines without a filling have no inside."""
    return (
        element.values.get("visibility") != "hidden"
        and element.values.get("display") != "none"
        and element.fill.value is not None
    )


def _contours(path: Any) -> list[Contour]:
    made = []
    for part in path.as_subpaths():
        points: list[tuple[float, float]] = []
        for segment in Path(part):
            steps = 1 if type(segment).__name__ in {"Line", "Close", "Move"} else _STEPS
            points += [(p.x, -p.y) for p in (segment.point(k / steps) for k in range(1, steps + 1)) if p is not None]
        if len(points) > 2 and np.isfinite(points).all():
            made.append(np.array(points, np.float64))
    return made


def _cut_out(data: bytes, name: str) -> Outline:
    codes = decode_codes(data, name)
    alpha, tone = codes[..., 3], codes[..., :3].mean(2)
    # Without an alpha the darker part is the drawing.
    shape = alpha if float(alpha.std()) > 0.02 else 1 - tone
    smooth = cv2.GaussianBlur(np.pad(shape, 1), (0, 0), 0.8)
    found, _tree = cv2.findContours((smooth > 0.5).astype(np.uint8), cv2.RETR_CCOMP, cv2.CHAIN_APPROX_NONE)
    contours = []
    for contour in found:
        if len(contour) < 8:
            continue
        points = contour[:, 0].astype(np.float64)
        # Steps of pixels are smoothed to a running mean of five; outer and inner edges run opposite ways already.
        rounded = np.mean([np.roll(points, k, 0) for k in range(-2, 3)], axis=0)
        contours.append(np.ascontiguousarray(rounded * (1, -1)))
    return Outline(tuple(contours))
