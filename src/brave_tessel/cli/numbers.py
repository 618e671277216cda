"""What the command line takes as numbers: checked where they enter, refused with one sentence."""

from __future__ import annotations

import argparse
import math
import sys
from collections.abc import Callable
from pathlib import Path
from typing import NoReturn

from ..core.errors import NotUnderstoodError, OutOfRangeError
from ..core.quantity import parse_length
from ..core.sheet import MAX_PX

MOST_SEED = 2**31 - 1


class Parser(argparse.ArgumentParser):
    """A parser that says in one sentence what it does not understand."""

    def error(self, message: str) -> NoReturn:
        print(f"{message[:1].upper()}{message[1:]}. See {self.prog} --help.", file=sys.stderr)
        sys.exit(2)


def whole(name: str, least: int, most: int) -> Callable[[str], int]:
    """Reads a whole number within limits."""

    def read(text: str) -> int:
        try:
            value = int(text)
        except ValueError:
            raise NotUnderstoodError(name, value=text, allowed=f"a whole number from {least} to {most}") from None
        if not least <= value <= most:
            raise OutOfRangeError(name, value=text, allowed=f"{least} to {most}")
        return value

    return read


def number(name: str, least: float, most: float) -> Callable[[str], float]:
    """Reads a number within limits."""

    def read(text: str) -> float:
        try:
            value = float(text)
        except ValueError:
            raise NotUnderstoodError(name, value=text, allowed=f"a number from {least:g} to {most:g}") from None
        if not math.isfinite(value) or not least <= value <= most:
            raise OutOfRangeError(name, value=text, allowed=f"{least:g} to {most:g}")
        return value

    return read


def length(name: str, most_mm: float) -> Callable[[str], float]:
    """Reads a length in mm, with a unit or as a sum."""

    def read(text: str) -> float:
        value = parse_length(text)
        if not 0 <= value <= most_mm:
            raise OutOfRangeError(name, value=text, allowed=f"0 to {most_mm:g} mm")
        return value

    return read


def px(least: int = 16) -> Callable[[str], int]:
    """Reads pixels of a longer side."""
    return whole("px", least, MAX_PX)


def place(text: str) -> Path:
    """Reads a path that a file system can take."""
    if "\0" in text or any(len(part.encode(errors="replace")) > 255 for part in text.split("/")) or len(text) > 4000:
        raise NotUnderstoodError("path", value=text[:60].replace("\0", "?"), allowed="a path with names of 255 bytes")
    return Path(text)
