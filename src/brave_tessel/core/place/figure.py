"""A standing figure for scale: plain, without a face, as on an architect's model, with the measures of a body.

Heights and breadths are shares of the stature: segment lengths by Drillis and Contini, "Body segment parameters" (New
York University, 1966), as given in Winter, "Biomechanics and Motor Control of Human Movement": ankle 0.039, knee 0.285,
hip 0.530, elbow 0.630, wrist 0.485, shoulder 0.818, chin 0.870; shoulders 0.259 wide, hips 0.191, foot 0.152 long.
"""

from __future__ import annotations

from functools import cache

import numpy as np
import numpy.typing as npt

from ..phrases import say
from .mesh import Mesh, Vector, welded

FIGURE_MM, CHILD_MM = 1750.0, 1200.0

_TORSO = (
    # height, half breadth, half depth, forward
    (0.468, 0.006, 0.006, 0.0), (0.474, 0.050, 0.040, 0.0), (0.495, 0.085, 0.058, 0.0), (0.530, 0.0955, 0.066, -0.004),
    (0.570, 0.089, 0.062, -0.002), (0.620, 0.075, 0.054, 0.0), (0.665, 0.083, 0.058, 0.0), (0.725, 0.097, 0.064, 0.0),
    (0.775, 0.104, 0.061, -0.002), (0.803, 0.101, 0.052, -0.004), (0.822, 0.080, 0.043, -0.005),
    (0.836, 0.050, 0.037, -0.004), (0.850, 0.0345, 0.034, -0.001), (0.880, 0.031, 0.033, 0.004),
    (0.890, 0.004, 0.004, 0.004),
)  # fmt: skip
_HEAD = (
    (0.862, 0.004, 0.006, 0.010), (0.868, 0.022, 0.030, 0.012), (0.885, 0.036, 0.046, 0.010),
    (0.915, 0.0435, 0.056, 0.005), (0.945, 0.0455, 0.058, 0.003), (0.970, 0.040, 0.051, 0.001),
    (0.988, 0.027, 0.035, 0.0), (0.997, 0.012, 0.016, 0.0), (1.0, 0.0, 0.0, 0.0),
)  # fmt: skip
_LEG = (
    # height, half breadth, half depth, forward, outward
    (0.520, 0.010, 0.010, 0.0, 0.047), (0.505, 0.044, 0.052, -0.002, 0.047), (0.470, 0.050, 0.057, -0.002, 0.047),
    (0.400, 0.046, 0.052, 0.002, 0.047), (0.330, 0.037, 0.041, 0.003, 0.046), (0.285, 0.0315, 0.036, 0.002, 0.046),
    (0.245, 0.031, 0.038, -0.005, 0.046), (0.195, 0.032, 0.039, -0.009, 0.046), (0.130, 0.024, 0.029, -0.008, 0.046),
    (0.065, 0.0185, 0.023, -0.006, 0.046), (0.039, 0.019, 0.025, -0.004, 0.046), (0.012, 0.019, 0.024, 0.0, 0.046),
    (0.006, 0.004, 0.004, 0.0, 0.046),
)  # fmt: skip
_ARM = (
    (0.824, 0.004, 0.004, -0.004, 0.104), (0.819, 0.018, 0.020, -0.004, 0.105), (0.800, 0.0275, 0.031, -0.004, 0.108),
    (0.760, 0.027, 0.031, -0.003, 0.112), (0.700, 0.0235, 0.027, -0.002, 0.116), (0.630, 0.0195, 0.022, 0.0, 0.121),
    (0.595, 0.0215, 0.024, 0.004, 0.124), (0.540, 0.0185, 0.020, 0.010, 0.128), (0.485, 0.0135, 0.0165, 0.017, 0.131),
    (0.465, 0.0135, 0.021, 0.020, 0.132), (0.435, 0.0125, 0.024, 0.023, 0.133), (0.405, 0.010, 0.020, 0.025, 0.133),
    (0.383, 0.007, 0.012, 0.026, 0.133), (0.377, 0.0, 0.0, 0.026, 0.133),
)  # fmt: skip
_FOOT = (
    # forward, half breadth, half height, outward
    (-0.040, 0.0, 0.004, 0.046), (-0.038, 0.012, 0.012, 0.046), (-0.028, 0.020, 0.019, 0.046),
    (0.000, 0.021, 0.024, 0.047), (0.035, 0.024, 0.019, 0.049), (0.070, 0.0275, 0.013, 0.052),
    (0.098, 0.024, 0.009, 0.054), (0.110, 0.012, 0.006, 0.054), (0.112, 0.0, 0.004, 0.054),
)  # fmt: skip
_FINER = 4


@cache
def figure_mesh(height_mm: float = FIGURE_MM) -> Mesh:
    """A figure that stands at the origin and looks south, z up.

    Parameters
    ----------
    height_mm : its stature
    """
    quads = [_loft(_TORSO, 26), _loft(_HEAD, 26)]
    for side in (1.0, -1.0):
        quads += [_loft(_LEG, 20, side), _loft(_ARM, 16, side), _loft_foot(side)]
    points = np.concatenate(quads) * height_mm
    # Drawn with y up and looking along z; here it looks along −y.
    placed = np.stack([points[..., 0], -points[..., 2], points[..., 1]], -1)
    corners = placed[:, [0, 1, 2, 0, 2, 3]].reshape(-1, 3)
    triangles = np.arange(len(corners), dtype=np.int32).reshape(-1, 3)
    whole = Mesh(corners, triangles, np.zeros(len(triangles), np.int32), (say("figure"),), crease=80.0)
    return welded(whole, within=1e-3)


@cache
def silhouette(height_mm: float = FIGURE_MM) -> tuple[Vector, ...]:
    """The same figure seen from the front: outlines (N, 2) in mm, x from its middle and y up, that lie over each other.

    Each limb's rings end to end, first up its one side, then down the other.
    """
    outlines = []
    for profile, sides in ((_TORSO, (0,)), (_HEAD, (0,)), (_LEG, (1, -1)), (_ARM, (1, -1))):
        rows = _finer(profile)
        for side in sides:
            middle = side * rows[:, 4] if side else np.zeros(len(rows))
            right = np.stack([middle + rows[:, 1], rows[:, 0]], 1)
            left = np.stack([middle - rows[:, 1], rows[:, 0]], 1)
            outlines.append(np.concatenate([right, left[::-1]]) * height_mm)
    feet = _finer(_FOOT)
    for side in (1, -1):
        turns = np.linspace(0, 2 * np.pi, 41)
        wide, tall = feet[:, 1].max(), feet[:, 2].max()
        middle = side * feet[:, 3].mean()
        outlines.append(np.stack([middle + wide * np.cos(turns), tall * (1 + np.sin(turns))], 1) * height_mm)
    return tuple(outlines)


def _loft(profile: tuple[tuple[float, ...], ...], count: int, side: float = 0.0) -> Vector:
    """Rings around an upright line, joined to quadrilaterals (N, 4, 3) in shares of the stature."""
    rows = _closed(_finer(profile), (1, 2))
    turns = np.linspace(0, 2 * np.pi, count, endpoint=False)
    outward = side * rows[:, 4:5] if rows.shape[1] > 4 else np.zeros((len(rows), 1))
    rings = np.stack(
        [
            outward + rows[:, 1:2] * np.cos(turns),
            np.broadcast_to(rows[:, 0:1], (len(rows), count)),
            rows[:, 3:4] + rows[:, 2:3] * np.sin(turns),
        ],
        2,
    )
    return _joined(rings if rows[0, 0] > rows[-1, 0] else rings[::-1])


def _loft_foot(side: float) -> Vector:
    """Rings around the line of a foot, flat below."""
    rows = _closed(_finer(_FOOT), (1,))
    turns = np.linspace(0, 2 * np.pi, 16, endpoint=False)
    tall = rows[:, 2:3] * (1 + np.sin(turns))
    rings = np.stack(
        [side * rows[:, 3:4] + rows[:, 1:2] * np.cos(turns), tall, np.broadcast_to(rows[:, 0:1], (len(rows), 16))], 2
    )
    return _joined(rings)


def _finer(profile: tuple[tuple[float, ...], ...]) -> npt.NDArray[np.float64]:
    """More rows between those given, without overshoot (Fritsch and Carlson 1980)."""
    rows = np.array(profile)
    places = np.arange(len(rows))
    from scipy.interpolate import PchipInterpolator  # At every start it would take 100 ms.

    return np.asarray(PchipInterpolator(places, rows, axis=0)(np.linspace(0, len(rows) - 1, _FINER * len(rows))))


def _closed(rows: npt.NDArray[np.float64], breadths: tuple[int, ...]) -> npt.NDArray[np.float64]:
    """The rows with one more at either end, of no breadth, that closes the skin."""
    first, last = rows[:1].copy(), rows[-1:].copy()
    first[:, breadths], last[:, breadths] = 0.0, 0.0
    return np.concatenate([first, rows, last])


def _joined(rings: npt.NDArray[np.float64]) -> Vector:
    """Quadrilaterals between rings, anticlockwise seen from outside where rings follow each other downward."""
    ahead = np.roll(rings, -1, axis=1)
    return np.stack([rings[:-1], ahead[:-1], ahead[1:], rings[1:]], 2).reshape(-1, 4, 3)
