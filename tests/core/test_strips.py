"""Work done strip by strip, and the kernels that a large sheet waits for, against plain ways."""

from concurrent.futures import ThreadPoolExecutor

import cv2
import numpy as np
import pytest

from brave_tessel.core import registered  # noqa: F401 - declares every operation
from brave_tessel.core.kernels.bands import by_strips
from brave_tessel.core.kernels.curve import encoded
from brave_tessel.core.kernels.mosaic import cell_borders, paint_cells
from brave_tessel.core.kernels.noise import Octave, add_gradient, fractal_gradient
from brave_tessel.core.operation import REGISTRY
from brave_tessel.core.recipe.steps.cellular import strewn
from brave_tessel.core.recipe.wave_noise import _enlarged
from brave_tessel.core.sheet import Grid

RNG = np.random.default_rng(7)
WIDE = Grid(4096, 61, 4096.0, 61.0)
STRIPPED = [op for op in REGISTRY.values() if getattr(op.run, "pointwise", False)]


@pytest.mark.parametrize("shape", [(1, 7), (61, 4096), (64, 4096), (300, 1000), (5, 100_000)])
@pytest.mark.parametrize("channels", [(), (3,)])
def test_strips_give_what_the_whole_gives(shape, channels):
    a, b = RNG.random((*shape, *channels), np.float32), RNG.random(shape, np.float32)

    def work(a, b):
        return a * (b[..., None] if channels else b) + np.float32(1)

    made = by_strips(work, a, b)
    assert made.dtype == np.float32
    assert np.array_equal(made, work(a, b))


def test_strips_that_ask_for_strips_and_bands_end():
    """From more threads than there are workers, on a sheet so narrow that a strip is large enough to be handed out."""
    tall = RNG.random((4000, 130), np.float32)

    def inner(a):
        return encoded(by_strips(lambda b: b * np.float32(0.5), a))

    with ThreadPoolExecutor(12) as threads:
        made = list(threads.map(lambda _: by_strips(inner, tall), range(24)))
    assert all(np.array_equal(one, inner(tall)) for one in made)


def test_what_fails_in_a_strip_is_raised():
    calls = []

    def work(a):
        calls.append(a.shape)
        if len(calls) > 3:
            raise ValueError("late")
        return a

    with pytest.raises(ValueError, match="late"):
        by_strips(work, np.zeros((500, 4096), np.float32))


@pytest.mark.parametrize("op", STRIPPED, ids=lambda op: op.id)
def test_pointwise_operations_look_at_no_other_pixel(op):
    """By strips, and with the pixels in another order: what looks around itself or at the whole is neither."""
    kinds = {"field": (), "colour": (3,)}
    inputs = [RNG.random((*WIDE.shape, *kinds[kind]), np.float32) for kind in op.inputs.values()]
    whole = op.run.__wrapped__(WIDE, *inputs, **op.defaults())
    assert np.array_equal(op.run(WIDE, *inputs, **op.defaults()), whole)
    order = RNG.permutation(WIDE.height_px)
    mixed = op.run(WIDE, *(np.ascontiguousarray(one[order]) for one in inputs), **op.defaults())
    assert np.array_equal(mixed, whole[order])


def test_there_are_pointwise_operations():
    assert len(STRIPPED) >= 18


@pytest.mark.parametrize(("size", "jitter"), [(9.0, 0.95), (40.0, 0.9), (55.0, 1.0)])
def test_the_way_to_a_cells_border_is_that_to_the_nearest_bisector(size, jitter):
    """Against every point of the wrapped sheet, by the definition of a Voronoi diagram (Aurenhammer 1991)."""
    grid = Grid(96, 72, 200.0, 150.0)
    x, y = strewn(grid, size, jitter, 3)
    copies = [(x.ravel() + i * grid.width_mm, y.ravel() + j * grid.height_mm) for i in (-1, 0, 1) for j in (-1, 0, 1)]
    px, py = (np.concatenate(part) for part in zip(*copies, strict=True))
    border = cell_borders(grid, x, y)
    assert np.array_equal(border, paint_cells(grid, x, y, joint_mm=0.0).edge)
    for row, column in RNG.integers(0, (72, 96), (200, 2)):
        at_x, at_y = grid.x_mm()[column], grid.y_mm()[row]
        squares = (px - at_x) ** 2 + (py - at_y) ** 2
        own = squares.argmin()
        between = np.hypot(px - px[own], py - py[own])
        ways = (squares - squares[own])[between > 1e-9] / (2 * between[between > 1e-9])
        assert border[row, column] == pytest.approx(ways.min(), abs=1e-4)


def test_octaves_in_one_go_are_the_sum_of_single_ones():
    shape = (130, 170)
    octaves = [Octave(3 << k, 2 << k, 11 + k, 0.6**k) for k in range(4)]
    plain = np.zeros(shape, np.float32)
    for octave in octaves:
        add_gradient(plain, *octave)
    assert np.allclose(fractal_gradient(shape, octaves, 0.8), np.clip(plain * 0.8 + 0.5, 0, 1), atol=1e-6)
    assert (fractal_gradient(shape, [], 0.8) == 0.5).all()


def test_enlarging_is_cubic_convolution_on_the_torus():
    """Against OpenCV's cubic resize of a padded raster."""
    small = RNG.random((24, 32), np.float32)
    padded = np.pad(small, 4, "wrap")
    plain = cv2.resize(padded, None, fx=5, fy=5, interpolation=cv2.INTER_CUBIC)[20:-20, 20:-20]
    assert np.allclose(_enlarged(small, (120, 160)), plain, atol=2e-6)
