"""The command that makes stills."""

from __future__ import annotations

import argparse
import time

from ..core.errors import NotUnderstoodError, OutOfRangeError
from ..engine.session import Session
from ..formats.job_file import load_job
from ..view3d.samples import SAMPLES
from ..view3d.stills.files import write_still
from ..view3d.stills.make import finish_of, make_still, of_board, of_contact, of_scene, of_surface
from .numbers import place, px, whole
from .said import Progress, say, warn

_MOST = 16_384


def _size(text: str) -> tuple[int, int]:
    parts = text.lower().replace("×", "x").split("x")
    if len(parts) != 2 or not all(part.strip().isdigit() for part in parts):
        raise NotUnderstoodError("size", value=text, allowed="pixels, as in 900x600")
    width, height = (int(part) for part in parts)
    if not (8 <= width <= _MOST and 8 <= height <= _MOST):
        raise OutOfRangeError("size", value=text, allowed=f"8 to {_MOST} pixels each way")
    return width, height


def declare_picture(parser: argparse.ArgumentParser) -> None:
    """Arguments of ``picture``."""
    parser.add_argument("job", type=place)
    which = parser.add_mutually_exclusive_group()
    which.add_argument("--view", default="", help="a kept view of the scene, by its name; else the first one")
    about = "a surface by its name, on a solid; several on a board of samples"
    which.add_argument("--contact", action="store_true", help="every surface flat on one sheet, with name and size")
    which.add_argument("--surface", action="append", default=[], help=about)
    parser.add_argument(
        "--solid", choices=[name.lower() for name in SAMPLES], default="ball", help="what the surface is on"
    )
    parser.add_argument("--size", type=_size, default=(900, 600), help="pixels, as in 900x600")
    parser.add_argument("--samples", type=whole("samples", 1, 65_536), default=64, help="light paths a pixel")
    parser.add_argument("--px", type=px(), default=1024, help="pixels of each surface's longer side")
    parser.add_argument("--depth", type=int, choices=(8, 16), default=8, help="bits a channel of PNG")
    parser.add_argument("--open-ground", action="store_true", help="transparent where nothing is")
    parser.add_argument("--caption", action="store_true", help="its name and, of a surface, a scale bar")
    parser.add_argument("--out", type=place, required=True, help="PNG, or EXR with layers")
    parser.add_argument("--json", action="store_true", help="machine-readable result on standard output")


def run_picture(options: argparse.Namespace, progress: Progress) -> None:
    """Trace a still and write it."""
    snapshot = Session(load_job(options.job)).snapshot()
    begun = time.monotonic()
    progress("Work out the surfaces", 0.05)
    surfaces = [snapshot.job.surface_named(name) for name in options.surface]
    if options.contact:
        wanted = of_contact(snapshot, snapshot.job.surfaces, options.size, px=options.px, current=lambda: True)
    elif len(surfaces) > 1:
        wanted = of_board(snapshot, surfaces, options.size, px=options.px, current=lambda: True)
    elif surfaces:
        surface = surfaces[0]
        wanted = of_surface(snapshot, surface, options.solid.capitalize(), options.size, px=options.px)
    else:
        wanted = of_scene(snapshot, options.view, options.size, px=options.px, current=lambda: True)

    def told(now: object) -> None:
        samples = getattr(now, "samples", 0)
        progress(
            f"{samples} of {options.samples} samples, {getattr(now, 'left', 0):.0f} s left", samples / options.samples
        )

    still, sentence = make_still(wanted, options.samples, told, lambda: True, open_ground=options.open_ground)
    finish = finish_of(wanted, still, depth=options.depth, open_ground=options.open_ground, captioned=options.caption)
    write_still(options.out, still, finish)
    progress.end()
    if sentence:
        warn(sentence)
    say(
        {"file": str(options.out), "samples": still.samples, "seconds": round(time.monotonic() - begun, 1)},
        f"{options.out}: {options.size[0]} × {options.size[1]}, {still.samples} samples",
        as_json=options.json,
    )
