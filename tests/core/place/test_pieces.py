"""Every made piece: closed, its sizes true, its handles honest; beside manifold3d, trimesh and published sizes."""

import math

import msgspec
import numpy as np
import pytest
import trimesh

from brave_tessel.core import registered  # noqa: F401 - declares the pieces
from brave_tessel.core.job.scene import Opening, Piece
from brave_tessel.core.job.trees import of_tree, tree_of
from brave_tessel.core.operation import family, find
from brave_tessel.core.place import groups
from brave_tessel.core.place.known import KNOWN
from brave_tessel.core.place.piece import NOTHING, TAKES, Drawn, made
from brave_tessel.core.place.profiles import PROFILES
from brave_tessel.core.place.solids import is_closed, partitioned, rectangle

PIECES = [entry.id for entry in family("made")]
PATH = ((0.0, 0.0, 0.0), (2400.0, 0.0, 0.0), (2400.0, 1800.0, 0.0), (600.0, 1800.0, 0.0))
OPENINGS = (
    Opening(id="a", left=500, width=900, sill=936, height=1170, filling="window", sill_out=40, lintel=150),
    Opening(id="b", left=1800, width=900, sill=936, height=1500, head="segmental", filling="window", lintel=225),
    Opening(id="c", left=3000, width=1000, sill=0, height=2100, filling="door"),
    Opening(id="d", left=4400, width=1200, sill=0, height=2500, head="round", lintel=225),
    Opening(id="e", left=6200, width=800, sill=600, height=1700, head="pointed", filling="window", lintel=100),
)


def build(op, drawn=None, **values):
    entry = find(f"made.{op}" if "." not in op else op)
    return entry.run(drawn or Drawn(), **entry.bind(values))


def check_whole(mesh):
    """Closed by two libraries, every face turned out, nothing without a place."""
    assert is_closed(mesh)
    other = trimesh.Trimesh(mesh.points, mesh.triangles, process=False)
    assert other.is_watertight
    assert other.is_winding_consistent
    assert other.volume > 0
    assert np.isfinite(mesh.points).all()
    return other


@pytest.mark.parametrize("op", PIECES)
def test_it_encloses_a_space(op):
    check_whole(build(op).mesh)


@pytest.mark.parametrize("op", PIECES)
def test_it_does_at_the_ends_of_every_scale(op):
    entry = find(op)
    for name, param in entry.params.items():
        ends = param.options if param.kind == "choice" else (param.low, param.high)
        if param.kind in {"seed", "toggle"}:
            continue
        for end in ends:
            value = round(end) if param.kind == "whole" else end
            mesh = build(op, **{name: value}).mesh
            assert mesh.count, (name, end)
            assert is_closed(mesh), (name, end)


@pytest.mark.parametrize("op", [op for op in PIECES if "path" in TAKES[op]])
@pytest.mark.parametrize("closed", [False, True])
def test_it_runs_along_a_drawn_path(op, closed):
    mesh = build(op, Drawn(path=PATH, closed=closed), **({"width": 1000.0} if op == "made.road" else {})).mesh
    check_whole(mesh)
    low, high = mesh.box
    assert np.all(low[:2] < 700)
    assert np.all(high[:2] > 1700)


@pytest.mark.parametrize("op", PIECES)
def test_its_values_go_through_a_file(op):
    piece = Piece(
        op=op, values=find(op).defaults(), openings=OPENINGS[:1], path=PATH, profile=((0, 0), (9, 0), (0, 30))
    )
    back = of_tree(tree_of(piece), Piece)
    assert msgspec.structs.replace(back, version=0) == piece
    assert made(back).mesh.key == made(piece).mesh.key


@pytest.mark.parametrize("op", PIECES)
def test_every_face_belongs_to_a_group_with_a_name(op):
    named = {str(value) for name, value in vars(groups).items() if name.isupper()} | {"figure"}
    mesh = build(op).mesh
    assert {str(name) for name in mesh.names} <= named
    assert mesh.groups.min() >= 0
    assert mesh.groups.max() < len(mesh.names)
    assert len({str(name) for name in mesh.names}) == len(mesh.names)


@pytest.mark.parametrize("op", PIECES)
def test_a_handle_moves_as_far_as_it_is_pulled(op):
    before = build(op)
    for handle in before.handles:
        start = float(find(op).bind({})[handle.dial])
        after = build(op, **{handle.dial: start - 20.0})
        moved = next(h for h in after.handles if h.dial == handle.dial)
        by = (np.array(moved.at) - np.array(handle.at)) @ np.array(handle.along)
        # Half of what the mark moves for a size that grows to both sides.
        assert by == pytest.approx(-20.0 * handle.share, rel=0.02, abs=0.6), handle.dial


@pytest.mark.parametrize("bevel", [0.0, 5.0])
@pytest.mark.parametrize("dado", [0.0, 1248.0])
@pytest.mark.parametrize("top", ["level", "gabled", "round"])
def test_a_wall_with_every_kind_of_opening(bevel, dado, top):
    mesh = build("wall", Drawn(openings=OPENINGS), length=8000.0, height=2700.0, thickness=300.0, dado=dado,
                 bevel=bevel, top=top).mesh  # fmt: skip
    check_whole(mesh)
    areas = {str(name): mesh.areas[mesh.of_groups([name])].sum() / 1e6 for name in mesh.names}
    assert (areas.get("dado", 0.0) > 5) == (dado > 0)
    assert {"reveal", "soffit", "sill", "lintel", "frame", "glass", "door"} <= set(areas)


def test_a_wall_less_its_openings_is_its_front():
    """Area of the front against the sum worked out by hand."""
    opening = Opening(id="o", left=1000, width=900, sill=900, height=1200)
    mesh = build("wall", Drawn(openings=(opening,)), length=4000.0, height=2700.0).mesh
    assert mesh.areas[mesh.of_groups(["front"])].sum() == pytest.approx(4000 * 2700 - 900 * 1200)
    assert mesh.areas[mesh.of_groups(["reveal"])].sum() == pytest.approx(2 * 1200 * 240)
    assert mesh.areas[mesh.of_groups(["sill", "soffit"])].sum() == pytest.approx(2 * 900 * 240)


def test_openings_that_leave_the_wall_or_meet_are_left_out():
    good = Opening(id="a", left=500, width=900, sill=900, height=1000)
    over = Opening(id="b", left=900, width=900, sill=900, height=1000)
    high = Opening(id="c", left=2500, width=900, sill=900, height=2000)
    beside = Opening(id="d", left=3800, width=900, sill=900, height=1000)
    alone, all_ = (build("wall", Drawn(openings=o)).mesh for o in ((good,), (good, over, high, beside)))
    assert alone.areas[alone.of_groups(["front"])].sum() == all_.areas[all_.of_groups(["front"])].sum()
    check_whole(all_)


@pytest.mark.parametrize("profile", PROFILES)
@pytest.mark.parametrize("side", ["left", "right"])
def test_every_profile_turns_its_corners(profile, side):
    check_whole(build("moulding", Drawn(path=PATH), profile=profile, side=side).mesh)


def test_a_mitre_is_on_the_half_angle():
    """Round a right-angled corner the outer edge of a moulding is longer by twice what it stands out."""
    path = ((0.0, 0.0, 0.0), (1000.0, 0.0, 0.0), (1000.0, 1000.0, 0.0))
    mesh = build("moulding", Drawn(path=path), profile="string course", height=100.0).mesh
    low, high = mesh.box
    assert low[1] == pytest.approx(-50, abs=1e-6)
    assert high[0] == pytest.approx(1050, abs=1e-6)


# Published sizes -----------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("shape", "span", "rise", "arc"),
    [
        # check-values C3: semicircular and segmental arcs, in metres there.
        ("round", 4000.0, 2000.0, 6283.185), ("segmental", 4000.0, 1000.0, 4636.476),
        ("segmental", 4000.0, 500.0, 4164.637),
        # Equilateral pointed arch, 2πs/3.
        ("pointed", 4000.0, 3464.102, 8377.580),
    ],
)  # fmt: skip
def test_the_soffit_of_a_vault_is_as_long_as_its_arc(shape, span, rise, arc):
    mesh = build("vault", span=span, rise=rise, shape=shape, length=1000.0).mesh
    area = mesh.areas[mesh.of_groups(["vault"])].sum()
    assert area / 1000 == pytest.approx(arc, rel=1.5e-3)


@pytest.mark.parametrize(
    ("pitch", "factor"), [(22.5, 1.08239), (30.0, 1.15470), (35.0, 1.22077), (40.0, 1.30541), (45.0, 1.41421)]
)
@pytest.mark.parametrize("shape", ["gabled", "hipped"])
def test_a_roof_is_larger_than_its_plan_by_the_slope_factor(pitch, factor, shape):
    """check-values B3: 1 / cos(pitch), geometry."""
    mesh = build("roof", shape=shape, pitch=pitch, width=8000.0, depth=5000.0, eaves=300.0).mesh
    area = mesh.areas[mesh.of_groups(["slope", "hip"])].sum()
    assert area == pytest.approx(8600 * 5600 * factor, rel=1e-4)


def test_a_flight_rises_and_goes_as_typed():
    """Approved Document K (England): rise 150 to 170, going 250 to 400, twice the rise and a going 550 to 700."""
    values = find("made.steps").defaults()
    assert 150 <= values["rise"] <= 170
    assert 250 <= values["going"] <= 400
    assert 550 <= 2 * values["rise"] + values["going"] <= 700
    mesh = build("steps", count=4, rise=160.0, going=300.0, width=1200.0, bevel=0.0).mesh
    assert mesh.box[1] == pytest.approx((1200, 1200, 640))
    assert mesh.areas[mesh.of_groups(["tread"])].sum() == pytest.approx(4 * 300 * 1200)
    assert mesh.areas[mesh.of_groups(["riser"])].sum() == pytest.approx(4 * 160 * 1200)


def test_a_parapet_guards_a_fall():
    """Approved Document K: 1100 mm at external balconies."""
    assert find("made.parapet").defaults()["height"] == 1100


@pytest.mark.parametrize("thing", KNOWN)
def test_known_objects_have_their_published_sizes(thing):
    low, high = build("known", thing=thing).mesh.box
    assert high - low == pytest.approx(KNOWN[thing].size_mm, abs=0.01)


def test_some_of_the_known_sizes():
    """check-values B4: BS 4787-1, ISO 216, ISO/IEC 7810, EN 13698-1, BS 4662."""
    sizes = {name: entry.size_mm for name, entry in KNOWN.items()}
    assert sizes["door leaf"] == (762.0, 35.0, 1981.0)
    assert sizes["A4 sheet"][:2] == (210.0, 297.0)
    assert sizes["ID-1 card"][:2] == (85.6, 53.98)
    assert sizes["flat pallet"] == (1200.0, 800.0, 144.0)
    assert sizes["switch plate"][0] == 86.0


@pytest.mark.parametrize(("who", "tall"), [("grown-up", 1750.0), ("child", 1200.0)])
def test_a_figure_has_the_shares_of_a_body(who, tall):
    """Drillis and Contini 1966: shoulders 0.259 and hips 0.191 of the stature, feet 0.152 long; a body of 1.75 m has
    about 67 l (density 1.0 to 1.06 kg/l, 70 kg).
    """
    mesh = build("figure", who=who).mesh
    other = check_whole(mesh)
    assert np.ptp(mesh.points[:, 2]) == pytest.approx(tall, abs=0.5)
    slab = mesh.points[np.abs(mesh.points[:, 2] - 0.818 * tall) < 0.03 * tall]
    assert np.ptp(slab[:, 0]) == pytest.approx(0.259 * tall, rel=0.12)
    assert other.volume * 1e-6 == pytest.approx(67 * (tall / 1750) ** 3, rel=0.08)


def test_a_cloth_is_as_wide_as_its_fullness_says():
    mesh = build("cloth", width=1400.0, fullness=1.5, gather=0.0, folds=7.0).mesh
    across = np.ptp(mesh.unwrap[..., 0])
    assert across == pytest.approx(1400 * 1.5, rel=0.12)


# What holds them together --------------------------------------------------------------------------


def test_regions_share_every_corner():
    """A face cut by a rectangle: no corner of one piece lies inside a side of another."""
    import shapely

    pieces, _ = partitioned([rectangle(0, 0, 100, 60)], [("low", shapely.box(20, -5, 70, 25))], "rest")
    corners = {name: np.concatenate(rings) for name, rings in pieces}
    for name, rings in pieces:
        for other, points in corners.items():
            if other == name:
                continue
            for ring in rings:
                line = shapely.LineString(np.concatenate([ring, ring[:1]]))
                for point in points:
                    touches = line.distance(shapely.Point(point)) < 1e-9
                    assert not touches or np.abs(ring - point).sum(1).min() < 1e-9
    assert sum(shapely.Polygon(r[0]).area for _, r in pieces) == pytest.approx(6000)


def test_a_piece_that_is_not_known_is_nothing_and_stays_in_the_job():
    odd = Piece(op="made.pagoda", values={"tiers": 5}, version=3)
    assert made(odd) is NOTHING
    assert of_tree(tree_of(odd), Piece) == odd


def test_equal_pieces_are_made_once():
    one = made(Piece(op="made.box", values={"width": 321.0}))
    assert made(Piece(op="made.box", values={"width": 321.0})) is one
    assert made(Piece(op="made.box", values={"width": 322.0})) is not one


def test_bevels_are_as_wide_as_typed():
    plain, rounded = (build("box", bevel=b).mesh for b in (0.0, 20.0))
    assert plain.box[1] == pytest.approx(rounded.box[1])
    # A quarter round in two chords leaves sin 45° of its square.
    cut = 8 * 1000 * (1 - math.sin(math.pi / 4)) * 20**2
    lost = 1e9 - trimesh.Trimesh(rounded.points, rounded.triangles, process=False).volume
    assert lost == pytest.approx(cut, rel=0.03)
