"""Surfaces laid on faces: by a click, by a drop that shows what it would cover, by dragging the pattern."""

from __future__ import annotations

import numpy as np

from ....core.place.mesh import Faces
from ....core.place.rays import Hit
from ....engine.intents import scene as intents
from ...desk import Desk
from ...words import tr
from .hand import NO_FACES, PlaceHand
from .laid_card import LaidCard
from .scene_view import SceneView


class LayingWork:
    """Sends what is laid where; while something is dragged over the model it shows which faces would take it."""

    def __init__(self, desk: Desk, view: SceneView, hand: PlaceHand, card: LaidCard) -> None:
        self.desk, self.view, self.hand, self.laid_card = desk, view, hand, card
        view.surface_dropped.connect(self._dropped)
        view.dragged_over.connect(self._dragged_over)

    def lay(self, surface: str, part: str = "", groups: tuple[str, ...] = (), picked: str = "") -> None:
        """Lay a surface on what is chosen: picked faces, else the faces of the chosen laying, else the whole part."""
        desk = self.desk
        target = part or self.hand.picked_part or desk.selection.part_id
        if not part and self.hand.picked_part:
            picked = self.hand.packed()
        elif not part:
            laid = self.laid_card.laid_of(desk.selection.part)
            if laid is not None:
                groups, picked = laid.groups, laid.picked
        found = intents.lay(desk.job, target, surface, groups=groups, picked=picked)
        if found is None:
            desk.tell(tr("Choose a part first."), "caution")
            return
        if desk.dispatch(found[0]):
            self.laid_card.laid_id = found[1].id
            desk.selection.choose(part=target)
            self.hand.pick("", NO_FACES)

    def _target(self, hit: Hit, whole: bool) -> tuple[tuple[str, ...], str, Faces]:
        """What a drop on a place would be laid on: picked faces under it, the face group, or the whole part."""
        mesh = hit.standing.made.mesh
        if hit.part == self.hand.picked_part and hit.face in self.hand.picked:
            return (), self.hand.packed(), self.hand.picked
        if whole or len(mesh.names) < 2:
            return (), "", np.arange(mesh.count, dtype=np.int32)
        name = str(mesh.names[mesh.groups[hit.face]])
        laid = hit.standing.covering[hit.face]
        groups = (name,)
        if laid >= 0 and name in hit.standing.part.laid[laid].groups:
            # What lies there already says which faces go together.
            groups = hit.standing.part.laid[laid].groups
        return groups, "", mesh.of_groups(groups)

    def _dragged_over(self, over: tuple[Hit | None, bool] | None, surface: str) -> None:
        """Show what would be covered."""
        hit, whole = over if over else (None, False)
        if hit is None:
            self.view.overlay.note = ""
            self.hand.show_marked()
            self.view.update()
            return
        groups, picked, faces = self._target(hit, whole)
        part = hit.standing.part
        name = next((s.name for s in self.desk.job.surfaces if s.id == surface), "")
        where = ", ".join(tr(group) for group in groups[:3]) or (tr("picked faces") if picked else tr("whole part"))
        over_it = intents.covers(self.desk.job, part.id, groups, picked)
        told = tr("{name} on {part}, {where}", name=name, part=part.name, where=where)
        if over_it:
            told = tr("{told}; covers {others}", told=told, others=", ".join(over_it))
        self.view.overlay.note = told
        self.hand.show_marked(self.hand.marked(part.id, faces))
        self.view.update()

    def _dropped(self, hit: Hit, surface: str, whole: bool) -> None:
        groups, picked, _ = self._target(hit, whole)
        self.lay(surface, hit.part, groups, picked)

    def shift(self, part_id: str, laid_id: str, across: float, up: float) -> None:
        part = self.desk.job.scene.part(part_id)
        laid = next((one for one in part.laid if one.id == laid_id), None) if part else None
        if part is None or laid is None:
            return
        self.desk.dispatch(intents.shift(part_id, laid, across, up, gesture=f"shift-{laid_id}"))
        told = "{name} shifted {across:+.0f} mm along, {up:+.0f} mm up"
        self.desk.tell(tr(told, name=part.name, across=across, up=up))
