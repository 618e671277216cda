"""The generic contract: holds for every declared operation, whatever it does."""

import contextlib
import inspect
import typing

import msgspec
import numpy as np
import pytest

from brave_tessel.core.errors import DoesNotCloseError, OutOfRangeError, UnknownOperationError
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.job.scene import Opening, Piece
from brave_tessel.core.kernels.relief import normal_of_height
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.operation import (
    REGISTRY,
    SETTINGS,
    Brushed,
    Colour,
    Field,
    Ground,
    Operation,
    Pieces,
    Vector,
    find,
)
from brave_tessel.core.outlines import Outline
from brave_tessel.core.place.laying import Bed, Coordinates
from brave_tessel.core.place.mesh import Mesh
from brave_tessel.core.place.piece import Drawn, Made
from brave_tessel.core.place.piece import made as made_piece
from brave_tessel.core.recipe.steps.noise import clouds
from brave_tessel.core.recipe.steps.pattern import units
from brave_tessel.core.relief.wrapped_blur import wrapped_gaussian
from brave_tessel.core.repeat.resample import resample_wrapped
from brave_tessel.core.sheet import Grid

GRID = Grid(96, 128, 300.0, 400.0)
EVERY = list(REGISTRY.values())
RUNNING = [op for op in EVERY if op.yields != SETTINGS]
"""Those that make something; the others are checked values and no more."""
RECIPE = {
    "noise",
    "marks",
    "pattern",
    "piece",
    "adjust",
    "blur",
    "move",
    "form",
    "combine",
    "colour",
    "relief",
    "source",
}
# These stand at a place of the sheet, turn it, or work at a size of their own, so a moved input is another one.
PLACED = {
    "move.turn",
    "combine.band",
    "move.slump",
    "move.erode",
    "blur.bilateral",
    "blur.median",
    "where.noise",
    "where.painted",
}
WRAPPED = [
    op
    for op in EVERY
    if op.family in (RECIPE | {"estimate", "where"}) - {"noise", "marks", "pattern", "source"} and op.id not in PLACED
]
SOURCES = [op for op in EVERY if op.family in {"noise", "marks", "pattern"}]
SIZED = [op for op in RUNNING if op.family in RECIPE | {"estimate", "where"} and op.yields != "pieces"]


def field(grid=GRID, seed=5):
    return clouds(grid, size=80, octaves=3, seed=seed)


def colour(grid=GRID):
    return np.stack([clouds(grid, size=70, octaves=3, seed=s) for s in (1, 2, 3)], 2) * np.float32(0.8)


def sample_maps(grid):
    """A set with every map that a look can change."""
    height = field(grid)
    return MapSet(
        grid,
        {
            MapKind.BASE_COLOUR: colour(grid),
            MapKind.HEIGHT: height,
            MapKind.ROUGHNESS: field(grid, 8),
            MapKind.METALNESS: (field(grid, 9) > 0.5).astype(np.float32),
            MapKind.NORMAL: normal_of_height(height * 6, grid),
        },
    )


def sample_brushed(grid):
    cover = np.clip(field(grid) * 3 - 1, 0, 1)
    cover[:4], cover[-4:], cover[:, :4], cover[:, -4:] = 0, 0, 0, 0
    there = MapSet(grid, {kind: pixels[::-1].copy() for kind, pixels in sample_maps(grid).maps.items()})
    return Brushed(cover, there, ((20.0, 20.0), (60.0, 80.0)))


def sample_bed(_grid):
    """A box that is turned, with an unwrap in shares of a sheet, a path beside it and four pins."""
    box = made_piece(Piece(op="made.box")).mesh
    mesh = Mesh(box.points, box.triangles, box.groups, box.names, box.corners[..., :2] / 700, False)
    turned = np.array([[0.8, 0.6, 0], [-0.6, 0.8, 0], [0, 0, 1.0]])
    pins = np.array([[0, 0, 0, 0, 0], [300, 0, 400, 0, 0], [300, 200, 400, 0, 300], [0, 210, 0, 0, 280.0]])
    path = np.array([[0.0, 0, 0], [900, 0, 0]])
    faces = np.arange(mesh.count, dtype=np.int32)
    return Bed(mesh, faces, np.zeros(3), np.array([1.0, 0, 0]), turned, path=path, pins=pins, unit=210.0)


def sample_drawn(_grid):
    return Drawn(
        openings=(Opening(id="o", left=1200.0, filling="window"),), path=((0.0, 0, 0), (900.0, 0, 0), (900.0, 700.0, 0))
    )


IN_SPACE = {"laying", "made", "copies"}
"""Families whose results are no rasters: tests of Place try them."""


SAMPLES = {
    "field": field,
    "colour": colour,
    "vector": lambda grid: normal_of_height(field(grid) * 6, grid),
    "pieces": lambda grid: units(grid, length=95, height=45, joint=5),
    "maps": lambda grid: sample_maps(grid),
    "ground": lambda grid: Ground(grid, field(grid) * 4 - 2),
    "brushed": sample_brushed,
    "bed": sample_bed,
    "drawn": sample_drawn,
    "outline": lambda _grid: Outline((np.array([(0.0, 0.0), (1.0, 0.0), (0.5, 0.8)]),)),
}


ALONG_A_LINE = {
    "along": lambda grid: grid.spread(grid.x_mm(), upright=True),
    "across": lambda grid: grid.spread(grid.y_mm() - grid.height_mm / 2, upright=False),
}
"""Places along and beside an upright line through the sheet, mm, as a run hands them to its stamp."""


def inputs_for(op: Operation, grid: Grid = GRID):
    """A sample of each input; no two fields of one operation are the same."""
    made = []
    for number, (name, kind) in enumerate(op.inputs.items()):
        if op.family == "stamp":
            made.append(np.asarray(ALONG_A_LINE[name](grid), np.float32))
        elif op.family == "inscription":
            made.append(Outline((np.array([(60.0, 60.0), (240.0, 80.0), (150.0, 300.0)]),)))
        else:
            made.append(field(grid, 5 + number) if kind == "field" else SAMPLES[kind](grid))
    return made


def run(op: Operation, grid: Grid = GRID, inputs=None, **values):
    made = inputs_for(op, grid) if inputs is None else inputs
    if op.id == "mend.courses":
        values = {"up": 2, **values}
    takes_grid = next(iter(inspect.signature(op.run).parameters)) == "grid"
    return op.run(*([grid] if takes_grid else []), *made, **op.bind(values))


def arrays(result):
    if isinstance(result, MapSet):
        return list(result.maps.values())
    if isinstance(result, Pieces):
        return [result.number, result.edge, result.across, result.up]
    if isinstance(result, Coordinates):
        places = np.arange(len(result.faces), dtype=np.int32), np.full((len(result.faces), 3), 1 / 3)
        return [result.corners, *result.shares(*places), np.array(result.sides.relief if result.sides else 0.0)]
    if isinstance(result, Made):
        return [result.mesh.points, result.mesh.triangles]
    return result if isinstance(result, list) else [result]


@pytest.mark.parametrize("op", EVERY, ids=lambda op: op.id)
def test_declaration_is_complete(op):
    assert op.help
    assert op.label
    assert op.yields or op.family in IN_SPACE
    for param in op.params.values():
        assert param.help.endswith("."), (param.name, "a sentence")
        assert param.check(param.default) == param.default
        if param.kind in {"length", "fraction", "whole", "angle", "seed"}:
            assert param.low < param.high
            assert param.least <= param.low
            assert param.high <= param.most
            assert param.low > 0 or not param.log


@pytest.mark.parametrize("op", RUNNING, ids=lambda op: op.id)
def test_same_call_same_bytes_and_inputs_untouched(op):
    inputs = inputs_for(op)
    before = [a.copy() for i in inputs for a in (arrays(i) if isinstance(i, (np.ndarray, MapSet, Pieces)) else [])]
    first, second = run(op, inputs=inputs), run(op, inputs=inputs)
    for a, b in zip(arrays(first), arrays(second), strict=True):
        assert a.tobytes() == b.tobytes()
    after = [a for i in inputs for a in (arrays(i) if isinstance(i, (np.ndarray, MapSet, Pieces)) else [])]
    for a, b in zip(before, after, strict=True):
        assert (a == b).all()


@pytest.mark.parametrize("op", [op for op in RUNNING if op.family not in IN_SPACE], ids=lambda op: op.id)
def test_shape_and_type(op):
    for made in arrays(run(op)):
        assert made.dtype in {np.dtype(np.float32), np.dtype(np.int32)}
        if op.family != "mend" and not (op.family == "breakup" and made.shape[0] > GRID.height_px):
            assert made.shape[:2] == GRID.shape


ENDS = {
    "toggle": [True, False],
    "colour": ["#000000", "#FFFFFF"],
    "source": [""],
    "words": ["", "two\nrows"],
    "font": [""],
    "layer": [""],
    "tip": ["", "recipe:Clouds"],
    "sizes": ["300×200", "400×300, 200×100, 100×100"],
    "stops": ["#000000,#FFFFFF", "#FF0000@0.2,#00FF00@0.3,#0000FF"],
}


@pytest.mark.parametrize("op", RUNNING, ids=lambda op: op.id)
def test_finite_at_the_ends_of_every_range(op):
    for param in op.params.values():
        ends = list(param.options) if param.kind == "choice" else ENDS.get(param.kind, [param.low, param.high])
        for end in ends:
            if op.id == "mend.best_cut" and param.name.startswith("overlap"):
                end = min(float(end), 140.0)
            # Periods that do not fit the sheet are refused, in words.
            refuses = (DoesNotCloseError, OutOfRangeError) if op.id == "mend.courses" else ()
            with contextlib.suppress(*refuses):
                for made in arrays(run(op, **{param.name: end})):
                    assert np.isfinite(made).all(), (param.name, end)


@pytest.mark.parametrize("op", EVERY, ids=lambda op: op.id)
def test_values_survive_the_file_and_the_boundary_refuses(op):
    setting = Setting(op=op.id, values=op.defaults())
    back = msgspec.json.decode(msgspec.json.encode(setting), type=Setting)
    assert op.bind(back.values) == op.defaults()
    for param in op.params.values():
        if param.kind in {"length", "fraction", "whole", "angle", "seed"}:
            with pytest.raises(OutOfRangeError):
                param.check(float("nan"))
            with pytest.raises(OutOfRangeError):
                param.check("far")
        if param.kind in {"choice", "colour", "stops"}:
            with pytest.raises(OutOfRangeError) as caught:
                param.check("nonsense")
            assert caught.value.allowed


NEEDS = {
    "estimate.height": {"sharpen": 0.8, "leave_out_reach": 0.4, "leave_out": "#606060"},
    "piece.gradient": {"stray": 60.0},
    "noise.white": {"size": 9.0},
    "pattern.slates": {"length": 150.0, "width": 75.0, "headlap": 40.0},
    "pattern.planks": {"length": 150.0, "width": 40.0},
    "pattern.fan": {"width": 300.0, "sett": 30.0},
    "pattern.uncoursed": {"sizes": "100×50, 50×50, 50×25"},
    "source.shape": {"shape": "polygon", "size": 120.0},
    "tone.match": {"tone_match": 1.0},
    "gather.even_light": {"strength": 1.0},
    "gather.balance": {"neutral": "#A09080", "reflects": 0.18},
    "gather.tint": {"amount": 1.0},
    "breakup.hex": {"across": 2, "up": 2, "patch": 60.0},
    "breakup.variants": {"across": 2, "up": 2},
    "breakup.edges": {"across": 2, "up": 2},
    "rule.shape": {"low": 0.1, "high": 0.7},
    "where.shape": {"width": 200.0, "height": 90.0},
    "where.slope": {"side": "one side"},
    "look.adjust": {"tinted": 0.7},
    "inscription.cut": {"painted": 1.0},
    "combine.join": {"lift": 0.1},
    "stamp.stitch": {"width": 20.0, "step": 60.0, "height": 1.0},
    "mend.best_cut": {"overlap": 40.0},
}
"""Values under which an operation does something at all, where its defaults leave things as they are."""
OUTSIDE = {
    "source.colour": "a source of the job",
    "source.map": "a source of the job",
    "source.text": "a font",
    "where.after": "another layer",
    "where.id": "a source of the job",
    "where.picture": "a source of the job",
    "where.pieces": "another layer",
}
"""Operations whose other values ask for something that only a job has."""
ALONE = {
    ("move.turn", "mirrored"): {"across": 2, "up": 2},
    ("touch.paint", "value"): None,
    **{("gather.shadow", name): None for name in ("strength", "size", "lit_x", "lit_y", "dark_x", "dark_y")},
    **{("touch.piece", name): None for name in ("turn", "mirrored", "edge")},
    **dict.fromkeys([("stamp.edging", "step"), ("pattern.fan", "width")]),
    **{("estimate.height", name): {"one_side": True} for name in ("light_bearing", "light_height")},
    ("rule.shape", "strength"): None,
    ("mend.best_cut", "patches"): None,
    **{("mend.courses", name): None for name in ("period_across", "period_up", "course")},
    ("made.arch", "rise"): {"shape": "segmental"},
    ("made.vault", "rise"): {"shape": "segmental"},
    ("made.wall", "rise"): {"top": "gabled"},
    ("made.figure", "height"): {"who": "typed"},
    ("laying.around", "true_at"): {"shape": "cone"},
    ("laying.around", "girth"): None,
    ("laying.path", "keystone"): {"whole": "units"},
    ("laying.path", "fill"): {"rises": "over the profile"},
}
"""Values that need others, or (None) have their own test because they need more than values."""


def works(op, param, values, inputs=None):
    """Whether some value of a parameter changes the result."""
    base = arrays(run(op, inputs=inputs, **values))
    ends = list(param.options) if param.kind == "choice" else ENDS.get(param.kind)
    for end in ends or [param.low, param.high, param.low + 0.3 * (param.high - param.low)]:
        with contextlib.suppress(DoesNotCloseError, OutOfRangeError):
            value = int(end) if param.kind in {"whole", "seed"} else end
            made = arrays(run(op, inputs=inputs, **{**values, param.name: value}))
            if len(made) != len(base) or any(
                a.shape != b.shape or (a != b).any() for a, b in zip(made, base, strict=True)
            ):
                return True
    return False


@pytest.mark.parametrize("op", [op for op in RUNNING if op.id not in OUTSIDE], ids=lambda op: op.id)
def test_every_value_does_something(op):
    """A control that changes nothing is worse than none."""
    idle = []
    for param in op.params.values():
        more = ALONE.get((op.id, param.name), {})
        if more is None or (op.family == "touch" and param.name in {"size", "hardness", "spacing"}):
            # The brush's own values are spent before the operation sees what it covers.
            continue
        values = {**NEEDS.get(op.id, {}), **more}
        # A length is that of the line along which a piece runs, where none is drawn.
        others = [[Drawn()]] if op.family == "made" else []
        if not any(works(op, param, values, inputs) for inputs in (None, *others)):
            idle.append(param.name)
    assert idle == []


def rolled(value, dy, dx):
    if isinstance(value, Ground):
        return Ground(value.grid, np.roll(value.height, (dy, dx), (0, 1)))
    if isinstance(value, Pieces):
        return Pieces(*(np.roll(a, (dy, dx), (0, 1)) for a in arrays(value)), value.count)
    return np.roll(value, (dy, dx), (0, 1))


@pytest.mark.parametrize("op", [op for op in WRAPPED if op.inputs and op.yields != "pieces"], ids=lambda op: op.id)
def test_rolling_the_input_rolls_the_result(op):
    inputs = inputs_for(op)
    dy, dx = 37, 51
    straight = np.roll(run(op, inputs=inputs), (dy, dx), (0, 1))
    moved = run(op, inputs=[rolled(i, dy, dx) for i in inputs])
    assert (np.abs(straight - moved) > 2e-5).mean() < 2e-4  # of two neighbours equally near rounding takes one


@pytest.mark.parametrize("op", SOURCES, ids=lambda op: op.id)
def test_sources_are_equal_one_repeat_later(op):
    """Two repeats side by side, asked for as one sheet twice as wide, hold the same picture twice over the join."""
    made = arrays(run(op))[-1].astype(np.float64)
    across = np.abs(made[:, 0] - made[:, -1]).mean()
    inside = np.abs(np.diff(made, axis=1)).mean(0).max()
    down = np.abs(made[0] - made[-1]).mean()
    inside_down = np.abs(np.diff(made, axis=0)).mean(1).max()
    assert across <= inside * 1.05 + 1e-6
    assert down <= inside_down * 1.05 + 1e-6


COARSE, FINE = Grid(256, 256, 300.0, 300.0), Grid(1024, 1024, 300.0, 300.0)
# Relative rms. Pieces and pebbles have edges one pixel wide, which is another width at another size.
TOLERANCE = {
    "noise.pebbles": 0.17,
    "piece.tone": 0.13,
    "piece.pick": 0.13,
    "piece.relief": 0.21,
    "where.noise": 0.08,
    "where.hollows": 0.02,
    "where.pieces": 0.06,
    "where.height": 0.012,
    "form.light": 0.012,
    # Creases are narrower than a pixel of the coarse size.
    "noise.billowed": 0.015,
    "where.slope": 0.05,
    "noise.ripples": 0.02,
    "move.erode": 0.02,
    "move.drift": 0.02,
    "form.distance": 0.04,
    "form.grow": 0.09,
    "form.open": 0.12,
    "form.fill": 0.04,
    "form.keep": 0.03,
    "form.rim": 0.04,
    "form.joints": 0.02,
    "form.bevel": 0.06,
    "form.spread": 0.05,
    "form.slope": 0.03,
    "piece.number": 0.17,
    "piece.share": 0.05,
    "piece.gradient": 0.15,
    "piece.tilt": 0.17,
    "piece.dome": 0.02,
    "colour.pieces": 0.05,
    "colour.mask": 0.03,
    # A band that ends beyond what the coarse size can hold.
    "noise.spectrum": 0.2,
    "noise.oriented": 0.06,
    "noise.white": 0.1,
    "adjust.posterise": 0.04,
    # Strokes and threads thinner than a coarse sample; cracks are shoved by octaves that the coarse size lacks.
    "marks.scratches": 0.2,
    "marks.fibres": 0.2,
    "marks.hatching": 0.15,
    "marks.dots": 0.08,
    "marks.speckle": 0.12,
    "marks.smudges": 0.06,
    "marks.drips": 0.06,
    "marks.walks": 0.12,
    "marks.cracks": 0.25,
    "pattern.weave": 0.02,
    "pattern.knit": 0.1,
    "piece.size": 0.14,
    # It finds more branches the finer it looks.
    "form.skeleton": 0.45,
    "marks.flakes": 0.05,
    "pattern.chain_link": 0.06,
    "pattern.perforation": 0.04,
    "pattern.studs": 0.07,
}


FINER_THAN_A_SAMPLE = {"marks.cracks", "form.skeleton", "pattern.weave", "pattern.knit", "piece.size"}
"""Lines of less than a coarse pixel: they are compared after both are blurred over a few of them."""


def both_sizes(op, **values):
    """A result at the coarse size, and that of the fine size brought down to it."""
    coarse = arrays(run(op, COARSE, **values))[0]
    fine = resample_wrapped(np.ascontiguousarray(arrays(run(op, FINE, **values))[0]), COARSE.shape)
    if op.id in FINER_THAN_A_SAMPLE:
        return tuple(wrapped_gaussian(np.asarray(a, np.float32), 5.0, COARSE) for a in (coarse, fine))
    return coarse, fine


def apart(a, b):
    """Root mean square of a difference over the spread of what it is held against."""
    return float(np.sqrt(np.mean((a - b) ** 2))) / max(float(b.std()), 0.05)


@pytest.mark.parametrize("op", SIZED, ids=lambda op: op.id)
def test_same_look_at_every_size(op):
    """At 256 it equals the 1024 result brought down, within a stated rms tolerance; laid elsewhere it does not."""
    coarse, fine = both_sizes(op)
    allowed = TOLERANCE.get(op.id, 0.01)
    assert apart(coarse, fine) <= allowed
    if fine.std(axis=(0, 1)).max() > 0.02:
        assert apart(np.roll(coarse, (13, 9), (0, 1)), fine) > 1.5 * allowed, "the tolerance tells nothing apart"


def test_pattern_is_the_same_at_every_size():
    coarse, fine = units(COARSE, length=70, height=26, joint=4), units(FINE, length=70, height=26, joint=4)
    assert coarse.count == fine.count
    small = resample_wrapped(np.ascontiguousarray(fine.edge), COARSE.shape)
    assert np.abs(small - coarse.edge).max() < 0.6


def test_unknown_operations_are_told():
    odd = find("noise.from_the_future")
    assert (odd.known, odd.params, odd.family, "noise.from_the_future" in REGISTRY) == (False, {}, "noise", False)
    for refused in (lambda: odd.bind({}), lambda: odd.run(GRID)):
        with pytest.raises(UnknownOperationError) as caught:
            refused()
        assert caught.value.value == "noise.from_the_future"


def test_a_version_that_is_not_there_is_unknown_and_the_newest_is_not():
    for op in EVERY:
        assert find(op.id) is find(op.id, op.version)
        assert not find(op.id, op.version + 1).known


def test_every_result_type_is_known():
    for op in RUNNING:
        if op.family == "mend":
            assert op.yields == "maps"
            continue
        hints = typing.get_type_hints(op.run, include_extras=True)
        assert hints["return"] in {Field, Colour, Vector, Pieces, MapSet} or op.family in IN_SPACE
