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
DEPTH, LIKELY = 6, 2
"""How often a path goes on at most, and after how often it may end by chance, the likelier the less light it carries:
the same light in two thirds of the time, for a fifth more noise.
"""
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
        scene[f"mesh{number}"] = _mesh(mi, folder, number, material)
    return mi.load_dict(scene)


def _integrator(told: dict[str, Any]) -> dict[str, Any]:
    return {"type": "path", "max_depth": DEPTH, "rr_depth": LIKELY, "hide_emitters": told["open_ground"]}


_GUIDES = {"type": "aov", "aovs": "a:albedo,n:sh_normal,d:depth"}


class _Pictures:
    """A material's pictures out of the folder, turned so that u runs along its brushing: the tracer draws a lobe out
    along u. ``repeat`` is the size of a repeat, ``turn`` its angle from +x.
    """

    def __init__(self, mi: Any, folder: Path, material: dict[str, Any]) -> None:
        self._mi, self._folder, self._material = mi, folder, material
        self.turn = 0.0
        brushed = self.codes("brushed")
        if brushed is not None and brushed[..., 2].max() > 0:
            strength = brushed[..., 2].astype(np.float64)
            twice = [float(((brushed[..., k] / 127.5 - 1) * strength).sum()) for k in (0, 1)]
            self.turn = 0.5 * float(np.arctan2(twice[1], twice[0]))

    def codes(self, kind: str) -> Any:
        """(H, W, C) uint8, or None."""
        return np.load(self._folder / self._material[kind]) if self._material[kind] else None

    def of(self, kind: str, *, raw: bool, channels: slice | int = slice(0, 3)) -> dict[str, Any]:
        """One of them as a texture."""
        return self.texture(self.codes(kind)[..., channels], raw=raw)

    def share(self, kind: str, channel: int) -> Any:
        """One channel of one of them: a number where it is the same everywhere, as a texture elsewhere."""
        codes = self.codes(kind)[..., channel]
        return float(codes.flat[0]) / 255 if codes.min() == codes.max() else self.texture(codes)

    def texture(self, pixels: Any, *, raw: bool = True) -> dict[str, Any]:
        """Codes, or shares as float32, as a texture of this material."""
        bitmap = self._mi.Bitmap(np.ascontiguousarray(pixels[..., None] if pixels.ndim == 2 else pixels))
        bitmap.set_srgb_gamma(not raw)
        # Half floats hold every code, and half of them more fit into what is near the processor.
        made = {"type": "bitmap", "bitmap": bitmap, "raw": raw, "wrap_mode": "repeat", "format": "fp16"}
        if self.turn:
            made["to_uv"] = self._mi.ScalarTransform3f(self._back())
        return made

    def normal(self, kind: str) -> dict[str, Any]:
        """A normal map, its vectors turned with u."""
        codes = self.codes(kind)
        if not self.turn:
            return self.texture(codes)
        c, s = np.cos(self.turn), np.sin(self.turn)
        x, y = (codes[..., k] / np.float32(127.5) - 1 for k in (0, 1))
        turned = np.stack([c * x + s * y, c * y - s * x], -1) / 2 + 0.5
        return self.texture(np.concatenate([turned, codes[..., 2:] / np.float32(255)], -1).astype(np.float32))

    def _back(self) -> Any:
        """From places along and across the brushing, in widths of a repeat, to those of its pictures."""
        c, s = np.cos(self.turn), np.sin(self.turn)
        tall = self._material["repeat"][1] / self._material["repeat"][0]
        return np.array([[c, -s, 0.0], [-s / tall, -c / tall, 1.0], [0.0, 0.0, 1.0]])

    def places(self, places: Any) -> Any:
        """UVs (N, 2), v up, as this material's pictures are read by: pictures count v downwards."""
        if not self.turn:
            return np.stack([places[:, 0], 1 - places[:, 1]], 1)
        c, s = np.cos(self.turn), np.sin(self.turn)
        x, y = places[:, 0], places[:, 1] * self._material["repeat"][1] / self._material["repeat"][0]
        return np.stack([c * x + s * y, c * y - s * x], 1)


def _bsdf(own: _Pictures, material: dict[str, Any]) -> dict[str, Any]:
    if not material["base"]:
        colour = {"type": "rgb", "value": material["colour"]}
        return {
            "type": "twosided",
            "b": {"type": "principled", "base_color": colour, "roughness": 0.75, "specular": 0.5},
        }
    made: dict[str, Any] = {
        "type": "principled",
        "base_color": own.of("base", raw=False),
        "roughness": own.share("orm", 1),
        "metallic": own.share("orm", 2),
        "specular": 0.5,
    }
    if material["lacquer"]:
        # What a lobe is not told of it does not work out.
        if own.codes("lacquer")[..., 0].max() > 0:
            made |= {"clearcoat": own.share("lacquer", 0), "clearcoat_gloss": 0.95}
        sheen = own.codes("sheen")
        if sheen[..., :3].max() > 0:
            made |= {"sheen": 1.0, "sheen_tint": 0.5}
        made |= _brushing(own)
    made = {"type": "normalmap", "normalmap": own.normal("normal"), "b": made}
    if material["lacquer"] and sheen[..., 3].max() > 0:
        made = _under_water(own, made)
    two: dict[str, Any] = {"type": "twosided", "b": made}
    if material["lacquer"]:
        two = _seen_through(own, two)
    if material["cut"]:
        return {"type": "mask", "opacity": own.of("base", raw=True, channels=3), "b": two}
    return two


def _brushing(own: _Pictures) -> dict[str, Any]:
    """A lobe drawn out along u as far as KHR_materials_anisotropy draws it; the tracer's own goes to 1 : 10."""
    strength = own.codes("brushed")[..., 2] / 255.0
    if strength.max() <= 0:
        return {}
    orm = own.codes("orm")
    if strength.shape == (1, 1):
        strength = np.broadcast_to(strength, orm.shape[:2])
    across = np.maximum(orm[..., 1] / 255.0, 0.03) ** 2
    along = across + (1 - across) * strength**2
    share = np.clip((1 - across / along) / 0.9, 0, 1)
    rough = (across * along) ** 0.25
    return {"anisotropic": own.texture(share.astype(np.float32)), "roughness": own.texture(rough.astype(np.float32))}


def _seen_through(own: _Pictures, body: dict[str, Any]) -> dict[str, Any]:
    """What of the light goes through: straight as through a pane, or scattered as through a leaf."""
    scattered, straight = own.codes("lacquer")[..., 3] / 255.0, own.codes("brushed")[..., 3] / 255.0
    if max(scattered.max(), straight.max()) <= 0:
        return body
    if straight.shape == (1, 1):
        straight = np.broadcast_to(straight, scattered.shape)
    whole = np.clip(scattered + straight, 0, 1).astype(np.float32)
    thin = {
        "type": "principledthin",
        "base_color": own.of("base", raw=False),
        "roughness": own.of("orm", raw=True, channels=1),
        "spec_trans": own.texture((straight / np.maximum(scattered + straight, 1e-6)).astype(np.float32)),
        "diff_trans": 2.0,
        "eta": 1.5,
    }
    return {"type": "blendbsdf", "weight": own.texture(whole), "a": body, "b": thin}


def _under_water(own: _Pictures, ground: dict[str, Any]) -> dict[str, Any]:
    """Where the coat is water, a smooth face of index 1.333 over the colour beneath, level as the water is."""
    water = {
        "type": "principled",
        "base_color": own.of("base", raw=False),
        "roughness": own.of("lacquer", raw=True, channels=1),
        "eta": 1.333,
    }
    level = {"type": "normalmap", "normalmap": own.normal("face"), "b": water}
    return {"type": "blendbsdf", "weight": own.of("sheen", raw=True, channels=3), "a": ground, "b": level}


def _mesh(mi: Any, folder: Path, number: int, material: dict[str, Any]) -> Any:
    own = _Pictures(mi, folder, material)
    held = np.load(folder / f"mesh-{number}.npz")
    corners, faces = held["corners"], held["faces"]
    props = mi.Properties()
    props["bsdf"] = mi.load_dict(_bsdf(own, material))
    if material["glow"] and np.load(folder / material["glow"]).max() > 0:
        props["emitter"] = mi.load_dict({"type": "area", "radiance": own.of("glow", raw=False)})
    mesh = mi.Mesh(
        f"mesh{number}", len(corners), len(faces) // 3, has_vertex_normals=True, has_vertex_texcoords=True, props=props
    )
    values = mi.traverse(mesh)
    values["vertex_positions"] = np.ascontiguousarray(corners[:, :3]).ravel()
    values["vertex_normals"] = np.ascontiguousarray(corners[:, 3:6]).ravel()
    values["vertex_texcoords"] = np.ascontiguousarray(own.places(corners[:, 6:8]), np.float32).ravel()
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
    guides = None if sums is None else sums[..., 4:-1] / count
    if guides is None:
        guides = np.array(
            mi.render(scene, integrator=mi.load_dict(_GUIDES), spp=PASS, seed=mi.UInt32(1 << 20)), np.float64
        )
    while count * PASS < samples:
        # Beside each pass go the guides, the same each time, so that one file holds all.
        picture = np.concatenate([np.array(mi.render(scene, spp=PASS, seed=mi.UInt32(count)), np.float64), guides], -1)
        # A single path that meets a lamp in a mirror would sparkle for long.
        picture = _calmed(np.nan_to_num(picture))
        # Squares tell how far passes differ, and so how much noise is left.
        picture = np.concatenate([picture, picture[..., :3].mean(-1, keepdims=True) ** 2], -1)
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
