"""Errors worded for people, in one place."""

from __future__ import annotations

from ..core import errors as e
from ..core.phrases import Phrase, say

_GENERAL = "{parameter} failed: {value}."
_PATTERNS: dict[type[e.TesselError], str] = {
    e.DeviceError: "The {device} {value}.",
    e.DoesNotFitError: "{parameter} does not take {value}: {allowed}.",
    e.NotUnderstoodError: "“{value}” is no {parameter}; it takes {allowed}.",
    e.OutOfRangeError: "{parameter} cannot be {value}; it takes {allowed}.",
    e.DoesNotCloseError: "{parameter} cannot be {value}; it takes {allowed}.",
    e.TooLargeError: "{parameter} is too large: {value}, and the limit is {allowed}.",
    e.NewerJobError: "This job was made by a newer version (format {value}; this one reads {allowed}).",
    e.CannotWriteError: "{parameter} was not written: {value}. What was there before is untouched.",
    e.ChangedOnDiskError: "{parameter} was changed by something else since it was opened; it was not overwritten.",
    e.RefusedError: "{parameter}: {value}.",
    e.DegenerateViewError: "This {parameter} cannot be worked out; it takes {allowed}.",
    e.UnknownOperationError: "The {parameter} “{value}” is not known here.",
}


def sentence(error: BaseException) -> Phrase:
    """One plain sentence: what is wrong and what to do."""
    if not isinstance(error, e.TesselError):
        return say("Something failed inside the program: {error}. Your work is kept.", error=str(error))
    pattern = _special(error) or _PATTERNS.get(type(error), _GENERAL)
    told = say(
        pattern,
        parameter=_phrase(error.parameter),
        device=_phrase(error.parameter[:1].lower() + error.parameter[1:]),
        value=_phrase("" if error.value is None else error.value),
        allowed=_phrase(error.allowed),
    )
    return say("{told} {remedy}", told=told, remedy=_phrase(error.remedy)) if error.remedy else told


def _phrase(part: object) -> Phrase:
    """A part of a sentence, said in the person's language where it is a word of the program."""
    return say(part if isinstance(part, str) else str(part))


def _special(error: e.TesselError) -> str:
    """Patterns that depend on what is known of the fault."""
    known = (bool(error.value), bool(error.allowed))
    if isinstance(error, e.UnreadableFileError):
        return _UNREADABLE[known]
    if isinstance(error, e.MissingError):
        return "{value} has no real size yet." if error.parameter == "size" else _MISSING[known]
    return ""


_UNREADABLE = {
    (True, True): "{parameter} cannot be read ({value}); it should be {allowed}.",
    (True, False): "{parameter} cannot be read ({value}).",
    (False, True): "{parameter} cannot be read; it should be {allowed}.",
    (False, False): "{parameter} cannot be read.",
}
_MISSING = {
    (True, True): "There is no {parameter} “{value}”; there is: {allowed}.",
    (True, False): "There is no {parameter} “{value}”.",
    (False, True): "There is no {parameter}; there is: {allowed}.",
    (False, False): "There is no {parameter}.",
}
