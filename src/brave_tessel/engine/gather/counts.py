"""Of how many whole periods a sheet is closed: as many as it holds, or some fewer where that closes better."""

from __future__ import annotations

from collections.abc import Callable

import msgspec
import numpy as np

from ...core.errors import TesselError
from ...core.job.document import Job, Source
from ...core.repeat.judge import JoinVerdict, Verdict
from ..evaluate import always
from ..pictures.verdicts import judged
from ..snapshot import Snapshot

TRIED = 3
"""So many counts are tried each way, from the largest down."""
_LEFT = 0.5
"""Share of the sheet that a cell has at the least."""
_ALIKE = 0.08
"""Joins of one verdict whose strange shares, over all sizes of patches, differ by less close alike: of them the larger
cell is taken.
"""
Rank = tuple[Verdict, float]


def soundest_counts(snapshot: Snapshot, source: Source, *, current: Callable[[], bool] = always) -> tuple[int, int]:
    """Whole periods across and up at which the joins of a source are judged best, of those it holds and some fewer; it
    is cut to the most already (``mend.courses``). 0 stays 0.

    A photo's far edge is seldom as regular as its middle, and what is cut there shows.
    """
    values = source.mend.complete()
    ways = (("across", source.sheet_mm[0]), ("up", source.sheet_mm[1]))
    room = [_room(int(values[name]), float(values[f"period_{name}"]), length) for name, length in ways]
    seen: tuple[dict[int, Rank], dict[int, Rank]] = ({}, {})
    for turn in range(max(map(len, room))):
        counts = [way[min(turn, len(way) - 1)] for way in room]
        joins = _closed(snapshot, source, counts, current)
        for count, join, own in zip(counts, joins, seen, strict=False):
            own.setdefault(count, (join.verdict, float(np.mean(join.coherence.strange))))
        if joins and all(min(own.values())[0] is Verdict.GOOD for own in seen):
            break
    across, up = (_best(own) if own else way[0] for own, way in zip(seen, room, strict=True))
    return across, up


def _room(most: int, period: float, length: float) -> list[int]:
    fewer = [n for n in range(most - 1, max(most - TRIED, 0), -1) if n * period >= _LEFT * length]
    return [most, *fewer]


def _closed(
    snapshot: Snapshot, source: Source, counts: list[int], current: Callable[[], bool]
) -> tuple[JoinVerdict, ...]:
    """The joins of a source closed by so many periods; none where it cannot be."""
    values = {**source.mend.values, "across": counts[0], "up": counts[1]}
    tried = msgspec.structs.replace(source, mend=msgspec.structs.replace(source.mend, values=values))
    try:
        return judged(snapshot.with_job(Job(sources=(tried,))), tried, current=current)[0]
    except TesselError:
        return ()


def _best(seen: dict[int, Rank]) -> int:
    verdict, strange = min(seen.values())
    return max(n for n, (own, share) in seen.items() if own is verdict and share <= strange + _ALIKE)
