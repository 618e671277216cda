"""What a surface does round corners, over mouldings, along arches, and in bands."""

import msgspec
import numpy as np
import pytest

from brave_tessel.core.place.checks.sizes import stretch_of
from brave_tessel.core.place.elevation import facets_of
from brave_tessel.core.place.site import _path, site_of

from .scenes import brick, job, laid, part


def box_walls(how, values=None, **surface):
    """A block of 3000 × 2000, its upright faces laid from its south face."""
    on = [laid("flat", "front", "ends", "back", surface="brick", values={"corners": how, **(values or {})})]
    size = {"length": 3000.0, "thickness": 2000.0, "height": 1500.0, "bevel": 0.0}
    return site_of(job(part("b", "wall", size, laid=on), surface=brick(**surface), datum=(0.0, 0.0, 0.0)))


def places_at(site, normal, corner):
    """Where along the pattern a corner of the block is on the face that looks a way."""
    one = site.of_part("b")
    found = site.coordinates(one, 0)
    facet = next(f for f in facets_of(one) if f.normal @ normal > 0.99)
    rows = np.searchsorted(found.faces, facet.faces)
    points = one.mesh.corners[facet.faces].reshape(-1, 3)
    best = int(np.abs(points - corner).sum(1).argmin())
    return found.flat_corners()[rows].reshape(-1, 2)[best]


SOUTH, EAST = np.array([0.0, -1.0, 0.0]), np.array([1.0, 0.0, 0.0])
CORNER = np.array([3000.0, 0.0, 0.0])


def box_corner(site):
    one = site.of_part("b")
    low, high = one.mesh.box
    return np.array([high[0], low[1], low[2]])


def test_it_carries_on():
    site = box_walls("carry on")
    at = box_corner(site)
    assert places_at(site, SOUTH, at)[0] == pytest.approx(places_at(site, EAST, at)[0], abs=1e-6)


def test_it_starts_anew_with_a_whole_unit():
    site = box_walls("start anew")
    assert places_at(site, EAST, box_corner(site))[0] == pytest.approx(0.0, abs=1e-6)


def test_it_takes_a_closer():
    site = box_walls("take a closer")
    assert places_at(site, EAST, box_corner(site))[0] == pytest.approx(225.0 / 2, abs=1e-6)


def test_it_is_mirrored():
    site = box_walls("mirror")
    at = box_corner(site)
    one, far = places_at(site, EAST, at)[0], places_at(site, EAST, at + [0.0, 2000.0, 0.0])[0]
    assert one == pytest.approx(places_at(site, SOUTH, at)[0], abs=1e-6)
    assert far - one == pytest.approx(-2000.0, abs=1e-6)


@pytest.mark.parametrize("how", ["carry on", "start anew", "take a closer", "mirror"])
def test_courses_run_round_level_and_nothing_is_stretched(how):
    site = box_walls(how)
    at = box_corner(site)
    assert places_at(site, SOUTH, at)[1] == pytest.approx(places_at(site, EAST, at)[1], abs=1e-6)
    np.testing.assert_allclose(stretch_of(site.coordinates(site.of_part("b"), 0)), 1.0, atol=1e-6)


def arch(**values):
    size = {"span": 1500.0, "ring": 225.0, "thickness": 320.0}
    on = [laid("path", surface="brick", values=values)]
    return site_of(job(part("a", "arch", size, laid=on), surface=brick(), datum=(0.0, 0.0, 0.0)))


@pytest.mark.parametrize("keystone", [False, True])
def test_whole_units_run_round_an_arch(keystone):
    site = arch(whole="units", keystone=keystone)
    found = site.coordinates(site.of_part("a"), 0)
    along = found.flat_corners()[..., 0]
    count = np.ptp(along) / 225.0
    assert count == pytest.approx(round(count), abs=1e-3)
    assert not keystone or round(count) % 2 == 1
    assert "units" in found.note
    assert along.min() == pytest.approx(0.0, abs=1e-3)


def test_a_surface_goes_over_a_moulding_true():
    path = ((0.0, 0.0, 0.0), (3000.0, 0.0, 0.0))
    on = [laid("path", "face", "top", values={"rises": "over the profile"})]
    one = part("m", "moulding", {"profile": "cornice", "height": 150.0}, laid=on, piece={"path": path})
    site = site_of(job(one))
    np.testing.assert_allclose(stretch_of(site.coordinates(site.of_part("m"), 0)), 1.0, atol=1e-4)


def test_a_band_covers_the_profile_once():
    path = ((0.0, 0.0, 0.0), (3000.0, 0.0, 0.0))
    on = [laid("path", "face", "top", values={"rises": "over the profile", "fill": True, "whole": "repeats"})]
    one = part("m", "moulding", {"profile": "cornice", "height": 150.0}, laid=on, piece={"path": path})
    site = site_of(job(one))
    found = site.coordinates(site.of_part("m"), 0).flat_corners()
    assert np.ptp(found[..., 1]) == pytest.approx(312.0, abs=1e-6)
    assert np.ptp(found[..., 0]) / 612.0 == pytest.approx(round(3000 / 612), abs=1e-6)


def round_wall(girth):
    on = [laid("around", values={"girth": girth})]
    size = {"radius": 1350.0, "angle": 90.0, "height": 400.0, "thickness": 430.0}
    return site_of(job(part("c", "curved_wall", size, laid=on)))


def test_a_thick_round_wall_is_true_on_both_sides():
    for girth, true in (("of each face", True), ("of the axis", False)):
        site = round_wall(girth)
        one = site.of_part("c")
        found = site.coordinates(one, 0)
        sizes = stretch_of(found)
        upright = np.abs(one.mesh.normals[found.faces, 2]) < 0.1
        worst = np.abs(sizes[upright] - 1).max(1)
        weights = one.mesh.areas[found.faces][upright]
        share = float(weights[worst > 0.05].sum() / weights.sum())
        assert (share < 0.05) is true, girth


def test_stretch_of_a_fit_is_a_laying_of_its_own():
    site = box_walls("carry on", {"wider": 1.02, "taller": 0.98})
    sizes = np.sort(stretch_of(site.coordinates(site.of_part("b"), 0)), 1)
    np.testing.assert_allclose(sizes, [[0.98, 1.02]] * len(sizes), atol=1e-9)


def test_a_path_that_ends_where_it_begins_is_closed():
    line = ((0.0, 0.0, 0.0), (1.0, 0.0, 0.0), (1.0, 1.0, 0.0), (0.0, 0.0, 0.0))
    site = round_wall("of the axis")
    one = site.of_part("c")
    own = msgspec.structs.replace(one.part.laid[0], path=line)
    assert _path(one, own)[1]
