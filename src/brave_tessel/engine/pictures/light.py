"""Small pictures of lights: the sky they make, as it is seen when one looks south."""

from __future__ import annotations

import math

import numpy as np

from ...core.job.light import Rig
from ...core.light.directions import sample_octahedral
from ...core.light.dome import Pictures, dome_of, eye_of, gains, no_pictures
from ...core.light.tone import show
from ...core.sheet import AnyArray


def sky_strip(rig: Rig, width: int, height: int, pictures: Pictures = no_pictures) -> AnyArray:
    """The light from the ground to overhead, all round from north by east, (height, width, 3) uint8."""
    dome = dome_of(rig, pictures)
    up = (0.92 - np.arange(height) / max(1, height - 1) * 1.12) * math.pi / 2
    around = ((np.arange(width) + 0.5) / width) * 2 * math.pi
    h, b = np.meshgrid(up, around, indexing="ij")
    directions = np.stack([np.sin(b) * np.cos(h), np.cos(b) * np.cos(h), np.sin(h)], -1).astype(np.float32)
    light = sample_octahedral(dome.sky, directions)
    near = np.clip((directions @ np.array(dome.key.direction, np.float32) - math.cos(0.09)) / 0.001, 0, 1)
    light = light + near[..., None] * np.array(dome.key.lux) / (math.pi * 0.09**2)
    # The strip is seen as by an eye that looks at the sky itself: two stops less than the ground's exposure.
    codes = show(light * gains(rig, dome) * 0.4, eye_of(rig).transform)
    return np.asarray(np.rint(codes * 255), np.uint8)
