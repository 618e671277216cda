"""Build-ups: the joins and kernels of layers beside plain numpy, scipy and OpenCV, and whole stacks of twelve
layers.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any

import cv2
import numpy as np
from scipy import ndimage

from brave_tessel.core.buildup.kinds.recipe import RecipeWhat
from brave_tessel.core.buildup.seat import ByHeight, bare, lay
from brave_tessel.core.buildup.strokes import lay_strokes
from brave_tessel.core.buildup.water import Standing, stand
from brave_tessel.core.job.commands import Insert
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, MapMix, Rule, Stroke, Surface
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.kernels.path import measure_path
from brave_tessel.core.maps import BLENDED, LAYERED, MapKind, MapSet
from brave_tessel.core.outlines import inside_of
from brave_tessel.core.recipe.steps.noise import clouds
from brave_tessel.core.recipe.stock import clouds_recipe, units_recipe
from brave_tessel.core.sheet import Grid
from brave_tessel.engine.cache import Cache
from brave_tessel.engine.evaluate import Evaluation
from brave_tessel.engine.intents.surfaces import set_step_value
from brave_tessel.engine.pictures.strokes import Showing, Shown, stroke_parts
from brave_tessel.engine.pictures.surface import surface_picture
from brave_tessel.engine.session import Session
from brave_tessel.formats.job_file import OpenedJob
from brave_tessel.formats.lettering import letters

Case = tuple[str, Callable[[], Any], Callable[[], Any], str]
Action = tuple[str, Callable[[Callable[..., float]], float], str]
PLAIN = {kind: MapMix() for kind in BLENDED}


def _maps(grid: Grid, seed: int) -> MapSet:
    height = clouds(grid, size=60, octaves=6, seed=seed) * np.float32(3)
    colour = np.repeat(height[..., None], 3, 2) / 3
    return MapSet(
        grid,
        {
            MapKind.HEIGHT: height,
            MapKind.BASE_COLOUR: colour,
            MapKind.ROUGHNESS: height / 3,
            MapKind.METALNESS: 0 * height,
        },
    )


def _plain_join(ground: list[Any], maps: MapSet, cover: Any) -> list[Any]:
    top = 0.3 + maps[MapKind.HEIGHT] + 0.5 * ground[1]
    share = cover * np.clip(0.5 + (top - ground[1]) / 0.4, 0, 1)
    made = [
        g + (share if g.ndim == 2 else share[..., None]) * (maps[kind] - g)
        for kind, g in zip(LAYERED, ground, strict=True)
    ]
    made[1] = ground[1] + share * (top - ground[1])
    return made


def cases() -> Iterator[Case]:
    """Each kernel beside its plain way, at 2048²."""
    grid = Grid(2048, 2048, 1200.0, 1200.0)
    one, two = _maps(grid, 1), _maps(grid, 2)
    cover = clouds(grid, size=200, octaves=4, seed=5)
    ground = lay(bare(grid), one, None, PLAIN, ByHeight())
    planes = list(ground.planes)
    yield (
        "seat one layer, 4 maps 2048²",
        lambda: lay(ground, two, cover, PLAIN, ByHeight(level=0.3, feather=0.4, drape=0.5)),
        lambda: _plain_join(planes, two, cover),
        "numpy",
    )
    water = Standing(level=1.0)
    yield ("standing water 2048²", lambda: stand(ground, water), lambda: _plain_water(planes), "numpy, without wet rim")  # type: ignore[arg-type]
    stroke = Stroke(id="s", points=((300.0, 300.0), (420.0, 380.0), (500.0, 360.0)), size_mm=60.0)
    yield (
        "one stroke 2048²",
        lambda: lay_strokes(cover, [stroke], grid),
        lambda: _plain_stroke(cover, grid),
        "OpenCV line, blur, numpy mix",
    )
    path = np.array([(x, 600 + 80 * np.sin(x / 90)) for x in np.linspace(0, 1200, 160)])
    yield (
        "places along a run 2048²",
        lambda: measure_path(path, grid.shape, reach_mm=20, width_mm=1200, height_mm=1200, closed=True),
        lambda: _plain_run(path, grid),
        "OpenCV line and scipy distance with indices",
    )
    outline = letters("IBM Plex Sans SemiBold", "SALTREACH").placed(at=(600, 600), size=200)
    yield (
        "distance inside letters 2048²",
        lambda: inside_of(outline, grid, reach_mm=12),
        lambda: _plain_letters(outline, grid),
        "OpenCV fill and two distance transforms",
    )


def _plain_water(planes: list[Any]) -> Any:
    colour, height, rough, _ = planes
    depth = np.maximum(1.0 - height, 0)
    share = (depth > 0).astype(np.float32)
    seen = np.exp(-2.2 * depth / 40)[..., None]
    return colour * (1 - share[..., None]) + share[..., None] * (0.05 + seen * (0.6 * colour - 0.05)), rough * (
        1 - share
    ) + 0.03 * share


def _plain_stroke(cover: Any, grid: Grid) -> Any:
    mask = np.zeros(grid.shape, np.float32)
    to = grid.width_px / grid.width_mm
    points = np.array([(300, 300), (420, 380), (500, 360)], np.float32) * to
    cv2.polylines(mask, [points.astype(np.int32)], False, 1.0, round(30 * to), cv2.LINE_AA)
    mask = cv2.GaussianBlur(mask, (0, 0), 7 * to)
    return cover + (1 - cover) * mask


def _plain_run(path: Any, grid: Grid) -> Any:
    mask = np.ones(grid.shape, np.uint8)
    cv2.polylines(mask, [(path * grid.width_px / grid.width_mm).astype(np.int32)], False, 0, 1)
    return ndimage.distance_transform_edt(mask, return_indices=True)


def _plain_letters(outline: Any, grid: Grid) -> Any:
    mask = np.zeros(grid.shape, np.uint8)
    to = grid.width_px / grid.width_mm
    cv2.fillPoly(mask, [(c * to).astype(np.int32) for c in outline.contours], 1)
    return cv2.distanceTransform(mask, cv2.DIST_L2, 5) - cv2.distanceTransform(1 - mask, cv2.DIST_L2, 5)


# Whole stacks -----------------------------------------------------------------------------------------


def twelve() -> Surface:
    """Twelve layers of all maps, each with a rule."""
    layers = [Layer(id="l0", name="l0", what=RecipeWhat(recipe=units_recipe()))]
    for n in range(1, 12):
        rule = Rule(id=f"r{n}", rule=Setting(op="where.noise", values={"size": 120.0, "cover": 0.4, "seed": n}))
        seat = Setting(op="seat.by_height", values={"level": 0.2, "feather": 0.3, "drape": 0.8})
        layers.append(
            Layer(
                id=f"l{n}",
                name=f"l{n}",
                what=RecipeWhat(recipe=clouds_recipe(size=20.0 + 5 * n, seed=n)),
                where=(rule,),
                seat=seat,
            )
        )
    return Surface(id="s", name="s", width_mm=612.0, height_mm=624.0, layers=tuple(layers))


def _session() -> Session:
    return Session(OpenedJob(Job(id="bench", surfaces=(twelve(),))), cache=Cache(6 << 30))


def _full(px: int) -> Callable[[Callable[..., float]], float]:
    def run(_median: Callable[..., float]) -> float:
        session = _session()
        grid = Grid.for_repeat(612.0, 624.0, px)
        return _median(
            lambda: Evaluation(Cache(2 << 30)).value(
                session.snapshot().planner().finished(session.job.surfaces[0], grid)
            ),
            least=1,
        )

    return run


def _change(px: int, layer: int) -> Callable[[Callable[..., float]], float]:
    """One dial of one layer turned, all else cached."""

    def run(median: Callable[..., float]) -> float:
        session = _session()
        grid = Grid.for_repeat(612.0, 624.0, px)
        session.snapshot().evaluation().value(session.snapshot().planner().finished(session.job.surfaces[0], grid))
        turned = 0

        def turn() -> None:
            nonlocal turned
            turned += 1
            surface = session.job.surfaces[0]
            command = set_step_value(surface, surface.layers[layer], "clouds", "gain", 0.5 + 0.001 * turned, gesture="")
            session.store.dispatch(command)
            session.snapshot().evaluation().value(session.snapshot().planner().finished(session.job.surfaces[0], grid))

        return median(turn)

    return run


def _undo(median: Callable[..., float]) -> float:
    session = _session()
    surface = session.job.surfaces[0]

    def run() -> None:
        command = set_step_value(surface, surface.layers[5], "clouds", "gain", 0.61, gesture="")
        session.store.dispatch(command)
        session.store.undo()

    return median(run)


def _dab(px: int, layer: int) -> Callable[[Callable[..., float]], float]:
    """One move of the brush in a where-rule, to the lit picture around it."""

    def run(median: Callable[..., float]) -> float:
        session, light = _session(), (-0.5, 0.5, 0.7071)
        job = session.job
        snapshot, showing = session.snapshot(), Showing("Lit", px, light)
        base = surface_picture(snapshot, job.surfaces[0], showing, fine=True, current=lambda: True)
        shown = Shown(base, showing)
        path = ("surfaces", "s", "layers", f"l{layer}", "where")
        before, moves = None, 0

        def move() -> None:
            nonlocal before, moves
            moves += 1
            stroke = Stroke(id="live", points=tuple((200.0 + 4 * k, 200.0) for k in range(moves)), size_mm=30.0)
            rule = Rule(id="p", mode="cut", rule=Setting(op="where.painted"), strokes=(stroke,))
            after = Insert(path=path, item=rule, label="Paint").apply(job)
            stroke_parts(snapshot.with_job(after), after.surfaces[0], shown, before=before, stroke=stroke)
            before = stroke

        return median(move)

    return run


def _bandwidth(median: Callable[..., float]) -> float:
    """Milliseconds to copy as many bytes as twelve joins of seven planes read and write once, 2048²."""
    planes = [np.ones((2048, 2048), np.float32) for _ in range(6)]

    def run() -> None:
        for _ in range(12):
            for plane in planes:
                plane.copy()

    return median(run)


def actions() -> Iterator[Action]:
    """Whole actions with their aims in ms."""
    yield "12 layers, all maps, 1024²: full", _full(1024), "-"
    yield "12 layers, all maps, 2048²: full", _full(2048), "-"
    yield "12 layers, all maps, 4096²: full", _full(4096), "20000"
    yield "12 layers 1024²: one change in the topmost", _change(1024, 11), "100"
    yield "12 layers 1024²: one change in the sixth", _change(1024, 5), "100"
    yield "12 layers 2048²: one change in the topmost", _change(2048, 11), "400"
    yield "12 layers 2048²: one change in the sixth", _change(2048, 5), "400"
    yield "copying the planes of 12 joins 2048² (bandwidth)", _bandwidth, "-"
    yield "a change and its undo", _undo, "50"
    for px in (1024, 2048, 4096):
        yield f"a dab of 30 mm and the lit picture around it, {px}², topmost of 12", _dab(px, 11), "16"
    yield "a dab of 30 mm and the lit picture around it, 2048², sixth of 12", _dab(2048, 5), "-"
