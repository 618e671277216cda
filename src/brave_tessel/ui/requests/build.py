"""What Build asks for: the surface whole or, while a stroke is drawn, only what it changes; an open recipe's steps."""

from __future__ import annotations

import time
from dataclasses import replace

import msgspec
from PyQt6.QtCore import QTimer, pyqtSignal

from ...core.job.document import KeptState
from ...core.job.layers import Stroke, Surface
from ...core.job.light import Rig
from ...core.relief.pictures import VIEWS
from ...core.sheet import Grid
from ...engine.areas import NotLocalError
from ...engine.evaluate import always
from ...engine.pictures import recipe as recipe_pictures
from ...engine.pictures.results import RecipePicture, SurfaceParts, SurfacePicture
from ...engine.pictures.strokes import Shown, stroke_parts
from ...engine.pictures.surface import (
    Showing,
    all_small_pictures,
    is_known,
    preview_of,
    surface_picture,
    turned_picture,
)
from ...engine.previews import Stored, stored_picture
from ...engine.snapshot import Snapshot
from ...engine.workers import Current
from ...formats.job_file import Preview
from ..workroom import Send
from .base import COARSE_PX, Requests

_HALF_FROM = 2048
"""Preview sizes from which a picture of half the size or less comes first: below it the whole is there soon enough."""


def live_px(px: int) -> int:
    """The size in which a stroke is followed: of a large sheet not all that it is made of is kept, and on the board a
    cell of it has fewer pixels anyway.
    """
    return px if px < _HALF_FROM else _HALF_FROM // 2 if px < 2 * _HALF_FROM else _HALF_FROM // 4


_REST_S, _SLICE_S = 0.03, 0.005
"""How long the hand must rest before the exact picture is begun, and how often it is looked whether it does."""


_HAND_RESTS_MS = 90
"""A brush that stays so long in its place rests: what looks far around is put right."""
_MOVING_S, _BETWEEN_S = 0.2, 0.04
"""Changes that come so soon after one another are of a moving hand: the next coarse picture is due before a fine one is
begun, so a moment is waited for it."""


def rested(current: Current, seconds: float = _REST_S) -> bool:
    """Wait a moment; whether the work is still wanted then."""
    until = time.monotonic() + seconds
    while time.monotonic() < until:
        if not current():
            return False
        time.sleep(_SLICE_S)
    return current()


def _turn(send: Send, snapshot: Snapshot, turned: SurfacePicture, showing: Showing, current: Current) -> bool:
    """What is shown in the light as it is being turned, short enough to be finished; whether the hand rests then, for
    which the exact picture waits.
    """
    send((turned_picture(snapshot, turned, showing), showing), anyway=True)
    return rested(current)


def _send_small(
    send: Send, sent: tuple[SurfacePicture, Showing], snapshot: Snapshot, coarse_px: int, current: Current
) -> None:
    """The small pictures that nobody waited for, of hidden layers too."""
    done, showing = sent
    thumbs = all_small_pictures(snapshot, done.surface, showing, coarse_px, current=current)
    if any(done.thumbs.get(id) is not thumb for id, thumb in thumbs.items()):
        send((replace(done, thumbs=thumbs), showing))


class BuildRequests(Requests):
    """``live`` is the stroke under the brush; it is ``_lost`` where only the whole picture can show it."""

    ready = pyqtSignal(object)
    stored_ready = pyqtSignal(object)
    parts_ready = pyqtSignal(object)
    recipe_ready = pyqtSignal(object)
    variants_ready = pyqtSignal(object)
    kept_ready = pyqtSignal(object)
    stroke_ended = pyqtSignal()
    channels = ("surface", "base", "recipe", "variants", "kept")

    def __init__(self, *parts: object) -> None:
        super().__init__(*parts)  # type: ignore[arg-type]
        self.live: Stroke | None = None
        self._shown: Shown | None = None
        self._live_base: Shown | None = None
        self._lost = self._remade = self._base_asked = False
        self._hand_rests = QTimer(self)
        self._hand_rests.setSingleShot(True)
        self._hand_rests.setInterval(_HAND_RESTS_MS)
        self._hand_rests.timeout.connect(self._rest)
        self._exact: tuple[SurfacePicture, Showing] | None = None
        self._live_shown: Stroke | None = None
        self._stroke_ended = False
        self._seen = ""
        self._asked_at = 0.0
        self.compared: KeptState | None = None
        self._kept_shown: tuple[str, bytes, Rig, Showing] | None = None

    def request(self) -> None:
        surface = self.selection.surface
        self.request_kept()
        if self.selection.recipe_open:
            self._request_recipe()
        elif surface is None:
            self.ready.emit(None)
        elif self.live is None or not self._request_parts(surface, self.live):
            self._request_whole(surface)

    def request_kept(self) -> None:
        """The kept state that is compared with: in today's light, or in its own where nothing but that differs."""
        state, job = self.compared, self.session.job
        if state is None or self.selection.recipe_open:
            return
        own_light = any(surface == state.surface for surface in job.surfaces)
        rig = state.rig if own_light else job.rig
        snapshot = self.session.snapshot().with_job(msgspec.structs.replace(job, rig=rig))
        showing = replace(self.showing(), solo="")

        def work(current: Current) -> tuple[tuple[str, bytes, Rig, Showing], SurfacePicture] | None:
            grid = Grid.for_repeat(state.surface.width_mm, state.surface.height_mm, showing.px)
            wanted = state.id, snapshot.planner().finished(state.surface, grid).key, rig, showing
            if wanted == self._kept_shown:
                # A dial of what it is compared with moves: nothing of it is another.
                return None
            made = surface_picture(snapshot, state.surface, showing, fine=True, current=current, small=False)
            return wanted, made

        self.work.ask("kept", work, self._deliver_kept)

    def _deliver_kept(self, done: tuple[tuple[str, bytes, Rig, Showing], SurfacePicture] | None) -> None:
        if done is not None:
            self._kept_shown, made = done
            self.kept_ready.emit((self._kept_shown[0], made))

    def compare_with(self, state: KeptState | None) -> None:
        """Another state to compare with, or none."""
        self.compared, self._kept_shown = state, None
        self.request_kept()

    def showing(self) -> Showing:
        """How the board shows it now."""
        view = self.view
        return Showing(view.view, view.preview_px, view.solo, view.eye)

    def _request_whole(self, surface: Surface) -> None:
        """Coarse, then fine; after a stroke, which is seen already, fine at once."""
        snapshot, showing, layer = self.session.snapshot(), self.showing(), self.selection.layer_id
        fine_first, self._stroke_ended = self._stroke_ended and self._base() is not None, False
        steps = self.steps(showing.px, after_stroke=fine_first)
        preview = None if self._seen == surface.id else self.session.previews.get(surface.id)
        turned = self._turned(snapshot, surface, showing)
        moving, self._asked_at = time.monotonic() - self._asked_at < _MOVING_S, time.monotonic()

        def work(current: Current, send: Send) -> None:
            if turned is not None and not _turn(send, snapshot, turned, showing, current):
                return
            stored = stored_picture(snapshot, surface, preview)
            if stored is not None:
                send(stored)
            at_once = turned is not None or is_known(snapshot, surface, showing)
            for px, shown in steps[-1:] if at_once else steps:
                fine, coarse, now = px == showing.px, px != showing.px and px <= COARSE_PX, showing.at(px)
                # The coarse one is short enough to be finished: overtaken at every move of the hand it would never
                # be seen.
                wanted = always if coarse else current
                small = fine and (fine_first or at_once)
                done = surface_picture(snapshot, surface, now, fine=fine, current=wanted, layer=layer, small=small)
                if px == live_px(showing.px) and not fine:
                    send(Shown(done, now))
                if shown:
                    send((done, showing), anyway=coarse)
                if not current() or (coarse and moving and not rested(current, _BETWEEN_S)):
                    return
                if fine and not fine_first and turned is None:
                    _send_small(send, (done, showing), snapshot, steps[0][0], current)
                if fine and (kept := preview_of(snapshot, done, now)) is not None:
                    send((surface.id, kept))

        self.work.stream("surface", work, self._show)

    def steps(self, px: int, *, after_stroke: bool = False) -> tuple[tuple[int, bool], ...]:
        """The sizes to work out one after another, and whether each is shown: coarse, then half or, of a large sheet,
        less, that in which a stroke is followed, and full. After a stroke, which is seen already, nothing
        coarse is shown.
        """
        half = (min(px // 2, _HALF_FROM // 2),) if px >= _HALF_FROM else ()
        sizes = () if after_stroke else (self.sizes(px)[0], *half)
        steps: dict[int, bool] = {}
        for size in (*sizes, live_px(px), px):
            finer = size > max(steps, default=0)
            steps.setdefault(size, finer and not (after_stroke and size < min(px, _HALF_FROM // 2)))
        return tuple(steps.items())

    def _turned(self, snapshot: Snapshot, surface: Surface, showing: Showing) -> SurfacePicture | None:
        """The picture that is shown, where nothing but the light is another since."""
        if self._exact is None or VIEWS[showing.view] is not None:
            return None
        done, as_shown = self._exact
        before = done.snapshot.job if done.snapshot is not None else None
        if before is None or done.surface is not surface or as_shown != showing or before.rig == snapshot.job.rig:
            return None
        rest = [name for name in before.__struct_fields__ if name not in {"rig", "lights"}]
        return done if all(getattr(before, name) is getattr(snapshot.job, name) for name in rest) else None

    def _show(self, done: Stored | Shown | tuple[SurfacePicture, Showing] | tuple[str, Preview]) -> None:
        match done:
            case Stored():
                self.stored_ready.emit(done)
            case str() as surface, Preview() as kept:
                self.session.previews[surface] = kept
            case Shown() as base if base.base.surface.id == self.selection.surface_id:
                self._live_base = base
            case SurfacePicture() as picture, Showing() as showing if self._wanted(picture, showing):
                self._deliver(picture, showing)

    def _wanted(self, done: SurfacePicture, showing: Showing) -> bool:
        """Whether a picture that was finished in any case is still of what is looked at."""
        now = self.showing()
        return done.surface.id == self.selection.surface_id and (showing.view, showing.solo) == (now.view, now.solo)

    def _deliver(self, done: SurfacePicture, showing: Showing) -> None:
        """A whole picture has come."""
        self._seen = done.surface.id
        whole = done.fine and showing.px == max(done.grid.shape)
        self._shown = Shown(done, showing) if whole else None
        if whole:
            self._exact = (done, showing)
        if done.fine or done.ms > 1:
            self.timed.emit(done.ms)
        self.ready.emit(done)

    # Strokes -------------------------------------------------------------------------------------

    def _base(self) -> Shown | None:
        """The picture that a stroke is laid into, where it is of what is looked at."""
        now = self.showing()
        followed = now.at(live_px(now.px))
        return next((base for base in (self._shown, self._live_base) if base and base.showing == followed), None)

    def _request_base(self, surface: Surface, showing: Showing) -> None:
        """What a stroke is laid into, where it is not at hand: then the stroke as it is by that time."""
        snapshot = self.session.snapshot()

        def work(_current: Current) -> Shown:
            return Shown(surface_picture(snapshot, surface, showing, fine=False, current=always, small=False), showing)

        def then(base: Shown) -> None:
            self._live_base = base
            if self.live is not None:
                self.request()

        def ended() -> None:
            self._base_asked = False

        self._base_asked = True
        self.work.ask("base", work, then, ended=ended)

    def _rest(self) -> None:
        surface = self.selection.surface
        if surface is not None and self.live is not None:
            self._request_parts(surface, self.live, resting=True)

    def _request_parts(self, surface: Surface, stroke: Stroke, *, resting: bool = False) -> bool:
        """Ask for what the stroke changes; False where the whole picture has to be made."""
        shown = None if self._lost else self._base()
        if shown is None or shown.base.surface.id != surface.id:
            now = self.showing()
            if self._lost:
                return False
            if not self._base_asked:
                self._request_base(surface, now.at(live_px(now.px)))
            return True
        # At rest all of the stroke, with what looks far around it.
        before, snapshot = None if resting else self._live_shown, self.session.snapshot()
        if not resting:
            self._hand_rests.start()

        def work(_current: Current, send: Send) -> None:
            try:
                # Short enough to be finished: overtaken at every move of the hand it would never be seen.
                send(
                    stroke_parts(snapshot, surface, shown, before=before, stroke=stroke, moving=not resting),
                    anyway=True,
                )
            except NotLocalError:
                if resting:
                    return
                send(None, anyway=True)

        self.work.stream("surface", work, self._deliver_parts)
        return True

    def _deliver_parts(self, done: SurfaceParts | None) -> None:
        if done is None:
            # What it was made of may be kept no more: it is made once again for this stroke.
            self._lost, self._remade = self._remade, True
            self._shown = self._live_base = None
            self.request()
        elif self._base() is not None:
            self._live_shown = done.stroke if self.live is not None else None
            self.timed.emit(done.ms)
            self.parts_ready.emit(done)

    def end_stroke(self) -> None:
        """The brush is lifted: what looks at the whole sheet is put right too."""
        self._hand_rests.stop()
        self._lost = self._remade = False
        self.live = self._live_shown = None
        self._stroke_ended = True
        self.stroke_ended.emit()

    # An open recipe ------------------------------------------------------------------------------

    def _request_recipe(self) -> None:
        surface, layer, recipe = self.selection.surface, self.selection.layer, self.selection.recipe
        if surface is None or layer is None or recipe is None:
            return
        snapshot, chosen, light = self.session.snapshot(), self.selection.recipe_step, self.lighting(surface.stance)
        sizes = self.sizes(self.view.preview_px)

        def work(current: Current, send: Send) -> None:
            for px in sizes:
                asked = recipe_pictures.Asked(surface, layer, recipe, chosen, px, light)
                send(recipe_pictures.recipe_picture(snapshot, asked, current=current))

        self.work.stream("recipe", work, self._deliver_recipe)

    def _deliver_recipe(self, done: RecipePicture) -> None:
        self.timed.emit(done.ms)
        self.recipe_ready.emit(done)

    def ask_variants(self) -> None:
        """Small pictures of the open recipe's next seeds; ``variants_ready`` brings them."""
        surface, layer, recipe = self.selection.surface, self.selection.layer, self.selection.recipe
        if surface is None or layer is None or recipe is None:
            return
        snapshot, light = self.session.snapshot(), self.lighting(surface.stance)
        self.work.ask(
            "variants",
            lambda current: recipe_pictures.variant_pictures(
                snapshot, surface, layer, recipe, lighting=light, current=current
            ),
            self.variants_ready.emit,
        )
