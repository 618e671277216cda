"""One way to compile a kernel: cached on disk, without the interpreter lock."""

from __future__ import annotations

import os
from collections.abc import Callable
from typing import Any, TypeVar

os.environ.setdefault("OMP_WAIT_POLICY", "PASSIVE")

from numba import njit

from ..sheet import AnyArray

Kernel = TypeVar("Kernel", bound=Callable[..., Any])


def compiled(function: Kernel) -> Kernel:
    """Compile on first call, keep on disk, release the interpreter while running.

    Inputs are finite by contract, so that minima and maxima become vector instructions.
    """
    return njit(cache=True, nogil=True, fastmath=True, error_model="numpy")(function)  # type: ignore[return-value,no-any-return]


def still(pixels: AnyArray) -> AnyArray:
    """The same array, not to be written. Results are frozen and fresh arrays are not, and a kernel would be compiled
    for either; handed its inputs so, it is compiled once.
    """
    view = pixels.view()
    view.flags.writeable = False
    return view
