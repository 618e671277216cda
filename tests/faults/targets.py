"""What a fuzz trial is made on: every door by which something from outside comes in."""

from __future__ import annotations

import contextlib
import copy
import io
import json
import sys
import tempfile
from collections.abc import Callable
from pathlib import Path
from typing import Any

import msgspec
import numpy as np

from brave_tessel.cli.main import main
from brave_tessel.core.buildup.kinds.plain import PlainWhat
from brave_tessel.core.buildup.kinds.recipe import RecipeWhat
from brave_tessel.core.errors import TesselError
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, Surface
from brave_tessel.core.operation import REGISTRY
from brave_tessel.core.place.elevation import unroll
from brave_tessel.core.place.guess import guess
from brave_tessel.core.place.mend import health, mended
from brave_tessel.core.place.site import site_of
from brave_tessel.core.quantity import parse_angle, parse_length, parse_number, parse_ratio, parse_share, parse_size
from brave_tessel.engine.cache import Cache
from brave_tessel.engine.gather.rig import read_lights
from brave_tessel.engine.intents.recipes import decode_recipe
from brave_tessel.engine.journal_lines import replay
from brave_tessel.engine.library.kits import decode_kit, drop_kit
from brave_tessel.engine.place.bring import Brought, parts_of
from brave_tessel.engine.session import Session
from brave_tessel.formats.documents import read_tree
from brave_tessel.formats.drawings import outline_of
from brave_tessel.formats.images import decode_codes, decode_picture, read_header
from brave_tessel.formats.job_file import OpenedJob, load_job
from brave_tessel.formats.models import model_relief
from brave_tessel.formats.scene_models import read_model

CORPUS = Path(__file__).parent / "corpus"
Random = np.random.Generator
ODD: tuple[Any, ...] = (
    None, -1, 0, 1e308, -1e308, 2**63, "", "nan", "\0", "../../x", "x" * 5000, [], {}, [[]], True, 0.5, "#GGG", 1e-300,
)  # fmt: skip
ODD_NUMBERS = (0, -1, 1, 0.5, 1e308, -1e308, 1e-300, 1e9, -1e9, 2**31, 2**63, 1e4, 3, 0.01)
ODD_TEXTS = ("", "x", "nan", "../../x", "ü" * 500, "#000000", "#FFFFFF,#000000", "over", "tone", "units")
PX = 24


def mutated(data: bytes, random: Random) -> bytes:
    """Bytes changed, runs doubled, left out or swapped, the end cut off."""
    made = bytearray(data)
    for _ in range(int(random.integers(1, 9))):
        if not made:
            break
        at, run = int(random.integers(0, len(made))), int(random.integers(1, 60))
        how = int(random.integers(0, 6))
        if how < 3:
            made[at] = int(random.choice([0, 1, 32, 34, 48, 57, 127, 128, 255, int(random.integers(0, 256))]))
        elif how == 3:
            made[at:at] = made[at : at + run] * int(random.integers(1, 6))
        elif how == 4:
            del made[at : at + run]
        else:
            to = int(random.integers(0, len(made)))
            made[at : at + run], made[to : to + run] = made[to : to + run], made[at : at + run]
    return bytes(made[: int(random.integers(0, len(made) + 1))] if random.random() < 0.15 else made)


def mutated_tree(tree: Any, random: Random) -> Any:
    """A decoded document with a few values that nobody would write."""
    made = copy.deepcopy(tree)
    for _ in range(int(random.integers(1, 4))):
        holder, key = _place(made, random)
        if holder is not None:
            odd = _odd_like(holder[key], random)
            if random.random() < 0.2 and isinstance(holder, dict):
                del holder[key]
            else:
                holder[key] = copy.deepcopy(odd)
    return made


def _odd_like(value: Any, random: Random) -> Any:
    """Something odd in a value's place, mostly of its own kind, so that it comes further than the first check."""
    kinds: tuple[Any, ...] = ODD
    if random.random() < 0.75:
        if isinstance(value, int | float) and not isinstance(value, bool):
            kinds = ODD_NUMBERS
        elif isinstance(value, str):
            kinds = ODD_TEXTS
    return kinds[int(random.integers(0, len(kinds)))]


def _place(tree: Any, random: Random) -> tuple[Any, Any]:
    """Some place in a tree, deep ones as likely as shallow ones."""
    holder, key, node = None, None, tree
    while isinstance(node, dict | list) and node and not (holder is not None and random.random() < 0.12):
        keys = list(node) if isinstance(node, dict) else range(len(node))
        holder, key = node, list(keys)[int(random.integers(0, len(keys)))]
        node = node[key]
    return holder, key


# Doors -------------------------------------------------------------------------------------------------


def _look(job: Job, blobs: dict[str, bytes], random: Random) -> None:
    """Make a small picture of one surface of a job that was read."""
    if not job.surfaces:
        return
    surface = job.surfaces[int(random.integers(0, len(job.surfaces)))]
    Session(OpenedJob(job, blobs), cache=Cache(64 << 20)).snapshot().finished(surface, PX)


def try_job(data: bytes, random: Random) -> None:
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "a.tessel"
        path.write_bytes(mutated(data, random))
        opened = load_job(path)
    _look(opened.job, opened.blobs, random)


def try_tree(data: bytes, random: Random) -> None:
    try:
        job = read_tree(mutated_tree(json.loads(data), random), Job)
    except (msgspec.ValidationError, ValueError, TypeError, KeyError, AttributeError):
        return  # a job file tells these as one sentence
    _look(job, {}, random)


def try_journal(data: bytes, random: Random) -> None:
    found = replay(mutated(data, random))
    if found is not None:
        _look(found[0], {}, random)


def try_picture(data: bytes, random: Random, name: str = "a.x") -> None:
    bad = mutated(data, random)
    read_header(bad, name)
    decode_picture(bad, name)
    decode_codes(bad, name)


def try_model(data: bytes, random: Random) -> None:
    model_relief(mutated(data, random), "a.obj")


def try_placing(data: bytes, random: Random) -> None:
    """A model of any kind: read, told what is wrong with it, mended, and set up."""
    found = read_model(mutated(data, random), f"a.{('obj', 'gltf', 'off', 'dae', 'stl')[int(random.integers(0, 5))]}")
    told = guess([(node.name, found.shapes[node.shape]) for node in found.nodes], unit_mm=found.unit_mm, up=found.up)
    for mesh in found.shapes:
        if mesh.count < 20_000:
            mended(mesh, health(mesh).wanted())
    parts_of(Brought("", "a", "b", found, told, {}))


def try_scene(data: bytes, random: Random) -> None:
    """A scene with odd values: everything stands, lies and is drawn, or is told."""
    try:
        job = read_tree(mutated_tree(json.loads(data), random), Job)
    except (msgspec.ValidationError, ValueError, TypeError, KeyError, AttributeError):
        return  # a job file tells these as one sentence
    site = site_of(job)
    for one in site.standing:
        for row in range(len(one.part.laid)):
            with contextlib.suppress(TesselError):
                site.coordinates(one, row)
    for part in job.scene.parts[:4]:
        with contextlib.suppress(TesselError):
            unroll(site, part.id)


def try_drawing(data: bytes, random: Random) -> None:
    outline_of(mutated(data, random), "a.svg")


def _surface(*layers: Layer) -> Surface:
    return Surface(id="s", name="s", width_mm=200.0, height_mm=150.0, layers=layers)


def _document(data: bytes, random: Random) -> bytes:
    """A document damaged as text, or with odd values in it."""
    if random.random() < 0.3:
        return mutated(data, random)
    return json.dumps(mutated_tree(json.loads(data), random)).encode()


def try_recipe(data: bytes, random: Random) -> None:
    file = decode_recipe(_document(data, random), "a.json")
    _look(Job(surfaces=(_surface(Layer(id="l", name="l", what=RecipeWhat(recipe=file.recipe))),)), {}, random)


def try_kit(data: bytes, random: Random) -> None:
    kit = decode_kit(_document(data, random), "a.json")
    job = Job(surfaces=(_surface(Layer(id="g", name="g", what=PlainWhat())),))
    command, _, _ = drop_kit(job, job.surfaces[0], kit, above="g")
    _look(command.apply(job), {}, random)


def try_lights(data: bytes, random: Random) -> None:
    read_lights(mutated(data, random))


def try_command_line(data: bytes, random: Random) -> None:
    lines = data.decode().splitlines()
    words = lines[int(random.integers(0, len(lines)))].split(" ")
    at = int(random.integers(0, len(words)))
    odd = mutated(words[at].encode() or b"x", random).decode("utf-8", "replace").replace("\0", "")
    words[at] = odd if random.random() < 0.7 else str(ODD[int(random.integers(0, len(ODD)))])
    with tempfile.TemporaryDirectory() as folder, contextlib.chdir(folder):
        heard, said = io.StringIO(), io.StringIO()
        with contextlib.redirect_stderr(heard), contextlib.redirect_stdout(said):
            try:
                code = main(words)
            except SystemExit as ended:
                code = ended.code or 0
    if code not in {0, 1, 2, 3} or "Traceback" in heard.getvalue():
        raise AssertionError(f"{words!r} ended with {code}: {heard.getvalue()[-400:]}")


READERS: tuple[Callable[[str], Any], ...] = (
    parse_length, parse_size, parse_angle, parse_share, parse_number, parse_ratio,
)  # fmt: skip


def try_typed_text(data: bytes, random: Random) -> None:
    lines = data.decode().splitlines()
    text = mutated(lines[int(random.integers(0, len(lines)))].encode(), random).decode("utf-8", "replace")
    for read in READERS:
        with contextlib.suppress(TesselError):
            read(text)
    operation = list(REGISTRY.values())[int(random.integers(0, len(REGISTRY)))]
    for param in operation.params.values():
        with contextlib.suppress(TesselError):
            param.check(text)


DOORS: dict[str, Callable[[bytes, Random], None]] = {
    "job": try_job,
    "tree": try_tree,
    "journal": try_journal,
    "picture": try_picture,
    "model": try_model,
    "placing": try_placing,
    "scene": try_scene,
    "drawing": try_drawing,
    "recipe": try_recipe,
    "kit": try_kit,
    "lights": try_lights,
    "commands": try_command_line,
    "typed": try_typed_text,
}


def samples() -> dict[str, list[Path]]:
    """The corpus: whole files by the door they are for."""
    return {door: sorted((CORPUS / door).iterdir()) for door in DOORS}


def trial(number: int, seed: int) -> str:
    """One case; returns its door. Foreseen refusals are fine; anything else is raised."""
    random = np.random.default_rng([seed, number])
    found = samples()
    door = list(DOORS)[int(random.integers(0, len(DOORS)))]
    path = found[door][int(random.integers(0, len(found[door])))]
    try:
        with contextlib.redirect_stderr(io.StringIO()) if door == "commands" else contextlib.nullcontext():
            DOORS[door](path.read_bytes(), random)
    except TesselError:
        pass
    return door


if __name__ == "__main__":
    # One case by its number, as a finding names it.
    print(trial(int(sys.argv[1]), int(sys.argv[2])))
