"""The command line, on the same core as the window."""

from __future__ import annotations

import argparse
import gc
import os
import sys
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from importlib import import_module
from pathlib import Path
from typing import Any

from .. import __version__
from ..core.errors import CancelledError, RefusedError, TesselError
from ..engine.wording import sentence
from .mendings import MENDINGS
from .numbers import Parser, length, number, place, px
from .said import Progress, warn


@contextmanager
def _loading() -> Iterator[None]:
    """Modules stay: looking through them for what can go would take a fifth of the time they need."""
    collects = gc.isenabled()
    gc.disable()
    try:
        yield
    finally:
        gc.freeze()
        if collects:
            gc.enable()


def _add_json(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--json", action="store_true", help="machine-readable result on standard output")


def _declare_repeat(repeat: argparse.ArgumentParser) -> None:
    repeat.add_argument("photo", type=place)
    about = "real size of the picture, as in 600x400mm; follows from --unit where that is given"
    repeat.add_argument("--size", default="", help=about)
    repeat.add_argument("--method", choices=tuple(MENDINGS), default="best-cut")
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
    repeat.add_argument("--out", type=place, required=True)
    _add_json(repeat)


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
    _add_json(straight)


@dataclass(frozen=True, slots=True)
class _Verb:
    """A command: where it is, what it says of itself, and how its arguments are declared. Its module is brought in
    only once it is asked for, since everything together takes as long as a small piece of work.
    """

    run: str
    help: str
    declare: Callable[[argparse.ArgumentParser], None] | str
    """A function, or the name of one in the command's module."""

    def found(self, name: str) -> Any:
        """Something of the command's module."""
        with _loading():
            module = import_module(f".{self.run.partition('.')[0]}", __package__)
        return getattr(module, name)

    def prepare(self, parser: argparse.ArgumentParser) -> None:
        """Declare its arguments and what it runs."""
        (self.found(self.declare) if isinstance(self.declare, str) else self.declare)(parser)
        parser.set_defaults(run=self.found(self.run.partition(".")[2]))


def _declare_open(window: argparse.ArgumentParser) -> None:
    window.add_argument("path", type=place, nargs="?")


def _declare_demo(demo: argparse.ArgumentParser) -> None:
    demo.add_argument("--out", type=place, default=Path("saltreach.tessel"))
    demo.add_argument("--open", action="store_true")


def _declare_gather(gather: argparse.ArgumentParser) -> None:
    gather.add_argument("folder", type=place)
    _add_json(gather)


def _declare_export(export: argparse.ArgumentParser) -> None:
    export.add_argument("job", type=place)
    export.add_argument("--surface", required=True)
    export.add_argument("--px", type=px(), default=2048)
    export.add_argument("--out", type=place, required=True)
    _add_json(export)


def _declare_scene(scene: argparse.ArgumentParser) -> None:
    scene.add_argument("job", type=place)
    scene.add_argument("--px", type=px(), default=1024)
    scene.add_argument("--out", type=place, required=True)


def _declare_check(check: argparse.ArgumentParser) -> None:
    check.add_argument("--strict", action="store_true", help="cautions count as findings too")
    _declare_list(check)


def _declare_list(listing: argparse.ArgumentParser) -> None:
    listing.add_argument("job", type=place)
    _add_json(listing)


VERBS = {
    "open": _Verb("jobs.window", "Open the window, with a job or a picture.", _declare_open),
    "demo": _Verb("jobs.demo", "Write the demo job, or open it in the window.", _declare_demo),
    "repeat": _Verb("photos.repeat", "Make a photo tile and write its maps.", _declare_repeat),
    "straighten": _Verb(
        "photos.straighten_photo",
        "Straighten a photo by four corners; the proportion follows from the view.",
        _declare_straighten,
    ),
    "recipe": _Verb("recipe.run", "List stock recipes, or write the maps of one.", "declare"),
    "gather": _Verb(
        "folders.gather",
        "Group the pictures of a folder into map sets, tell of its meshes and frames, say what each is.",
        _declare_gather,
    ),
    "export": _Verb("jobs.export", "Write the maps of a surface.", _declare_export),
    "scene": _Verb("jobs.scene", "Write the scene as glTF 2.0 binary.", _declare_scene),
    "place": _Verb("place.run_place", "Bring a model into a job's scene and say what came.", "declare_place"),
    "lay": _Verb("place.run_lay", "Lay a surface on a part of a job's scene.", "declare_lay"),
    "elevation": _Verb(
        "fitting.run_elevation",
        "Count a part's courses and units, and write its setting-out sheet.",
        "declare_elevation",
    ),
    "fit": _Verb("fitting.run_fit", "Let courses fit between two levels, or list the ways.", "declare_fit"),
    "picture": _Verb(
        "pictures.run_picture", "Make a still of the scene or of a surface, by light paths.", "declare_picture"
    ),
    "check": _Verb("jobs.check", "Check every surface of a job; exit 1 where something is broken.", _declare_check),
    "list": _Verb("jobs.list_job", "List surfaces, layers and parts of a job.", _declare_list),
}


def _parser(asked: str) -> argparse.ArgumentParser:
    """All commands by name, and the arguments of the one that is asked for."""
    parser = Parser(prog="brave-tessel", description="Seamless surfaces that know their real size.")
    parser.add_argument("--version", action="version", version=__version__)
    verbs = parser.add_subparsers(dest="verb", required=True)
    for name, verb in VERBS.items():
        made = verbs.add_parser(name, help=verb.help, description=verb.help)
        if name == asked:
            verb.prepare(made)
    return parser


def main(arguments: Sequence[str] | None = None) -> int:
    """Run one command.

    Returns 0 when it is done, 1 for a finding or a refusal, 2 for wrong input and 3 when stopped; all but the first
    with a sentence on standard error.
    """
    progress = Progress()
    try:
        given = list(sys.argv[1:] if arguments is None else arguments)
        asked = next((one for one in given if not one.startswith("-")), "")
        options = _parser(asked).parse_args(given)
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
