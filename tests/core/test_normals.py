"""Normals by kernels against the same formulas written plainly, as their sources give them."""

import numpy as np
import pytest

from brave_tessel.core.kernels.normals import joined_normals, reoriented_slopes, slopes_of, turned_normals

RNG = np.random.default_rng(5)


def some(steep=0.6, shape=(130, 47)):
    flat = np.concatenate([RNG.normal(0, steep, (*shape, 2)), np.ones((*shape, 1))], 2)
    return (flat / np.linalg.norm(flat, axis=2, keepdims=True)).astype(np.float32)


def unit(vectors):
    return vectors / np.linalg.norm(vectors, axis=-1, keepdims=True)


def plainly(base, detail, how):
    """Barré-Brisebois and Hill 2012, "Blending in Detail"."""
    if how == "reoriented":
        t, u = base + (0, 0, 1), detail * (-1, -1, 1)
        return unit(t * (t * u).sum(2, keepdims=True) / t[..., 2:] - u)
    if how == "whiteout":
        return unit(np.concatenate([base[..., :2] + detail[..., :2], base[..., 2:] * detail[..., 2:]], 2))
    if how == "slopes added":
        flat = base[..., :2] * detail[..., 2:] + detail[..., :2] * base[..., 2:]
        return unit(np.concatenate([flat, base[..., 2:] * detail[..., 2:]], 2))
    return unit(base + detail)


@pytest.mark.parametrize("how", ["reoriented", "whiteout", "slopes added", "plain"])
def test_joined_as_published(how):
    base, detail = some(), some(0.3)
    number = ["reoriented", "whiteout", "slopes added", "plain"].index(how)
    assert np.allclose(joined_normals(base, detail, number), plainly(base, detail, how), atol=2e-6)


def test_detail_of_no_strength_changes_nothing():
    base = some()
    assert np.allclose(joined_normals(base, some(), 0, 0.0), base, atol=2e-6)


def test_reoriented_slopes_are_those_of_the_normals():
    a, b = (RNG.normal(0, 0.4, (120, 30, 2)).astype(np.float32) for _ in range(2))
    normals = [unit(np.concatenate([-s, np.ones((*s.shape[:2], 1))], 2)) for s in (a, b)]
    made = plainly(*normals, "reoriented")
    assert np.allclose(reoriented_slopes(a, b), -made[..., :2] / np.maximum(made[..., 2:], 0.05), atol=2e-4)


def test_turned_by_the_chain_rule():
    normal, matrix = some(), np.array([[0.8, -0.6], [0.6, 0.8]])
    there = (-normal[..., :2] / normal[..., 2:]) @ matrix
    wanted = unit(np.concatenate([-there, np.ones((*there.shape[:2], 1))], 2))
    assert np.allclose(turned_normals(normal, matrix), wanted, atol=5e-5)
    assert np.allclose(slopes_of(turned_normals(normal, matrix)), there, rtol=1e-3, atol=1e-4)
