"""What the command line takes as numbers: checked where they enter, refused with one sentence."""

from __future__ import annotations

import argparse
import sys
from collections.abc import Callable
from pathlib import Path
from typing import NoReturn, TypeVar

from ..core.errors import NotUnderstoodError, OutOfRangeError
from ..core.quantity import parse_length
from ..core.sheet import MAX_PX

MOST_SEED = 2**31 - 1
N = TypeVar("N", int, float)


class Parser(argparse.ArgumentParser):
    """A parser that says in one sentence what it does not understand."""

    def error(self, message: str) -> NoReturn:
        print(f"{message[:1].upper()}{message[1:]}. See {self.prog} --help.", file=sys.stderr)
        sys.exit(2)


def _within(name: str, read: Callable[[str], N], least: N, most: N, what: str) -> Callable[[str], N]:
    """Reads with limits; what cannot be read or lies outside is refused with our own errors."""

    def checked(text: str) -> N:
        try:
            value = read(text)
        except ValueError:
            raise NotUnderstoodError(name, value=text, allowed=f"{what} from {least:g} to {most:g}") from None
        if not least <= value <= most:
            raise OutOfRangeError(name, value=text, allowed=f"{least:g} to {most:g}")
        return value

    return checked


def whole(name: str, least: int, most: int) -> Callable[[str], int]:
    """Reads a whole number within limits."""
    return _within(name, int, least, most, "a whole number")


def number(name: str, least: float, most: float) -> Callable[[str], float]:
    """Reads a number within limits."""
    return _within(name, float, least, most, "a number")


def length(name: str) -> Callable[[str], float]:
    """Reads a length in mm, with a unit or as a sum: from a hundredth of a millimetre to a kilometre."""
    return _within(name, parse_length, 0.01, 1e6, "a length in mm")


def px(least: int = 16) -> Callable[[str], int]:
    """Reads pixels of a longer side."""
    return whole("px", least, MAX_PX)


def place(text: str) -> Path:
    """Reads a path that a file system can take."""
    if "\0" in text or any(len(part.encode(errors="replace")) > 255 for part in text.split("/")) or len(text) > 4000:
        raise NotUnderstoodError("path", value=text[:60].replace("\0", "?"), allowed="a path with names of 255 bytes")
    return Path(text)
