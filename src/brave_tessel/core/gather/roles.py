"""What a file of a map set is: told by the words of its name and by what its pixels look like."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from ..colour import decode_srgb
from ..maps import MapKind
from ..sheet import AnyArray
from .several import SAME_PATCH

GLOSSINESS = "glossiness"
SPECULAR = "specular"
UNKNOWN = "unknown"
ROLES = (*(kind.value for kind in MapKind), GLOSSINESS, SPECULAR, SAME_PATCH, UNKNOWN)

_WORDS: Mapping[str, frozenset[str]] = {
    MapKind.BASE_COLOUR: frozenset(
        [
            "albedo",
            "alb",
            "basecolor",
            "basecolour",
            "base",
            "color",
            "colour",
            "col",
            "diffuse",
            "diff",
            "dif",
            "bc",
            "tint",
        ]
    ),
    MapKind.NORMAL: frozenset(["normal", "normals", "norm", "nrm", "nor", "nml", "normalmap"]),
    MapKind.ROUGHNESS: frozenset(["roughness", "rough", "rgh", "rou"]),
    MapKind.METALNESS: frozenset(["metalness", "metallic", "metal", "met", "mtl", "metallness"]),
    MapKind.AMBIENT_OCCLUSION: frozenset(["ao", "occlusion", "ambientocclusion", "occ", "ambient"]),
    MapKind.HEIGHT: frozenset(["height", "hgt", "displacement", "disp", "bump", "relief", "heightmap", "dsp"]),
    MapKind.EMISSION: frozenset(["emission", "emissive", "emit", "glow"]),
    MapKind.SHEEN: frozenset(["sheen", "sheencolor", "sheencolour"]),
    MapKind.COAT: frozenset(["coat", "clearcoat"]),
    MapKind.ANISOTROPY: frozenset(["anisotropy", "aniso"]),
    MapKind.TRANSMISSION: frozenset(["transmission"]),
    MapKind.TRANSLUCENCY: frozenset(["translucency", "translucent", "sss"]),
    MapKind.OPACITY: frozenset(["opacity", "alpha", "transparency", "cutout", "mask"]),
    GLOSSINESS: frozenset(["glossiness", "gloss", "gls", "smoothness", "smooth"]),
    SPECULAR: frozenset(["specular", "spec", "spc", "reflection", "refl"]),
}
_ROLE_OF_WORD = {word: str(role) for role, words in _WORDS.items() for word in words}
_LETTERS = {
    "o": MapKind.AMBIENT_OCCLUSION,
    "a": MapKind.AMBIENT_OCCLUSION,
    "r": MapKind.ROUGHNESS,
    "m": MapKind.METALNESS,
    "h": MapKind.HEIGHT,
    "g": GLOSSINESS,
}
_UP_WORDS = frozenset(["gl", "ogl", "opengl", "yup", "ypos"])
_DOWN_WORDS = frozenset(["dx", "directx", "ydown", "yneg"])
_SIZE_WORD = re.compile(
    r"^(\d{1,2}k|\d{2,5}(px)?|\d+x\d+|\d+bit|lod\d|tex|texture|map|maps|mat|material|final|srgb|linear|raw)$"
)
_SPLIT = re.compile(r"[A-Z]+(?=[A-Z][a-z])|[A-Z]?[a-z]+|[A-Z]+|\d+(?:k|K|px|bit|x\d+)?")


@dataclass(frozen=True, slots=True)
class Named:
    """What a name tells: the common stem, the role of every channel, and the green direction if said."""

    stem: str
    channels: tuple[tuple[str, str], ...]
    green: str = "unknown"

    @property
    def role(self) -> str:
        """The role that the name tells; empty where it tells none."""
        return self.channels[0][1]


def words_of(name: str) -> list[str]:
    """The words of a file name: split at signs, digits and capital letters."""
    return [word for part in re.split(r"[^0-9A-Za-z]+", name) for word in _SPLIT.findall(part)]


def read_name(file_name: str) -> Named:
    """Stem, roles and green direction by the name alone; the last word that is a role decides."""
    words = words_of(file_name.rsplit(".", 1)[0])
    roles: list[tuple[int, tuple[tuple[str, str], ...]]] = []
    green = UNKNOWN
    kept = []
    for index, word in enumerate(words):
        low = word.lower()
        joined = low + words[index + 1].lower() if index + 1 < len(words) else ""
        if low in _UP_WORDS or low in _DOWN_WORDS:
            green = "up" if low in _UP_WORDS else "down"
        elif joined in _ROLE_OF_WORD and low not in {"color", "colour"}:
            roles.append((index, (("rgb", _ROLE_OF_WORD[joined]),)))
        elif low in _ROLE_OF_WORD:
            roles.append((index, (("rgb", _ROLE_OF_WORD[low]),)))
        elif packed := _packed(low):
            roles.append((index, packed))
        elif not _SIZE_WORD.match(low):
            kept.append(low)
    if not roles:
        return Named(" ".join(kept) or file_name, (("rgb", UNKNOWN),))
    channels = roles[-1][1]
    return Named(" ".join(kept), channels, green if channels[0][1] == MapKind.NORMAL else UNKNOWN)


def _packed(word: str) -> tuple[tuple[str, str], ...]:
    """Three or four letters that each name a channel, as in ``orm``; empty if they do not."""
    if len(word) not in {3, 4} or len(set(word)) != len(word) or any(letter not in _LETTERS for letter in word):
        return ()
    if "r" not in word and "g" not in word:
        return ()
    return tuple(zip("rgba", (_LETTERS[letter] for letter in word), strict=False))


@dataclass(frozen=True, slots=True)
class Looks:
    """What pixels tell: a role or ``unknown``, how sure in [0, 1], and why in a few words."""

    role: str
    confidence: float
    reason: str
    curved: bool = False


def _unit_share(values: AnyArray) -> float:
    """Share of pixels that are unit vectors pointing out; 0 where they do not point out as a whole."""
    vectors = values * 2 - 1
    unit = float(np.mean(np.abs(np.linalg.norm(vectors, axis=2) - 1) < 0.06))
    outward = float(np.mean(vectors[..., 2] > 0)) > 0.98 and float(values[..., 2].mean()) > 0.6
    return unit if outward else 0.0


def read_pixels(codes: AnyArray) -> Looks:
    """Role by content of codes in [0, 1], (H, W, 3) float; encoded as stored."""
    values = np.asarray(codes, np.float32)
    unit = _unit_share(values)
    if unit > 0.85:
        return Looks(MapKind.NORMAL, unit, "its pixels are unit vectors")
    curved = _unit_share(decode_srgb(values).astype(np.float32))
    if curved > 0.85:
        return Looks(MapKind.NORMAL, curved, "its pixels are unit vectors once an sRGB curve is taken out", curved=True)
    if float(np.abs(values - values.mean(2, keepdims=True)).mean()) > 0.008:
        return Looks(MapKind.BASE_COLOUR, 0.7, "it has colour")
    grey = values[..., 0]
    ends = float(np.mean((grey < 0.04) | (grey > 0.96)))
    if ends > 0.9:
        spread = float(grey.std())
        why = "it is nearly black and white" if spread > 0.1 else "it is one plain value"
        return Looks(MapKind.METALNESS if spread > 0.1 or grey.mean() < 0.5 else UNKNOWN, 0.5, why)
    if float(grey.mean()) > 0.75 and float(np.percentile(grey, 75)) > 0.9:
        return Looks(MapKind.AMBIENT_OCCLUSION, 0.45, "it is grey, white for the most part")
    return Looks(UNKNOWN, 0.2, "it is grey: height or roughness")


def decide(named: Named, looks: Looks) -> Looks:
    """Name and content together: they confirm or contradict each other, and that is said."""
    said = named.role
    if len(named.channels) > 1:
        return Looks(said, 0.9, "its name tells what each channel is")
    if said == UNKNOWN:
        return looks
    word = said.replace("_", " ")
    if looks.role == said:
        return Looks(said, 0.98, f"its name says {word}, and {looks.reason}", looks.curved)
    if said == MapKind.NORMAL:
        return Looks(UNKNOWN, 0.4, f"its name says {word}, but its pixels are no unit vectors")
    if looks.role == MapKind.NORMAL:
        return Looks(MapKind.NORMAL, 0.7, f"its name says {word}, but {looks.reason}", looks.curved)
    if said == SPECULAR and looks.role == MapKind.METALNESS:
        return Looks(MapKind.METALNESS, 0.6, f"its name says {word}, but {looks.reason}, as metalness is")
    if looks.role == MapKind.BASE_COLOUR and said not in {MapKind.BASE_COLOUR, SPECULAR}:
        return Looks(said, 0.6, f"its name says {word}, though it has colour")
    return Looks(said, 0.9, f"its name says {word}")
