"""A rig's light in the driver: the sky by roughness, the split sum, and what programs read of them."""

from __future__ import annotations

import math
from typing import Any

import moderngl
import numpy as np

from ..core.light.directions import bordered
from ..core.light.energy import ggx_table
from ..core.light.harmonics import harmonics
from ..core.sheet import Raster
from .drawn import SceneLight

SKY_UNIT, ENERGY_UNIT, SHARP_UNIT = 5, 6, 9
_CONSTANTS = np.array([0.282095, 0.488603, 0.488603, 0.488603, 1.092548, 1.092548, 0.315392, 1.092548, 0.546274])


class SkyTextures:
    """Uploads a light when it is another one, and tells programs of it."""

    def __init__(self, context: Any) -> None:
        self.context = context
        table = np.ascontiguousarray(ggx_table())
        self.energy: Any = context.texture(table.shape[:2], 2, table.tobytes(), dtype="f4")
        self.energy.filter = (moderngl.LINEAR, moderngl.LINEAR)
        self.energy.repeat_x = self.energy.repeat_y = False
        self.sky: Any = None
        self.sharp: Any = None
        self._fine = False
        self.values: dict[str, Any] = {}
        self._shown: SceneLight | None = None

    def show(self, light: SceneLight) -> bool:
        """Take a light; says whether it is another than before."""
        before = self._shown
        same = before is not None and light.dome.sky is before.dome.sky and light.gain == before.gain
        if before is not None and same and light.dome.key is before.dome.key:
            self._shown = light
            return False
        self._shown, self._fine = light, False
        self._upload_sharp(light.dome.sky)
        gain = np.array(light.gain)
        layers = np.stack([bordered(np.asarray(layer * gain, np.float32)) for layer in light.dome.blurred()])
        data = np.concatenate([layers, np.ones((*layers.shape[:3], 1), np.float32)], -1)
        if self.sky is not None:
            self.sky.release()
        side = layers.shape[1]
        halves = np.ascontiguousarray(np.clip(data, 0, 6e4).astype(np.float16))
        self.sky = self.context.texture_array((side, side, len(layers)), 4, halves.tobytes(), dtype="f2")
        self.sky.filter = (moderngl.LINEAR, moderngl.LINEAR)
        self.sky.repeat_x = self.sky.repeat_y = False
        bands = harmonics(light.dome.sky) * _CONSTANTS[:, None] * gain
        lux = np.array(light.dome.key.lux) * gain
        self.values = {
            "harmonics": [tuple(float(v) for v in row) for row in bands],
            "sun_light": tuple(float(v) for v in lux),
            "sun_radius": light.dome.key.radius,
            "sky": SKY_UNIT,
            "energy": ENERGY_UNIT,
            "sharp": SHARP_UNIT,
        }
        return True

    def _upload_sharp(self, sky: Raster) -> None:
        assert self._shown is not None
        if self.sharp is not None:
            self.sharp.release()
        data = bordered(np.clip(sky * np.array(self._shown.gain, np.float32), 0, 6e4).astype(np.float16))
        side = data.shape[0]
        self.sharp = self.context.texture(
            (side, side), 3, np.ascontiguousarray(data).tobytes(), alignment=1, dtype="f2"
        )
        self.sharp.filter = (moderngl.LINEAR, moderngl.LINEAR)
        self.sharp.repeat_x = self.sharp.repeat_y = False

    def sharpen(self) -> None:
        """At rest the sky behind everything is drawn finer."""
        if self._shown is not None and not self._fine:
            self._fine = True
            self._upload_sharp(self._shown.dome.fine())

    def use(self) -> None:
        """Bind the textures to their units."""
        self.sky.use(SKY_UNIT)
        self.energy.use(ENERGY_UNIT)
        self.sharp.use(SHARP_UNIT)

    def glow(self) -> tuple[float, float, float]:
        """Exposed radiance of the sun's disc, as far as a picture can tell it from white."""
        assert self._shown is not None
        radius = max(self._shown.dome.key.radius, 1e-3)
        r, g, b = (min(60.0, v / (math.pi * radius**2)) for v in self.values["sun_light"])
        return r, g, b

    def release(self) -> None:
        self.energy.release()
        for texture in (self.sky, self.sharp):
            if texture is not None:
                texture.release()
