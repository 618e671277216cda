import numpy as np
from numba import njit

from brave_tessel.core.kernels.noise import add_gradient, cells
from brave_tessel.core.lattice import earlier_hash, hash_cell, hash_many, units_many, whole_periods
from brave_tessel.core.sheet import Grid


@njit
def _compiled(columns, rows, seed, earlier):
    out = np.empty(columns.size, np.uint32)
    for i in range(columns.size):
        out[i] = hash_cell(columns[i], rows[i], np.uint32(seed), earlier)
    return out


def test_compiled_hash_equals_the_numpy_one():
    rng = np.random.default_rng(1)
    columns, rows = rng.integers(0, 100_000, (2, 5000))
    for seed in (0, 1, 77, 2**31 - 1):
        assert (_compiled(columns, rows, seed, False) == hash_many(columns, rows, seed)).all()
        with earlier_hash():
            assert (_compiled(columns, rows, seed, True) == hash_many(columns, rows, seed)).all()


def test_units_are_even_and_unrelated():
    columns, rows = np.mgrid[0:300, 0:300]
    values = units_many(columns, rows, 9)
    assert abs(values.mean() - 0.5) < 0.005
    assert abs(values.std() - 12**-0.5) < 0.005
    assert abs(np.corrcoef(values[:-1].ravel(), values[1:].ravel())[0, 1]) < 0.01
    assert np.ptp(np.histogram(values, 16)[0]) < 700


def test_gradient_noise_stays_in_its_bound():
    # 2-D noise with unit gradients is bounded by sqrt(2)/2 (check-values D3); mean 0.
    out = np.zeros((1024, 1024), np.float32)
    add_gradient(out, 61, 61, 4, 1.0)
    assert np.abs(out).max() <= 0.7071068
    assert abs(out.mean()) < 0.01
    assert abs(out.std() - 0.2147) < 0.012


def _gradient_reference(shape, nx, ny, seed):
    """Plain numpy: Perlin, "Improving Noise" 2002, fade 6t^5 - 15t^4 + 10t^3."""
    rows, columns = shape
    shift = units_many([1, 2], [0, 0], seed)
    x = (np.arange(columns) + 0.5)[None, :] * nx / columns + shift[0]
    y = (rows - np.arange(rows) - 0.5)[:, None] * ny / rows + shift[1]
    ix, iy = np.floor(x).astype(int), np.floor(y).astype(int)
    fx, fy = x - ix, y - iy

    def corner(dx, dy):
        angle = 2 * np.pi * units_many((ix + dx) % nx + 0 * iy, (iy + dy) % ny + 0 * ix, seed)
        return np.cos(angle) * (fx - dx) + np.sin(angle) * (fy - dy)

    def fade(t):
        return t * t * t * (t * (t * 6 - 15) + 10)

    low = corner(0, 0) + fade(fx) * (corner(1, 0) - corner(0, 0))
    high = corner(0, 1) + fade(fx) * (corner(1, 1) - corner(0, 1))
    return low + fade(fy) * (high - low)


def test_compiled_noise_equals_plain_numpy():
    for nx, ny in ((5, 7), (31, 2), (1, 1)):
        out = np.zeros((150, 130), np.float32)
        add_gradient(out, nx, ny, 12, 1.0)
        assert np.allclose(out, _gradient_reference((150, 130), nx, ny, 12), atol=2e-4)


def test_cells_equal_brute_force_on_the_torus():
    grid, nx, ny = Grid(90, 70, 90.0, 70.0), 9, 7
    first, second, number = cells(grid, nx, ny, jitter=1.0, seed=3)
    columns, rows = np.meshgrid(np.arange(nx), np.arange(ny))
    px = columns + 0.5 + (units_many(columns, rows, 3) - 0.5)
    py = rows + 0.5 + (units_many(columns, rows, 3 + 7919) - 0.5)
    x = (np.arange(90) + 0.5) * nx / 90
    y = (70 - np.arange(70) - 0.5) * ny / 70
    dx = np.abs(x[None, :, None] - px.ravel())
    dy = np.abs(y[:, None, None] - py.ravel())
    distance = np.hypot(np.minimum(dx, nx - dx), np.minimum(dy, ny - dy))
    ordered = np.sort(distance, 2)
    assert np.allclose(first, ordered[..., 0], atol=1e-4)
    assert np.allclose(second, ordered[..., 1], atol=1e-4)
    assert (number.astype(int) == distance.argmin(2)).mean() > 0.999


def test_jittered_cell_statistics():
    # One jittered point a cell: F1 mean 0.4295 cells, sd 0.190 (check-values D3).
    first, _, _ = cells(Grid(1024, 1024, 1000, 1000), 128, 128, jitter=1.0, seed=8)
    assert abs(first.mean() - 0.4295) < 0.008
    assert abs(first.std() - 0.190) < 0.008


def test_periods_are_whole_and_at_least_one():
    assert whole_periods(600, 180) == 3
    assert whole_periods(10, 500) == 1
