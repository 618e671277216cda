"""What a person waits for: a change, an export, a dab, the start, a frame."""

from __future__ import annotations

import itertools
import os
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Iterator
from pathlib import Path

import msgspec
import numpy as np
from tests.core.repeat.mending import mend as mended

from brave_tessel.core.job.commands import Insert, Set
from brave_tessel.core.job.layers import Stroke, layer_of
from brave_tessel.engine.cache import Cache
from brave_tessel.engine.handover.output import Writing, quiet
from brave_tessel.engine.handover.outputs.maps_png import export_surface
from brave_tessel.engine.library.shipped_demo import shipped_demo
from brave_tessel.engine.session import Session

Timer = Callable[..., float]
DADO = ("surfaces", "dado")


def dado_session() -> Session:
    """The dado of the demo as it ships, nine layers."""
    return Session(shipped_demo(), cache=Cache(6 << 30))


def change(path: tuple[str, ...], values: Iterator[float], px: int) -> Callable[[Timer], float]:
    session = dado_session()
    session.snapshot().lit(session.job.surface("dado"), px)

    def once() -> None:
        session.store.dispatch(Set(path=(*DADO, *path), value=next(values), label="x"))
        session.snapshot().lit(session.job.surface("dado"), px)

    return lambda timer: timer(once)


def mend(op: str, px: int) -> Callable[[Timer], float]:
    """One way to make a repeat, of a set of five maps from a packaged picture."""

    def run(timer: Timer) -> float:
        import cv2
        import numpy as np
        from skimage import data

        from brave_tessel.core.kernels.relief import normal_of_height
        from brave_tessel.core.maps import MapKind, MapSet
        from brave_tessel.core.sheet import Grid

        grey = cv2.resize(data.gravel(), (px, px), interpolation=cv2.INTER_CUBIC).astype(np.float32) / 255
        grid = Grid(px, px, 512, 512)
        maps = MapSet(
            grid,
            {
                MapKind.BASE_COLOUR: np.repeat(grey[..., None], 3, 2),
                MapKind.HEIGHT: grey,
                MapKind.ROUGHNESS: 1 - grey,
                MapKind.NORMAL: normal_of_height(grey * 4, grid),
                MapKind.AMBIENT_OCCLUSION: grey,
            },
        )
        values = {"width": 1024.0, "height": 1024.0, "block": 110.0, "overlap": 28.0} if op == "mend.regrow" else {}
        return timer(lambda: mended(op, maps, **values))

    return run


def dab(timer: Timer) -> float:
    session = dado_session()
    layer = layer_of(session.job.surface("dado"), "limewash")
    rule = next(rule for rule in layer.where if rule.rule.op == "where.painted")
    session.snapshot().lit(session.job.surface("dado"), 1024)
    points = itertools.count()

    def once() -> None:
        surface = session.job.surface("dado")
        stroke = Stroke(id="live", points=((500.0, 500.0 + next(points) % 300),), size_mm=80.0)
        here = next(r for r in layer_of(surface, "limewash").where if r.id == rule.id)
        if here.strokes[-1].id == "live":
            path = (*DADO, "layers", "limewash", "where", rule.id, "strokes", "live")
            session.store.dispatch(Set(path=path, value=stroke, label="x"))
        else:
            session.store.dispatch(
                Insert(path=(*DADO, "layers", "limewash", "where", rule.id, "strokes"), item=stroke, label="x")
            )
        session.snapshot().lit(session.job.surface("dado"), 1024)

    return timer(once)


def export(timer: Timer) -> float:
    session = dado_session()
    delivery = msgspec.structs.replace(session.job.deliveries[0], px=4096)
    begun = time.perf_counter()
    with tempfile.TemporaryDirectory() as folder:
        surface = session.job.surface("dado")
        export_surface(Writing(session.snapshot(), delivery, (surface,), Path(folder), quiet), surface)
    return (time.perf_counter() - begun) * 1000


START = """
import time; begun = time.perf_counter()
from brave_tessel.ui.app import make_app
from brave_tessel.ui.window import Window
from brave_tessel.engine.session import Session
from PyQt6.QtWidgets import QApplication
app = make_app()
window = Window(Session()); window.show()
for _ in range(5): app.processEvents()
print((time.perf_counter() - begun) * 1000)
window.close_down()
import os; os._exit(0)
"""


def start(timer: Timer) -> float:
    env = {**os.environ, "QT_QPA_PLATFORM": "offscreen"}
    times = sorted(
        float(subprocess.run([sys.executable, "-c", START], env=env, capture_output=True, text=True, check=True).stdout)
        for _ in range(4)
    )
    return times[1]


def frame(width: int, height: int, *, moving: bool = False) -> Callable[[Timer], float]:
    def run(timer: Timer) -> float:
        from brave_tessel.engine.pictures.placed import scene_textures
        from brave_tessel.view3d.camera import from_points
        from brave_tessel.view3d.renderer import Look, Renderer
        from brave_tessel.view3d.scene import draw_parts

        snapshot = dado_session().snapshot()
        textures = scene_textures(snapshot, px=1024, current=lambda: True)
        renderer = Renderer()
        renderer.set_parts(draw_parts(snapshot.site()))
        eye = snapshot.job.scene.eyes[0]
        camera = from_points(np.array(eye.at) / 1000, np.array(eye.toward) / 1000, angle=eye.angle)
        for surface, made in textures.surfaces.items():
            renderer.set_textures(surface, made)
        return timer(lambda: renderer.draw(Look(camera, width, height, moving=moving)))

    return run


def cases() -> Iterator[tuple[str, Callable[[Timer], float], str]]:
    counter = itertools.count()
    step = (0.3 + 0.001 * n for n in counter)
    more = (0.2 + 0.001 * n for n in itertools.count())
    bits = (2.0 + 0.001 * n for n in itertools.count())
    yield (
        "change the top layer's seat, 1024², to picture",
        change(("layers", "limewash", "seat", "values", "level"), step, 1024),
        "100",
    )
    yield (
        "change a noise rule of the top layer, 1024²",
        change(("layers", "limewash", "where", "wash-patches", "rule", "values", "cover"), more, 1024),
        "100",
    )
    yield (
        "change the lowest layer's joint, 1024²",
        change(("layers", "tile", "what", "recipe", "steps", "units", "values", "joint"), bits, 1024),
        "100",
    )
    yield (
        "coarse picture of a change, 256²",
        change(("layers", "limewash", "seat", "values", "level"), iter(0.4 + 0.001 * n for n in range(9999)), 256),
        "30",
    )
    yield "brush dab to lit picture, 1024²", dab, "-"
    yield "best cut of 5 maps, 2048²", mend("mend.best_cut", 2048), "1500"
    yield "edges of 5 maps smoothed, 2048²", mend("mend.level", 2048), "500"
    yield "regrow 1024² from 512², 5 maps", mend("mend.regrow", 512), "8000"
    yield "export of 6 maps at 4096², whole", export, "20000"
    yield "start to usable window", start, "2000"
    yield "3D frame 900 × 600 with shadow", frame(900, 600), "-"
    yield "3D frame 405 × 270, as while moving", frame(405, 270, moving=True), "33"
