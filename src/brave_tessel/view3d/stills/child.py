"""The path tracer's own process: reads a scene from a folder, adds up passes, tells of each.

Run as ``python -m brave_tessel.view3d.stills.child FOLDER SAMPLES``. It can be ended at any time: what was added up
stays in the folder, and is gone on with when it is run again. A fault in it costs a still, not the job.
"""

from __future__ import annotations

import glob
import json
import os
import sys
from pathlib import Path
from typing import Any

import numpy as np

PASS = 8
"""Samples in one pass; each other number would be compiled anew."""
DEPTH = 6
_LIBRARIES = ("/usr/lib/*/libLLVM*.so*", "/usr/lib/llvm-*/lib/libLLVM*.so*", "/usr/lib64/libLLVM*.so*")
LEAST_LLVM = 17


def find_llvm() -> str:
    """A compiler library that is new enough; empty where there is none."""
    found = []
    for pattern in _LIBRARIES:
        for path in glob.glob(pattern):
            digits = "".join(c if c.isdigit() else " " for c in Path(path).name).split()
            if digits and int(digits[0]) >= LEAST_LLVM:
                found.append((int(digits[0]), path))
    return max(found)[1] if found else ""


def choose_variant(mi: Any) -> str:
    """The compiled back end where it can run, the plain one elsewhere."""
    library = os.environ.get("DRJIT_LIBLLVM_PATH") or find_llvm()
    if library and "llvm_ad_rgb" in mi.variants() and not os.environ.get("BRAVE_TESSEL_PLAIN_TRACER"):
        os.environ["DRJIT_LIBLLVM_PATH"] = library
        mi.set_variant("llvm_ad_rgb")
        return "compiled"
    mi.set_variant("scalar_rgb")
    return "plain"


def load(mi: Any, folder: Path, told: dict[str, Any]) -> Any:
    """The scene as the tracer takes it."""
    scene: dict[str, Any] = {"type": "scene", "integrator": _integrator(told)}
    scene["sensor"] = {
        "type": "perspective",
        "fov": told["field_of_view"],
        "fov_axis": "y",
        "near_clip": 0.01,
        "far_clip": 1e5,
        "to_world": mi.ScalarTransform4f().look_at(origin=told["eye"], target=told["toward"], up=[0, 0, 1]),
        "film": {
            "type": "hdrfilm",
            "width": told["width"],
            "height": told["height"],
            "pixel_format": "rgba",
            "rfilter": {"type": "gaussian"},
        },
        "sampler": {"type": "independent", "sample_count": PASS},
    }
    sky = np.load(folder / "sky.npy")
    turn = mi.ScalarTransform4f().rotate([1, 0, 0], 90)
    scene["sky"] = {"type": "envmap", "bitmap": mi.Bitmap(sky), "to_world": turn}
    if max(told["sun_radiance"]) > 0:
        # A ball so far away that its light is even over the scene, of the sun's angular size.
        away = 400.0 * max(told["radius"], 1.0)
        place = [away * v for v in told["sun"]]
        scene["sun"] = {
            "type": "sphere",
            "center": place,
            "radius": away * np.tan(told["sun_radius"]),
            "emitter": {"type": "area", "radiance": {"type": "rgb", "value": told["sun_radiance"]}},
        }
    for number, material in enumerate(told["materials"]):
        scene[f"mesh{number}"] = _mesh(mi, folder, number, _bsdf(mi, folder, material), material)
    return mi.load_dict(scene)


def _integrator(told: dict[str, Any]) -> dict[str, Any]:
    return {"type": "path", "max_depth": DEPTH, "rr_depth": 4, "hide_emitters": told["open_ground"]}


_GUIDES = {"type": "aov", "aovs": "a:albedo,n:sh_normal,d:depth"}


def _picture(mi: Any, folder: Path, name: str, *, raw: bool, channels: slice | int = slice(0, 3)) -> dict[str, Any]:
    pixels = np.load(folder / name)
    part = pixels[..., channels]
    if part.ndim == 2:
        part = part[..., None]
    bitmap = mi.Bitmap(np.ascontiguousarray(part))
    bitmap.set_srgb_gamma(not raw)
    return {"type": "bitmap", "bitmap": bitmap, "raw": raw, "wrap_mode": "repeat"}


def _bsdf(mi: Any, folder: Path, material: dict[str, Any]) -> dict[str, Any]:
    if not material["base"]:
        colour = {"type": "rgb", "value": material["colour"]}
        return {
            "type": "twosided",
            "b": {"type": "principled", "base_color": colour, "roughness": 0.75, "specular": 0.5},
        }
    made: dict[str, Any] = {
        "type": "principled",
        "base_color": _picture(mi, folder, material["base"], raw=False),
        "roughness": _picture(mi, folder, material["orm"], raw=True, channels=1),
        "metallic": _picture(mi, folder, material["orm"], raw=True, channels=2),
        "specular": 0.5,
    }
    if material["lacquer"]:
        made["clearcoat"] = _picture(mi, folder, material["lacquer"], raw=True, channels=0)
        made["clearcoat_gloss"] = 0.95
        sheen = np.load(folder / material["sheen"])
        made["sheen"] = float(sheen[..., :3].max() > 0)
        made["sheen_tint"] = 0.5
    made = _faced(mi, folder, material["normal"], made)
    if material["lacquer"] and sheen[..., 3].max() > 0:
        made = _under_water(mi, folder, material, made)
    two: dict[str, Any] = {"type": "twosided", "b": made}
    if material["cut"]:
        return {"type": "mask", "opacity": _picture(mi, folder, material["base"], raw=True, channels=3), "b": two}
    return two


def _faced(mi: Any, folder: Path, normal: str, body: dict[str, Any]) -> dict[str, Any]:
    return {"type": "normalmap", "normalmap": _picture(mi, folder, normal, raw=True), "b": body}


def _under_water(mi: Any, folder: Path, material: dict[str, Any], ground: dict[str, Any]) -> dict[str, Any]:
    """Where the coat is water, a smooth face of index 1.333 over the colour beneath, level as the water is."""
    water = {
        "type": "principled",
        "base_color": _picture(mi, folder, material["base"], raw=False),
        "roughness": _picture(mi, folder, material["lacquer"], raw=True, channels=1),
        "eta": 1.333,
    }
    weight = _picture(mi, folder, material["sheen"], raw=True, channels=3)
    return {"type": "blendbsdf", "weight": weight, "a": ground, "b": _faced(mi, folder, material["face"], water)}


def _mesh(mi: Any, folder: Path, number: int, bsdf: dict[str, Any], material: dict[str, Any]) -> Any:
    held = np.load(folder / f"mesh-{number}.npz")
    corners, faces = held["corners"], held["faces"]
    props = mi.Properties()
    props["bsdf"] = mi.load_dict(bsdf)
    if material["glow"] and np.load(folder / material["glow"]).max() > 0:
        glow = _picture(mi, folder, material["glow"], raw=False)
        props["emitter"] = mi.load_dict({"type": "area", "radiance": glow})
    mesh = mi.Mesh(
        f"mesh{number}", len(corners), len(faces) // 3, has_vertex_normals=True, has_vertex_texcoords=True, props=props
    )
    values = mi.traverse(mesh)
    values["vertex_positions"] = np.ascontiguousarray(corners[:, :3]).ravel()
    values["vertex_normals"] = np.ascontiguousarray(corners[:, 3:6]).ravel()
    # Pictures count v downwards.
    values["vertex_texcoords"] = np.ascontiguousarray(np.stack([corners[:, 6], 1 - corners[:, 7]], 1)).ravel()
    values["faces"] = faces
    values.update()
    return mesh


def main(folder: Path, samples: int) -> None:
    """Trace until so many samples are there."""
    import mitsuba as mi

    told = json.loads((folder / "scene.json").read_text(encoding="utf-8"))
    back_end = choose_variant(mi)
    _say(back_end=back_end)
    scene = load(mi, folder, told)
    sums, count = _begun(folder)
    guides = None if sums is None else sums[..., 4:] / count
    if guides is None:
        guides = np.array(
            mi.render(scene, integrator=mi.load_dict(_GUIDES), spp=PASS, seed=mi.UInt32(1 << 20)), np.float64
        )
    while count * PASS < samples:
        # Beside each pass go the guides, the same each time, so that one file holds all.
        picture = np.concatenate([np.array(mi.render(scene, spp=PASS, seed=mi.UInt32(count)), np.float64), guides], -1)
        # A single path that meets a lamp in a mirror would sparkle for long.
        picture = _calmed(np.nan_to_num(picture))
        sums = picture if sums is None else sums + picture
        count += 1
        _put(folder, sums, count)
        _say(samples=count * PASS)


def _calmed(picture: Any) -> Any:
    """A pass without its fireflies: no pixel is more than some times as bright as its neighbourhood's middle."""
    light = picture[..., :3].sum(-1)
    padded = np.pad(light, 2, mode="edge")
    rows, columns = light.shape
    around = np.stack([padded[r : r + rows, c : c + columns] for r in range(0, 5, 2) for c in range(0, 5, 2)])
    most = 8 * np.median(around, 0) + 0.3 * np.median(light) + 1e-6
    picture[..., :3] *= np.minimum(1, most / np.maximum(light, 1e-9))[..., None]
    return picture


def _begun(folder: Path) -> tuple[Any, int]:
    path = folder / "sum.npz"
    if not path.exists():
        return None, 0
    held = np.load(path)
    return held["sums"], int(held["count"])


def _put(folder: Path, sums: Any, count: int) -> None:
    made = folder / "next.npz"
    with made.open("wb") as file:
        np.savez(file, sums=sums.astype(np.float32), count=count)
    made.replace(folder / "sum.npz")


def _say(**told: object) -> None:
    sys.stdout.write(json.dumps(told) + "\n")
    sys.stdout.flush()


if __name__ == "__main__":
    main(Path(sys.argv[1]), int(sys.argv[2]))
