"""Layings, elevation and courses; brick sums of check-values B1."""

import msgspec
import numpy as np
import pytest

from brave_tessel.core.buildup.kinds.recipe import RecipeWhat
from brave_tessel.core.handover.check import run_checks
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, Surface
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.place.elevation import count_courses, units_of, unroll
from brave_tessel.core.place.figure import CHILD_MM, FIGURE_MM, silhouette, standing_figure
from brave_tessel.core.place.lay import in_repeats, lay_on
from brave_tessel.core.place.mesh import pick
from brave_tessel.core.place.piece import scene_meshes
from brave_tessel.core.place.pieces.corner import CORNER, corner_meshes, corner_scene
from brave_tessel.core.recipe.stock import units_recipe
from brave_tessel.core.sheet import Grid


def brick(width=2250.0, height=1500.0, **values):
    recipe = units_recipe(**({"length": 215.0, "height": 65.0, "joint": 10.0, "bond": "half"} | values))
    layer = Layer(id="brick", name="Brick", what=RecipeWhat(recipe=recipe))
    return Surface(id="brick", name="Brick", width_mm=width, height_mm=height, layers=(layer,), beat="brick")


def job(surface=None, **scene):
    made = surface or brick()
    return Job(
        surfaces=(made,),
        scene=msgspec.structs.replace(corner_scene(dado=made.id, wall=made.id, floor=made.id), **scene),
    )


def test_thirty_four_courses():
    assert count_courses(0, 34 * 75, 0, 75).whole == 34
    assert count_courses(0, 2400, 0, 75).whole == 32
    courses = count_courses(0, 2700, 0, 78)
    assert (courses.whole, courses.cut_mm) == (34, pytest.approx((48.0,)))


def test_courses_from_a_raised_datum():
    courses = count_courses(0, 1200, 40, 75)
    assert courses.whole == 15
    assert courses.cut_mm == pytest.approx((40.0, 35.0))
    assert count_courses(0, 50, 0, 75).cut_mm == pytest.approx((50.0,))


def test_units_of_a_surface():
    units = units_of(brick())
    assert (units.across, units.courses) == (10, 20)
    assert units.whole
    odd = units_of(brick(width=2150.0))
    assert odd.across == 10
    assert odd.unit_mm == pytest.approx(215.0)
    assert not odd.whole


def test_flat_laying_is_true_to_size_and_carries_round_the_corner():
    made = job()
    meshes = scene_meshes(made.scene)
    for part in made.scene.parts:
        if part.id not in {"north-dado", "east-dado", "north-wall", "east-wall"}:
            continue
        place = lay_on(part, meshes[part.id], made.scene, meshes)
        quads = meshes[part.id].quads
        real = np.linalg.norm(quads[:, 1] - quads[:, 0], axis=1)
        laid = np.linalg.norm(place[:, 1] - place[:, 0], axis=1)
        assert np.allclose(real, laid)
    parts = {part.id: part for part in made.scene.parts}

    def at(part, corner):
        mesh = meshes[part]
        place = lay_on(parts[part], mesh, made.scene, meshes).reshape(-1, 2)
        distance = np.linalg.norm(mesh.quads.reshape(-1, 3) - np.array(corner), axis=1)
        return place[distance.argmin()]

    corner = (CORNER.north, 0.0, 0.0)
    assert np.allclose(at("north-dado", corner), (0, 0))
    assert np.allclose(at("east-dado", corner), (0, 0))
    assert at("east-dado", (CORNER.north, 0, CORNER.east))[0] == pytest.approx(CORNER.east)
    assert at("north-dado", (0, 0, 0))[0] == pytest.approx(-CORNER.north)


def test_a_datum_on_the_north_wall_shifts_the_east_wall_too():
    made = job(datum=(1404.0, 936.0, 0.0))
    meshes = scene_meshes(made.scene)
    parts = {part.id: part for part in made.scene.parts}
    place = lay_on(parts["east-dado"], meshes["east-dado"], made.scene, meshes).reshape(-1, 2)
    assert place[:, 0].min() == pytest.approx(CORNER.north - 1404)
    assert place[:, 1].min() == pytest.approx(-936)


def test_box_laying_is_true_to_size_on_every_face():
    made = job()
    meshes = scene_meshes(made.scene)
    part = next(p for p in made.scene.parts if p.id == "reveal")
    assert part.laying.op == "laying.box"
    place = lay_on(part, meshes["reveal"], made.scene, meshes)
    for quad, laid in zip(meshes["reveal"].quads, place, strict=True):
        for a, b in ((0, 1), (1, 2)):
            assert np.linalg.norm(quad[a] - quad[b]) == pytest.approx(np.linalg.norm(laid[a] - laid[b]))


def test_turning_keeps_lengths_and_shifting_moves():
    made = job()
    meshes = scene_meshes(made.scene)
    part = made.scene.parts[0]
    straight = lay_on(part, meshes[part.id], made.scene, meshes)
    turned = lay_on(
        msgspec.structs.replace(part, laying=Setting(op="laying.flat", values={"turn": 90.0})),
        meshes[part.id],
        made.scene,
        meshes,
    )
    assert np.allclose(np.linalg.norm(straight, axis=2), np.linalg.norm(turned, axis=2))
    moved = lay_on(
        msgspec.structs.replace(part, laying=Setting(op="laying.flat", values={"across": 30.0, "up": -5.0})),
        meshes[part.id],
        made.scene,
        meshes,
    )
    assert np.allclose(straight - moved, (30, -5))


def test_repeats_times_size_is_the_edge():
    # World check of check-values E: edge / repeats = tile size.
    made = job()
    meshes = scene_meshes(made.scene)
    part = next(p for p in made.scene.parts if p.id == "east-wall")
    uv = in_repeats(lay_on(part, meshes[part.id], made.scene, meshes), made.surfaces[0])
    assert CORNER.east / np.ptp(uv[..., 0]) == pytest.approx(2250.0)


def test_elevation_unrolls_corner_after_corner():
    made = unroll(job())
    assert made.size == pytest.approx((CORNER.north + CORNER.east, CORNER.height))
    assert made.corners == (CORNER.north,)
    face = next(f for f in made.faces if f.part.id == "north-wall")
    assert face.courses.course_mm == pytest.approx(75)
    assert face.courses.whole == 19
    assert sum(face.courses.cut_mm) + 19 * 75 == pytest.approx(CORNER.height - CORNER.dado)


def test_faces_look_into_the_room_and_rays_find_them():
    meshes = corner_meshes()
    inside = np.array([2250.0, 1000.0, 1500.0])
    for name in ("north-dado", "east-dado", "floor"):
        normal, point = meshes[name].normals()[0], meshes[name].quads[0].mean(0)
        assert normal @ (inside - point) > 0, name
    hit = pick(meshes, inside, np.array([0.0, 0.0, -1.0]))
    assert hit is None or hit.part != "reveal"
    assert pick(meshes, np.array([500.0, 500.0, 1500.0]), np.array([0.0, 0.0, -1.0])).part == "north-dado"
    floor = pick(meshes, inside, np.array([0.0, -1.0, 0.0]))
    assert floor.part == "floor"
    assert floor.point == pytest.approx((2250, 0, 1500))
    assert pick(meshes, inside, np.array([0.0, 1.0, 0.0])) is None


def test_reveal_faces_into_the_opening():
    mesh = corner_meshes()["reveal"]
    middle = np.array(
        [CORNER.window_left + CORNER.window_width / 2, (CORNER.sill + CORNER.head) / 2, -CORNER.reveal / 2]
    )
    for normal, quad in zip(mesh.normals(), mesh.quads, strict=True):
        assert normal @ (middle - quad.mean(0)) > 0


def test_the_figure_has_its_height():
    # 1750 mm standing (check-values B4).
    assert np.ptp(corner_meshes()["figure"].quads[..., 1]) == pytest.approx(FIGURE_MM)


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


def test_a_seam_is_a_fault():
    made = brick()
    maps = plain_maps(0.3)
    ramp = maps[MapKind.BASE_COLOUR] + np.linspace(0, 0.4, 64, dtype=np.float32)[None, :, None]
    finding = run_checks(Job(surfaces=(made,)), made, maps.with_maps(base_colour=ramp))[0]
    assert (finding.check, finding.severity) == ("seam", "fault")


def _breadth(mesh, low, high):
    """East to west between two heights, mm."""
    points = mesh.quads.reshape(-1, 3)
    inside = points[(points[:, 1] >= low) & (points[:, 1] <= high)]
    return float(np.ptp(inside[:, 0]))


@pytest.mark.parametrize("height", [FIGURE_MM, CHILD_MM])
def test_the_figure_has_the_measures_of_a_body(height):
    """Shares of the stature by Drillis and Contini (1966), as in Winter, Biomechanics: shoulders 0.259 with the muscle
    over them somewhat more, hips 0.191, foot 0.152 long; a body of 22 kg/m² (WHO, middle of the normal range) and the
    density of water holds 67 litres at 1.75 m.
    """
    figure = standing_figure(0.0, 0.0, height_mm=height)
    points = figure.quads.reshape(-1, 3)
    assert points[:, 1].min() == pytest.approx(0, abs=1e-9)
    assert points[:, 1].max() == pytest.approx(height)
    assert _breadth(figure, 0.79 * height, 0.81 * height) == pytest.approx(0.265 * height, rel=0.05)
    assert _breadth(figure, 0.9 * height, 0.96 * height) == pytest.approx(0.091 * height, rel=0.03)
    feet = points[points[:, 1] < 0.02 * height]
    assert np.ptp(feet[:, 2]) == pytest.approx(0.152 * height, rel=0.01)
    corners = figure.triangles()
    litres = np.einsum("ij,ij->i", corners[:, 0], np.cross(corners[:, 1], corners[:, 2])).sum() / 6e6
    assert litres == pytest.approx(67 * (height / 1750) ** 3, rel=0.08)


def test_the_silhouette_is_the_figure_seen_from_the_front():
    drawn = np.concatenate(silhouette())
    solid = standing_figure(0.0, 0.0).quads.reshape(-1, 3)
    assert drawn.min(0) == pytest.approx(solid[:, :2].min(0), abs=0.01)
    assert drawn.max(0) == pytest.approx(solid[:, :2].max(0), abs=0.01)


def test_the_figure_looks_where_it_is_turned():
    ahead, aside = standing_figure(0.0, 0.0), standing_figure(0.0, 0.0, facing=90.0)
    assert np.allclose(aside.quads[..., 0], ahead.quads[..., 2])
    assert np.allclose(aside.quads[..., 2], -ahead.quads[..., 0])
    moved = standing_figure(500.0, -200.0)
    assert np.allclose(moved.quads - ahead.quads, (500.0, 0.0, -200.0))
