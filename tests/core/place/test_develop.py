"""Curved faces laid flat: developable surfaces of check-values C3, and others beside libigl."""

import math

import igl
import numpy as np
import pytest

from brave_tessel.core.job.document import Job
from brave_tessel.core.place.develop import developed, least_stretch, smooth_run, stretch_in
from brave_tessel.core.place.elevation import unroll
from brave_tessel.core.place.mesh import Mesh
from brave_tessel.core.place.site import site_of
from brave_tessel.core.place.topology import places

from .scenes import job, laid, part, scene


def shell(radius, height, angle, n=64, m=8, slope=0.0):
    """A piece of a cylinder, or of a cone that narrows by so many mm to a mm of height."""
    turn, rise = np.linspace(0, angle, n + 1), np.linspace(0, height, m + 1)
    r = radius - slope * rise
    points = np.array([(r[k] * math.cos(t), r[k] * math.sin(t), rise[k]) for k in range(m + 1) for t in turn])
    at = lambda k, i: k * (n + 1) + i  # noqa: E731
    made = [
        t
        for k in range(m)
        for i in range(n)
        for t in ((at(k, i), at(k, i + 1), at(k + 1, i + 1)), (at(k, i), at(k + 1, i + 1), at(k + 1, i)))
    ]
    return Mesh(points, np.array(made, np.int32), np.zeros(len(made), np.int32))


def everything(mesh):
    return np.arange(mesh.count, dtype=np.int32)


def test_a_cylinder_is_laid_flat_true():
    mesh = shell(2000.0, 3000.0, math.pi)
    flat = developed(mesh, everything(mesh), 0)
    assert flat.stretch == 0.0
    assert len(flat.faces) == mesh.count
    wide, tall = np.sort(np.ptp(flat.places.reshape(-1, 2), axis=0))
    chords = 64 * 2 * 2000.0 * math.sin(math.pi / 128)
    assert (wide, tall) == (pytest.approx(3000.0, abs=1e-6), pytest.approx(chords, abs=1e-6))
    assert tall == pytest.approx(math.pi * 2000.0, rel=1e-3)


def test_a_cone_opens_by_its_sector():
    """r 3, h 4: slant 5, sector 216° of a full turn (C3); here 3/4 of a turn, so 162°."""
    mesh = shell(3000.0, 3990.0, 1.5 * math.pi, n=256, slope=0.75)
    flat = developed(mesh, everything(mesh), 0)
    assert flat.stretch == 0.0
    corners = mesh.corners[flat.faces].reshape(-1, 3)
    outer = np.abs(corners[:, 2]) < 1e-6
    rim = flat.places.reshape(-1, 2)[outer]
    # The rim lies on a circle of the slant about the apex.
    a = np.concatenate([2 * rim, np.ones((len(rim), 1))], 1)
    (x, y, c), *_ = np.linalg.lstsq(a, (rim**2).sum(1), rcond=None)
    assert math.sqrt(c + x * x + y * y) == pytest.approx(5000.0, rel=1e-4)
    ends = [rim[int(np.argmin(np.linalg.norm(corners[outer][:, :2] - p, axis=1)))] for p in ((3000, 0), (0, -3000))]
    turn = [math.atan2(p[1] - y, p[0] - x) for p in ends]
    opened = math.degrees((turn[1] - turn[0]) % (2 * math.pi))
    assert min(opened, 360.0 - opened) == pytest.approx(162.0, abs=0.1)


def test_every_side_keeps_its_length():
    mesh = shell(900.0, 1200.0, 2.0)
    flat = developed(mesh, everything(mesh), 0)
    for k in range(3):
        real = np.linalg.norm(mesh.corners[flat.faces][:, k] - mesh.corners[flat.faces][:, (k + 1) % 3], axis=1)
        drawn = np.linalg.norm(flat.places[:, k] - flat.places[:, (k + 1) % 3], axis=1)
        np.testing.assert_allclose(drawn, real, atol=1e-6)


def cap(radius=1000.0, n=24):
    """A cap of a sphere, which no way of laying flat keeps true."""
    turn, tilt = np.linspace(0, 2 * np.pi, n, endpoint=False), np.linspace(0, 0.7, 9)[1:]
    points = [(0.0, 0.0, radius)] + [
        (radius * math.sin(b) * math.cos(a), radius * math.sin(b) * math.sin(a), radius * math.cos(b))
        for b in tilt
        for a in turn
    ]
    made = [(0, 1 + i, 1 + (i + 1) % n) for i in range(n)]
    for k in range(len(tilt) - 1):
        for i in range(n):
            p, q = 1 + k * n + i, 1 + k * n + (i + 1) % n
            made += [(p, p + n, q + n), (p, q + n, q)]
    return Mesh(np.array(points), np.array(made, np.int32), np.zeros(len(made), np.int32))


def energy(mesh, flat):
    """How far triangles are from being turned rigidly, weighted by area."""
    corners = mesh.corners
    e1, e2 = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    d1, d2 = flat[:, 1] - flat[:, 0], flat[:, 2] - flat[:, 0]
    long = np.linalg.norm(e1, axis=1)
    x = (e1 * e2).sum(1) / long
    y = np.linalg.norm(np.cross(e1, e2), axis=1) / long
    j = np.einsum(
        "nij,njk->nik", np.stack([d1, d2], -1), np.linalg.inv(np.array([[long, x], [0 * x, y]]).transpose(2, 0, 1))
    )
    sizes = np.linalg.svd(j, compute_uv=False)
    return float((mesh.areas * ((sizes - 1) ** 2).sum(1)).sum())


def test_what_cannot_be_developed_is_as_rigid_as_possible():
    """Least stretch is no worse than libigl's least squares conformal map, brought to its best size (Lévy 2002)."""
    mesh = cap()
    ours = least_stretch(mesh, everything(mesh), np.array([1.0, 0, 0]), np.array([0, 1.0, 0]))
    at = places(mesh)
    points = np.zeros((at.max() + 1, 3))
    points[at.ravel()] = mesh.corners.reshape(-1, 3)
    rim = igl.boundary_loop(at.astype(np.int64))
    held = np.array([rim[0], rim[len(rim) // 2]])
    theirs = igl.lscm(points, at.astype(np.int64), held, points[held][:, :2].copy())
    uv = (theirs[0] if isinstance(theirs, tuple) else theirs)[at]
    best = min(energy(mesh, uv * size) for size in np.linspace(0.7, 1.4, 141))
    assert energy(mesh, ours) <= best * 1.001
    assert 0.0 < stretch_in(mesh, everything(mesh), ours) < 0.2


def test_a_vault_is_drawn_flat_in_the_elevation():
    """A semicircular barrel vault of span 4 is 6.283 m round (C3)."""
    values = {"span": 4000.0, "length": 3000.0, "thickness": 120.0}
    site = site_of(job(part("v", "vault", values, laid=[laid("around", "vault")])))
    mesh = site.of_part("v").mesh
    under = int(mesh.of_groups(("vault",))[0])
    drawing = unroll(site, "v", under)
    assert not drawing.upright
    assert drawing.stretch == 0.0
    left, low, right, high = drawing.bounds
    assert max(right - left, high - low) == pytest.approx(2000.0 * math.pi, rel=2e-3)


def test_a_dome_says_how_far_it_is_stretched():
    drawing = unroll(site_of(job(part("d", "dome", {}, laid=[laid("around")]))), "d")
    assert 0.0 < drawing.stretch < 0.4


def test_a_run_ends_at_a_sharp_bend():
    found = site_of(Job(scene=scene(part("b", "box", {}))))
    mesh = found.of_part("b").mesh
    run = smooth_run(mesh, everything(mesh), 0)
    assert 2 <= len(run) < mesh.count
