"""The hatches a layer may own, as on a construction drawing, each with the colour of its ground."""

from __future__ import annotations

HATCH_GROUNDS = {
    "slant": "#5E8F78",
    "dots": "#D9D1BE",
    "upright": "#A9C3B4",
    "stones": "#B7AFA2",
    "grid": "#CDBB9B",
    "cross": "#C98F68",
    "waves": "#A9C7DA",
    "level": "#B9B3C9",
}
"""Name of each hatch and the sRGB colour it is drawn on."""


def hatch_ground(name: str) -> str:
    """The ground of a hatch as ``#RRGGBB``; that of the first for a name that is not known."""
    return HATCH_GROUNDS.get(name, HATCH_GROUNDS["slant"])
