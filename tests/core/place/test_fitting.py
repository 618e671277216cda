"""Fits asked of parts: what is promised is what comes, on walls, slopes, round and turned surfaces."""

import msgspec
import pytest

from brave_tessel.core.buildup.kinds.recipe import RecipeWhat
from brave_tessel.core.errors import MissingError
from brave_tessel.core.job.layers import Band, Layer, Recipe, Step, Surface
from brave_tessel.core.maps import MapKind
from brave_tessel.core.place.fit import fit
from brave_tessel.core.place.fitting import ask, change_of, fit_command
from brave_tessel.core.place.gauge import closing_of, fitted, gauge_of, outlines_of, pattern_of
from brave_tessel.core.place.site import site_of
from brave_tessel.engine.intents.scene import unfit

from .scenes import brick, job, laid, part, room

WAYS = ("joint", "unit", "stretch", "datum", "cut")


def patterned(op, size, **values):
    recipe = Recipe(steps=(Step(name="made", op=op, values=values),), yields={MapKind.HEIGHT: "made"})
    layer = Layer(id="l", name="L", what=RecipeWhat(recipe=recipe))
    return Surface(id="s", name="S", width_mm=size[0], height_mm=size[1], layers=(layer,))


def wall(surface, *, height=2411.0, length=3070.0, **values):
    on = [laid("flat", "front", surface=surface.id, values=values)]
    return job(part("w", "wall", {"height": height, "length": length}, laid=on), surface=surface)


SCENES = {
    "wall": lambda: wall(brick()),
    "wall at another size": lambda: wall(brick(), factor=1.3),
    "turned wall": lambda: wall(brick(), turn=90.0),
    "mirrored wall": lambda: wall(brick(), mirrored=True),
    "shifted wall": lambda: wall(brick(), across=37.0, up=-11.0),
    "roof": lambda: job(
        part("w", "roof", {"width": 6000.0, "depth": 4000.0}, laid=[laid("flat", "slope", surface="s")]),
        surface=patterned("pattern.slates", (1000.0, 1200.0)),
    ),
    "curved wall": lambda: job(
        part("w", "curved_wall", {"height": 1210.0}, laid=[laid("around", "front", surface="brick")]), surface=brick()
    ),
    "boards": lambda: job(
        part("w", "floor", {"width": 3000.0, "depth": 2205.0}, laid=[laid("flat", "top", surface="s")]),
        surface=patterned("pattern.planks", (1440.0, 1440.0), width=144.0, length=1440.0),
    ),
}


@pytest.mark.parametrize("along", [False, True], ids=["up", "along"])
@pytest.mark.parametrize("name", SCENES)
def test_what_is_promised_is_what_comes(name, along):
    before = SCENES[name]()
    site = site_of(before)
    try:
        asked = ask(site, "w", 0, along=along)
    except MissingError:
        assert name == "boards"
        return
    found = asked.fit()
    assert found.fits or found.proposals
    for way in WAYS:
        one = found.best(way)
        if one is None:
            continue
        after = fit_command("w", asked.laid, change_of(asked, one)).apply(before)
        now = fit(ask(site_of(after), "w", 0, along=along).span).now
        assert [cut.piece / 1000 for cut in now.cuts] == pytest.approx(
            [cut.piece / 1000 for cut in one.cuts], abs=0.6
        ), way
        assert len(now.slivers) == len(one.slivers)


def test_a_fit_between_levels_is_of_those_alone():
    site = site_of(wall(brick(), height=2411.0))
    asked = ask(site, "w", 0, low=75.0, high=1200.0)
    assert asked.fit().fits
    assert asked.fit().now.count == 15
    assert asked.height_of(asked.span.high) == pytest.approx(1200.0)


def test_the_recipe_is_made_anew_and_units_keep_their_size():
    surface = brick()
    fresh = fitted(surface, {"joint": 10.0, "bed": 12.0})
    gauge = gauge_of(fresh)
    assert gauge.courses.mm == pytest.approx(77.0)
    assert gauge.units.mm == pytest.approx(225.0)
    assert fresh.height_mm == pytest.approx(20 * 77.0)
    assert (fresh.width_mm, fresh.id) == (surface.width_mm, "brick~bed=12 joint=10")
    values = pattern_of(fresh).values
    assert (values["height"], values["bed"]) == (65.0, 12.0)


def test_joints_along_leave_those_up_alone():
    site = site_of(wall(brick(), length=3070.0))
    asked = ask(site, "w", 0, along=True)
    change = change_of(asked, asked.fit().best("joint"))
    assert change.dials["bed"] == 10.0
    assert change.dials["joint"] != 10.0


def test_a_fit_can_be_taken_back():
    before = wall(brick(), height=2411.0)
    asked = ask(site_of(before), "w", 0)
    after = fit_command("w", asked.laid, change_of(asked, asked.fit().best("joint"))).apply(before)
    after = unfit("w", after.scene.parts[0].laid[0]).apply(after)
    assert after.scene.parts[0].laid[0].dials == {}
    assert site_of(after).surface(after.scene.parts[0].laid[0]).id == "brick"


def test_dials_that_the_pattern_does_not_have_change_nothing():
    assert fitted(brick(), {"unheard": 3.0}) is not None
    assert fitted(brick(), {"unheard": 3.0}).id == "brick"


@pytest.mark.parametrize(
    ("op", "size", "courses", "units"),
    [
        ("pattern.units", (1224.0, 1248.0), 78.0, 153.0),
        ("pattern.slates", (1000.0, 1200.0), 200.0, 250.0),
        ("pattern.planks", (1440.0, 1440.0), 144.0, None),
        ("pattern.seams", (1720.0, 1720.0), None, 430.0),
        ("pattern.octagons", (1200.0, 1200.0), 150.0, 150.0),
        ("pattern.basketweave", (900.0, 900.0), 225.0, 225.0),
        ("pattern.corrugation", (760.0, 760.0), None, 76.0),
        ("pattern.fan", (1200.0, 1200.0), 100.0, 1200.0),
        ("pattern.boards", (900.0, 900.0), None, 90.0),
        ("pattern.hexagons", (960.0, 960.0), None, None),
    ],
)
def test_every_pattern_counts_what_it_has(op, size, courses, units):
    found = gauge_of(patterned(op, size))
    assert (found.courses.mm if found.courses else 0.0) == pytest.approx(courses or 0.0, rel=0.02)
    assert (found.units.mm if found.units else 0.0) == pytest.approx(units or 0.0, rel=0.02)


@pytest.mark.parametrize("value", [1e9, -5.0, float("nan"), float("inf")])
def test_a_value_that_the_pattern_does_not_take_changes_nothing(value):
    assert fitted(brick(), {"bed": value}) == brick()


@pytest.mark.parametrize("edges", [(-5.0, 40.0), (40.0, 40.0), (80.0, 20.0), (0.0, 1e9), (float("nan"), 10.0)])
def test_a_band_that_is_none_takes_the_whole_sheet(edges):
    surface = msgspec.structs.replace(brick(), bands=(Band(id="b", name="B", low=edges[0], high=edges[1]),))
    held = wall(surface)
    band = msgspec.structs.replace(held.scene.parts[0].laid[0], band="b")
    assert site_of(held).repeat(band) == (2250.0, 1500.0)


def test_how_a_pattern_closes_and_at_which_repeat_it_would():
    closing = closing_of(patterned("pattern.planks", (1440.0, 1500.0), width=144.0, length=1440.0))
    assert [(asked.mm, real.mm) for asked, real in closing.stretched()] == [(144.0, 150.0)]
    assert closing.repeat(patterned("pattern.planks", (1440.0, 1500.0))) == (1440.0, 1440.0)
    assert closing_of(brick()).stretched() == []
    assert closing_of(Surface(id="p", name="Plain", width_mm=900.0, height_mm=900.0)) is None


def test_a_photo_cut_to_whole_courses_counts_its_rows():
    photo = Surface(id="p", name="P", width_mm=1200.0, height_mm=900.0, beat="photo", rows=(4, 12))
    found = gauge_of(photo)
    assert (found.courses.mm, found.units.mm) == (75.0, 300.0)
    assert outlines_of(photo) is None


def test_a_wall_without_courses_says_so():
    plain = Surface(id="s", name="Plain", width_mm=900.0, height_mm=900.0)
    with pytest.raises(MissingError, match="no courses"):
        ask(site_of(wall(plain)), "w", 0)


def test_openings_of_a_wall_are_lines():
    site = site_of(room(brick()))
    names = [one.id for one in site.of_part("north").part.laid]
    asked = ask(site, "north", names.index("dado"))
    assert [line.at for line in asked.span.lines] == [936_000]
    along = ask(site, "north", names.index("dado"), along=True)
    edges = sorted(line.side for line in along.span.lines)
    assert edges == [-1, 1]


def test_sills_heads_and_jambs_are_ends_of_a_fit():
    site = site_of(room(brick()))
    names = [one.id for one in site.of_part("north").part.laid]
    dado = names.index("dado")
    assert ask(site, "north", dado).stations() == (936.0,)
    assert ask(site, "north", dado, along=True).stations() == (1404.0, 2304.0)
    pier = ask(site, "north", dado, along=True, low=0.0, high=1404.0, ends="pier")
    assert pier.span.length == 1_404_000
    assert ask(site, "north", names.index("upper")).stations() == (2106.0,)


def test_a_band_has_no_courses():
    surface = msgspec.structs.replace(brick(), bands=(Band(id="b", name="B", low=0.0, high=75.0),))
    held = wall(surface)
    one = held.scene.parts[0]
    band = msgspec.structs.replace(one.laid[0], band="b")
    held = msgspec.structs.replace(
        held, scene=msgspec.structs.replace(held.scene, parts=(msgspec.structs.replace(one, laid=(band,)),))
    )
    site = site_of(held)
    assert site.repeat(band) == (2250.0, 75.0)
    assert site.texture(band) == "brick#b"
    assert site.gauge(band) is None
