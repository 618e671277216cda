"""Pictures as palettes: colours along a line, or the dominant ones of an area."""

from __future__ import annotations

import cv2
import numpy as np
import numpy.typing as npt
from scipy.ndimage import map_coordinates

from ..colour import lab_of, linear_of_lab, linear_to_hex
from ..errors import OutOfRangeError
from ..phrases import say
from ..sheet import Raster

MOST_STOPS = 16


def _check(stops: int) -> None:
    if not 2 <= stops <= MOST_STOPS:
        raise OutOfRangeError("Stops", value=stops, allowed=say("2 to {most_stops}", most_stops=MOST_STOPS))


def along_line(pixels: Raster, start: tuple[float, float], end: tuple[float, float], stops: int) -> tuple[str, ...]:
    """``stops`` colours along a line on a linear picture (H, W, 3), from ``start`` to ``end`` in pixels (x, y).

    Each is the mean, in linear light, of its share of the line, so that grain does not decide.
    """
    _check(stops)
    count = stops * 24
    share = (np.arange(count) + 0.5) / count
    x = start[0] + (end[0] - start[0]) * share - 0.5
    y = start[1] + (end[1] - start[1]) * share - 0.5
    seen = np.stack([map_coordinates(pixels[..., k], [y, x], order=1, mode="nearest") for k in range(3)], 1)
    return tuple(_hex(part.mean(0)) for part in np.split(seen, stops))


def dominant(pixels: Raster, stops: int, *, seed: int = 1) -> tuple[str, ...]:
    """The ``stops`` dominant colours of an area, darkest first.

    k-means in CIELAB (Lloyd 1982, with Arthur and Vassilvitskii's 2007 seeding), on a reduced picture.
    """
    _check(stops)
    side = 160 / max(pixels.shape[:2])
    small = cv2.resize(pixels, None, fx=side, fy=side, interpolation=cv2.INTER_AREA) if side < 1 else pixels
    lab = lab_of(np.asarray(small, np.float32).reshape(-1, 3)).astype(np.float32)
    stops_found = min(stops, len(np.unique(np.round(lab, 1), axis=0)))
    cv2.setRNGSeed(seed)
    done = (cv2.TERM_CRITERIA_EPS | cv2.TERM_CRITERIA_MAX_ITER, 60, 0.05)
    blank = np.zeros((len(lab), 1), np.int32)
    _, _, centres = cv2.kmeans(lab, stops_found, blank, done, 4, cv2.KMEANS_PP_CENTERS)
    ordered = centres[np.argsort(centres[:, 0])]
    if stops_found < stops:
        ordered = ordered[np.round(np.linspace(0, stops_found - 1, stops)).astype(int)]
    return tuple(_hex(colour) for colour in np.clip(linear_of_lab(ordered), 0, 1))


def _hex(colour: npt.ArrayLike) -> str:
    r, g, b = (float(c) for c in np.asarray(colour))
    return linear_to_hex((r, g, b))
