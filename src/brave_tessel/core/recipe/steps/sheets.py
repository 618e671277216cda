"""Patterns that are relief by themselves: sheets, cloth, mesh, studs; heights in mm, or shares of a shape in [0, 1]."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Annotated, Any

import numpy as np

from ...kernels.marks import paint_marks
from ...lattice import whole_periods
from ...operation import Choice, Field, Fraction, Length, Pieces, operation
from ...sheet import Grid
from ..set_out import SetOut, runs_as, strips

_F = np.typing.NDArray[np.float64]


@operation(
    "pattern.corrugation",
    label="Corrugation",
    closes=lambda v: (v["pitch"], 0.0) if v["runs"] == "upright" else (0.0, v["pitch"]),
    sets_out=SetOut(
        courses=lambda v: runs_as(v, "across", "pitch"),
        units=lambda v: runs_as(v, "upright", "pitch"),
        outlines=lambda grid, **v: strips(grid, v["pitch"], 0.0, upright=v["runs"] == "upright"),
    ),
)
def corrugation(
    grid: Grid,
    *,
    pitch: Annotated[
        float, Length(10, 400, log=True, least=1, help="Crest to crest; snapped so that whole waves fill the repeat.")
    ] = 76.0,
    depth: Annotated[float, Length(2, 120, least=0, most=500, help="From the bottom to the crest.")] = 18.0,
    runs: Annotated[str, Choice("upright", "across", help="Which way the ridges run.")] = "upright",
) -> Field:
    """A corrugated sheet's height in mm about 0: a sine of a pitch and depth, such as 76/18."""
    upright = runs == "upright"
    whole, at = grid.across(upright=upright)
    return grid.spread(
        (0.5 * depth * np.cos(2 * math.pi * whole_periods(whole, pitch) * at / whole)).astype(np.float32),
        upright=upright,
    )


@operation(
    "pattern.seams",
    label="Standing seams",
    closes=lambda v: (v["pitch"], 0.0) if v["runs"] == "upright" else (0.0, v["pitch"]),
    sets_out=SetOut(
        courses=lambda v: runs_as(v, "across", "pitch"),
        units=lambda v: runs_as(v, "upright", "pitch"),
        outlines=lambda grid, **v: strips(grid, v["pitch"], 0.0, upright=v["runs"] == "upright"),
    ),
)
def seams(
    grid: Grid,
    *,
    pitch: Annotated[
        float,
        Length(
            100, 1000, log=True, least=10, help="Distance of the seams; snapped so that whole bays fill the repeat."
        ),
    ] = 430.0,
    height: Annotated[float, Length(5, 60, least=0, most=200, help="Height of a seam.")] = 25.0,
    width: Annotated[float, Length(2, 40, least=0.5, most=200, help="Width of a seam at its foot.")] = 9.0,
    runs: Annotated[str, Choice("upright", "across", help="Which way the seams run.")] = "upright",
) -> Field:
    """Metal bays with folded seams standing up between them; height in mm, bays at 0."""
    upright = runs == "upright"
    whole, at = grid.across(upright=upright)
    bay = whole / whole_periods(whole, pitch)
    away = np.abs((at + bay / 2) % bay - bay / 2)
    soft = max(0.25 * width, grid.pitch_mm)
    return grid.spread((height * np.clip((width / 2 - away) / soft + 0.5, 0, 1)).astype(np.float32), upright=upright)


WEAVES = {
    "plain": ((1, 0), (0, 1)),
    "twill": ((1, 1, 0, 0), (0, 1, 1, 0), (0, 0, 1, 1), (1, 0, 0, 1)),
    "basket": ((1, 1, 0, 0), (1, 1, 0, 0), (0, 0, 1, 1), (0, 0, 1, 1)),
}
"""Which thread lies on top at each crossing: 1 is the upright one."""


def _weave_repeat(v: Mapping[str, Any]) -> tuple[float, float]:
    side = len(WEAVES[v["weave"]]) * float(v["size"])
    return side, side


def _crossings(grid: Grid, size: float, weave: str) -> tuple[_F, _F, _F, _F, _F]:
    """Per pixel: thread coordinates across and up, and whether the upright thread is over at the crossing."""
    order = np.array(WEAVES[weave])
    n = order.shape[0]
    nx, ny = n * whole_periods(grid.width_mm, n * size), n * whole_periods(grid.height_mm, n * size)
    u, v = grid.x_mm() / grid.width_mm * nx, grid.y_mm() / grid.height_mm * ny
    iu, iv = np.floor(u).astype(int), np.floor(v).astype(int)
    over = order[np.ix_(iv % n, iu % n)]
    return u - iu - 0.5, v - iv - 0.5, over, iu % nx, iv % ny


@operation("pattern.weave", label="Woven cloth", closes=lambda v: _weave_repeat(v))
def weave(
    grid: Grid,
    *,
    size: Annotated[float, Length(0.3, 40, log=True, least=0.05, help="Distance of two threads.")] = 4.0,
    weave: Annotated[str, Choice(*WEAVES, help="How threads pass over each other.")] = "plain",
    fill: Annotated[
        float, Fraction(0.5, 1, least=0.1, most=1, help="Width of a thread against their distance.")
    ] = 0.92,
) -> Field:
    """Threads over and under each other, height in [0, 1]; each rises where it is on top."""
    du, dv, over, _, _ = _crossings(grid, size, weave)
    across, along = np.broadcast_to(du[None, :], grid.shape), np.broadcast_to(dv[:, None], grid.shape)
    warp = np.sqrt(np.clip(1 - (2 * across / fill) ** 2, 0, 1))
    weft = np.sqrt(np.clip(1 - (2 * along / fill) ** 2, 0, 1))
    rise = np.where(over == 1, 1.0, -1.0)
    arch_warp, arch_weft = np.cos(math.pi * along) * rise, -np.cos(math.pi * across) * rise
    made = np.maximum(warp * (0.55 + 0.45 * arch_warp), weft * (0.55 + 0.45 * arch_weft))
    return np.asarray(np.clip(made, 0, 1), np.float32)


@operation("pattern.threads", label="Threads of a weave", closes=lambda v: _weave_repeat(v))
def threads(
    grid: Grid,
    *,
    size: Annotated[float, Length(0.3, 40, log=True, least=0.05, help="Distance of two threads.")] = 4.0,
    weave: Annotated[str, Choice(*WEAVES, help="How threads pass over each other.")] = "plain",
    fill: Annotated[
        float, Fraction(0.5, 1, least=0.1, most=1, help="Width of a thread against their distance.")
    ] = 0.92,
) -> Pieces:
    """Which thread is seen at each place: every upright and every crossing thread is a piece."""
    du, dv, over, iu, iv = _crossings(grid, size, weave)
    across, along = np.broadcast_to(du[None, :], grid.shape), np.broadcast_to(dv[:, None], grid.shape)
    nx, ny = int(iu.max()) + 1, int(iv.max()) + 1
    upright = over == 1
    number = np.where(upright, iu[None, :], nx + iv[:, None]).astype(np.int32)
    off = np.where(upright, across, along)
    edge = ((fill / 2 - np.abs(off)) * size).astype(np.float32)
    number[edge < 0] = -1
    return Pieces(
        number,
        edge,
        (2 * off / fill).astype(np.float32),
        np.where(upright, along, across).astype(np.float32) * 2,
        nx + ny,
    )


@operation("pattern.knit", label="Knitted cloth", closes=lambda v: (v["size"], 0.8 * v["size"]))
def knit(
    grid: Grid,
    *,
    size: Annotated[float, Length(1, 40, log=True, least=0.2, help="Width of a stitch.")] = 6.0,
    thick: Annotated[
        float, Fraction(0.2, 0.7, least=0.05, most=1, help="Thickness of the yarn against a stitch.")
    ] = 0.42,
) -> Field:
    """Stitches in columns, each two leaning strands, height in [0, 1]."""
    nx, ny = whole_periods(grid.width_mm, size), whole_periods(grid.height_mm, 0.8 * size)
    w, h = grid.width_mm / nx, grid.height_mm / ny
    columns, rows = (v.ravel() for v in np.meshgrid(np.arange(nx), np.arange(ny)))
    x, y = (columns + 0.5) * w, rows * h
    ones = np.ones(len(x))
    marks = [
        np.column_stack(
            [
                x + side * 0.08 * w,
                y,
                x + side * 0.32 * w,
                y + 1.15 * h,
                ones * thick * w,
                ones * thick * w,
                ones * 0.5 * thick * w,
                ones,
            ]
        )
        for side in (-1, 1)
    ]
    return paint_marks(grid, np.concatenate(marks))


@operation("pattern.chain_link", label="Chain link", closes=lambda v: (v["size"], v["size"]))
def chain_link(
    grid: Grid,
    *,
    size: Annotated[float, Length(5, 200, log=True, least=1, help="Width of a mesh over its corners.")] = 50.0,
    wire: Annotated[float, Length(0.5, 12, log=True, least=0.1, help="Thickness of the wire.")] = 3.0,
) -> Field:
    """Woven wire in diamonds, 1 on the wire and 0 in the mesh; for opacity and relief."""
    nx, ny = whole_periods(grid.width_mm, size), whole_periods(grid.height_mm, size)
    w, h = grid.width_mm / nx, grid.height_mm / ny
    columns, rows = (v.ravel() for v in np.meshgrid(np.arange(nx), np.arange(ny)))
    x, y, ones = columns * w, rows * h, np.ones(nx * ny)
    marks = [
        np.column_stack([x, y + a * h, x + w, y + (1 - a) * h, ones * wire, ones * wire, 0.3 * wire * ones, ones])
        for a in (0, 1)
    ]
    return paint_marks(grid, np.concatenate(marks))


@operation(
    "pattern.perforation",
    label="Perforation",
    closes=lambda v: (v["pitch"], (math.sqrt(3) if v["set_"] == "staggered" else 1) * v["pitch"]),
)
def perforation(
    grid: Grid,
    *,
    pitch: Annotated[float, Length(2, 200, log=True, least=0.5, help="Distance of two holes.")] = 12.0,
    hole: Annotated[float, Length(0.5, 150, log=True, least=0.1, help="Width of a hole.")] = 6.0,
    set_: Annotated[str, Choice("staggered", "square", help="Whether rows are offset by half a pitch.")] = "staggered",
    shape: Annotated[str, Choice("round", "square hole", help="Shape of a hole.")] = "round",
) -> Field:
    """Sheet with holes in rows: 1 is sheet, 0 is hole; turned over it is studs."""
    staggered = set_ == "staggered"
    rise = pitch * (math.sqrt(3) / 2 if staggered else 1)
    nx, ny = (
        whole_periods(grid.width_mm, pitch),
        whole_periods(grid.height_mm, 2 * rise) * 2 if staggered else whole_periods(grid.height_mm, rise),
    )
    u, v = grid.x_mm() / grid.width_mm * nx, grid.y_mm() / grid.height_mm * ny
    row = np.floor(v)
    shift = 0.5 * (row % 2) if staggered else np.zeros_like(row)
    du = ((u[None, :] + shift[:, None]) % 1 - 0.5) * (grid.width_mm / nx)
    dv = np.broadcast_to(((v - row - 0.5) * (grid.height_mm / ny))[:, None], grid.shape)
    away = np.hypot(du, dv) if shape == "round" else np.maximum(np.abs(du), np.abs(dv))
    return np.asarray(np.clip((away - hole / 2) / grid.pitch_mm + 0.5, 0, 1), np.float32)


@operation("pattern.studs", label="Studs", closes=lambda v: (v["pitch"], math.sqrt(3) * v["pitch"]))
def studs(
    grid: Grid,
    *,
    pitch: Annotated[float, Length(2, 300, log=True, least=0.5, help="Distance of two studs.")] = 30.0,
    size: Annotated[float, Length(1, 250, log=True, least=0.2, help="Width of a stud at its foot.")] = 18.0,
    height: Annotated[float, Length(0.2, 30, least=0, most=200, help="Height of a stud.")] = 4.0,
    flat: Annotated[float, Fraction(help="0 a dome, 1 flat on top.")] = 0.3,
) -> Field:
    """Round studs in staggered rows, height in mm over a ground at 0."""
    nx, ny = whole_periods(grid.width_mm, pitch), 2 * whole_periods(grid.height_mm, math.sqrt(3) * pitch)
    u, v = grid.x_mm() / grid.width_mm * nx, grid.y_mm() / grid.height_mm * ny
    row = np.floor(v)
    du = ((u[None, :] + 0.5 * (row % 2)[:, None]) % 1 - 0.5) * (grid.width_mm / nx)
    dv = ((v - row - 0.5) * (grid.height_mm / ny))[:, None]
    inside = np.clip(1 - (np.hypot(du, dv) / (size / 2)) ** 2, 0, 1)
    return np.asarray(height * inside ** (0.5 * (1 - 0.9 * flat)) * (inside > 0), np.float32)


@operation("pattern.scales", label="Fish scales", closes=lambda v: (v["size"], v["size"]))
def scales(
    grid: Grid,
    *,
    size: Annotated[float, Length(20, 500, log=True, least=2, help="Width of a scale.")] = 160.0,
    joint: Annotated[float, Length(0, 20, least=0, most=100, help="Gap between scales.")] = 4.0,
) -> Pieces:
    """Round-ended tiles hanging in half bond, each covering the joint of those below."""
    nx = whole_periods(grid.width_mm, size)
    w = grid.width_mm / nx
    ny = 2 * whole_periods(grid.height_mm, w)
    h, r = grid.height_mm / ny, 0.5 * w
    x, y = np.broadcast_to(grid.x_mm()[None, :], grid.shape), np.broadcast_to(grid.y_mm()[:, None], grid.shape)
    number, edge = np.full(grid.shape, -1, np.int32), np.full(grid.shape, -1e6)
    across, up = np.zeros(grid.shape), np.zeros(grid.shape)
    base = np.floor(y / h).astype(int)
    # A course hangs down as half circles from its own line; the upper course lies over the lower, so the highest wins.
    for back in (2, 1, 0, -1):
        row = base - back + 1
        shift = 0.5 * (row % 2)
        column = np.floor(x / w - shift)
        cx, cy = (column + 0.5 + shift) * w, row * h
        inside = np.where(y > cy, r - np.abs(x - cx), r - np.hypot(x - cx, y - cy)) - joint / 2
        own = (inside >= -joint) & (y <= cy + h)
        number = np.where(own, np.where(inside >= 0, (row % ny) * nx + (column % nx), -1), number).astype(np.int32)
        edge = np.where(own, inside, edge)
        across, up = np.where(own, (x - cx) / r, across), np.where(own, (y - cy) / r, up)
    edge = np.maximum(edge, -joint)
    return Pieces(number, edge.astype(np.float32), across.astype(np.float32), up.astype(np.float32), nx * ny)
