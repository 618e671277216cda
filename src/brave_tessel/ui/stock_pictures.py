"""Small pictures of the stock recipes, for menus, and of made pieces; written by ``./dev docs``."""

from __future__ import annotations

import sys
from pathlib import Path

import cv2
import numpy as np

from ..core.buildup.kinds.recipe import RecipeWhat
from ..core.job.document import Job
from ..core.job.layers import Layer, Surface
from ..core.operation import family
from ..core.recipe.materials import MATERIALS, Stock
from ..core.sheet import AnyArray
from ..engine.session import Session
from ..formats.images import encode_png
from ..formats.job_file import OpenedJob
from .app import make_app
from .stages.place.laying_pictures import PIECES, piece_picture

FOLDER = Path(__file__).parent / "assets" / "stock"
SIDE, FROM_PX = 96, 512


def stock_picture(stock: Stock) -> AnyArray:
    """The recipe lit, (96, 96, 3) uint8."""
    width, height = stock.repeat_mm
    surface = Surface(
        id="s",
        name=stock.name,
        width_mm=width,
        height_mm=height,
        layers=(Layer(id="l", name=stock.name, what=RecipeWhat(recipe=stock.make())),),
    )
    snapshot = Session(OpenedJob(Job(id="stock", surfaces=(surface,)))).snapshot()
    lit = np.asarray(snapshot.lit(surface, FROM_PX))
    side = min(lit.shape[:2]) // 2
    return np.asarray(
        cv2.resize(np.ascontiguousarray(lit[:side, :side]), (SIDE, SIDE), interpolation=cv2.INTER_AREA), np.uint8
    )


def main() -> None:
    """Write all of them."""
    FOLDER.mkdir(exist_ok=True)
    for stock in MATERIALS:
        path = FOLDER / f"{stock.name.lower().replace(' ', '-')}.png"
        path.write_bytes(encode_png(stock_picture(stock)))
        sys.stdout.write(f"{path}\n")
    app = make_app()
    PIECES.mkdir(exist_ok=True)
    for piece in family("made"):
        path = PIECES / f"{piece.id.removeprefix('made.')}.png"
        piece_picture(piece.id).save(str(path))
        sys.stdout.write(f"{path}\n")
    app.quit()


if __name__ == "__main__":
    main()
