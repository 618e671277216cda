"""What is chosen: a source, a surface, layers, a rule, a part, a step of an open recipe."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Protocol

from PyQt6.QtCore import QObject, pyqtSignal

from ..core.job.document import Job, Source
from ..core.job.layers import Layer, Recipe, Surface, every_layer
from ..core.job.scene import Part
from ..engine.intents.recipes import recipe_of
from ..engine.store import Store
from .controls.choices import KNOWN_LAYERS, KNOWN_SOURCES


class _Named(Protocol):
    @property
    def id(self) -> str: ...


class Selection(QObject):
    """Ids only; what they name is looked up in the job as it is now. Kept valid whatever the job becomes."""

    changed = pyqtSignal()

    def __init__(self, store: Store) -> None:
        super().__init__()
        self.store = store
        self.source_id = ""
        self.surface_id = ""
        self.layer_id = ""
        self.layer_ids: tuple[str, ...] = ()
        self.rule_id = ""
        self.part_id = ""
        self.recipe_open = False
        self.recipe_step = ""
        self.recipe_rule = ""

    @property
    def _job(self) -> Job:
        return self.store.job

    @property
    def surface(self) -> Surface | None:
        return next((s for s in self._job.surfaces if s.id == self.surface_id), None)

    @property
    def layer(self) -> Layer | None:
        surface = self.surface
        if surface is None or not self.layer_id:
            return None
        return next((layer for layer, _ in every_layer(surface.layers) if layer.id == self.layer_id), None)

    @property
    def source(self) -> Source | None:
        return next((s for s in self._job.sources if s.id == self.source_id), None)

    @property
    def part(self) -> Part | None:
        return next((p for p in self._job.scene.parts if p.id == self.part_id), None)

    def _kept_part(self, parts: tuple[Part, ...]) -> str:
        """The part that is chosen; where it is gone, the first that is no group."""
        if any(part.id == self.part_id for part in parts):
            return self.part_id
        return next((part.id for part in parts if not part.group), parts[0].id if parts else "")

    @property
    def recipe(self) -> Recipe | None:
        """The recipe that is open, or would be: the chosen layer's, or its rule's."""
        return recipe_of(self.layer, self.recipe_rule)

    def choose(
        self,
        *,
        surface: str | None = None,
        layer: str | None = None,
        source: str | None = None,
        part: str | None = None,
    ) -> None:
        """Choose what the cards show."""
        self.surface_id = self.surface_id if surface is None else surface
        self.source_id = self.source_id if source is None else source
        self.part_id = self.part_id if part is None else part
        self.layer_id = self.layer_id if layer is None else layer
        self._keep_valid()
        self.changed.emit()

    def choose_layers(self, ids: Sequence[str]) -> None:
        """Several layers; the card shows the one chosen last."""
        self.layer_ids = tuple(ids)

    def follow(self, _job: Job) -> None:
        """The job has moved: what is gone is chosen no more."""
        before = (self.surface_id, self.layer_id, self.source_id, self.part_id)
        self._keep_valid()
        if (self.surface_id, self.layer_id, self.source_id, self.part_id) != before:
            self.changed.emit()

    def _keep_valid(self) -> None:
        job = self._job
        KNOWN_SOURCES[:] = [(source.id, source.name) for source in job.sources if source.sized]
        self.surface_id = _kept(self.surface_id, job.surfaces)
        self.source_id = _kept(self.source_id, job.sources)
        self.part_id = self._kept_part(job.scene.parts)
        surface = self.surface
        layers = surface.layers if surface else ()
        known = {layer.id for layer, _ in every_layer(layers)}
        self.layer_ids = tuple(id for id in self.layer_ids if id in known)
        if self.layer_id not in known:
            self.layer_id = layers[-1].id if layers else ""
        if self.layer_id not in self.layer_ids:
            self.layer_ids = (self.layer_id,) if self.layer_id else ()
        KNOWN_LAYERS[:] = [(layer.id, layer.name) for layer, _ in every_layer(layers) if layer.id != self.layer_id]


def _kept(id: str, entities: Sequence[_Named]) -> str:
    """The id while it is there, else the first there is."""
    ids = [entity.id for entity in entities]
    return id if id in ids else (ids[0] if ids else "")
