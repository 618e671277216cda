"""Whole stock recipes look the same at every size: means of what they yield, at a half, a quarter and an eighth."""

import numpy as np
import pytest

from brave_tessel.core.colour import luminance
from brave_tessel.core.job.document import Job
from brave_tessel.core.maps import MapKind
from brave_tessel.core.recipe.materials import MATERIALS
from brave_tessel.engine.intents.surfaces import surface_from_stock
from brave_tessel.engine.session import Session
from brave_tessel.formats.job_file import OpenedJob

ALLOWED = {512: 0.02, 256: 0.04}
"""Of the mean luminance at 1024 pixels: what is finer than a pixel of the small size cannot all be kept."""


@pytest.mark.parametrize("name", [entry.name for entry in MATERIALS])
def test_a_stock_recipe_is_as_bright_and_as_rough_at_every_size(name):
    surface = surface_from_stock(Job(), name)[0].item
    snapshot = Session(OpenedJob(Job())).snapshot().with_job(Job(surfaces=(surface,)))
    seen = {px: snapshot.finished(surface, px) for px in (1024, *ALLOWED)}

    def means(px):
        return np.array([luminance(seen[px][MapKind.BASE_COLOUR]).mean(), seen[px][MapKind.ROUGHNESS].mean()])

    for px, allowed in ALLOWED.items():
        assert np.abs(means(px) / means(1024) - 1).max() < allowed, px
