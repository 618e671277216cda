"""What the mouse does on the model: choosing, picking faces, datum, measuring, taking colours, standing pieces up."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QObject, QPointF, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent

from ....core.job.scene import Part, Place
from ....core.operation import find
from ....core.phrases import say
from ....core.place import picked as picking
from ....core.place.frames import world_matrix
from ....core.place.mesh import Faces, Mesh, Vector
from ....core.place.rays import Hit
from ....core.place.snapping import Snapped, snap
from ....core.quantity import format_length
from ....engine.intents import scene as intents
from ....view3d.drawn import DrawPart
from ...desk import Desk
from ...words import tr
from .edge_tool import lay_along_edge
from .overlay import Grip, Mark
from .scene_view import SNAP_PX, SceneView

TOOLS = ("Choose", "Faces", "Datum", "Measure", "Colour")
KINDS = ("One", "Flat", "By angle", "Loop", "Brush", "Connected", "Same material")
KIND_WORDS = (*KINDS, "More", "Fewer")
GRID_MM = 10.0
GRIP_PX = 11
NO_FACES: Faces = np.zeros(0, np.int32)


class PlaceHand(QObject):
    """One tool at a time; Esc comes back to choosing. Sends intents, and tells what it would do."""

    tool_changed = pyqtSignal(str)
    picked_changed = pyqtSignal()
    colour_taken = pyqtSignal(str)
    pinned = pyqtSignal(object)
    datum_set = pyqtSignal()

    def __init__(self, desk: Desk, view: SceneView) -> None:
        super().__init__()
        self.desk, self.view = desk, view
        self.tool = "Choose"
        self.kind = "Flat"
        self.angle, self.brush_mm = 20.0, 250.0
        self.picked_part = ""
        self.picked: Faces = NO_FACES
        self.standing_up = ""
        self.datum_for = ""
        self.path_for = ""
        self.colour = ""
        self.colour_at: Callable[[Hit], str] = lambda _hit: ""
        self._grip: tuple[Grip, float, Vector, Place] | None = None
        self._trail: list[Vector] = []
        view.pressed.connect(self.pressed)
        view.hovered.connect(self.hovered)
        view.key_pressed.connect(self.key)
        view.grabs = self.grabs

    # Tools ---------------------------------------------------------------------------------------

    def take(self, tool: str, *, told: str = "") -> None:
        """Take a tool up; the one before is put down."""
        self.tool = tool
        self._trail = []
        overlay = self.view.overlay
        overlay.mark, overlay.trail, overlay.trail_text, overlay.note, overlay.closed = None, (), "", "", False
        self.view.setCursor(Qt.CursorShape.ArrowCursor if tool == "Choose" else Qt.CursorShape.CrossCursor)
        self.desk.tell(told or (tr(_TOLD[tool]) if tool in _TOLD else ""))
        self.tool_changed.emit(tool)
        self.show_grips()
        self.view.update()

    def leave(self) -> None:
        """Back to choosing; faces that are picked are let go."""
        if self.tool != "Choose":
            self.take("Choose")
        if len(self.picked):
            self.pick("", NO_FACES)

    def stand(self, op: str) -> None:
        """Stand a piece up where the next click says."""
        self.standing_up = op
        name = tr(find(op).label)
        self.take("Stand", told=tr("Click where it stands: {name}.", name=name))

    def draw_path(self, laid: str = "") -> None:
        """Draw the line the chosen piece runs along, or the one that something on it is laid along."""
        self.take("Path", told=tr("Click point after point; Enter ends, the first point again closes it."))
        self.path_for = laid

    # The model under the pointer -----------------------------------------------------------------

    def pressed(self, hit: Hit | None, event: QMouseEvent) -> None:
        """A click on the model, or beside it."""
        act = {
            "Choose": self._choose, "Faces": self._pick, "Datum": self._set_datum, "Measure": self._measure,
            "Colour": self._colour, "Stand": self._stand, "Path": self._path, "Opening": self._opening,
            "Pin": self._pin, "Edge": self._edge,
        }.get(self.tool, self._choose)  # fmt: skip
        act(hit, event)

    def hovered(self, event: QMouseEvent) -> None:
        """What a click would hit."""
        overlay = self.view.overlay
        if self.tool in {"Datum", "Measure", "Stand", "Path", "Pin"}:
            found = self.snapped(event.position())
            overlay.mark = Mark(found.at, tr(found.name)) if found else None
            self.view.update()
        elif overlay.grips:
            held = self._grip_at(event.position())
            key = held.key if held else ""
            if key != overlay.held:
                overlay.held = key
                self.view.update()

    def snapped(self, at: QPointF) -> Snapped | None:
        """The point under the pointer, drawn to what is near; on the ground where no model is."""
        hit = self.view.hit(at)
        if hit is not None and self.view.site is not None:
            reach = SNAP_PX * self.view.mm_per_px(hit.point)
            return snap(self.view.site, hit, reach, grid=GRID_MM)
        ground = self._on_level(at, 0.0)
        return Snapped(np.round(ground / GRID_MM) * GRID_MM, say("ground")) if ground is not None else None

    def _on_level(self, at: QPointF, height: float) -> Vector | None:
        origin, direction = self.view.ray(at)
        if abs(direction[2]) < 1e-6:
            return None
        share = (height - origin[2]) / direction[2]
        return np.asarray(origin + share * direction) if 0 < share < 1e6 else None

    # Choosing and grips --------------------------------------------------------------------------

    def _choose(self, hit: Hit | None, _event: QMouseEvent) -> None:
        if hit is not None:
            self.desk.selection.choose(part=hit.part)
            self.view.overlay.note = ""

    def show_grips(self) -> None:
        """Handles of the chosen part, where its sizes can be pulled at."""
        self.view.overlay.grips = tuple(self._grips()) if self.tool == "Choose" else ()
        self.view.update()

    def _grips(self) -> list[Grip]:
        part, site = self.desk.selection.part, self.view.site
        one = site.of_part(part.id) if site and part else None
        if part is None or one is None or part.locked:
            return []
        matrix, out = one.matrix, []
        for handle in one.made.handles:
            at = matrix[:3, :3] @ np.array(handle.at) + matrix[:3, 3]
            along = matrix[:3, :3] @ np.array(handle.along)
            key = f"{handle.opening}:{handle.dial}:{handle.share}"
            text = format_length(self._size(part, handle.opening, handle.dial))
            out.append(Grip(key, at, along / max(float(np.linalg.norm(along)), 1e-9), text))
        low, high = one.mesh.box
        foot = np.array([(low[0] + high[0]) / 2, (low[1] + high[1]) / 2, low[2]])
        return [*out, Grip("place", foot, np.zeros(3), "")]

    def _size(self, part: Part, opening: str, dial: str) -> float:
        assert part.piece is not None
        if opening:
            one = next((o for o in part.piece.openings if o.id == opening), None)
            return float(getattr(one, dial)) if one is not None else 0.0
        return part.piece.number(dial)

    def _grip_at(self, at: QPointF) -> Grip | None:
        near: list[tuple[float, Grip]] = []
        for grip in self.view.overlay.grips:
            place = self.view.on_screen(grip.at)
            if place is not None:
                near.append(((place - at).manhattanLength(), grip))
        best = min(near, key=lambda entry: entry[0], default=None)
        return best[1] if best and best[0] <= GRIP_PX else None

    def grabs(self, event: QMouseEvent) -> bool:
        """Take a handle at a press, pull it at a move, let it go at a release."""
        if event.type() == QMouseEvent.Type.MouseButtonPress:
            return self._grab(event)
        if self._grip is None:
            return False
        if event.type() == QMouseEvent.Type.MouseMove:
            self._pull(event)
        else:
            self._grip = None
            self.view.overlay.held = ""
            self.desk.end_gesture()
            self.view.update()
        return True

    def _grab(self, event: QMouseEvent) -> bool:
        grip = self._grip_at(event.position()) if self.tool == "Choose" else None
        part = self.desk.selection.part
        if grip is None or part is None:
            return False
        start = self._along(grip, event.position())
        if start is None:
            return False
        value = 0.0
        if grip.key != "place":
            opening, dial, _ = grip.key.split(":")
            value = self._size(part, opening, dial)
        self._grip = (grip, value, start, part.at)
        self.view.overlay.held = grip.key
        return True

    def _along(self, grip: Grip, at: QPointF) -> Vector | None:
        """The place on a handle's line nearest to the pointer's ray; for the whole part, on level ground."""
        if grip.key == "place":
            return self._on_level(at, float(grip.at[2]))
        origin, direction = self.view.ray(at)
        across = np.cross(grip.along, direction)
        size = float(across @ across)
        if size < 1e-6:
            return None
        share = float(np.cross(origin - grip.at, direction) @ across) / size
        return np.asarray(grip.at + share * grip.along)

    def _pull(self, event: QMouseEvent) -> None:
        assert self._grip is not None
        grip, value, start, at = self._grip
        part, here = self.desk.selection.part, self._along(grip, event.position())
        if part is None or here is None:
            return
        if grip.key == "place":
            self._move_by(part, here - start, at)
            return
        opening, dial, share = grip.key.split(":")
        by = float((here - start) @ grip.along) / float(share)
        fine = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
        step = 1.0 if fine else 5.0
        fresh = max(1.0, round((value + by) / step) * step)
        gesture = f"pull-{part.id}-{grip.key}"
        if opening:
            self.desk.dispatch(intents.set_opening(part.id, opening, dial, fresh, gesture=gesture))
        elif part.piece is not None:
            self.desk.dispatch(intents.set_piece(part, dial, self._within(part, dial, fresh), gesture=gesture))
        self.desk.tell(tr("{dial} {size}", dial=dial.capitalize(), size=format_length(fresh)))

    def _within(self, part: Part, dial: str, value: float) -> float:
        assert part.piece is not None
        param = part.piece.operation.params[dial]
        return min(max(value, param.least), param.most)

    def _move_by(self, part: Part, by: Vector, at: Place) -> None:
        """Move a part by mm of the scene, whatever it lies in."""
        scene = self.desk.job.scene
        above = scene.part(part.parent)
        turn = world_matrix(scene, above)[:3, :3] if above is not None else np.eye(3)
        moved = np.linalg.solve(turn, np.round(by / GRID_MM) * GRID_MM)
        x, y, z = (float(v) for v in np.array(at) + moved)
        self.desk.dispatch(intents.place_part(part.id, at=(x, y, z), gesture=f"move-{part.id}"))

    # Faces ---------------------------------------------------------------------------------------

    def _pick(self, hit: Hit | None, event: QMouseEvent) -> None:
        if hit is None:
            self.pick("", NO_FACES)
            return
        mesh, face = hit.standing.made.mesh, hit.face
        found = self._faces(mesh, hit.standing.mesh, face, hit)
        keys = event.modifiers()
        if hit.part == self.picked_part and keys & Qt.KeyboardModifier.ShiftModifier:
            found = np.union1d(self.picked, found).astype(np.int32)
        elif hit.part == self.picked_part and keys & Qt.KeyboardModifier.ControlModifier:
            found = np.setdiff1d(self.picked, found).astype(np.int32)
        self.desk.selection.choose(part=hit.part)
        self.pick(hit.part, found)

    def _faces(self, own: Mesh, world: Mesh, face: int, hit: Hit) -> Faces:
        if self.kind == "One":
            return np.array([face], np.int32)
        if self.kind == "Flat":
            return picking.in_plane(own, face)
        if self.kind == "By angle":
            return picking.within_angle(own, face, self.angle)
        if self.kind == "Loop":
            return picking.loop(own, face, _nearest_side(world, face, hit.point))
        if self.kind == "Brush":
            return picking.within_reach(world, hit.point, self.brush_mm, hit.normal)
        return picking.same_group(own, face) if self.kind == "Same material" else picking.island(own, face)

    def pick(self, part: str, faces: Faces) -> None:
        """Pick faces of a part; none lets all go."""
        self.picked_part, self.picked = (part, faces) if len(faces) else ("", NO_FACES)
        self.picked_changed.emit()
        if len(faces):
            self.desk.tell(tr("{count} faces picked. Shift adds, Ctrl takes away.", count=len(faces)))

    def more(self) -> None:
        """The picked faces and their neighbours."""
        self._again(picking.more)

    def fewer(self) -> None:
        """The picked faces without their rim."""
        self._again(picking.fewer)

    def _again(self, change: Callable[[Mesh, Faces], Faces]) -> None:
        mesh = self.own_mesh()
        if mesh is not None and len(self.picked):
            self.pick(self.picked_part, change(mesh, self.picked))

    def own_mesh(self) -> Mesh | None:
        """The mesh of the part whose faces are picked, in its own mm."""
        one = self.view.site.of_part(self.picked_part) if self.view.site else None
        return one.made.mesh if one else None

    def packed(self) -> str:
        """The picked faces as the job keeps them; empty where none are."""
        mesh = self.own_mesh()
        return picking.packed(self.picked, mesh) if mesh is not None and len(self.picked) else ""

    def show_marked(self, marked: tuple[DrawPart, ...] | None = None) -> None:
        """Tint the chosen part and mark picked faces, or others."""
        here = self.desk.view.stage == "Place"
        chosen = frozenset({self.desk.selection.part_id} if here else ())
        self.view.show_chosen(chosen, self.marked(self.picked_part, self.picked) if marked is None else marked)

    def marked(self, part: str, faces: Faces) -> tuple[DrawPart, ...]:
        """Faces as something to be drawn over the model."""
        if not self.view.site or not len(faces):
            return ()
        out = []
        for one in self.view.site.standing:
            if one.part.id == part and int(faces.max()) < one.mesh.count:
                corners = (one.mesh.corners[faces].reshape(-1, 3) / 1000).astype(np.float32)
                none = np.zeros((0, 3), np.float32)
                out.append(DrawPart(f"{one.id}/picked", corners, none, none, "", (0.5, 0.5, 0.5), part=part))
        return tuple(out)

    # Datum, measure, colour, pieces, paths, pins -------------------------------------------------

    def _set_datum(self, _hit: Hit | None, event: QMouseEvent) -> None:
        found = self.snapped(event.position())
        part = self.desk.selection.part
        if found is None:
            return
        at, along, name = _place(found.at), _level(found.along), str(found.name)
        laid = next((one for one in part.laid if one.id == self.datum_for), None) if part else None
        if laid is not None and part is not None:
            self.desk.dispatch(intents.own_datum(part.id, laid, at, name, along=along))
        else:
            self.desk.dispatch(intents.set_datum(self.desk.job.scene, at, name, along=along))
        self.datum_for = ""
        self.take("Choose")
        self.desk.tell(tr("Datum: {name}.", name=tr(found.name)))
        self.datum_set.emit()

    def _measure(self, _hit: Hit | None, event: QMouseEvent) -> None:
        found = self.snapped(event.position())
        if found is None:
            return
        self._trail.append(found.at)
        overlay = self.view.overlay
        overlay.trail, overlay.trail_text = tuple(self._trail), "measure"
        if len(self._trail) == 2:
            start, end = self._trail
            command, _ = intents.add_line(_place(start), _place(end))
            self.desk.dispatch(command)
            by = end - start
            x, y, z = (format_length(float(v)) for v in by)
            length = format_length(float(np.linalg.norm(by)))
            self.take("Measure", told=tr("{length}: {x} east, {y} north, {z} up", length=length, x=x, y=y, z=z))

    def _colour(self, hit: Hit | None, event: QMouseEvent) -> None:
        if hit is None:
            return
        if event.modifiers() & Qt.KeyboardModifier.ShiftModifier and self.colour:
            part = hit.standing.part
            group = str(hit.standing.mesh.names[hit.standing.mesh.groups[hit.face]])
            self.desk.dispatch(intents.colour_group(part, group, self.colour))
            return
        self.colour = self.colour_at(hit)
        if self.colour:
            self.colour_taken.emit(self.colour)
            self.desk.tell(tr("{colour} taken. Shift+click gives it to bare faces.", colour=self.colour))

    def _stand(self, _hit: Hit | None, event: QMouseEvent) -> None:
        found = self.snapped(event.position())
        if found is None:
            return
        chosen = self.desk.selection.part
        parent = chosen.id if chosen and chosen.group else chosen.parent if chosen else ""
        scene = self.desk.job.scene
        above = scene.part(parent)
        into = np.linalg.inv(world_matrix(scene, above)) if above else np.eye(4)
        at = _place(into[:3, :3] @ found.at + into[:3, 3])
        command, part = intents.add_piece(self.standing_up, at, parent=parent)
        if self.desk.dispatch(command):
            self.take("Choose")
            self.desk.selection.choose(part=part.id)

    def _path(self, _hit: Hit | None, event: QMouseEvent) -> None:
        found = self.snapped(event.position())
        if found is None:
            return
        near = self._trail and self.view.on_screen(self._trail[0])
        if near and len(self._trail) >= 3 and (near - event.position()).manhattanLength() < SNAP_PX:
            self._end_path(closed=True)
            return
        self._trail.append(found.at)
        self.view.overlay.trail = tuple(self._trail)
        self.view.update()

    def _end_path(self, *, closed: bool) -> None:
        part, trail = self.desk.selection.part, list(self._trail)
        self.take("Choose")
        one = self.view.site.of_part(part.id) if part and self.view.site else None
        if part is None or one is None or len(trail) < 2:
            return
        into = np.linalg.inv(one.matrix)
        points = tuple(_place(into[:3, :3] @ point + into[:3, 3]) for point in trail)
        if self.path_for:
            line = (*points, points[0]) if closed else points
            self.desk.dispatch(intents.set_laid(part.id, self.path_for, "path", line, label=say("Draw the path")))
        else:
            self.desk.dispatch(intents.set_path(part.id, points, closed=closed))

    def _opening(self, hit: Hit | None, _event: QMouseEvent) -> None:
        part = self.desk.selection.part
        if hit is None or part is None or hit.part != part.id or not intents.takes(part, "openings"):
            self.desk.tell(tr("Click on the chosen wall."), "caution")
            return
        into = np.linalg.inv(hit.standing.matrix)
        own = into[:3, :3] @ hit.point + into[:3, 3]
        command, _ = intents.add_opening(part, float(own[0]), kind=self.standing_up)
        self.desk.dispatch(command)
        self.take("Choose")

    def _pin(self, hit: Hit | None, event: QMouseEvent) -> None:
        found = self.snapped(event.position())
        if hit is not None and found is not None:
            self.pinned.emit(_place(found.at))

    def draw_edge(self, laid: str) -> None:
        """Lay something along an edge that is clicked."""
        self.take("Edge", told=tr("Click an edge; the line goes on as far as the edge does."))
        self.path_for = laid

    def _edge(self, hit: Hit | None, _event: QMouseEvent) -> None:
        if lay_along_edge(self.desk, hit, self.path_for):
            self.take("Choose")

    def key(self, event: QKeyEvent) -> None:
        """Keys of the tool in hand."""
        key = event.key()
        if key == Qt.Key.Key_Escape:
            self.leave()
        elif self.tool == "Path" and key in {Qt.Key.Key_Return, Qt.Key.Key_Enter}:
            self._end_path(closed=False)
        elif self.tool in {"Path", "Measure"} and key == Qt.Key.Key_Backspace and self._trail:
            self._trail.pop()
            self.view.overlay.trail = tuple(self._trail)
            self.view.update()
        elif self.tool == "Faces" and event.text() in {"+", "-"}:
            self.more() if event.text() == "+" else self.fewer()
        else:
            return
        event.accept()


_TOLD = {
    "Faces": "Click faces of the model; Shift adds, Ctrl takes away, + and − grow and shrink.",
    "Datum": "Click where the laying starts; it snaps to corners, edges and levels.",
    "Measure": "Click two points; they snap to corners, edges and levels.",
    "Colour": "Click a colour of the model; Shift+click gives it to bare faces.",
    "Pin": "Click the points of the model that the picture's corners are held to.",
}


def _place(point: Vector) -> Place:
    x, y, z = (round(float(v), 4) + 0.0 for v in point)
    return x, y, z


def _level(along: Vector | None) -> Place:
    """A direction along level ground: that of the edge, if it is level."""
    if along is None or abs(float(along[2])) > 0.1:
        return 1.0, 0.0, 0.0
    flat = np.array([along[0], along[1], 0.0])
    flat = flat / np.linalg.norm(flat)
    # East rather than west, so that a pattern is not laid upside down by the way an edge was drawn.
    return _place(flat if flat[0] > 1e-9 or (abs(flat[0]) <= 1e-9 and flat[1] > 0) else -flat)


def _nearest_side(mesh: Mesh, face: int, point: Vector) -> int:
    corners = mesh.corners[face]
    ends = np.roll(corners, -1, 0)
    side = ends - corners
    share = np.clip(np.einsum("ij,ij->i", point - corners, side) / np.maximum((side**2).sum(1), 1e-12), 0, 1)
    return int(np.linalg.norm(corners + share[:, None] * side - point, axis=1).argmin())
