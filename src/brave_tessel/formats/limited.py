"""Readers of rich formats run in processes of their own, with limits of time and memory.

A drawing, a model or a picture from elsewhere may be made to hang, to swallow all memory or to break its reader. What
happens in there costs one sentence: the window goes on, and stopping the work ends the process.

Bytes go in and arrays come back in files without names, and nothing else: no object of the other process is ever made
here. A process that has read a file well serves the next one; one that broke or was stopped is never used again.
"""

from __future__ import annotations

import contextlib
import importlib
import json
import mmap
import os
import resource
import socket
import subprocess
import sys
import threading
import time
from collections.abc import Callable, Iterator
from typing import Any

import numpy as np

from ..core import errors
from ..core.errors import TesselError, UnreadableFileError
from ..core.pace import step
from ..core.phrases import say
from ..core.sheet import AnyArray

READERS = {
    "drawing": ("drawings", "svg_contours"),
    "model": ("models", "model_corners"),
    "scene model": ("scene_models", "model_parts"),
    "picture": ("images", "exotic_codes"),
    "scan": ("scanned_models", "scan_arrays"),
    "raw": ("raw_images", "raw_linear"),
    "raw size": ("raw_images", "raw_size"),
}
"""What may be asked for: a module of this package and its function, which takes bytes and a name and gives arrays."""

SECONDS = 30.0
MEMORY = 6 << 30
_POLL_S = 0.02
_MOST_IDLE = 2
_MOST_READS = 500
_MOST_TOLD = 1 << 20


class _Reader:
    """One other process and the line to it."""

    def __init__(self) -> None:
        self.line, theirs = socket.socketpair(socket.AF_UNIX, socket.SOCK_SEQPACKET)
        self.reads = 0
        with theirs:
            self.process = subprocess.Popen(
                [sys.executable, "-m", __name__, str(theirs.fileno()), str(MEMORY)],
                stdin=subprocess.DEVNULL,
                stdout=subprocess.DEVNULL,
                stderr=subprocess.DEVNULL,
                pass_fds=(theirs.fileno(),),
                env={**os.environ, "OPENBLAS_NUM_THREADS": "1", "OMP_NUM_THREADS": "1", "NUMBA_DISABLE_JIT": "1"},
            )

    def ask(self, request: dict[str, Any], files: tuple[int, int], name: str, seconds: float) -> dict[str, Any]:
        """The answer to one request; the process may not outlive a failure."""
        self.reads += 1
        until = time.monotonic() + seconds
        self.line.settimeout(_POLL_S)
        try:
            socket.send_fds(self.line, [json.dumps(request).encode()], list(files))
            while True:
                with contextlib.suppress(TimeoutError):
                    told = json.loads(self.line.recv(_MOST_TOLD) or b"{}")
                    return told if isinstance(told, dict) else {}
                step(0.5)
                if time.monotonic() > until:
                    raise UnreadableFileError(
                        name,
                        value=say("its reader took over {seconds:g} s", seconds=seconds),
                        remedy="Choose a simpler file.",
                    )
        except (OSError, ValueError):
            return {}

    def end(self) -> None:
        self.line.close()
        self.process.kill()
        self.process.wait()


_IDLE: list[_Reader] = []
_LOCK = threading.Lock()


@contextlib.contextmanager
def _reader() -> Iterator[_Reader]:
    """A process to ask; it goes back to the idle ones only if all went well."""
    with _LOCK:
        taken = _IDLE.pop() if _IDLE else None
    reader = taken or _Reader()
    fit = False
    try:
        yield reader
        fit = True
    finally:
        with _LOCK:
            keep = fit and len(_IDLE) < _MOST_IDLE and reader.reads < _MOST_READS
            if keep:
                _IDLE.append(reader)
        if not keep:
            reader.end()


def end_readers() -> None:
    """End the processes that wait for work."""
    with _LOCK:
        waiting, _IDLE[:] = list(_IDLE), []
    for reader in waiting:
        reader.end()


def read_limited(reader: str, data: bytes, name: str, *, seconds: float = SECONDS) -> list[AnyArray]:
    """Arrays that a reader makes of a file's bytes, read-only.

    Raises
    ------
    UnreadableFileError, TooLargeError, ...
        what the reader finds; also when it breaks, takes too long or needs more memory than it may.
    CancelledError
        when the work that asked has been overtaken; the reader is ended.
    """
    given, result = os.memfd_create("given"), os.memfd_create("result")
    try:
        with os.fdopen(os.dup(given), "wb") as file:
            file.write(data)
        with _reader() as other:
            answer = other.ask({"reader": reader, "name": name}, (given, result), name, seconds)
            if not ("arrays" in answer or "error" in answer):
                raise UnreadableFileError(name, value="its reader broke", remedy="The file is damaged; choose another.")
        if "error" in answer:
            raise _error_of(answer)
        return _arrays_of(answer["arrays"], result, name)
    finally:
        os.close(given)
        os.close(result)


def _error_of(answer: dict[str, Any]) -> TesselError:
    kind = getattr(errors, str(answer["error"]), UnreadableFileError)
    kind = kind if isinstance(kind, type) and issubclass(kind, TesselError) else UnreadableFileError
    parts = {part: str(answer.get(part) or "") for part in ("allowed", "remedy")}
    return kind(str(answer.get("parameter")), value=answer.get("value"), **parts)


def _arrays_of(told: Any, result: int, name: str) -> list[AnyArray]:
    """The arrays in the file that came back, as views of it; whatever is said of them is checked."""
    size = os.fstat(result).st_size
    whole = memoryview(mmap.mmap(result, size, prot=mmap.PROT_READ)) if size else memoryview(b"")
    arrays = []
    for entry in told:
        kind, shape, at = np.dtype(str(entry["dtype"])), tuple(map(int, entry["shape"])), int(entry["at"])
        count = int(np.prod(shape, dtype=np.int64))
        if kind.hasobject or at < 0 or min(shape, default=0) < 0 or at + count * kind.itemsize > size:
            raise UnreadableFileError(name, value="its reader broke", remedy="The file is damaged; choose another.")
        arrays.append(np.frombuffer(whole, kind, count, at).reshape(shape))
    return arrays


# In the other process ----------------------------------------------------------------------------------


def _serve(line: socket.socket, memory: int) -> None:
    """Read what is asked for until the other end goes."""
    resource.setrlimit(resource.RLIMIT_AS, (memory, memory))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    while True:
        told, files, _flags, _address = socket.recv_fds(line, _MOST_TOLD, 2)
        if not told or len(files) != 2:
            return
        given, result = files
        request = json.loads(told)
        answer = _answer(str(request["reader"]), str(request["name"]), given, result, memory)
        os.close(given)
        os.close(result)
        line.send(json.dumps(answer).encode())


def _answer(reader: str, name: str, given: int, result: int, memory: int) -> dict[str, Any]:
    module, function = READERS[reader]
    read: Callable[[bytes, str], list[AnyArray]] = getattr(
        importlib.import_module(f"brave_tessel.formats.{module}"), function
    )
    try:
        with os.fdopen(os.dup(given), "rb") as file:
            file.seek(0)
            data = file.read()
        return {"arrays": _put(read(data, name), result)}
    except TesselError as error:
        return {
            "error": type(error).__name__,
            "parameter": error.parameter,
            "value": None if error.value is None else str(error.value),
            "allowed": error.allowed,
            "remedy": error.remedy,
        }
    except (MemoryError, RecursionError):
        allowed = f"{memory >> 30} GB"
        return {"error": "TooLargeError", "parameter": name, "value": "it needs too much memory", "allowed": allowed}


def _put(arrays: list[AnyArray], result: int) -> list[dict[str, Any]]:
    placed = []
    with os.fdopen(os.dup(result), "wb") as file:
        for made in arrays:
            flat = np.ascontiguousarray(made)
            placed.append({"dtype": flat.dtype.str, "shape": flat.shape, "at": file.tell()})
            file.write(flat.data.cast("B") if flat.size else b"")
            file.write(b"\0" * (-file.tell() % 64))
    return placed


if __name__ == "__main__":
    _serve(socket.socket(fileno=int(sys.argv[1])), int(sys.argv[2]))
