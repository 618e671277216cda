"""Lines found from meshes alone, beside the curves they were made along."""

import numpy as np
import pytest

from brave_tessel.core.errors import MissingError
from brave_tessel.core.lines import thinned
from brave_tessel.core.place.edges import edge_line
from brave_tessel.core.place.mesh import Mesh
from brave_tessel.core.place.paths import Track
from brave_tessel.core.place.recover import recover


def helix(t):
    return np.stack([800 * np.cos(4 * np.pi * t), 800 * np.sin(4 * np.pi * t), 1200 * t], 1)


def ring(t):
    return np.stack([500 * np.cos(2 * np.pi * t), 500 * np.sin(2 * np.pi * t), 0 * t], 1)


def wave(t):
    return np.stack([3000 * t, 200 * np.sin(6 * t), 120 * np.cos(4 * t)], 1)


def swept(curve, section, n, *, closed=False, capped=False):
    """A section carried along a curve in frames that do not twist, as triangles without names or unwrap."""
    points = curve(np.linspace(0, 1, n, endpoint=not closed))
    sides, ups = Track(points, closed=closed).frames()
    m = len(section)
    skin = points[:, None] + section[None, :, :1] * sides[:n, None] + section[None, :, 1:] * ups[:n, None]
    made = []
    for i in range(n if closed else n - 1):
        j = (i + 1) % n
        for k in range(m):
            q = (k + 1) % m
            made += [(i * m + k, j * m + k, j * m + q), (i * m + k, j * m + q, i * m + q)]
    corners = skin.reshape(-1, 3)
    if capped:
        last, count = (n - 1) * m, len(corners)
        corners = np.concatenate([corners, points[:1], points[-1:]])
        for k in range(m):
            q = (k + 1) % m
            made += [(count, q, k), (count + 1, last + k, last + q)]
    triangles = np.array(made, np.int32)
    return Mesh(corners, triangles, np.zeros(len(triangles), np.int32))


def circle(radius, m=24):
    a = np.linspace(0, 2 * np.pi, m, endpoint=False)
    return radius * np.stack([np.cos(a), np.sin(a)], 1)


def off(points, curve, *, closed=False):
    """How far points are from a curve, mm."""
    track = Track(curve(np.linspace(0, 1, 6000, endpoint=not closed)), closed=closed)
    stretch = track.stretch_of(points)
    away = points - track.points[stretch]
    along = np.clip((away * track.directions[stretch]).sum(1), 0, track.lengths[stretch])
    return np.linalg.norm(away - along[:, None] * track.directions[stretch], axis=1)


@pytest.mark.parametrize("capped", [False, True], ids=["open", "closed at its ends"])
@pytest.mark.parametrize(("curve", "radius"), [(helix, 60.0), (wave, 40.0), (helix, 25.0)])
def test_a_tube_gives_its_middle_to_a_hundredth_of_its_radius(curve, radius, capped):
    # The chords of the mesh itself leave the curve by less than a thousandth of its radius.
    found = recover(swept(curve, circle(radius), 600, capped=capped))
    assert not found.closed
    assert off(found.points, curve).max() < 0.01 * radius
    assert found.radius.mean() == pytest.approx(radius, rel=0.02)
    assert Track(found.points).length == pytest.approx(Track(curve(np.linspace(0, 1, 6000))).length, rel=2e-3)


def test_a_ring_is_closed():
    found = recover(swept(ring, circle(80.0), 128, closed=True))
    assert found.closed
    assert off(found.points, ring, closed=True).max() < 0.8
    assert Track(found.points, closed=True).length == pytest.approx(2 * np.pi * 500, rel=2e-3)


def test_a_moulding_gives_its_middle():
    profile = np.array([(-30, -20), (30, -20), (30, 20), (-30, 20)], float)
    found = recover(swept(wave, profile, 200, capped=True))
    assert off(found.points, wave).max() < 0.3


def test_a_strip_gives_its_middle():
    points = helix(np.linspace(0, 1, 300))
    up = np.array([0, 0, 40.0])
    corners = np.concatenate([points - up, points + up])
    made = [x for i in range(299) for x in ((i, i + 1, 301 + i), (i, 301 + i, 300 + i))]
    found = recover(Mesh(corners, np.array(made, np.int32), np.zeros(len(made), np.int32)))
    assert off(found.points, helix).max() < 0.4


def test_frames_along_it_do_not_twist():
    """Frames of the recovered line turn with those of the line it was made along (Wang et al. 2008)."""
    found = recover(swept(wave, circle(40.0), 300))
    track, known = Track(found.points), Track(wave(np.linspace(0, 1, 6000)))
    first = known.frames()[0][0]
    at = np.linspace(0.05, 0.95, 20)
    mine = track.frames(first)[0][np.searchsorted(track.starts, at * track.length)]
    theirs = known.frames(first)[0][np.searchsorted(known.starts, at * known.length)]
    assert np.degrees(np.arccos(np.clip((mine * theirs).sum(1), -1, 1))).max() < 1.0


def test_a_mesh_inside_out_is_the_same():
    mesh = swept(helix, circle(30.0), 200, capped=True)
    turned = Mesh(mesh.points, mesh.triangles[:, ::-1].copy(), mesh.groups)
    assert off(recover(turned).points, helix).max() < 0.5


@pytest.mark.parametrize("count", [3, 5])
def test_what_runs_along_nothing_is_refused(count):
    a = np.linspace(0, 2 * np.pi, count, endpoint=False)
    corners = np.concatenate([[(0, 0, 0)], np.stack([np.cos(a), np.sin(a), 0 * a], 1)])
    made = np.array([(0, 1 + k, 1 + (k + 1) % count) for k in range(count)], np.int32)
    with pytest.raises(MissingError):
        recover(Mesh(corners, made, np.zeros(count, np.int32)))


def test_a_line_with_fewer_points_stays_near():
    points = wave(np.linspace(0, 1, 500))
    few = thinned(points, 0.5)
    assert len(few) < 100
    assert off(points, lambda _t: few).max() <= 0.5001


def test_an_edge_goes_on_until_it_turns():
    x, y, z = 1000.0, 400.0, 300.0
    corners = np.array([(a, b, c) for a in (0, x) for b in (0, y) for c in (0, z)], float)
    quads = [(0, 1, 3, 2), (4, 6, 7, 5), (0, 4, 5, 1), (2, 3, 7, 6), (0, 2, 6, 4), (1, 5, 7, 3)]
    made = np.array([t for a, b, c, d in quads for t in ((a, b, c), (a, c, d))], np.int32)
    mesh = Mesh(corners, made, np.zeros(len(made), np.int32))
    line, closed = edge_line(mesh, 4, np.array([500.0, 0.0, 10.0]))
    assert not closed
    assert sorted(map(tuple, line.tolist())) == [(0.0, 0.0, 0.0), (1000.0, 0.0, 0.0)]


def test_the_rim_of_a_tube_closes():
    mesh = swept(wave, circle(40.0), 60)
    line, closed = edge_line(mesh, 0, mesh.points[1])
    assert closed
    assert len(line) == 25
