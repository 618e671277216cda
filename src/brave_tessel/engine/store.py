"""The only writer of the job: dispatch, history, subscriptions."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from ..core.job.commands import AnyCommand
from ..core.job.document import Job

Selector = Callable[[Job], Any]


@dataclass(frozen=True, slots=True)
class Moment:
    """One state of the job in the history, and the name of what led to it."""

    label: str
    job: Job
    gesture: str = ""


@dataclass(slots=True, eq=False)
class Subscription:
    """A selector and what to call when its result becomes another object."""

    select: Selector
    notify: Callable[[Any], None]
    last: Any = field(default=None)


class Store:
    """Holds the job. Undo is a step of a pointer; a drag is one step until it is released."""

    def __init__(self, job: Job, *, saved: bool = True) -> None:
        self._moments = [Moment("", job)]
        self._at = 0
        self._saved = job if saved else None
        self._subscriptions: list[Subscription] = []

    @property
    def job(self) -> Job:
        """The job as it is now."""
        return self._moments[self._at].job

    @property
    def saved(self) -> bool:
        """Whether the job is, object for object, the one last saved."""
        return self.job is self._saved

    def mark_saved(self, job: Job) -> None:
        """The job that was written; until it is changed, nothing is unsaved."""
        self._saved = job
        self._notify()

    def dispatch(self, command: AnyCommand) -> Job:
        """Apply a command. One that changes nothing leaves no trace; one that fails leaves the job alone."""
        new = command.apply(self.job)
        if new is self.job:
            return new
        moment = Moment(command.label, new, command.gesture)
        here = self._moments[self._at]
        if command.gesture and here.gesture == command.gesture and self._at == len(self._moments) - 1:
            self._moments[self._at] = moment
        else:
            del self._moments[self._at + 1 :]
            self._moments.append(moment)
            self._at += 1
        self._notify()
        return new

    def end_gesture(self) -> None:
        """The drag is released: what follows is a step of its own."""
        here = self._moments[self._at]
        if here.gesture:
            self._moments[self._at] = Moment(here.label, here.job)

    @property
    def undo_label(self) -> str:
        """What undo would take back; empty if nothing."""
        return self._moments[self._at].label if self._at else ""

    @property
    def redo_label(self) -> str:
        """What redo would do again; empty if nothing."""
        return self._moments[self._at + 1].label if self._at + 1 < len(self._moments) else ""

    def undo(self) -> bool:
        """Take the last step back; whether there was one."""
        return self._step(-1)

    def redo(self) -> bool:
        """Do again what was taken back last; whether there was something."""
        return self._step(1)

    def _step(self, by: int) -> bool:
        if not 0 <= self._at + by < len(self._moments):
            return False
        self.end_gesture()
        self._at += by
        self._notify()
        return True

    def replace(self, job: Job, *, saved: bool) -> None:
        """Another job altogether, with a fresh history."""
        self._moments = [Moment("", job)]
        self._at = 0
        self._saved = job if saved else None
        self._notify()

    def subscribe(self, select: Selector, notify: Callable[[Any], None]) -> Subscription:
        """Call ``notify`` with the selector's result now and whenever it becomes another object.

        A selector may pick several things as a tuple; then it fires when one of them becomes another object.
        """
        subscription = Subscription(select, notify, select(self.job))
        self._subscriptions.append(subscription)
        notify(subscription.last)
        return subscription

    def unsubscribe(self, subscription: Subscription) -> None:
        """Tell a subscription nothing any more."""
        self._subscriptions = [kept for kept in self._subscriptions if kept is not subscription]

    def _notify(self) -> None:
        for subscription in list(self._subscriptions):
            result = subscription.select(self.job)
            if not same_objects(result, subscription.last):
                subscription.last = result
                subscription.notify(result)


def same_objects(one: Any, other: Any) -> bool:
    """Whether two results of a selector are the same object, or tuples of the very same objects."""
    if one is other:
        return True
    alike = type(one) is tuple and type(other) is tuple and len(one) == len(other)
    return alike and all(a is b for a, b in zip(one, other, strict=True))
