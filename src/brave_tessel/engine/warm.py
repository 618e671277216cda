"""Kernels compiled or loaded ahead of their first use."""

from __future__ import annotations

import logging

import numpy as np

from ..core.job.document import Job
from ..core.light.lighting import Lighting
from ..core.maps import MapKind
from ..core.plan.planner import Planner
from ..core.recipe.materials import MATERIALS
from ..core.repeat.cut import find_cuts
from ..core.sheet import Grid
from ..formats.lettering import fonts
from .cache import Cache
from .evaluate import Evaluation
from .intents.layers import add_rule, lay_on
from .intents.surfaces import new_surface

log = logging.getLogger(__name__)


def warm_kernels() -> None:
    """Evaluate a tiny surface that uses every kernel, and look once which fonts there are."""
    try:
        fonts()
        job = Job()
        command, surface = new_surface(job)
        job = command.apply(job)
        for group, kind in (
            ("Recipe", "Clouds"),
            ("Special", "Standing water"),
            ("Special", "Inscription"),
            ("Special", "Run"),
            ("Recipe", "Pebbles"),
        ):
            job = lay_on(job, job.surface(surface.id), group, kind)[0].apply(job)
        layer = job.surfaces[0].layers[-1]
        for op in ("where.noise", "where.height"):
            job = add_rule(job.surfaces[0], job.surfaces[0].layers[-1], op)[0].apply(job)
        grid = Grid.for_repeat(surface.width_mm, surface.height_mm, 128)
        planner = Planner(job, lambda _blob: np.zeros((4, 4, 3), np.float32))
        Evaluation(Cache()).value(planner.lit(job.surfaces[0], grid, Lighting()))
        picture = np.zeros((48, 48, 3), np.float32)
        find_cuts({MapKind.BASE_COLOUR: picture}, {MapKind.BASE_COLOUR: 1.0}, 0.2, 0.2)
        for stock in MATERIALS:
            small = Grid.for_repeat(*stock.repeat_mm, 64)
            Evaluation(Cache()).value(planner.recipe(stock.make(), small, "warm"))
        log.debug("kernels are warm (%s)", layer.name)
    except Exception:
        log.exception("kernels could not be warmed")
