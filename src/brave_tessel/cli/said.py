"""What the command line prints: results on standard output, progress on a terminal."""

from __future__ import annotations

import json
import sys
from typing import Any


class Progress:
    """One line on a terminal that is overwritten; silent elsewhere."""

    def __init__(self) -> None:
        self.shown = sys.stderr.isatty()

    def __call__(self, what: str, share: float = 0.0) -> None:
        if self.shown:
            print(f"\r\033[K{share:4.0%} {what}", end="", file=sys.stderr, flush=True)

    def end(self) -> None:
        """Wipe the line."""
        if self.shown:
            print("\r\033[K", end="", file=sys.stderr, flush=True)


def say(result: Any, text: str, *, as_json: bool) -> None:
    """A result for people, or for programs."""
    print(json.dumps(result, ensure_ascii=False, indent=1) if as_json else text)


def warn(text: str) -> None:
    """A sentence on standard error."""
    print(text, file=sys.stderr)
