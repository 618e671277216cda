"""Models as they were read: made once from the stored file, shared by everyone, let go when nobody uses them."""

from __future__ import annotations

import threading
from collections.abc import Callable, Mapping

import numpy as np

from ...core.errors import TesselError
from ...core.job.document import Job
from ...core.job.scene import Model
from ...core.pace import watched
from ...core.place.guess import upright
from ...core.place.mend import mended
from ...core.place.mesh import Mesh
from ...core.place.piece import Made
from ...core.place.site import Shapes, model_key
from ...formats.scene_models import ReadModel, read_model
from ..evaluate import always

MOST_FILES = 6


class ModelShelf:
    """Shapes of models by :func:`model_key`. Used from every thread; reading happens in the thread that asks."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._reading = threading.Lock()
        self._files: dict[str, ReadModel] = {}
        self._made: dict[str, Made] = {}
        self.faults: dict[str, TesselError] = {}

    def put(self, blob: str, read: ReadModel) -> None:
        """Keep what was read of a file, so that it is not read again at once."""
        with self._lock:
            self._files[blob] = read
            while len(self._files) > MOST_FILES:
                self._files.pop(next(iter(self._files)))

    def ready(self, job: Job) -> Shapes:
        """What is there already of a job's models."""
        wanted = {model_key(part.model) for part in job.scene.parts if part.model is not None}
        with self._lock:
            return {key: made for key, made in self._made.items() if key in wanted}

    def missing(self, job: Job) -> list[Model]:
        """Models of a job that are not read yet and can be."""
        with self._lock:
            there = set(self._made)
        found = {model_key(m): m for part in job.scene.parts if (m := part.model) is not None}
        return [model for key, model in found.items() if key not in there and model.blob not in self.faults]

    def shapes(self, job: Job, blobs: Mapping[str, bytes], *, current: Callable[[], bool] = always) -> Shapes:
        """All of a job's models; what is missing is read now. What cannot be read is left out and told in ``faults``.

        Raises
        ------
        CancelledError
            when the work that asked has been overtaken.
        """  # fmt: skip
        with self._reading, watched(lambda _share: current()):
            for model in self.missing(job):
                self._make(model, blobs)
        shapes = self.ready(job)
        with self._lock:
            self._made = {key: made for key, made in self._made.items() if key in shapes} if shapes else self._made
        return shapes

    def _make(self, model: Model, blobs: Mapping[str, bytes]) -> None:
        data = blobs.get(model.blob)
        if data is None:
            return
        try:
            with self._lock:
                read = self._files.get(model.blob)
            if read is None:
                read = read_model(data, model.file_name or "model")
                self.put(model.blob, read)
        except TesselError as error:
            self.faults[model.blob] = error
            return
        if model.part not in read.names:
            return
        made = Made(shaped(read.shapes[read.names.index(model.part)], model))
        with self._lock:
            self._made[model_key(model)] = made


def shaped(mesh: Mesh, model: Model) -> Mesh:
    """A mesh of the file in mm with z up, mended as asked."""
    turned = np.eye(4)
    turned[:3, :3] = upright(model.up) * model.unit_mm
    return mended(mesh.moved(turned), model.mends)
