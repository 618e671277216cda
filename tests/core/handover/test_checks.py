"""Checks of a surface: whole units, seams, colours of materials."""

import numpy as np
import pytest

from brave_tessel.core.handover.check import run_checks
from brave_tessel.core.job.document import Job
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.place.elevation import units_of
from brave_tessel.core.sheet import Grid
from tests.core.place.scenes import brick
from tests.core.place.test_fitting import patterned


def plain_maps(value, grid=None):
    grid = grid or Grid(64, 64, 100, 100)
    rng = np.random.default_rng(1)
    noise = rng.normal(0, 0.02, (*grid.shape, 1)).astype(np.float32)
    return MapSet(
        grid,
        {
            MapKind.BASE_COLOUR: np.clip(np.full((*grid.shape, 3), value, np.float32) + noise, 0, 1),
            MapKind.HEIGHT: np.zeros(grid.shape, np.float32),
        },
    )


def test_checks_find_colours_no_material_has():
    made = brick()
    levels = {f.check: f.severity for f in run_checks(Job(surfaces=(made,)), made, plain_maps(0.3))}
    assert levels == {"seam": "ok", "base-colour": "ok", "whole-units": "ok", "size": "ok"}
    dark = {f.check: f for f in run_checks(Job(surfaces=(made,)), made, plain_maps(0.0))}
    assert dark["base-colour"].severity == "fault"
    assert dark["base-colour"].spot is not None
    assert "dark" in dark["base-colour"].title
    assert run_checks(Job(surfaces=(made,)), made, plain_maps(0.0))[0].check == "base-colour"


def test_a_repeat_that_is_no_whole_units_is_found_and_mended():
    made = brick(width=2300.0)
    first = Job(surfaces=(made,))
    finding = next(f for f in run_checks(first, made, plain_maps(0.3)) if f.check == "whole-units")
    assert finding.severity == "caution"
    assert "2250" in finding.mend_label
    after = finding.mend.apply(first).surfaces[0]
    assert (after.width_mm, after.height_mm) == pytest.approx((2250.0, 1500.0))
    assert units_of(after).whole


OTHERS = {
    "pattern.slates": ({"width": 250.0, "length": 500.0, "headlap": 100.0}, (1000.0, 1200.0)),
    "pattern.planks": ({"width": 144.0, "length": 1440.0}, (1440.0, 1440.0)),
    "pattern.seams": ({"pitch": 430.0}, (1720.0, 900.0)),
    "pattern.octagons": ({"pitch": 150.0}, (1200.0, 900.0)),
    "pattern.basketweave": ({"length": 225.0}, (900.0, 1350.0)),
}


@pytest.mark.parametrize("op", OTHERS)
@pytest.mark.parametrize(("wider", "taller", "fits"), [(1.0, 1.0, True), (1.03, 1.0, False), (1.0, 1.03, False)])
def test_other_patterns_are_judged_by_their_own_units(op, wider, taller, fits):
    values, (width, height) = OTHERS[op]
    made = patterned(op, (width * wider, height * taller), **values)
    # Where a pattern runs through without an end there is nothing to fit.
    free = (op == "pattern.planks" and wider > 1) or (op == "pattern.seams" and taller > 1)
    job = Job(surfaces=(made,))
    finding = next(f for f in run_checks(job, made, plain_maps(0.3)) if f.check == "whole-units")
    assert (finding.severity == "ok") is (fits or free), finding.cause
    if finding.mend is not None:
        after = finding.mend.apply(job).surfaces[0]
        again = next(f for f in run_checks(job, after, plain_maps(0.3)) if f.check == "whole-units")
        assert again.severity == "ok"
        assert (after.width_mm, after.height_mm) == pytest.approx((width, height))


def test_a_seam_is_a_fault():
    made = brick()
    maps = plain_maps(0.3)
    ramp = maps[MapKind.BASE_COLOUR] + np.linspace(0, 0.4, 64, dtype=np.float32)[None, :, None]
    finding = run_checks(Job(surfaces=(made,)), made, maps.with_maps(base_colour=ramp))[0]
    assert (finding.check, finding.severity) == ("seam", "fault")
