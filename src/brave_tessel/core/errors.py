"""Typed errors of the core: what was wrong, with which value, what is allowed, and the way out.

They carry facts only. People read them through :mod:`brave_tessel.engine.wording`.
"""

from __future__ import annotations


class TesselError(Exception):
    """Base of every foreseen error.

    Parameters
    ----------
    parameter : what was being set or read
    value : the offending value, as given
    allowed : the allowed range or kinds, in words and units
    remedy : what the person can do about it
    """

    def __init__(self, parameter: str, *, value: object = None, allowed: str = "", remedy: str = "") -> None:
        super().__init__(parameter, value, allowed, remedy)
        self.parameter = parameter
        self.value = value
        self.allowed = allowed
        self.remedy = remedy


class NotUnderstoodError(TesselError):
    """Text that is no quantity, size or name."""


class OutOfRangeError(TesselError):
    """A value outside what the mathematics allows."""


class UnknownOperationError(TesselError):
    """An operation this version does not know."""


class UnknownKindError(UnknownOperationError):
    """A kind of layer, piece or file this version does not know."""


class DegenerateViewError(TesselError):
    """Corners from which no proportion can be found."""


class DoesNotCloseError(TesselError):
    """A repeat that is no whole number of units."""


class MissingError(TesselError):
    """Something referred to that is not there."""


class UnreadableFileError(TesselError):
    """A file that is no picture or job, or is damaged."""


class TooLargeError(TesselError):
    """A picture beyond the limits, refused before decoding."""


class NewerJobError(TesselError):
    """A job written by a later version."""


class CannotWriteError(TesselError):
    """A file that could not be written: full disk, no permission."""


class RefusedError(TesselError):
    """Something that is not done unless it is asked for in so many words."""


class ChangedOnDiskError(TesselError):
    """A file that something else has written since it was read."""


class DeviceError(TesselError):
    """A device that failed, does not answer or is not there."""


class DoesNotFitError(TesselError):
    """A result that cannot be taken where it is put, with the reason."""


class CancelledError(Exception):
    """Work stopped on request. No error: nothing is told to the person."""
