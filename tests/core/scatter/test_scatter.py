"""Pieces strewn and laid on the wrapped sheet."""

import io
import math

import numpy as np
import pytest
import trimesh

from brave_tessel.core.colour import encode_srgb
from brave_tessel.core.errors import MissingError, OutOfRangeError, UnreadableFileError
from brave_tessel.core.job.layers import LaidPiece, PieceKind, Scatter
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.maps import MapKind
from brave_tessel.core.operation import family
from brave_tessel.core.repeat.meters import read_seam
from brave_tessel.core.repeat.resample import resample_wrapped, resampled
from brave_tessel.core.scatter.lay import cut_piece, id_colour, lay_scatter, made_piece, model_piece, piece_at
from brave_tessel.core.scatter.strew import fallen
from brave_tessel.core.sheet import Grid
from brave_tessel.formats.models import model_kind, model_relief

PEBBLE = PieceKind(id="pebble", name="Pebble", width_mm=40, height_mm=30)
TILE = PieceKind(id="tile", name="Tile", shape=Setting(op="shape.tile"), width_mm=50, height_mm=25)


def scatter(*, laid=(), kinds=(PEBBLE, TILE), **values):
    return Scatter(
        width_mm=600, height_mm=450, kinds=kinds, laid=laid, strew=Setting(op="scatter.strew", values=values)
    )


def made(sheet, px=240):
    grid = Grid.for_repeat(sheet.width_mm, sheet.height_mm, px)
    return lay_scatter(grid, sheet, [made_piece(kind=kind, px=128) for kind in sheet.kinds])


@pytest.mark.parametrize("op", family("shape"), ids=lambda op: op.id)
def test_made_pieces_lie_within_their_rectangle(op):
    grid = Grid(120, 90, 40, 30)
    piece = op.run(grid, **op.bind({}))
    cover, height = piece[MapKind.OPACITY], piece[MapKind.HEIGHT]
    assert 0.25 < cover.mean() < 0.99
    assert cover[0].max() < 0.6
    assert cover[:, 0].max() < 0.6
    assert (height[cover == 0] == 0).all()
    assert 0 < height.max() <= 1.6 * op.bind({})["thickness"] + 9


def test_no_two_middles_are_nearer_than_the_spacing():
    """Poisson disc on the torus."""
    sheet = scatter(kinds=(PEBBLE,), density=500, spacing=1.0, size_spread=0.0)
    pieces = fallen(sheet)
    assert 60 < len(pieces) < 135
    at = np.array([(p.x_mm, p.y_mm) for p in pieces])
    away = (at[:, None] - at[None] + [300, 225]) % [600, 450] - [300, 225]
    distance = np.hypot(away[..., 0], away[..., 1]) + np.eye(len(at)) * 999
    assert distance.min() >= math.sqrt(40 * 30) - 1e-6


def test_density_is_kept_where_there_is_room_and_seeds_differ():
    sheet = scatter(density=100, spacing=0.2)
    assert len(fallen(sheet)) == 27
    assert fallen(sheet) == fallen(sheet)
    assert fallen(sheet) != fallen(scatter(density=100, spacing=0.2, seed=2))
    assert fallen(scatter(density=0)) == []
    with pytest.raises(OutOfRangeError):
        fallen(scatter(density=100_000))


def test_pieces_that_avoid_each_other_do_not_touch():
    sheet = scatter(density=250, meeting="avoid", kinds=(TILE,), size_spread=0.0)
    pieces = fallen(sheet)
    at = np.array([(p.x_mm, p.y_mm) for p in pieces])
    away = (at[:, None] - at[None] + [300, 225]) % [600, 450] - [300, 225]
    distance = np.hypot(away[..., 0], away[..., 1]) + np.eye(len(at)) * 999
    assert distance.min() >= math.hypot(50, 25)


def test_a_piece_over_the_edge_comes_in_on_the_other_side():
    one = LaidPiece(id="p", kind="tile", x_mm=0.0, y_mm=0.0, turn=30)
    middle = LaidPiece(id="p", kind="tile", x_mm=300.0, y_mm=225.0, turn=30)
    edge, centre = (made(scatter(density=0, laid=(p,), sink=0.0, jitter=0.0)) for p in (one, middle))
    for kind in (MapKind.HEIGHT, MapKind.BASE_COLOUR, MapKind.OPACITY, MapKind.PIECE_ID):
        assert np.allclose(np.roll(centre[kind], (90, 120), (0, 1)), edge[kind], atol=2e-3), kind


def test_a_laid_tile_has_its_place_size_turn_and_height():
    laid = LaidPiece(id="p", kind="tile", x_mm=200.0, y_mm=150.0, size=2.0)
    sheet = made(scatter(density=0, laid=(laid,), sink=0.0), px=600)
    rows, columns = np.nonzero(sheet[MapKind.OPACITY] > 0.5)
    assert columns.min() == pytest.approx(150, abs=2)
    assert columns.max() == pytest.approx(250, abs=2)
    assert 450 - rows.max() == pytest.approx(125, abs=2)
    assert 450 - rows.min() == pytest.approx(175, abs=2)
    assert sheet[MapKind.HEIGHT][300, 200] == pytest.approx(2 * 6 * 1.06, rel=0.02)
    turned = made(
        scatter(density=0, laid=(LaidPiece(id="p", kind="tile", x_mm=200, y_mm=150, turn=90),), sink=0.0), px=600
    )
    rows, columns = np.nonzero(turned[MapKind.OPACITY] > 0.5)
    assert np.ptp(columns) == pytest.approx(25, abs=2)
    assert np.ptp(rows) == pytest.approx(50, abs=2)


def test_piled_pieces_rest_higher_than_overlapping_ones():
    heights = {
        way: made(scatter(density=900, meeting=way, spacing=0.2))[MapKind.HEIGHT].max() for way in ("pile", "overlap")
    }
    assert heights["pile"] > 1.4 * heights["overlap"]


def test_ids_are_one_colour_a_kind_and_a_piece_and_never_mixed():
    sheet = made(scatter(density=200, jitter=0.0))
    kinds = np.unique(sheet[MapKind.KIND_ID].reshape(-1, 3), axis=0)
    assert len(kinds) == 3
    pieces = np.unique(sheet[MapKind.PIECE_ID].reshape(-1, 3), axis=0)
    assert 20 < len(pieces) <= len(fallen(scatter(density=200))) + 1
    smaller = resampled(MapKind.KIND_ID, sheet[MapKind.KIND_ID], (60, 80))
    assert {tuple(c) for c in smaller.reshape(-1, 3)} <= {tuple(c) for c in kinds}
    assert len({tuple(np.round(np.array(id_colour(n, 2)) * 255)) for n in range(400)}) > 380


def test_the_sheet_closes_and_is_the_same_at_every_size():
    sheet = scatter(density=400)
    small, large = made(sheet, 300), made(sheet, 1200)
    for axis in (0, 1):
        assert read_seam(
            encode_srgb(np.clip(small[MapKind.BASE_COLOUR], 0, 1)).astype(np.float32), axis=axis, structured=True
        ).closes
    down = resample_wrapped(large[MapKind.HEIGHT], small.grid.shape)
    assert np.sqrt(np.mean((down - small[MapKind.HEIGHT]) ** 2)) / down.std() < 0.2
    assert small[MapKind.OPACITY].mean() == pytest.approx(large[MapKind.OPACITY].mean(), abs=0.01)
    assert set(small.maps) >= {MapKind.NORMAL, MapKind.AMBIENT_OCCLUSION, MapKind.ROUGHNESS}


def test_colour_jitter_gives_every_piece_its_own_tone():
    plain, own = (made(scatter(density=300, jitter=j))[MapKind.BASE_COLOUR].std() for j in (0.0, 1.0))
    assert own > 1.3 * plain


def test_a_piece_is_cut_out_by_the_colour_of_its_ground():
    picture = np.full((120, 160, 3), 0.55, np.float32)
    y, x = np.mgrid[0:120, 0:160]
    inside = (np.abs(x - 90) < 40) & (np.abs(y - 60) < 20)
    picture[inside] = (0.3, 0.08, 0.05)
    picture[70:74, 85:90] = 0.55
    kind = PieceKind(id="k", name="Shard", width_mm=79, height_mm=1)
    piece = cut_piece(picture, kind=kind, px=158)
    assert piece.size_mm == pytest.approx((79, 39), abs=0.6)
    assert piece.cover.mean() > 0.98
    assert piece.colour[40, 40] == pytest.approx((0.3, 0.08, 0.05), abs=0.02)
    with pytest.raises(MissingError):
        cut_piece(np.full((50, 50, 3), 0.4, np.float32), kind=kind, px=64)


@pytest.mark.parametrize("suffix", ["obj", "ply", "stl", "glb"])
def test_a_small_model_becomes_relief(suffix):
    """A hemisphere written by trimesh: as wide as it is, half as high, as seen from above."""
    ball = trimesh.creation.icosphere(4, 10.0)
    ball.vertices[:, 2] = np.maximum(ball.vertices[:, 2], 0)
    data = ball.export(file_type=suffix)
    data = data.encode() if isinstance(data, str) else data
    assert model_kind(data) == suffix
    field = model_relief(data, f"ball.{suffix}")
    assert field[..., 1].mean() == pytest.approx(math.pi / 4, abs=0.03)
    piece = model_piece(field, kind=PieceKind(id="b", name="Ball", width_mm=30))
    assert piece.height.max() == pytest.approx(15, rel=0.03)


@pytest.mark.parametrize("data", [b"", b"glTF\x02", b"v 0 0 0\n", b"ply\nformat ascii 1.0\nend_header\n", bytes(200)])
def test_what_is_no_model_is_told(data):
    with pytest.raises(UnreadableFileError):
        model_relief(data, "broken.obj")
    assert io.BytesIO(data).read() == data


def test_the_topmost_laid_piece_is_picked_over_the_edge():
    laid = (LaidPiece(id="a", kind="tile", x_mm=0, y_mm=0), LaidPiece(id="b", kind="tile", x_mm=10, y_mm=0, turn=90))
    sheet = scatter(laid=laid)
    assert piece_at(sheet, 595, 447).id == "a"
    assert piece_at(sheet, 12, 20).id == "b"
    assert piece_at(sheet, 300, 300) is None
