"""Light: the flat board, the sky by roughness, the scene moving and at rest, a still; beside the plain way."""

from __future__ import annotations

import tempfile
from collections.abc import Callable, Iterator
from functools import cache
from pathlib import Path
from typing import Any

import numpy as np

from brave_tessel.core.kernels.relief import cast_shadow
from brave_tessel.core.light import energy
from brave_tessel.core.light.directions import octahedral_grid, octahedral_weights, sample_octahedral, stance_axes
from brave_tessel.core.light.dome import dome_of, gains
from brave_tessel.core.light.harmonics import basis, harmonics
from brave_tessel.core.light.lighting import Eye, Lighting, light_flat
from brave_tessel.core.light.prefilter import prefiltered, roughness_of
from brave_tessel.core.light.presets import make_preset
from brave_tessel.core.light.tone import show
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.sheet import AnyArray
from brave_tessel.engine.library.shipped_demo import shipped_demo
from brave_tessel.engine.session import Session
from brave_tessel.view3d.rest import come_to_rest

Case = tuple[str, Callable[[], Any], Callable[[], Any], str]
PX = 1024


@cache
def tile() -> MapSet:
    """The demo's dado tile, worked out."""
    snapshot = Session(shipped_demo()).snapshot()
    return snapshot.finished(snapshot.job.surface("dado"), PX)


@cache
def coated() -> MapSet:
    """The same lacquered and with a nap."""
    maps = tile()
    ones = np.ones(maps.grid.shape, np.float32)
    return maps.with_maps(coat=ones, sheen=np.repeat(ones[..., None], 3, 2) * np.float32(0.3))


def plain_board() -> AnyArray:
    """The same lobes in plain numpy, the sky looked up by its map of one roughness at a time."""
    maps, lighting = tile(), Lighting(eye=Eye(near=0.0))
    dome, axes = lighting.dome, stance_axes(lighting.stance)
    gain = gains(lighting.rig, dome)
    normal, base, rough = maps[MapKind.NORMAL], maps[MapKind.BASE_COLOUR], maps[MapKind.ROUGHNESS]
    metal, open_ = maps[MapKind.METALNESS][..., None], maps[MapKind.AMBIENT_OCCLUSION][..., None]
    eye = np.array(lighting.eye.direction)
    facing = np.clip(normal @ eye, 0.02, 1)
    mirror = 2 * facing[..., None] * normal - eye
    f0 = 0.04 * (1 - metal) + base * metal
    found = energy.looked_up(energy.ggx_table(), rough, facing)
    single = f0 * found[..., :1] + found[..., 1:]
    levels = [dome.sky, *dome.blurred()]
    which = np.rint(5 * np.clip((rough - 0.05) / 0.95, 0, 1) ** 0.714).astype(int)
    seen = np.zeros(base.shape)
    for k, level in enumerate(levels):
        at = which == k
        seen[at] = sample_octahedral(level, mirror[at] @ axes)
    lux = basis(normal) @ harmonics(dome.sky, axes)
    sun = np.clip(normal @ np.array(lighting.light), 0, 1)[..., None] * np.array(dome.key.lux)
    light = base * (1 - metal) * (1 - single) * (lux * open_ + sun) / np.pi + single * seen
    return np.rint(show(light * gain) * 255).astype(np.uint8)


def plain_blur() -> list[AnyArray]:
    """Every pixel of the sky weighed for a few directions of each level, and that many times over."""
    dome = dome_of(make_preset("Afternoon")).sky[::4, ::4]
    grid, weights = octahedral_grid(64).reshape(-1, 3), octahedral_weights(64).reshape(-1)
    made = []
    for level in range(1, 6):
        alpha = roughness_of(level) ** 2
        lz = grid @ grid.T
        half2 = np.clip((1 + lz) / 2, 0, 1)
        lobe = alpha**2 / (half2 * (alpha**2 - 1) + 1) ** 2 * np.maximum(lz, 0) * weights
        made.append(lobe @ dome.reshape(-1, 3) / lobe.sum(1, keepdims=True))
    return made


def cases() -> Iterator[Case]:
    """Kernels beside their plain peers."""
    maps = tile()
    sunlit = cast_shadow(maps[MapKind.HEIGHT], maps.grid, Lighting().light)
    yield (
        "light a flat board, 1024²",
        lambda: light_flat(maps, sunlit, Lighting()),
        plain_board,
        "numpy, the same lobes",
    )
    both = coated()
    yield (
        "the same with coat and sheen",
        lambda: light_flat(both, sunlit, Lighting()),
        plain_board,
        "numpy, without them",
    )
    sky = dome_of(make_preset("Afternoon")).sky
    yield "the sky by roughness, 5 levels", lambda: prefiltered(sky), plain_blur, "numpy, 64² to 64²"


def actions() -> Iterator[tuple[str, Callable[[Callable[..., float]], float], str]]:
    """Pictures of the scene, ms."""
    yield "light: a frame of the hall moving, 450 × 300", lambda median: median(_scene(450, 300, moving=True)), "30"
    yield "light: the hall at rest, its first picture, 900 × 600", lambda median: median(_rest(1), least=3), "1000"
    yield "light: the hall at rest after 8 frames, 900 × 600", lambda median: median(_rest(8), least=1), "3000"
    yield "light: a still of the hall, 900 × 600, 64 samples", lambda median: _still(), "60000"


@cache
def _hall() -> Any:
    from brave_tessel.engine.pictures.placed import scene_textures
    from brave_tessel.view3d.renderer import Renderer
    from brave_tessel.view3d.scene import draw_parts, make_light
    from brave_tessel.view3d.stills.make import of_scene

    snapshot = Session(shipped_demo()).snapshot()
    wanted = of_scene(snapshot, "", (900, 600), px=512, current=lambda: True)
    renderer = Renderer()
    parts = draw_parts(snapshot.site())
    make_light(parts)
    renderer.set_parts(parts)
    for name, one in scene_textures(snapshot, px=512, current=lambda: True).surfaces.items():
        renderer.set_textures(name, one)
    return wanted, renderer


def _scene(width: int, height: int, *, moving: bool) -> Callable[[], Any]:
    from dataclasses import replace

    wanted, renderer = _hall()
    look = replace(wanted.look, width=width, height=height, moving=moving)
    return lambda: renderer.draw(look)


def _rest(passes: int) -> Callable[[], Any]:
    wanted, renderer = _hall()
    return lambda: come_to_rest(
        renderer, wanted.look, lambda _codes, _last: None, lambda: True, passes=passes, held=passes
    )


def _still() -> float:
    import time

    from brave_tessel.view3d.stills.make import make_still

    wanted, _ = _hall()
    with tempfile.TemporaryDirectory() as folder:
        begun = time.perf_counter()
        make_still(wanted, 64, lambda _p: None, lambda: True, folder=Path(folder))
        return (time.perf_counter() - begun) * 1000
