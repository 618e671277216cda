"""Whether base colour lies where real materials reflect."""

from __future__ import annotations

import numpy as np

from ...colour import PLAUSIBLE_LINEAR, implausible_share, luminance
from ...maps import MapKind
from ...phrases import say
from ..check import Case, Finding, check


@check("base-colour")
def base_colour(case: Case) -> Finding:
    """Base colour lies where real materials reflect (8-bit sRGB 30 to 240, common practice)."""
    pixels = case.maps[MapKind.BASE_COLOUR]
    share = implausible_share(pixels)
    y = luminance(pixels)
    off = np.maximum(PLAUSIBLE_LINEAR[0] - y, y - PLAUSIBLE_LINEAR[1])
    row, column = divmod(int(off.argmax()), y.shape[1])
    grid = case.maps.grid
    spot = (float(grid.x_mm()[column]), float(grid.y_mm()[row]))
    if share < 0.01:
        return Finding(
            "base-colour",
            case.surface.id,
            "ok",
            "Base colour is plausible",
            say("{share:.1%} of it lies outside sRGB 30 to 240.", share=share),
            measures={"share": share},
        )
    darker = float(np.mean(y < PLAUSIBLE_LINEAR[0])) >= share / 2
    cause = say(
        "{share:.1%} of it reflects {value} than real materials do (sRGB 30 to 240).",
        share=share,
        value="less" if darker else "more",
    )
    severity = "fault" if share > 0.2 else "caution"
    return Finding(
        "base-colour",
        case.surface.id,
        severity,
        say("Base colour too {value}", value="dark" if darker else "light"),
        cause,
        spot=spot,
        measures={"share": share},
    )
