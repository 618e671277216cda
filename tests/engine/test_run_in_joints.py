"""A run along the joints through a whole job: the demo's tile with a rope laid over it."""

import msgspec
import numpy as np
from scipy.ndimage import distance_transform_edt

from brave_tessel.core.buildup.kinds.run import RunWhat
from brave_tessel.core.job.layers import Layer
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.maps import MapKind
from brave_tessel.engine.session import Session

PX = 512


def test_a_rope_lies_in_the_joints_of_the_tile(demo):
    surface = demo.job.surface("dado")
    tile, snapshot = surface.layers[0], Session(demo).snapshot()

    def height(*layers):
        return snapshot.finished(msgspec.structs.replace(surface, layers=layers), PX)[MapKind.HEIGHT]

    def rope(joints):
        stamp = Setting(op="stamp.rope", values={"width": 6.0, "height": 6.0})
        what = RunWhat(points=((250.0, 200.0), (900.0, 1010.0)), over="not at all", stamp=stamp, joints=joints)
        return Layer(id="rope", name="Rope", what=what)

    plain = height(tile)
    low = plain < np.median(plain) - 0.5
    away = distance_transform_edt(~low) * surface.width_mm / PX

    def in_joints(joints):
        there = np.abs(height(tile, rope(joints)) - plain) > 0.5
        assert there.sum() > 300
        return (away[there] < 6).mean()

    assert in_joints(False) < 0.45
    assert in_joints(True) > 0.9
