"""Pictures of the model, drawn in a thread of their own, which owns the driver's context."""

from __future__ import annotations

import logging
import time
from collections.abc import Callable
from dataclasses import dataclass, replace

import moderngl

from ....core.sheet import AnyArray
from ....engine.pictures.results import SceneTextures
from ....engine.workers import Current, Worker
from ....view3d import rest
from ....view3d.drawn import DrawPart, Look, SceneLight
from ....view3d.pace import Pace
from ....view3d.renderer import Renderer

log = logging.getLogger(__name__)

_FRAME = "frame"


@dataclass(frozen=True, slots=True)
class Seen:
    """What is drawn: parts with their surfaces, in a light that is made in the drawing thread."""

    parts: list[DrawPart]
    textures: SceneTextures | None
    light: Callable[[bool], SceneLight]

    @property
    def awaiting(self) -> bool:
        """Whether surfaces are still worked out: the processor is theirs, and a still model is drawn as if it moved."""
        return self.textures is not None and not self.textures.complete


class Frames:
    """The newest frame wins; ``failed`` says why the machine cannot draw, in the driver's words."""

    def __init__(self) -> None:
        self.failed = ""
        self._worker: Worker | None = None
        self._pace = Pace()
        self._single = False
        self._renderer: Renderer | None = None

    @property
    def idle(self) -> bool:
        """Whether nothing is being drawn."""
        return self._worker is None or self._worker.idle

    @property
    def holds_driver(self) -> bool:
        """Whether anything of the 3D driver is held."""
        return self._renderer is not None

    @property
    def first_due(self) -> bool:
        """Whether a single frame is being drawn, or waits: asked for another, it would never be seen."""
        return self._single and self._worker is not None and self._worker.busy_with(_FRAME)

    @property
    def moving_share(self) -> float:
        """How large a frame is drawn while the hand moves, of the full width and height."""
        return self._pace.share if self._renderer is None or self._renderer.software else 1.0

    def draw(self, seen: Seen, look: Look, show: Callable[[AnyArray, bool], None]) -> None:
        """Draw a look: one frame where it is ``moving``, else frames that are added up; ``show`` is handed codes
        (height, width, 3) and whether they are of a model at rest, in the drawing thread.
        """
        awaiting = seen.awaiting
        self._single = look.moving or awaiting

        def work(renderer: Renderer, current: Current) -> None:
            lit = replace(look, light=seen.light(look.moving), moving=look.moving or awaiting)
            if lit.moving:
                begun = time.perf_counter()
                show(renderer.draw(lit), not look.moving)
                if look.moving:
                    self._pace.told((time.perf_counter() - begun) * 1000)
                else:
                    renderer.learn_on(current)
            else:
                rest.come_to_rest(renderer, lit, lambda codes, _last: show(codes, True), current)

        self._ask(_FRAME, seen, work)

    def draw_still(self, seen: Seen, look: Look, show: Callable[[AnyArray], None]) -> None:
        """Draw one sharp picture; while surfaces are still worked out, a plain one for now."""

        def work(renderer: Renderer, current: Current) -> None:
            done: list[AnyArray] = []
            lit = replace(look, light=seen.light(False), moving=seen.awaiting)
            if seen.awaiting:
                show(renderer.draw(lit))
                return
            rest.come_to_rest(renderer, lit, lambda codes, _last: done.append(codes), current, passes=rest.STILL)
            if done and current():
                show(done[-1])

        self._ask("still", seen, work)

    def _ask(self, channel: str, seen: Seen, draw: Callable[[Renderer, Current], None]) -> None:
        if self.failed or not seen.parts:
            return
        self._worker = self._worker or Worker("scene")

        def work(current: Current) -> None:
            try:
                renderer = self._prepared(seen, current)
                if renderer is not None:
                    draw(renderer, current)
            except (moderngl.Error, OSError, ValueError) as error:
                log.exception("the model could not be drawn")
                self.failed = str(error)

        self._worker.request(channel, work)

    def _prepared(self, seen: Seen, current: Current) -> Renderer | None:
        """What has changed is handed to the driver."""
        if self._renderer is None:
            self._renderer = Renderer()
        self._renderer.set_parts(seen.parts)
        for surface, pictures in (seen.textures.surfaces if seen.textures else {}).items():
            if not current():
                return None
            self._renderer.set_textures(surface, pictures)
        return self._renderer

    def leave_off(self) -> None:
        """Nobody looks: frames that are still being added up are not made."""
        if self._worker is not None:
            self._worker.cancel(_FRAME)

    def stop(self) -> None:
        """End the thread, and give back what the driver holds."""
        if self._worker:
            self._worker.stop(self._release)

    def _release(self) -> None:
        if self._renderer is not None:
            self._renderer.release()
            self._renderer = None
