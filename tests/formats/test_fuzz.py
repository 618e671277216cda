"""Every reader on damaged files: a picture, a model, a light file, a job, or a typed error; never anything else."""

import contextlib
import io
import json
import resource

import cv2
import msgspec
import numpy as np
import OpenEXR
import pytest
import tifffile
import trimesh
from PIL import Image

from brave_tessel.core.errors import TesselError
from brave_tessel.engine.gather.rig import read_lights
from brave_tessel.formats.exif import focal_px
from brave_tessel.formats.images import decode_codes, decode_picture, encode_png, read_header
from brave_tessel.formats.job_file import load_job, save_job
from brave_tessel.formats.models import model_relief
from brave_tessel.formats.profiles import linear_by_profile
from brave_tessel.formats.real_size import real_size

RNG = np.random.default_rng(7)
PICTURE = RNG.integers(0, 256, (21, 34, 3)).astype(np.uint8)
FEW, MANY = 60, 2000


def saved(kind, **more):
    file = io.BytesIO()
    Image.fromarray(PICTURE).save(file, kind, **more)
    return file.getvalue()


def tiff(pixels, **more):
    file = io.BytesIO()
    tifffile.imwrite(file, pixels, photometric="rgb", **more)
    return file.getvalue()


def exr(tmp_path):
    path = tmp_path / "a.exr"
    light = RNG.random((21, 34, 3)).astype(np.float32)
    OpenEXR.File({"compression": OpenEXR.ZIP_COMPRESSION, "type": OpenEXR.scanlineimage}, {"RGB": light}).write(
        str(path)
    )
    return path.read_bytes()


def model(kind):
    data = trimesh.creation.box((3, 2, 1)).export(file_type=kind)
    return data if isinstance(data, bytes) else data.encode()


SAMPLES = {
    "8 bit png": lambda _: encode_png(PICTURE, width_mm=100, height_mm=60),
    "16 bit png": lambda _: encode_png(PICTURE.astype(np.uint16) * 257),
    "jpeg": lambda _: saved("JPEG"),
    "tiff": lambda _: tiff(PICTURE),
    "16 bit tiff": lambda _: tiff(PICTURE.astype(np.uint16) * 257),
    "tiled tiff": lambda _: tiff(PICTURE.astype(np.uint16), tile=(16, 16), compression="zlib"),
    "webp": lambda _: saved("WEBP"),
    "bmp": lambda _: saved("BMP"),
    "tga": lambda _: saved("TGA"),
    "exr": exr,
    "hdr": lambda _: cv2.imencode(".hdr", PICTURE.astype(np.float32) / 99)[1].tobytes(),
    "obj": lambda _: model("obj"),
    "glb": lambda _: model("glb"),
    "ply": lambda _: model("ply"),
    "stl": lambda _: model("stl"),
    "lights": lambda _: json.dumps(
        {"size_mm": [10, 20], "frames": [{"file": "a.png", "light": [0, 0.5, 0.7]}] * 4}
    ).encode(),
}
MODELS = {"obj", "glb", "ply", "stl"}


def damaged(whole: bytes, rng) -> bytes:
    """Bytes changed, runs doubled or left out, the end cut off."""
    data = bytearray(whole)
    for _ in range(rng.integers(1, 8)):
        at = int(rng.integers(0, len(data)))
        how = rng.integers(0, 5)
        if how < 3:
            data[at] = int(rng.choice([0, 1, 127, 128, 255, rng.integers(0, 256)]))
        elif how == 3:
            data[at:at] = data[at : at + int(rng.integers(1, 40))]
        else:
            del data[at : at + int(rng.integers(1, 40))]
        if not data:
            return b""
    return bytes(data[: rng.integers(0, len(data) + 1)] if rng.random() < 0.2 else data)


def read(kind: str, data: bytes) -> None:
    name = f"a.{'tga' if kind == 'tga' else 'x'}"
    if kind in MODELS:
        field = model_relief(data, name)
        assert field.ndim == 3
        assert np.isfinite(field).all()
    elif kind == "lights":
        read_lights(data)
    else:
        read_header(data, name)
        made = decode_picture(data, name)
        assert made.ndim == 3
        assert made.shape[2] == 3
        assert np.isfinite(made).all()
        decode_codes(data, name)


def attack(kind, tmp_path, count):
    whole = SAMPLES[kind](tmp_path)
    read(kind, whole)
    rng = np.random.default_rng([len(kind), count])
    survived = 0
    for _ in range(count):
        data = damaged(whole, rng)
        try:
            read(kind, data)
            survived += 1
        except TesselError:
            pass
        if kind not in MODELS:
            # Side readers never fail at all.
            focal_px(data)
            real_size(data)
            linear_by_profile(np.zeros((2, 2, 3), np.uint16), data)
    return survived


@pytest.mark.filterwarnings("ignore")
@pytest.mark.parametrize("kind", SAMPLES)
def test_damaged_files_are_read_or_refused(kind, tmp_path):
    attack(kind, tmp_path, FEW)


@pytest.mark.slow
@pytest.mark.filterwarnings("ignore")
@pytest.mark.timeout(900)
@pytest.mark.parametrize("kind", SAMPLES)
def test_two_thousand_damaged_files_within_bounded_memory(kind, tmp_path):
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    attack(kind, tmp_path, MANY)
    assert resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before < 1 << 20


@pytest.mark.filterwarnings("ignore")
def test_damaged_jobs_are_opened_or_refused(demo, tmp_path):
    path = tmp_path / "demo.tessel"
    save_job(path, msgspec.structs.replace(demo.job, sources=()), {})
    whole = path.read_bytes()
    rng = np.random.default_rng(4)
    for _ in range(FEW):
        path.write_bytes(damaged(whole, rng))
        with contextlib.suppress(TesselError):
            load_job(path)
