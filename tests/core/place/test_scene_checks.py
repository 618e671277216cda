"""Checks of a scene: what is broken is found, what is right is left alone, and what is mended is gone."""

import msgspec
import pytest

from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.place.check import check_scene
from brave_tessel.core.place.site import site_of

from .scenes import brick, job, laid, part


def replaced(held, id, **values):
    parts = tuple(msgspec.structs.replace(one, **values) if one.id == id else one for one in held.scene.parts)
    return msgspec.structs.replace(held, scene=msgspec.structs.replace(held.scene, parts=parts))


def wall(length=4500.0, height=2400.0, id="w", at=(0.0, 0.0, 0.0), turn=0.0, bare="#223344", **values):
    """A wall with bricks on its front; the rest is meant bare."""
    on = [laid("flat", "front", surface="brick", values=values)]
    return part(id, "wall", {"length": length, "height": height}, laid=on, at=at, turn=turn, bare=bare)


PLAIN = part("plain", "wall").bare


def kinds(held):
    return sorted({one.check for one in check_scene(site_of(held))})


def of_kind(held, kind):
    return [one for one in check_scene(site_of(held)) if one.check == kind]


def test_a_wall_that_is_right_is_left_alone():
    assert kinds(job(wall(), surface=brick())) == []


@pytest.mark.parametrize(("length", "height"), [(2250.0, 1500.0), (4500.0, 3000.0), (2362.5, 1200.0), (900.0, 300.0)])
def test_walls_of_whole_bricks_have_no_slivers(length, height):
    assert of_kind(job(wall(length, height), surface=brick()), "slivers") == []


@pytest.mark.parametrize(("length", "height"), [(4530.0, 2400.0), (4500.0, 2418.0), (4300.0, 2400.0)])
def test_pieces_under_a_third_are_found_and_mended(length, height):
    held = job(wall(length, height), surface=brick())
    (found,) = of_kind(held, "slivers")
    assert found.place is not None
    assert found.mend is not None
    after = found.mend.apply(held)
    left = of_kind(after, "slivers")
    assert not left or left[0].cause != found.cause


def test_what_is_not_at_true_size_is_found_and_mended():
    held = job(wall(factor=1.5), surface=brick())
    (found,) = of_kind(held, "scale")
    assert of_kind(found.mend.apply(held), "scale") == []


@pytest.mark.parametrize("factor", [0.99, 1.0, 1.015])
def test_what_a_fit_stretches_is_at_true_size(factor):
    assert of_kind(job(wall(factor=factor), surface=brick()), "scale") == []


def test_courses_off_the_datum_are_found_and_mended():
    held = job(wall(up=20.0), surface=brick())
    (found,) = of_kind(held, "datum")
    assert of_kind(found.mend.apply(held), "datum") == []


def test_courses_that_fit_need_no_datum():
    held = job(wall(height=2400.0, at=(0.0, 0.0, 37.0), up=37.0), surface=brick())
    assert of_kind(held, "datum") == []


def corner(up):
    east = wall(3000.0, id="e", at=(4500.0, 0.0, 0.0), turn=-90.0, up=up)
    return job(wall(bare=PLAIN), east, surface=brick(), datum=(4500.0, 0.0, 0.0))


@pytest.mark.parametrize(("up", "misses"), [(0.0, False), (75.0, False), (1.0, False), (9.0, True), (37.5, True)])
def test_bed_joints_that_miss_at_a_corner_are_found(up, misses):
    assert bool(of_kind(corner(up), "corners")) is misses


def test_courses_of_two_heights_miss():
    held = corner(0.0)
    east = held.scene.parts[1]
    fresh = msgspec.structs.replace(east.laid[0], dials={"bed": 12.0})
    assert of_kind(replaced(held, "e", laid=(fresh,)), "corners")


def test_a_surface_seen_from_one_side_is_stretched_on_a_slope():
    roof = {"width": 6000.0, "depth": 4000.0, "pitch": 55.0}
    flat = part("r", "roof", roof, laid=[laid("box", "slope", values={"directions": "of the scene"})])
    assert of_kind(job(flat), "stretch")
    true = part("r", "roof", roof, laid=[laid("flat", "slope")])
    assert of_kind(job(true), "stretch") == []


def test_stones_of_an_arch_are_wedges_and_no_fault():
    one = part("a", "arch", {}, laid=[laid("path", surface="brick")])
    assert of_kind(job(one, surface=brick()), "stretch") == []


def test_bare_faces_beside_covered_ones_are_found_and_mended():
    held = job(wall(bare=PLAIN), surface=brick())
    (found,) = of_kind(held, "bare")
    assert "back" in found.cause
    assert of_kind(found.mend.apply(held), "bare") == []


def test_faces_that_nobody_sees_are_not_missed():
    behind = part("b", "box", {"width": 6000.0, "depth": 3000.0, "height": 4000.0}, at=(-700.0, 162.0, -500.0))
    on = (laid("flat", "front", "ends", "top", surface="brick"),)
    held = replaced(job(wall(bare=PLAIN), behind, surface=brick()), "w", laid=on)
    assert of_kind(held, "bare") == []


@pytest.mark.parametrize("values", [{"bare": "#223344"}, {"colours": {"back": "#223344", "ends": "#1", "top": "#2"}}])
def test_what_was_given_a_colour_is_meant_bare(values):
    held = job(wall(bare=PLAIN), surface=brick())
    assert of_kind(replaced(held, "w", **values), "bare") == []


def test_parts_without_any_surface_are_not_judged():
    assert kinds(job(part("w", "wall"))) == []


def test_neighbours_with_pictures_twice_as_fine_are_told():
    fine = msgspec.structs.replace(brick(), id="s", name="Fine", width_mm=450.0, height_mm=300.0)
    one = part("f", "floor", {"width": 4500.0, "depth": 3000.0}, at=(0.0, -3000.0, 0.0), laid=[laid("flat", "top")])
    held = job(wall(bare=PLAIN), one, surface=brick())
    held = msgspec.structs.replace(held, surfaces=(*held.surfaces, fine))
    (found,) = of_kind(held, "density")
    assert "Fine" in found.cause
    same = msgspec.structs.replace(fine, width_mm=2250.0, height_mm=1500.0)
    assert of_kind(msgspec.structs.replace(held, surfaces=(held.surfaces[0], same)), "density") == []


def test_every_finding_has_a_part_and_words():
    held = job(wall(4530.0, 2418.0, factor=1.4), surface=brick())
    for one in check_scene(site_of(held)):
        assert held.scene.part(one.part) is not None
        assert one.title
        assert one.cause.endswith(".")
        assert bool(one.mend) == bool(one.mend_label)


def test_a_laying_of_another_version_is_passed_over():
    held = job(wall(), surface=brick())
    unknown = msgspec.structs.replace(held.scene.parts[0].laid[0], laying=Setting(op="laying.unheard"))
    check_scene(site_of(replaced(held, "w", laid=(unknown,))))
