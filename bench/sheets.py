"""What Gather and Repeat wait for, beside the plain numpy, scipy, scikit-image or OpenCV way."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any

import cv2
import numpy as np
import scipy.sparse as sparse
from scipy.sparse.linalg import spsolve
from skimage import data

import brave_tessel.core.registered  # noqa: F401
from brave_tessel.core.gather.stereo import solve
from brave_tessel.core.job.document import Touch
from brave_tessel.core.job.layers import PieceKind, Scatter
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.kernels.membrane import membrane
from brave_tessel.core.kernels.relief import normal_of_height
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.operation import find
from brave_tessel.core.repeat.choose import propose
from brave_tessel.core.repeat.periodic import periodic_part
from brave_tessel.core.repeat.quieten import find_features
from brave_tessel.core.repeat.touch_up import touch_in_place
from brave_tessel.core.scatter.lay import lay_scatter, made_piece
from brave_tessel.core.sheet import Grid
from brave_tessel.engine.gather.rig import LightRig, RigSettings

Case = tuple[str, Callable[[], Any], Callable[[], Any], str]


def plain_periodic(pixels: np.ndarray) -> np.ndarray:
    """Moisan's decomposition as the paper writes it."""
    rows, columns = pixels.shape
    jump = np.zeros_like(pixels, np.float64)
    jump[0] += pixels[-1] - pixels[0]
    jump[-1] += pixels[0] - pixels[-1]
    jump[:, 0] += pixels[:, -1] - pixels[:, 0]
    jump[:, -1] += pixels[:, 0] - pixels[:, -1]
    bend = (
        2 * np.cos(2 * np.pi * np.arange(rows) / rows)[:, None]
        + 2 * np.cos(2 * np.pi * np.arange(columns) / columns)[None, :]
        - 4
    )
    bend[0, 0] = 1
    spectrum = np.fft.fft2(jump) / bend
    spectrum[0, 0] = 0
    return pixels - np.fft.ifft2(spectrum).real


def plain_membrane(values: np.ndarray, inside: np.ndarray) -> np.ndarray:
    """Laplace's equation by a sparse direct solver."""
    rows, columns = np.nonzero(inside)
    number = np.full(inside.shape, -1)
    number[rows, columns] = np.arange(len(rows))
    matrix = sparse.lil_matrix((len(rows), len(rows)))
    right = np.zeros((len(rows), values.shape[2]))
    for k, (r, c) in enumerate(zip(rows, columns, strict=True)):
        matrix[k, k] = 4
        for y, x in ((r - 1, c), (r + 1, c), (r, c - 1), (r, c + 1)):
            if number[y, x] >= 0:
                matrix[k, number[y, x]] = -1
            else:
                right[k] += values[y, x]
    out = values.copy()
    out[rows, columns] = spsolve(matrix.tocsr(), right).reshape(len(rows), -1)
    return out


def plain_stereo(frames: list[np.ndarray], lights: np.ndarray) -> np.ndarray:
    """Woodham's least squares, no robustness."""
    grey = np.stack([frame.mean(2).ravel() for frame in frames])
    b = np.linalg.lstsq(np.asarray(lights), grey, rcond=None)[0]
    return b / np.maximum(np.linalg.norm(b, axis=0), 1e-9)


def plain_scatter(pieces: list[tuple[float, float, float]], piece: Any, grid: Grid) -> np.ndarray:
    """Each piece turned and pasted by OpenCV, the higher one on top."""
    height = np.zeros(grid.shape, np.float32)
    for x, y, turn in pieces:
        side = (piece.height.shape[1], piece.height.shape[0])
        matrix = cv2.getRotationMatrix2D((side[0] / 2, side[1] / 2), turn, 0.16)
        matrix[:, 2] += (x - side[0] / 2, y - side[1] / 2)
        height = np.maximum(height, cv2.warpAffine(piece.height, matrix, grid.shape[::-1]))
    return height


def cases() -> Iterator[Case]:
    rng = np.random.default_rng(1)
    plane = cv2.resize(data.gravel(), (2048, 2048), interpolation=cv2.INTER_CUBIC).astype(np.float32) / 255
    yield (
        "level one plane, 2048²",
        lambda: periodic_part(plane),
        lambda: plain_periodic(plane),
        "numpy FFT, as published",
    )
    values, inside = rng.random((160, 160, 3), np.float32), np.zeros((160, 160), bool)
    inside[20:140, 20:140] = True
    yield (
        "membrane over 120² px, 3 channels",
        lambda: membrane(values, inside),
        lambda: plain_membrane(values, inside),
        "scipy sparse solve",
    )
    capture = LightRig(RigSettings(seconds=0)).take(lambda *_: None)
    frames, lights = list(capture.frames), np.asarray(capture.lights)
    yield (
        "stereo from 10 frames of 512², robust",
        lambda: solve(frames, lights),
        lambda: plain_stereo(frames, lights),
        "numpy lstsq, not robust",
    )
    kind = PieceKind(id="a", name="Pebble")
    scatter = Scatter(kinds=(kind,), strew=Setting(op="scatter.strew", values={"density": 600.0}))
    grid, piece = Grid(1024, 1024, 600, 600), made_piece(kind=kind, px=384)
    strewn = [(float(x), float(y), float(t)) for x, y, t in rng.random((216, 3)) * (1024, 1024, 360)]
    yield (
        "scatter sheet, 216 pieces, all maps, 1024²",
        lambda: lay_scatter(grid, scatter, [piece]),
        lambda: plain_scatter(strewn, piece, grid),
        "OpenCV, height only",
    )


def actions() -> Iterator[tuple[str, Callable[[Any], float], str]]:
    """Whole actions without a plain peer, with their aims in ms."""
    for op in ("touch.paint", "touch.clone", "touch.heal", "touch.smudge", "touch.sharpen"):
        yield f"one dab of {find(op).label.lower()}, 5 maps, 4096²", _dab(op), "16"
    yield "likeliest crops of a sheet, 512²", _crops, "-"
    yield "features that the eye finds again, 1024²", _features, "-"
    yield "field of 20 m, filtered, to a 752 × 504 board", _field, "33"


def _dab(op: str) -> Callable[[Any], float]:
    def run(timer: Any) -> float:
        px = 4096
        grey = cv2.resize(data.gravel(), (px, px), interpolation=cv2.INTER_LINEAR).astype(np.float32) / 255
        grid = Grid(px, px, 1000, 1000)
        maps = {
            MapKind.BASE_COLOUR: np.repeat(grey[..., None], 3, 2),
            MapKind.HEIGHT: grey,
            MapKind.ROUGHNESS: grey.copy(),
            MapKind.NORMAL: normal_of_height(grey * 4, grid),
            MapKind.AMBIENT_OCCLUSION: grey.copy(),
        }
        stroke = Touch(
            id="a",
            brush=Setting(op=op, values={"size": 40.0}),
            points=((500.0, 500.0), (504.0, 500.0)),
            offset=(120.0, 60.0),
        )
        return float(timer(lambda: touch_in_place(maps, grid, stroke)))

    return run


def _crops(timer: Any) -> float:
    grey = data.gravel().astype(np.float32) / 255
    maps = MapSet(Grid(512, 512, 512, 512), {MapKind.BASE_COLOUR: np.repeat(grey[..., None], 3, 2)})
    return float(timer(lambda: propose(maps, overlap_mm=50)))


def _features(timer: Any) -> float:
    grey = cv2.resize(data.gravel(), (1024, 1024)).astype(np.float32) / 255
    colour = np.repeat(grey[..., None], 3, 2)
    return float(timer(lambda: find_features(colour, Grid(1024, 1024, 1000, 1000))))


def _field(timer: Any) -> float:
    """One frame of the field as the window draws it."""
    import os

    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from PyQt6.QtCore import QRectF
    from PyQt6.QtGui import QImage, QPainter

    from brave_tessel.core.relief.pictures import mip_chain
    from brave_tessel.ui.app import make_app
    from brave_tessel.ui.board import tile, to_pixmaps

    app = make_app(lamp=False, scale=1.0)
    mips = to_pixmaps(mip_chain(np.repeat(cv2.resize(data.gravel(), (1024, 1024))[..., None], 3, 2)))
    canvas = QImage(752, 504, QImage.Format.Format_RGB32)

    def once() -> None:
        painter = QPainter(canvas)
        tile(painter, mips, QRectF(0, 0, 752, 504), QRectF(0, 0, 752 / 20 * 0.6, 752 / 20 * 0.6))
        painter.end()

    assert app is not None
    return float(timer(once))
