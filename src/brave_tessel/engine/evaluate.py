"""Tasks evaluated with the cache; a failing layer is skipped and its fault kept for its card."""

from __future__ import annotations

import logging
import time
from collections import Counter
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field, fields, is_dataclass
from functools import partial
from typing import Any

import numpy as np

from ..core.errors import CancelledError, TesselError, UnknownOperationError
from ..core.pace import watched
from ..core.plan.tasks import Task
from .cache import Cache

log = logging.getLogger(__name__)


def always() -> bool:
    """The token of work that nothing overtakes."""
    return True


@dataclass(slots=True)
class Evaluation:
    """One run over a plan. ``current`` is asked between tasks; when it says no, the run stops. A ``sparing`` one keeps
    little of what it makes on its way.
    """

    cache: Cache
    current: Callable[[], bool] = always
    progress: Callable[[str], None] | None = None
    sparing: bool = False
    faults: dict[str, TesselError] = field(default_factory=dict)
    costs_ms: dict[str, float] = field(default_factory=dict)
    _keep: dict[bytes, Any] = field(default_factory=dict)
    _wanted: Counter[bytes] = field(default_factory=Counter)
    _stood_in: set[bytes] = field(default_factory=set)
    _unsound: set[bytes] = field(default_factory=set)
    _asked: set[bytes] = field(default_factory=set)

    def __post_init__(self) -> None:
        self.cache.begin_run()

    def value(self, task: Task) -> Any:
        """The task's result, from the cache or computed.

        Raises
        ------
        CancelledError
            when newer work has overtaken this.
        TesselError
            when the task fails and nothing can stand in for it.
        """
        return self.values(task)[0]

    def values(self, *tasks: Task) -> list[Any]:
        """Several tasks' results, in their order; what they share is worked out once, however little can be kept.

        Raises as :meth:`value` does.
        """
        if self._wanted or all(self.at_hand(task) for task in tasks):
            return [self._value(task) for task in tasks]
        self._count(tasks)
        self._asked.update(task.key for task in tasks)
        try:
            return [self._value(task) for task in tasks]
        finally:
            self._wanted.clear()

    def _count(self, tasks: Iterable[Task]) -> None:
        """How many tasks of a plan want each other's results: what none wants any more need not be held. What a result
        that is there was made of is not looked at again.
        """
        waiting, seen = list(tasks), set()
        while waiting:
            found = waiting.pop()
            self._wanted[found.key] += 1
            if found.key not in seen and not self.at_hand(found):
                seen.add(found.key)
                waiting += found.inputs

    def _value(self, task: Task) -> Any:
        found = self._keep.get(task.key)
        if found is None:
            found = self.cache.get(task.key)
        if found is None:
            found = self._compute(task)
        self._keep[task.key] = found
        return found

    def _let_go(self, tasks: Iterable[Task]) -> None:
        """These have been used once; the cache decides whether they are held on."""
        for task in tasks:
            self._wanted[task.key] -= 1
            kept = self._stood_in if self.sparing else self._unsound
            if self._wanted[task.key] <= 0 and task.key not in kept:
                self._keep.pop(task.key, None)

    def at_hand(self, task: Task) -> bool:
        """Whether the task's result is there without any work."""
        return task.key in self._keep or self.cache.get(task.key) is not None

    def _compute(self, task: Task) -> Any:
        if not self.current():
            raise CancelledError
        try:
            inputs = [self._value(wanted) for wanted in task.inputs]
            if self.progress:
                self.progress(task.label)
            begun = time.perf_counter()
            with watched(partial(self._watch, task.label)):
                result = task.run(*inputs)
            del inputs
            self._let_go(task.inputs)
        except TesselError as error:
            return self._stand_in(task, error)
        except (ArithmeticError, ValueError, TypeError, KeyError, IndexError, AttributeError, MemoryError) as error:
            log.exception("task %s failed", task.label)
            return self._stand_in(task, TesselError(task.label, value=str(error), remedy="Undo the last change."))
        ms = (time.perf_counter() - begun) * 1000
        self.costs_ms[task.label] = self.costs_ms.get(task.label, 0) + ms
        self.cache.note_cost(task.key, ms)
        freeze(result)
        if any(wanted.key in self._unsound for wanted in task.inputs):
            # Made of what stands in for something that failed: whoever asks next is told of the fault again.
            self._unsound.add(task.key)
        else:
            self.cache.put(task.key, result, ms=ms if self.sparing and task.key not in self._asked else None)
        return result

    def _watch(self, label: str, share: float) -> bool:
        if self.progress:
            self.progress(f"{label} {share:.0%}")
        return self.current()

    def raise_faults(self) -> None:
        """Raise the first of what failed and was stood in for, if anything did. What another version made and this one
        does not know is kept, not failed.
        """
        for error in self.faults.values():
            if not isinstance(error, UnknownOperationError):
                raise error

    def _stand_in(self, task: Task, error: TesselError) -> Any:
        if task.fallback is None:
            raise error
        self.faults[task.owner] = error
        # What failed is in no cache and is not tried again in this run.
        self._stood_in.add(task.key)
        self._unsound.add(task.key)
        return self._value(task.fallback)


def freeze(result: Any) -> None:
    """Make every array of a result read-only: results are shared."""
    if isinstance(result, np.ndarray):
        result.flags.writeable = False
    elif isinstance(result, (tuple, list)):
        for part in result:
            freeze(part)
    elif is_dataclass(result):
        for entry in fields(result):
            value = getattr(result, entry.name)
            if hasattr(value, "values"):
                for part in value.values():
                    freeze(part)
            else:
                freeze(value)
