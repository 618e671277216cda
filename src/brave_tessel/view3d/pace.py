"""How large a moving picture may be so that it still follows the hand."""

from __future__ import annotations

SHARES = (0.5, 0.4, 0.32)
"""Of the full width and height, from the largest; in steps, so that targets are not made anew at every frame."""
SLOW_MS, QUICK_MS = 42.0, 18.0


class Pace:
    """Learns from the time that moving frames took."""

    def __init__(self) -> None:
        self._step = 1
        self._slow = self._quick = 0

    @property
    def share(self) -> float:
        """Of the full width and height."""
        return SHARES[self._step]

    def told(self, ms: float) -> None:
        """A moving frame took so long. Three of a kind in a row count, so that one hiccup does not show."""
        self._slow = self._slow + 1 if ms > SLOW_MS else 0
        self._quick = self._quick + 1 if ms < QUICK_MS else 0
        if self._slow == _ENOUGH or self._quick == _ENOUGH:
            step = self._step + (1 if self._slow else -1)
            self._step = min(max(step, 0), len(SHARES) - 1)
            self._slow = self._quick = 0


_ENOUGH = 3
