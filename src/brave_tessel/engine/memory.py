"""Freed pictures are kept for the next ones instead of being given back to the system and faulted in anew."""

from __future__ import annotations

import ctypes
import logging
from functools import cache

from ..core.errors import TooLargeError
from ..core.phrases import say
from ..core.sheet import Grid
from ..formats.images import memory_budget

log = logging.getLogger(__name__)
_TRIM_THRESHOLD, _MMAP_THRESHOLD, _ARENA_MAX = -1, -3, -8
_LARGEST = 1 << 30


@cache
def keep_freed_memory() -> bool:
    """Tell glibc's allocator to reuse freed memory for arrays up to a GiB, from one arena for all threads.

    An array of many MB is mapped and unmapped each time by default, and its pages are zeroed and faulted in one by one:
    on the measured machine half the time of a join. Elsewhere than on glibc nothing happens. Returns whether it took.
    """
    try:
        libc = ctypes.CDLL("libc.so.6")
        return all(
            libc.mallopt(option, value)
            for option, value in ((_ARENA_MAX, 1), (_MMAP_THRESHOLD, _LARGEST), (_TRIM_THRESHOLD, _LARGEST))
        )
    except (OSError, AttributeError):
        log.debug("no glibc allocator to tune")
        return False


def give_back_freed_memory() -> bool:
    """Hand what is kept but not used back to the system, after work that needed far more than what comes next."""
    try:
        return bool(ctypes.CDLL("libc.so.6").malloc_trim(0))
    except (OSError, AttributeError):
        return False


BYTES_A_PIXEL = 300
"""What a surface of many layers takes at its largest, measured on the demo's own."""


def require_room(grid: Grid, *, spare: int = 0) -> None:
    """Refuse a size that would not fit, before anything is computed, and say what would. ``spare`` bytes are held but
    would be given up: a size that has been shown is not refused because its own results are kept.

    Raises
    ------
    TooLargeError
        when the whole sheet takes more than may be used.
    """
    budget = memory_budget(spare)
    if grid.width_px * grid.height_px * BYTES_A_PIXEL <= budget:
        return
    longer = max(grid.width_px, grid.height_px)
    fits = 256
    share = grid.width_px * grid.height_px / longer**2
    while (2 * fits) ** 2 * share * BYTES_A_PIXEL <= budget:
        fits *= 2
    raise TooLargeError(
        say("picture"),
        value=say("{width} × {height} px", width=grid.width_px, height=grid.height_px),
        allowed=say("{px} px in the memory that is free", px=fits),
        remedy="Choose a smaller size, or close what else needs memory.",
    )
