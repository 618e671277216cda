"""The command line, on the same core as the window."""

from __future__ import annotations

import argparse
import os
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from .. import __version__
from ..core.errors import CancelledError, RefusedError, TesselError
from ..engine.wording import sentence
from . import fitting, jobs, photos, pictures, recipe
from . import place as placing
from .numbers import Parser, length, number, place, px
from .said import Progress, say, warn


def _declare_repeat(repeat: argparse.ArgumentParser) -> None:
    repeat.add_argument("photo", type=place)
    about = "real size of the picture, as in 600x400mm; follows from --unit where that is given"
    repeat.add_argument("--size", default="", help=about)
    repeat.add_argument("--method", choices=tuple(photos.METHODS), default="best-cut")
    repeat.add_argument(
        "--unit",
        type=length("unit"),
        default=0.0,
        help="known spacing of courses, as in 75mm; sizes the whole sheet (courses)",
    )
    repeat.add_argument(
        "--overlap",
        type=number("overlap", 0, 100_000),
        default=0.0,
        help="mm; by default 15 %% of the shorter side, 48 at most",
    )
    repeat.add_argument(
        "--even",
        type=number("even", 0, 1),
        default=None,
        help="how much uneven light is taken out, 0 to 1; by default all of a lamp's slow fall-off, and nothing else",
    )
    repeat.add_argument(
        "--chart", type=place, help="a photo of a 24-patch colour chart in the same light; it makes the colours true"
    )
    repeat.add_argument("--px", type=px(), default=0, help="pixels of the longer side; by default the photo's own")


def _declare_straighten(straight: argparse.ArgumentParser) -> None:
    straight.add_argument("photo", type=place)
    straight.add_argument(
        "--corners", required=True, help="x,y;x,y;x,y;x,y: top left, top right, bottom right, bottom left, in pixels"
    )
    straight.add_argument(
        "--width", type=length("width"), default=0.0, help="real width of the rectangle, as in 1200mm"
    )
    straight.add_argument(
        "--height", type=length("height"), default=0.0, help="real height; with --width the proportion is as you say"
    )
    straight.add_argument(
        "--focal", type=number("focal length", 4, 2000), default=0.0, help="mm as on 36 × 24 mm film, before the file's"
    )
    straight.add_argument("--out", type=place, required=True)
    straight.add_argument("--json", action="store_true", help="machine-readable result on standard output")


def _parser() -> argparse.ArgumentParser:
    parser = Parser(prog="brave-tessel", description="Seamless surfaces that know their real size.")
    parser.add_argument("--version", action="version", version=__version__)
    verbs = parser.add_subparsers(dest="verb", required=True)

    def verb(name: str, run: Any, help: str) -> argparse.ArgumentParser:
        made = verbs.add_parser(name, help=help, description=help)
        made.set_defaults(run=run)
        return made

    window = verb("open", jobs.window, "Open the window, with a job or a picture.")
    window.add_argument("path", type=place, nargs="?")
    demo = verb("demo", jobs.demo, "Write the demo job, or open it in the window.")
    demo.add_argument("--out", type=place, default=Path("saltreach.tessel"))
    demo.add_argument("--open", action="store_true")
    repeat = verb("repeat", photos.repeat, "Make a photo tile and write its maps.")
    _declare_repeat(repeat)
    about = "Straighten a photo by four corners; the proportion follows from the view."
    _declare_straighten(verb("straighten", photos.straighten_photo, about))
    recipe.declare(
        verb(
            "recipe",
            lambda options, progress: recipe.run(options, progress, say),
            "List stock recipes, or write the maps of one.",
        )
    )
    gather = verb("gather", photos.gather, "Group the pictures of a folder into map sets and say what each is.")
    gather.add_argument("folder", type=place)
    gather.add_argument("--json", action="store_true", help="machine-readable result on standard output")
    export = verb("export", jobs.export, "Write the maps of a surface.")
    export.add_argument("job", type=place)
    export.add_argument("--surface", required=True)
    export.add_argument("--px", type=px(), default=2048)
    scene = verb("scene", jobs.scene, "Write the scene as glTF 2.0 binary.")
    scene.add_argument("job", type=place)
    scene.add_argument("--px", type=px(), default=1024)
    for command in (repeat, export, scene):
        command.add_argument("--out", type=place, required=True)
    placing.declare_place(verb("place", placing.run_place, "Bring a model into a job's scene and say what came."))
    placing.declare_lay(verb("lay", placing.run_lay, "Lay a surface on a part of a job's scene."))
    about = "Count a part's courses and units, and write its setting-out sheet."
    fitting.declare_elevation(verb("elevation", fitting.run_elevation, about))
    fitting.declare_fit(verb("fit", fitting.run_fit, "Let courses fit between two levels, or list the ways."))
    about = "Make a still of the scene or of a surface, by light paths."
    pictures.declare_picture(verb("picture", pictures.run_picture, about))
    check = verb("check", jobs.check, "Check every surface of a job; exit 1 where something is broken.")
    check.add_argument("--strict", action="store_true", help="cautions count as findings too")
    listing = verb("list", jobs.list_job, "List surfaces, layers and parts of a job.")
    for command in (check, listing):
        command.add_argument("job", type=place)
    for command in (repeat, export, check, listing):
        command.add_argument("--json", action="store_true", help="machine-readable result on standard output")
    return parser


def main(arguments: Sequence[str] | None = None) -> int:
    """Run one command.

    Returns 0 when it is done, 1 for a finding or a refusal, 2 for wrong input and 3 when stopped; all but the first
    with a sentence on standard error.
    """
    progress = Progress()
    try:
        options = _parser().parse_args(arguments)
        code: int | None = options.run(options, progress)
        sys.stdout.flush()
    except RefusedError as error:
        return _told(progress, sentence(error), 1)
    except TesselError as error:
        return _told(progress, sentence(error), 2)
    except (KeyboardInterrupt, CancelledError):
        return _told(progress, "Stopped.", 3)
    except BrokenPipeError:
        # Whoever read has enough; what is still to be written goes nowhere.
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    return code or 0


def _told(progress: Progress, text: str, code: int) -> int:
    progress.end()
    warn(text)
    return code
