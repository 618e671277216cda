"""Work off the window's thread. In each channel the latest request wins."""

from __future__ import annotations

import logging
import threading
from collections import OrderedDict
from collections.abc import Callable

from ..core.errors import CancelledError

log = logging.getLogger(__name__)

Current = Callable[[], bool]
Work = Callable[[Current], None]


class Worker:
    """One thread that serves channels in the order they were asked; a newer request replaces an older one."""

    def __init__(self, name: str = "worker") -> None:
        self._waiting: OrderedDict[str, tuple[int, Work]] = OrderedDict()
        self._generations: dict[str, int] = {}
        self._wake = threading.Condition()
        self._stopping = False
        self._last: Callable[[], None] | None = None
        self._busy = ""
        self._thread = threading.Thread(target=self._serve, name=name, daemon=True)
        self._thread.start()

    def request(self, channel: str, work: Work) -> None:
        """Do ``work`` soon; what the channel was doing or had waiting is overtaken. A stopped worker does nothing
        more.
        """
        with self._wake:
            if self._stopping:
                return
            generation = self._generations.get(channel, 0) + 1
            self._generations[channel] = generation
            self._waiting.pop(channel, None)
            self._waiting[channel] = (generation, work)
            self._wake.notify()

    def cancel(self, channel: str) -> None:
        """Overtake the channel with nothing."""
        with self._wake:
            self._generations[channel] = self._generations.get(channel, 0) + 1
            self._waiting.pop(channel, None)

    @property
    def idle(self) -> bool:
        with self._wake:
            return not self._waiting and not self._busy

    def stop(self, last: Callable[[], None] | None = None) -> None:
        """Let the running work end at its next step, do ``last`` in the thread, and end it."""
        with self._wake:
            self._stopping = True
            self._last = last
            self._waiting.clear()
            for channel in self._generations:
                self._generations[channel] += 1
            self._wake.notify()
        self._thread.join(timeout=20)

    def _serve(self) -> None:
        while True:
            with self._wake:
                while not self._waiting and not self._stopping:
                    self._wake.wait()
                if self._stopping:
                    break
                channel, (generation, work) = self._waiting.popitem(last=False)
                self._busy = channel
            self._run(channel, generation, work)
            with self._wake:
                self._busy = ""
        if self._last is not None:
            self._last()

    def _run(self, channel: str, generation: int, work: Work) -> None:
        def current() -> bool:
            return self._generations.get(channel) == generation

        try:
            work(current)
        except CancelledError:
            pass
        except Exception:
            log.exception("work in channel %s failed", channel)
