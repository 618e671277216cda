"""Small pictures asked for by the way: of strewn sheets for lists, of a recipe's variants."""

from __future__ import annotations

from ..core.job.document import Source
from ..engine.intents.recipes import recipe_of
from ..engine.pictures import recipe as recipe_pictures
from ..engine.pictures import sheets as pictures
from ..engine.pictures.results import ScatterPicture
from .desk import Desk
from .surface_requests import COARSE_PX
from .thumbs import keep_thumb, unseen


def ask_thumbs(desk: Desk) -> None:
    """Make the small pictures of scatter sheets that were not seen yet; ``job_changed`` shows them."""
    for source in (s for s in desk.job.sources if unseen(s) and s.id not in desk.thumbs_asked):
        desk.thumbs_asked.add(source.id)
        _ask_thumb(desk, source)


def _ask_thumb(desk: Desk, source: Source) -> None:
    job, session, light = desk.job, desk.session, desk.light

    def show(done: ScatterPicture) -> None:
        if keep_thumb(done.source, done.mips[0]):
            desk.job_changed.emit(desk.job)

    desk.ask(
        f"thumb {source.id}",
        lambda current: pictures.scatter_picture(
            session, job, source, px=COARSE_PX, view=None, light=light, fine=False, current=current
        ),
        show,
    )


def ask_variants(desk: Desk) -> None:
    """Small pictures of the open recipe's next seeds; ``variants_ready`` brings them."""
    surface, layer = desk.surface, desk.layer
    recipe = recipe_of(layer, desk.recipe_rule)
    if surface is None or layer is None or recipe is None:
        return
    job, light, session = desk.job, desk.light, desk.session
    desk.ask(
        "variants",
        lambda current: recipe_pictures.variant_pictures(
            session, job, surface, layer, recipe, light=light, current=current
        ),
        desk.variants_ready.emit,
    )
