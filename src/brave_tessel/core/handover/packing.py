"""Rectangles packed on a sheet, by whole pixels: bottom-left on a skyline, the tallest first."""

from __future__ import annotations

from collections.abc import Sequence

Size = tuple[int, int]
Spot = tuple[int, int]


def packed(sizes: Sequence[Size], width: int, height: int) -> list[Spot] | None:
    """Lower left corners of rectangles of some sizes on a sheet, none over another; None where they do not fit.

    Each goes where its top comes to lie lowest (Jylänki, A thousand ways to pack the bin, 2010: skyline, bottom-left).
    """
    order = sorted(range(len(sizes)), key=lambda k: (-sizes[k][1], -sizes[k][0], k))
    skyline: list[tuple[int, int, int]] = [(0, 0, width)]
    spots: list[Spot] = [(0, 0)] * len(sizes)
    for k in order:
        wide, tall = sizes[k]
        best: tuple[int, int, int] | None = None
        for index in range(len(skyline)):
            floor = _floor(skyline, index, wide, width)
            if floor is None or floor + tall > height:
                continue
            found = (floor + tall, skyline[index][0], floor)
            best = found if best is None else min(best, found)
        if best is None:
            return None
        top, x, y = best
        spots[k] = (x, y)
        skyline = _raised(skyline, x, wide, top)
    return spots


def _floor(skyline: list[tuple[int, int, int]], index: int, wide: int, width: int) -> int | None:
    """How high the skyline is under a rectangle that begins at one of its steps."""
    x = skyline[index][0]
    if x + wide > width:
        return None
    floor = 0
    for start, level, run in skyline[index:]:
        if start >= x + wide:
            break
        floor = max(floor, level)
        if start + run >= x + wide:
            break
    return floor


def _raised(skyline: list[tuple[int, int, int]], x: int, wide: int, top: int) -> list[tuple[int, int, int]]:
    out: list[tuple[int, int, int]] = []
    for start, level, run in skyline:
        if start < x:
            out.append((start, level, min(run, x - start)))
        if start + run > x + wide:
            left = max(start, x + wide)
            out.append((left, level, start + run - left))
    out.append((x, top, wide))
    return sorted(out)
