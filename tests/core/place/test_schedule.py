"""Schedules of units beside counting them one by one, and tables of the trade."""

import random

import numpy as np
import pytest
import shapely

from brave_tessel.core.operation import REGISTRY
from brave_tessel.core.place.regions import edges_of, union
from brave_tessel.core.place.schedule import count_units, cut_out
from brave_tessel.core.sheet import Grid

PATTERNS = [id for id, op in REGISTRY.items() if op.sets_out is not None and op.sets_out.outlines is not None]


def outlines(op="pattern.units", size=(1800.0, 1200.0), **values):
    declared = REGISTRY[op]
    return declared.sets_out.outlines(Grid(1, 1, *size), **declared.bind(values))


def one_by_one(shape, mosaic, repeat):
    """The plain way: every unit shrunk by its joint, laid again and again, and cut by itself."""
    left, low, right, high = shape.bounds
    whole = cut = 0
    for i in range(int(left // repeat[0]) - 1, int(right // repeat[0]) + 2):
        for j in range(int(low // repeat[1]) - 1, int(high // repeat[1]) + 2):
            for outline in mosaic.outlines:
                unit = shapely.Polygon(outline + (i * repeat[0], j * repeat[1]))
                unit = unit.buffer(-mosaic.joint / 2, join_style="mitre", mitre_limit=20.0)
                piece = unit.intersection(shape)
                x0, y0, x1, y1 = piece.bounds if not piece.is_empty else (0, 0, 0, 0)
                if min(x1 - x0, y1 - y0) <= 0.5:
                    continue
                side = max(unit.bounds[2] - unit.bounds[0], unit.bounds[3] - unit.bounds[1])
                if unit.area - piece.area <= 0.5 * side:
                    whole += 1
                else:
                    cut += 1
    return whole, cut


@pytest.mark.parametrize("seed", range(6))
def test_as_many_as_one_by_one(seed):
    luck = random.Random(seed)
    wall = shapely.box(0, 0, luck.uniform(2000, 3500), luck.uniform(1000, 2000))
    for _ in range(4):
        x, y = luck.uniform(0, 2500), luck.uniform(0, 1200)
        wall = wall.difference(shapely.box(x, y, x + luck.uniform(100, 700), y + luck.uniform(100, 700)))
    mosaic = outlines(length=luck.choice([150.0, 215.0]), height=65.0, joint=10.0)
    found = count_units(wall, mosaic, (1800.0, 1200.0))
    assert (found.whole, found.cut) == one_by_one(wall, mosaic, (1800.0, 1200.0))


@pytest.mark.parametrize("op", ["pattern.hexagons", "pattern.herringbone", "pattern.octagons", "pattern.basketweave"])
def test_units_of_every_shape_as_one_by_one(op):
    repeat = (900.0, 900.0)
    mosaic = outlines(op, repeat)
    triangle = shapely.Polygon([(0, 0), (1500, 100), (700, 1300)])
    found = count_units(triangle, mosaic, repeat)
    whole, cut = one_by_one(triangle, mosaic, repeat)
    assert found.whole == whole
    assert found.cut == pytest.approx(cut, rel=0.01)


@pytest.mark.parametrize("op", PATTERNS)
def test_every_pattern_fills_its_sheet_with_its_outlines(op):
    size = (1800.0, 1200.0)
    mosaic = outlines(op, size)
    area = sum(shapely.Polygon(outline).area for outline in mosaic.outlines)
    assert area == pytest.approx(size[0] * size[1], rel=0.06)


def test_bricks_of_a_square_metre():
    """A half-brick wall takes 59.26 bricks a square metre (arithmetic of 225 × 75, check-values B1)."""
    mosaic = outlines(size=(2250.0, 1500.0), length=215.0, height=65.0, joint=10.0)
    found = count_units(shapely.box(0, 0, 22500, 15000), mosaic, (2250.0, 1500.0))
    pieces = found.whole + found.cut / 2
    assert pieces / (22.5 * 15.0) == pytest.approx(59.26, rel=1e-3)


def test_slates_of_a_square_metre():
    """500 × 250 slates with a lap of 100 have a gauge of 200: 20.0 a square metre (BS 5534, B3)."""
    mosaic = outlines("pattern.slates", (1000.0, 1200.0), length=500.0, width=250.0, headlap=100.0)
    found = count_units(shapely.box(0, 0, 20000, 12000), mosaic, (1000.0, 1200.0))
    assert (found.whole + found.cut / 2) / 240.0 == pytest.approx(20.0, rel=0.01)


def test_a_hole_of_whole_bricks_cuts_nothing():
    mosaic = outlines(size=(2250.0, 1500.0), length=215.0, height=65.0, joint=10.0, bond="stack")
    wall = shapely.box(0, 0, 2250, 1500).difference(shapely.box(450, 300, 1350, 900))
    found = count_units(wall, mosaic, (2250.0, 1500.0))
    assert (found.whole, found.cut) == (200 - 4 * 8, 0)
    assert found.waste == pytest.approx(0.0, abs=1e-9)


def test_waste_is_what_is_cut_off():
    mosaic = outlines(size=(2250.0, 1500.0), length=215.0, height=65.0, joint=10.0, bond="stack")
    found = count_units(shapely.box(0, 0, 112.5, 1500), mosaic, (2250.0, 1500.0))
    assert found.cut == 20
    assert found.waste == pytest.approx(1 - 107.5 / 215.0, abs=1e-6)


def test_pieces_under_a_third_are_found_with_their_size():
    mosaic = outlines(size=(2250.0, 1500.0), length=215.0, height=65.0, joint=10.0, bond="stack")
    found = count_units(shapely.box(0, 0, 225 + 5 + 40, 75), mosaic, (2250.0, 1500.0))
    assert [round(one.mm) for one in found.slivers] == [40]


def test_boards_may_be_of_any_length_but_not_of_any_width():
    mosaic = outlines("pattern.planks", (1440.0, 1440.0), width=144.0, length=1440.0, joint=6.0)
    row = cut_out(shapely.box(100, 0, 400, 144), mosaic, (1440.0, 1440.0))
    assert not row.small.any()
    thin = cut_out(shapely.box(100, 0, 1400, 30), mosaic, (1440.0, 1440.0))
    assert thin.small.all()


def test_a_shape_of_triangles_and_its_edges():
    square = np.array([[(0, 0), (1000, 0), (1000, 500)], [(0, 0), (1000, 500), (0, 500)]], float)
    shape = union(square)
    assert shape.area == pytest.approx(500_000)
    assert [(edge.at, edge.side) for edge in edges_of(shape, upright=True)] == [(0.0, 1), (1000.0, -1)]
    assert [(edge.at, edge.side) for edge in edges_of(shape, upright=False)] == [(0.0, 1), (500.0, -1)]
