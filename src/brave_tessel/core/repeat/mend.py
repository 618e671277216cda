"""What a source's way of mending leaves: the size of its cell and of its whole repeat."""

from __future__ import annotations

from ..gather.exact import EXACT
from ..job.document import Source
from .break_up import cells_of
from .method import METHODS, method_of


def closed_size(source: Source) -> tuple[float, float]:
    """The repeat of a source in mm, as its way of mending leaves it; 0 while it has no size."""
    width, height = mended_size(source)
    across, up = cells_of(source.breakup)
    return width * across, height * up


def mended_at_all(source: Source) -> bool:
    """Whether a source is made to repeat; a mask or ID colours are used exactly as they are."""
    return source.role not in EXACT


def mended_size(source: Source) -> tuple[float, float]:
    """One cell of a source in mm, before its repeat is broken; 0 while it has no size."""
    if not source.sized or source.mend.op not in METHODS:
        return 0.0, 0.0
    width, height = source.sheet_mm
    if source.scatter is not None:
        return width, height
    return method_of(source.mend, checked=False).closed(width, height)
