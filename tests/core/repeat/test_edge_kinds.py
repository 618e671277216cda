"""Cells with edges of several kinds: they meet as Cohen et al. 2003 say, and come again less than variants."""

import itertools

import numpy as np
import pytest

from brave_tessel.core.colour import luminance
from brave_tessel.core.maps import MapKind
from brave_tessel.core.repeat.edge_kinds import cells_in_order, edge_kinds, laid_cells, make_cells
from brave_tessel.core.repeat.meters import read_seam
from brave_tessel.core.repeat.variants import variants
from brave_tessel.core.sheet import Grid
from tests.core.repeat.test_closing import closed, largest_echo

GRID = Grid(320, 240, 400.0, 300.0)
NEAR = 3
"""Pixels on either side of an edge that must go on."""


@pytest.fixture(scope="module", params=[8, 16])
def made(request):
    maps = closed(4)
    return request.param, maps, make_cells(maps, count=request.param, soften=1.0, seed=3)


def test_a_set_has_each_cell_once_and_all_differ(made):
    count, _, cells = made
    assert len(cells) == count
    assert len({maps[MapKind.HEIGHT].tobytes() for maps in cells.values()}) == count
    insides = [maps[MapKind.BASE_COLOUR][90:150, 120:200] for maps in cells.values()]
    assert min(np.abs(a - b).mean() for a, b in itertools.combinations(insides, 2)) > 0.01


def test_edges_of_one_kind_are_the_same_edge(made):
    """Both sides of an edge, whichever cells they belong to, are those of the same closed picture."""
    _, maps, cells = made
    for kind in maps.maps:
        for side, there in (
            ("left", np.s_[:, :NEAR]),
            ("right", np.s_[:, -NEAR:]),
            ("top", np.s_[:NEAR]),
            ("bottom", np.s_[-NEAR:]),
        ):
            for number in (0, 1):
                strips = [one[kind][there] for cell, one in cells.items() if getattr(cell, side) == number]
                assert all((strip == strips[0]).all() for strip in strips)


def test_the_two_kinds_of_an_edge_differ(made):
    count, maps, cells = made
    some = {cell.left: one[MapKind.BASE_COLOUR][:, 0] for cell, one in cells.items()}
    assert (some[0] != some[1]).mean() > 0.4
    ends = {cell.top: one[MapKind.BASE_COLOUR][0] for cell, one in cells.items()}
    assert len(ends) == (2 if count == 16 else 1)
    # Corners are those of the sheet in all of them.
    for one in cells.values():
        assert (one[MapKind.BASE_COLOUR][:2, :2] == maps[MapKind.BASE_COLOUR][:2, :2]).all()


@pytest.mark.parametrize("count", [8, 16])
def test_neighbours_meet_in_the_atlas_and_in_every_field(count):
    fields = [cells_in_order(count), *(laid_cells(5, 4, count, seed) for seed in range(20))]
    for rows in fields:
        for r, c in itertools.product(range(len(rows)), range(len(rows[0]))):
            cell = rows[r][c]
            assert cell.right == rows[r][(c + 1) % len(rows[0])].left
            assert cell.bottom == rows[(r + 1) % len(rows)][c].top
    assert len({cell for row in cells_in_order(count) for cell in row}) == count


@pytest.mark.parametrize("count", ["8", "16"])
def test_the_field_closes_and_comes_again_less_than_variants(count):
    maps = closed(4)
    field = edge_kinds(GRID, maps, across=4, up=4, count=count, soften=1.0, seed=2)
    assert field.grid.shape == (960, 1280)
    for axis in (0, 1):
        assert read_seam(field[MapKind.BASE_COLOUR], axis=axis, structured=True).closes
    echo = largest_echo(luminance(field[MapKind.BASE_COLOUR])[::2, ::2], radius_px=60)
    same = variants(GRID, maps, across=4, up=4, count=4, seed=2)
    assert echo < largest_echo(luminance(same[MapKind.BASE_COLOUR])[::2, ::2], radius_px=60)


def test_one_cell_is_the_sheet():
    maps = closed(4)
    assert edge_kinds(GRID, maps) is maps
