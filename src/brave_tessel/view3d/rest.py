"""A picture at rest: frames are added up, and shown at moments at which one sees the difference."""

from __future__ import annotations

import math
import time
from collections.abc import Callable

from ..core.sheet import AnyArray
from .drawn import Look
from .renderer import Renderer

PASSES = 96
"""Frames after which nothing more is seen to change."""
HELD = 1
"""Frames before the first sum is shown: with what is known of the sky it is no further from the last than eight."""
STILL = 24
"""Frames of a small picture that is taken while something else is shown."""
EVERY = 0.35
"""Seconds between two pictures, at least."""
MORE = 1.4
"""So many times the frames of one picture are in the next: making it takes about as long as a frame."""


def come_to_rest(
    renderer: Renderer, look: Look, show: Callable[[AnyArray, bool], None], current: Callable[[], bool], *,
    passes: int | None = None, held: int | None = None,
) -> int:  # fmt: skip
    """Draw a look ever better; ``show`` is handed (height, width, 3) uint8 codes and whether they are the last.

    Returns how many frames were added up; it ends early where the work has been overtaken.
    """
    passes = passes or PASSES
    held = min(held or HELD, passes)
    shown, due = time.monotonic(), held
    for number in range(passes):
        if not current():
            return number
        renderer.refine(look, number)
        done, now = number + 1, time.monotonic()
        if done in {passes, held} or (done >= due and now - shown > EVERY):
            show(renderer.refined(look, done), done == passes)
            shown, due = now, math.ceil(MORE * done)
    return passes
