"""Freed pictures are kept for the next ones instead of being given back to the system and faulted in anew."""

from __future__ import annotations

import ctypes
import logging
from functools import cache

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
