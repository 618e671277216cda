"""Writes the corpus of the fuzz trials: small whole files of every kind, from the program and its libraries."""

from __future__ import annotations

import io
import json
from pathlib import Path

import cv2
import msgspec
import numpy as np
import OpenEXR
import tifffile
import trimesh
from PIL import Image

from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.job.scene import Laid, Part, Piece, Scene
from brave_tessel.core.operation import find
from brave_tessel.core.recipe.materials import MATERIALS
from brave_tessel.engine.intents.recipes import encode_recipe
from brave_tessel.engine.journal_lines import differences, head_line, line_of
from brave_tessel.engine.library.kits import encode_kit
from brave_tessel.engine.library.shipped_demo import shipped_demo
from brave_tessel.engine.library.shipped_kits import shipped_kits
from brave_tessel.engine.place.starters import room_corner
from brave_tessel.formats.documents import encode_job
from brave_tessel.formats.images import encode_png
from brave_tessel.formats.job_file import save_job

from .targets import CORPUS

COMMANDS = """repeat photo.png --size 600x400mm --out out
repeat photo.png --size 600x400mm --method courses --unit 75mm --px 64 --out out --json
straighten photo.png --corners 0,0;9,0;9,9;0,9 --width 1200mm --out out.png
recipe Oyster terrazzo --px 64 --seed 3 --set large cells/size=25mm --out out
recipe --list --json
gather . --json
export job.tessel --surface Wall --px 64 --out out
scene job.tessel --px 64 --out out.glb
check job.tessel --json --strict
list job.tessel --json
"""
TYPED = """3 mm
1/4 in
34*75
600x400mm
600 × 400 mm
1 200 mm
2.5 cm + 1/8"
-0.5
45°
30 %
3:2
#336699
#336699@0.4,#FFFFFF
400×200, 200×200
"""
DRAWING = """<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 20 10">
<defs><g id="g"><circle cx="3" cy="3" r="2"/></g></defs>
<path d="M0 0 L10 0 A5 5 0 0 1 10 8 C8 9 3 9 0 8 Z" transform="rotate(10) scale(1.2)"/><use href="#g" x="5"/>
<text x="1" y="1">a</text><style>path{fill:#333}</style><rect width="3" height="4" rx="1"/></svg>"""


def write(door: str, name: str, data: bytes | str) -> None:
    path = CORPUS / door / name
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_bytes(data.encode() if isinstance(data, str) else data)


def pictures() -> None:
    random = np.random.default_rng(3)
    codes = random.integers(0, 256, (12, 17, 3)).astype(np.uint8)
    for kind in ("JPEG", "WEBP", "BMP", "GIF"):
        file = io.BytesIO()
        Image.fromarray(codes).save(file, kind)
        write("picture", f"a.{kind.lower()}", file.getvalue())
    write("picture", "a.png", encode_png(codes, width_mm=100, height_mm=60))
    write("picture", "deep.png", encode_png(codes.astype(np.uint16) * 257))
    for name, more in (("a.tif", {}), ("tiled.tif", {"tile": (16, 16), "compression": "zlib"})):
        file = io.BytesIO()
        tifffile.imwrite(file, codes.astype(np.uint16) * 257, photometric="rgb", **more)
        write("picture", name, file.getvalue())
    light = random.random((12, 17, 3)).astype(np.float32)
    path = CORPUS / "picture" / "a.exr"
    OpenEXR.File({"compression": OpenEXR.ZIP_COMPRESSION, "type": OpenEXR.scanlineimage}, {"RGB": light}).write(
        str(path)
    )
    write("picture", "a.hdr", cv2.imencode(".hdr", light)[1].tobytes())


def main() -> None:
    demo = shipped_demo()
    small = [msgspec.structs.replace(surface, layers=surface.layers[:3]) for surface in demo.job.surfaces]
    for index, surface in enumerate(small[:5]):
        job = msgspec.structs.replace(demo.job, surfaces=(surface,), sources=(), deliveries=())
        save_job(Path(CORPUS / "job" / f"{index}.tessel"), job, {})
        write("tree", f"{index}.json", json.dumps(json.loads(encode_job(job)), separators=(",", ":")))
    plain = msgspec.structs.replace(demo.job, surfaces=(small[0],), sources=(), deliveries=())
    changed = msgspec.structs.replace(plain, name="Changed", surfaces=(small[0], small[1]))
    write("journal", "a.journal", head_line(plain, "/x.tessel") * 2 + line_of(differences(plain, changed)))
    pictures()
    box = trimesh.creation.box((3, 2, 1))
    for kind in ("obj", "glb", "ply", "stl"):
        made = box.export(file_type=kind)
        write("model", f"a.{kind}", made)
    for kind in ("obj", "glb", "ply", "stl", "off", "dae"):
        write("placing", f"a.{kind}", box.export(file_type=kind))
    scene = msgspec.structs.replace(plain, surfaces=(), scene=room_corner(["a", "b"]))
    write("scene", "0.json", json.dumps(json.loads(encode_job(scene)), separators=(",", ":")))
    parts = tuple(
        Part(id=op, name=op, piece=Piece(op=op, values=find(op).defaults()),
             laid=(Laid(id="l", laying=Setting(op=f"laying.{laying}", values=find(f"laying.{laying}").defaults())),))
        for op, laying in (("made.arch", "path"), ("made.column", "around"), ("made.cloth", "unwrapped"),
                           ("made.dome", "around"), ("made.roof", "flat"), ("made.box", "all_round"))
    )  # fmt: skip
    many = msgspec.structs.replace(plain, surfaces=(), scene=Scene(parts=parts))
    write("scene", "1.json", json.dumps(json.loads(encode_job(many)), separators=(",", ":")))
    write("drawing", "a.svg", DRAWING)
    for index, stock in enumerate(MATERIALS[:6]):
        write("recipe", f"{index}.json", encode_recipe(stock.name, stock.repeat_mm, stock.make()))
    for index, kit in enumerate(shipped_kits()[:5]):
        write("kit", f"{index}.json", encode_kit(kit))
    frames = [{"file": f"{n}.png", "light": [0.1 * n, 0.5, 0.7]} for n in range(8)]
    write("lights", "a.json", json.dumps({"size_mm": [10, 20], "frames": frames}))
    write("commands", "lines.txt", COMMANDS)
    write("typed", "lines.txt", TYPED)


if __name__ == "__main__":
    main()
