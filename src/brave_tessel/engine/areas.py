"""A part of a result worked out alone: only the tasks that changed, and only where they changed."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from ..core.buildup.stack import Stack
from ..core.errors import CancelledError
from ..core.plan.area import Area
from ..core.plan.tasks import Local, Task
from .cache import Cache
from .evaluate import always, freeze

WORTH = 0.35
"""Up to this share of the sheet a part is quicker than the whole."""


FAR_PX = 6
"""What looks further than that, and may, waits until the hand rests: each pixel of it is more work all around."""


def _lags(local: Local) -> bool:
    return local.may_lag and isinstance(local.reach, int) and local.reach > FAR_PX


class NotLocalError(Exception):
    """The change cannot be worked out in a part of the sheet; the whole has to be."""


@dataclass(slots=True)
class AreaRun:
    """One evaluation of parts. ``cache`` holds the whole results of an earlier plan.

    A task that changed is done on the part it is asked for, with as much around it as it looks at. What looks at the
    whole sheet and changed keeps its earlier result, and while the hand moves (``moving``) so does a rule that looks
    far around: they are put right when it rests, or by the next whole evaluation.
    """

    cache: Cache
    current: Callable[[], bool] = always
    moving: bool = False
    _whole: dict[bytes, Any] = field(default_factory=dict)
    _order: list[Task] = field(default_factory=list)
    _margin: dict[bytes, int] = field(default_factory=dict)
    _done: dict[bytes, tuple[Area, Any]] = field(default_factory=dict)

    def plan(self, task: Task, before: Task) -> int:
        """Take up a task and the one that stood in its place earlier; returns how far what changed can be seen, pixels.

        Raises
        ------
        NotLocalError
            when something that changed can only be worked out for the whole sheet.
        """
        self._take_up(task, before, set())
        self._margin = {entry.key: 0 for entry in self._order}
        for entry in reversed(self._order):
            around = self._margin[entry.key] + self._reach(entry)
            for wanted in entry.inputs:
                if wanted.key in self._margin:
                    self._margin[wanted.key] = max(self._margin[wanted.key], around)
        return max(self._margin.values(), default=0)

    def value(self, task: Task, area: Area) -> Any:
        """The planned task's result on an area.

        Raises
        ------
        NotLocalError
            when the part with its surroundings is no less work than the whole.
        CancelledError
            when newer work has overtaken this.
        """
        widest = area.grown(max(self._margin.values(), default=0))
        if widest.size > WORTH * area.grid.width_px * area.grid.height_px:
            raise NotLocalError
        self._done = {}
        for entry in self._order:
            if not self.current():
                raise CancelledError
            self._do(entry, area)
        return self._on(task, area)

    def _take_up(self, task: Task, before: Task | None, seen: set[bytes]) -> None:
        if task.key in seen:
            return
        seen.add(task.key)
        whole = self.cache.get(task.key)
        if whole is None and task.gridless:
            whole = self._number(task)
        if whole is None and (task.local is None or (self.moving and _lags(task.local))):
            whole = None if before is None else self.cache.get(before.key)
            if task.local is None and (whole is None or isinstance(whole, Stack)):
                raise NotLocalError
        if whole is not None:
            self._whole[task.key] = whole
            return
        alike = before is not None and len(before.inputs) == len(task.inputs)
        earlier = before.inputs if before is not None and alike else (None,) * len(task.inputs)
        for wanted, was in zip(task.inputs, earlier, strict=True):
            self._take_up(wanted, was, seen)
        self._order.append(task)

    def _number(self, task: Task) -> Any:
        """A result that lies on no grid, where what it is made of is there; None otherwise."""
        inputs = [self.cache.get(wanted.key) for wanted in task.inputs]
        return None if any(wanted is None for wanted in inputs) else task.run(*inputs)

    def _reach(self, task: Task) -> int:
        assert task.local is not None
        if callable(task.local.reach):
            return task.local.reach(*(self._whole[wanted.key] for wanted in task.inputs if wanted.gridless))
        return task.local.reach

    def _do(self, task: Task, area: Area) -> None:
        assert task.local is not None
        mine = area.grown(self._margin[task.key])
        around = mine.grown(self._reach(task))
        made = task.local.work(around)(
            *(self._whole[wanted.key] if wanted.gridless else self._on(wanted, around) for wanted in task.inputs)
        )
        made = mine.inside(around).cut(made)
        freeze(made)
        self._done[task.key] = (mine, made)

    def _on(self, task: Task, area: Area) -> Any:
        if task.key in self._whole:
            return area.cut(self._whole[task.key])
        have, made = self._done[task.key]
        return made if have == area else area.inside(have).cut(made)
