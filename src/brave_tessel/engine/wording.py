"""Errors worded for people, in one place."""

from __future__ import annotations

from ..core import errors as e


def _of(value: object) -> str:
    return "" if value in {None, ""} else f"{value}"


def sentence(error: BaseException) -> str:
    """One plain sentence: what is wrong and what to do."""
    if not isinstance(error, e.TesselError):
        return f"Something failed inside the program: {error}. Your work is kept."
    text = _SENTENCES.get(type(error), _general)(error)
    remedy = f" {error.remedy}" if error.remedy else ""
    return f"{text}{remedy}"


def _general(error: e.TesselError) -> str:
    return f"{error.parameter} failed: {_of(error.value)}."


def _not_understood(error: e.TesselError) -> str:
    return f"“{_of(error.value)}” is no {error.parameter}; it takes {error.allowed}."


def _out_of_range(error: e.TesselError) -> str:
    return f"{error.parameter} cannot be {_of(error.value)}; it takes {error.allowed}."


def _unreadable(error: e.TesselError) -> str:
    why = f" ({_of(error.value)})" if error.value else ""
    takes = f"; it should be {error.allowed}" if error.allowed else ""
    return f"{error.parameter} cannot be read{why}{takes}."


def _too_large(error: e.TesselError) -> str:
    return f"{error.parameter} is too large: {_of(error.value)}, and the limit is {error.allowed}."


def _newer(error: e.TesselError) -> str:
    return f"This job was made by a newer version (format {_of(error.value)}; this one reads {error.allowed})."


def _cannot_write(error: e.TesselError) -> str:
    return f"{error.parameter} was not written: {_of(error.value)}. What was there before is untouched."


def _degenerate(error: e.TesselError) -> str:
    return f"This {error.parameter} cannot be worked out; it takes {error.allowed}."


def _missing(error: e.TesselError) -> str:
    known = f"; there is: {error.allowed}" if error.allowed else ""
    named = f" “{_of(error.value)}”" if error.value else ""
    if error.parameter == "size":
        return f"{_of(error.value)} has no real size yet."
    return f"There is no {error.parameter}{named}{known}."


def _unknown(error: e.TesselError) -> str:
    return f"The {error.parameter} “{_of(error.value)}” is not known here."


def _does_not_fit(error: e.TesselError) -> str:
    return f"{error.parameter} does not take {_of(error.value)}: {error.allowed}."


def _device(error: e.TesselError) -> str:
    return f"The {error.parameter[0].lower()}{error.parameter[1:]} {_of(error.value)}."


_SENTENCES = {
    e.DeviceError: _device,
    e.DoesNotFitError: _does_not_fit,
    e.NotUnderstoodError: _not_understood,
    e.OutOfRangeError: _out_of_range,
    e.DoesNotCloseError: _out_of_range,
    e.UnreadableFileError: _unreadable,
    e.TooLargeError: _too_large,
    e.NewerJobError: _newer,
    e.CannotWriteError: _cannot_write,
    e.DegenerateViewError: _degenerate,
    e.MissingError: _missing,
    e.UnknownOperationError: _unknown,
}
