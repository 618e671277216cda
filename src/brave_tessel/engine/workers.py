"""Work off the window's thread. In each channel the latest request wins."""

from __future__ import annotations

import logging
import threading
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass

from ..core.errors import CancelledError, TesselError

log = logging.getLogger(__name__)

Current = Callable[[], bool]
Work = Callable[[Current], None]
Settled = Callable[[Exception | None], None]
"""Called once for each request: with nothing when it was done, with what it raised, or with :class:`CancelledError`
where it was overtaken."""

WAIT_S = 0.05
"""How often work that gives way looks whether it is still wanted."""


def unheard(_error: Exception | None) -> None:
    """Nobody asks how it ended."""


@dataclass(frozen=True, slots=True)
class _Request:
    channel: str
    generation: int
    work: Work
    settled: Settled
    behind: bool = False


class Worker:
    """One thread that serves channels in the order they were asked, those asked for ``behind`` after all others; a
    newer request replaces an older one.

    A worker that ``gives_way_to`` another stands still, between its tasks, while that one has work that was not asked
    for behind: what a person waits for goes before what takes long.
    """

    def __init__(self, name: str = "worker", *, gives_way_to: Worker | None = None) -> None:
        self.gives_way_to = gives_way_to
        self._waiting: OrderedDict[str, _Request] = OrderedDict()
        self._generations: dict[str, int] = {}
        self._wake = threading.Condition()
        self._stopping = False
        self._last: Callable[[], None] | None = None
        self._busy = ""
        self._behind = False
        self._thread = threading.Thread(target=self._serve, name=name, daemon=True)
        self._thread.start()

    def request(self, channel: str, work: Work, settled: Settled = unheard, *, behind: bool = False) -> None:
        """Do ``work`` soon; what the channel was doing or had waiting is overtaken.

        A stopped worker does nothing more. ``settled`` is called exactly once, in whichever thread it ends.
        """
        with self._wake:
            stopping = self._stopping
            generation = self._generations.get(channel, 0) + 1
            self._generations[channel] = generation
            overtaken = self._waiting.pop(channel, None)
            if not stopping:
                self._waiting[channel] = _Request(channel, generation, work, settled, behind)
            self._wake.notify_all()
        if overtaken is not None:
            overtaken.settled(CancelledError())
        if stopping:
            settled(CancelledError())

    def cancel(self, channel: str) -> None:
        """Overtake the channel with nothing."""
        with self._wake:
            self._generations[channel] = self._generations.get(channel, 0) + 1
            overtaken = self._waiting.pop(channel, None)
        if overtaken is not None:
            overtaken.settled(CancelledError())

    def cancel_all(self) -> None:
        """Overtake every channel with nothing."""
        with self._wake:
            channels = list(self._generations)
        for channel in channels:
            self.cancel(channel)

    @property
    def idle(self) -> bool:
        """Whether nothing is done and nothing waits."""
        with self._wake:
            return not self._waiting and not self._busy

    def busy_with(self, channel: str) -> bool:
        """Whether the channel is being served or waits."""
        with self._wake:
            return self._busy == channel or channel in self._waiting

    def wait_idle(self, seconds: float) -> bool:
        """Wait until there is nothing to do, at most so long; whether that came."""
        with self._wake:
            return self._wake.wait_for(lambda: self._stopping or (not self._waiting and not self._busy), seconds)

    def wait_free(self, seconds: float) -> bool:
        """Wait until nothing is to be done that others give way to, at most so long; whether that came."""
        with self._wake:
            return self._wake.wait_for(lambda: self._stopping or not self._pressing(), seconds)

    def _pressing(self) -> bool:
        return bool(self._busy and not self._behind) or any(not one.behind for one in self._waiting.values())

    def stop(self, last: Callable[[], None] | None = None) -> None:
        """Let the running work end at its next step, do ``last`` in the thread, and end it."""
        with self._wake:
            self._stopping = True
            self._last = last
            overtaken = list(self._waiting.values())
            self._waiting.clear()
            for channel in self._generations:
                self._generations[channel] += 1
            self._wake.notify_all()
        for request in overtaken:
            request.settled(CancelledError())
        self._thread.join(timeout=20)

    def _serve(self) -> None:
        while True:
            with self._wake:
                while not self._waiting and not self._stopping:
                    self._wake.wait()
                if self._stopping:
                    break
                first = next((one for one, asked in self._waiting.items() if not asked.behind), None)
                request = self._waiting.pop(first if first is not None else next(iter(self._waiting)))
                self._busy, self._behind = request.channel, request.behind
                if request.behind:
                    self._wake.notify_all()
            error = self._run(request)
            with self._wake:
                self._busy = ""
                self._wake.notify_all()
            request.settled(error)
        if self._last is not None:
            self._last()

    def _run(self, request: _Request) -> Exception | None:
        def wanted() -> bool:
            return self._generations.get(request.channel) == request.generation

        def current() -> bool:
            first = self.gives_way_to
            while first is not None and wanted() and not first.wait_free(WAIT_S):
                pass
            return wanted()

        try:
            request.work(current)
        except CancelledError as error:
            return error
        except Exception as error:
            if not isinstance(error, TesselError):
                log.exception("work in channel %s failed", request.channel)
            return error
        return None if wanted() else CancelledError()
