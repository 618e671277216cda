"""Words of file names: which tell a map's role, which a size, a direction, a version; and every way a name can be read.

Suffixes and words are common practice of the trade.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from ..maps import MapKind

GLOSSINESS, SPECULAR, MASK, UNKNOWN = "glossiness", "specular", "mask", "unknown"
Channels = tuple[tuple[str, str], ...]
"""Which role each channel of a file has; one entry for "rgb" where all of it is one map."""

_WORDS: Mapping[str, str] = {
    MapKind.BASE_COLOUR: "albedo alb basecolor basecolour basecol color colour col diffuse diff dif bc base tint",
    MapKind.NORMAL: "normal normals norm nrm nor nml nrml normalmap nmap tangentnormal",
    MapKind.ROUGHNESS: "roughness rough rgh rou",
    MapKind.METALNESS: "metalness metallic metal met mtl metallness metalic",
    MapKind.AMBIENT_OCCLUSION: "ao occlusion ambientocclusion occ ambientocc cavityocclusion ambient",
    MapKind.HEIGHT: "height hgt displacement disp displace bump relief heightmap dsp depth bumpmap parallax",
    MapKind.EMISSION: "emission emissive emit glow emis emissivecolor emissioncolor selfillum",
    MapKind.SHEEN: "sheen sheencolor sheencolour",
    MapKind.SHEEN_ROUGHNESS: "sheenroughness",
    MapKind.COAT: "coat clearcoat coatweight",
    MapKind.COAT_ROUGHNESS: "coatroughness clearcoatroughness",
    MapKind.COAT_NORMAL: "coatnormal clearcoatnormal",
    MapKind.ANISOTROPY: "anisotropy aniso anisotropic",
    MapKind.ANISOTROPY_ANGLE: "anisotropyangle anisotropyrotation anisoangle",
    MapKind.TRANSMISSION: "transmission transmissive refraction",
    MapKind.TRANSLUCENCY: "translucency translucent sss subsurface scatter scattering",
    MapKind.OPACITY: "opacity alpha transparency cutout opac transp",
    MapKind.SPECULAR_LEVEL: "specularlevel speclevel",
    MapKind.KIND_ID: "id idmap matid materialid colorid colourid",
    MapKind.CURVATURE: "curvature curve curv cavity",
    MASK: "mask masks msk",
    GLOSSINESS: "glossiness gloss gls smoothness smooth glossy",
    SPECULAR: "specular spec spc reflection refl reflect reflectivity specularcolor specularcolour",
}
ROLE_OF_WORD: Mapping[str, str] = {word: str(role) for role, words in _WORDS.items() for word in words.split()}
_LETTERS: Mapping[str, str] = {
    **dict.fromkeys(("n", "nm"), MapKind.NORMAL),
    **dict.fromkeys(("d", "c", "df"), MapKind.BASE_COLOUR),
    **dict.fromkeys(("h", "ht", "z", "b", "hm", "bmp", "dp"), MapKind.HEIGHT),
    **dict.fromkeys(("s", "sp"), SPECULAR),
    **dict.fromkeys(("r", "rg", "ro"), MapKind.ROUGHNESS),
    **dict.fromkeys(("m", "mt", "me"), MapKind.METALNESS),
    **dict.fromkeys(("a", "o", "op", "tr"), MapKind.OPACITY),
    **dict.fromkeys(("e", "em", "ill"), MapKind.EMISSION),
    **dict.fromkeys(("g", "gl"), GLOSSINESS),
}
"""Suffixes of one to three letters; they count only beside others of their set."""
_TOGETHER: Mapping[str, Channels] = {
    "metallicroughness": (("g", MapKind.ROUGHNESS), ("b", MapKind.METALNESS)),
    "roughnessmetallic": (("g", MapKind.ROUGHNESS), ("b", MapKind.METALNESS)),
    "metalrough": (("g", MapKind.ROUGHNESS), ("b", MapKind.METALNESS)),
    "metallicsmoothness": (("r", MapKind.METALNESS), ("a", GLOSSINESS)),
    "metallicgloss": (("r", MapKind.METALNESS), ("a", GLOSSINESS)),
    "specularglossiness": (("rgb", SPECULAR), ("a", GLOSSINESS)),
    "specularsmoothness": (("rgb", SPECULAR), ("a", GLOSSINESS)),
    "specgloss": (("rgb", SPECULAR), ("a", GLOSSINESS)),
    "occlusionroughnessmetallic": (
        ("r", MapKind.AMBIENT_OCCLUSION), ("g", MapKind.ROUGHNESS), ("b", MapKind.METALNESS)
    ),
    **dict.fromkeys(
        ("albedotransparency", "albedoalpha", "albedoopacity", "diffusealpha", "diffuseopacity", "basecoloralpha",
         "basecoloropacity", "colouralpha", "coloralpha", "coloropacity", "diffusetransparency"),
        (("rgb", str(MapKind.BASE_COLOUR)), ("a", str(MapKind.OPACITY))),
    ),
    **dict.fromkeys(("normalheight", "normaldisplacement"), (("rgb", MapKind.NORMAL), ("a", MapKind.HEIGHT))),
}  # fmt: skip
_PACKED: Mapping[str, str] = {
    "o": MapKind.AMBIENT_OCCLUSION,
    "a": MapKind.AMBIENT_OCCLUSION,
    "ao": MapKind.AMBIENT_OCCLUSION,
    "r": MapKind.ROUGHNESS,
    "m": MapKind.METALNESS,
    "h": MapKind.HEIGHT,
    "d": MapKind.HEIGHT,
    "g": GLOSSINESS,
    "s": GLOSSINESS,
}
_UP = frozenset(["gl", "ogl", "opengl", "yup", "ypos"])
_DOWN = frozenset(["dx", "directx", "ydown", "yneg", "d3d"])
_OTHER_SPACE = frozenset(["object", "objectspace", "os", "world", "worldspace", "ws", "objspace"])
_TANGENT = frozenset(["tangent", "tangentspace", "ts", "tan"])
_SIZE = re.compile(r"^(\d{1,2}k|(64|128|256|512|1024|2048|3072|4096|6144|8192|16384)(px)?|\d{2,5}x\d{2,5}|\d{3,5}px)$")
_ASIDE = re.compile(r"^(\d{1,2}bits?|lod\d|tex|texture|map|maps|srgb|linear|raw|lin|acescg|tga|png|jpg|exr|seamless)$")
_NUMBER = re.compile(r"^(v?\d{1,4})$")
_PIECES = re.compile(r"[A-Z]+(?=[A-Z][a-z])|[A-Z]?[a-z]+|[A-Z]+|\d+")
_GLUED = 4
"""Letters from which on a role's word is told from the end of a longer word."""


@dataclass(frozen=True, slots=True)
class Reading:
    """One way to read a name: the words that are left, the role of each channel (none where it tells none), and how
    unlikely it is. ``weak`` ones count only beside other maps of their set. ``green`` and ``space`` are of normals,
    ``size`` what tells of several copies which is larger.
    """

    stem: tuple[str, ...]
    channels: Channels
    cost: float
    weak: bool = False
    green: str = UNKNOWN
    space: str = ""
    size: int = 0

    @property
    def role(self) -> str:
        """That of its first channel."""
        return self.channels[0][1] if self.channels else UNKNOWN


def words_of(name: str) -> list[str]:
    """The words of a file name in lower case, split at signs and changes of case; numbers stay with letters that they
    follow at once, as in ``metal06``.
    """
    words: list[str] = []
    for part in re.split(r"[^0-9A-Za-zÀ-ÿ]+", name):
        words += _parted(part)
    return [word.lower() for word in words]


def _parted(part: str) -> Iterator[str]:
    sized = re.fullmatch(r"(.*[A-Za-z])(\d{1,2}[kK]|1024|2048|4096|8192|512)", part)
    if sized:
        yield from _parted(sized[1])
        yield sized[2]
    elif _SIZE.match(part.lower()) or _ASIDE.match(part.lower()) or re.fullmatch(r"\d+[A-Za-z]?|[vV]\d+", part):
        if part:
            yield part
    else:
        found = _PIECES.findall(part) or ([part] if part else [])
        for number, piece in enumerate(found):
            if piece.isdigit() and number:
                continue
            follows = found[number + 1] if number + 1 < len(found) and found[number + 1].isdigit() else ""
            yield piece + follows


def readings_of(file_name: str) -> list[Reading]:
    """Every way to read a file's name, the likeliest first; the last one takes it as a name without a role."""
    base = file_name.rsplit(".", 1)[0] if "." in file_name else file_name
    kept, green, space, size = _aside(words_of(base))
    made = [
        Reading(stem, channels, cost, weak, green if _of_normal(channels) else UNKNOWN, space, size)
        for stem, channels, cost, weak in _ways(kept)
        if stem or not weak
    ]
    return [*sorted(made, key=lambda way: way.cost), Reading(tuple(kept), (), 2.5, True, UNKNOWN, "", size)]


def _of_normal(channels: Channels) -> bool:
    return bool(channels) and channels[0][1] in {MapKind.NORMAL, MapKind.COAT_NORMAL}


def _aside(words: list[str]) -> tuple[list[str], str, str, int]:
    """Words without those of sizes, directions and spaces; and what these said."""
    green, space, size, kept = UNKNOWN, "", 0, []
    tells_normal = any(_role_at(words, at)[0] in {MapKind.NORMAL, MapKind.COAT_NORMAL} for at in range(len(words)))
    letters = bool(words) and any(word in {"n", "nm"} for word in words)
    for word in words:
        if (tells_normal or letters) and word in _UP | _DOWN:
            green = "up" if word in _UP else "down"
        elif tells_normal and word in _OTHER_SPACE:
            space = "object" if word[0] == "o" else "world"
        elif tells_normal and word in _TANGENT:
            continue
        elif _SIZE.match(word):
            size = max(size, _pixels(word))
        elif not _ASIDE.match(word):
            kept.append(word)
    return kept, green, space, size


def _pixels(word: str) -> int:
    return int(word[:-1]) * 1024 if word.endswith("k") else int(re.match(r"\d+", word)[0])  # type: ignore[index]


def _role_at(words: list[str], at: int) -> tuple[str, int]:
    """The role that the words from here on tell, and by how many words; the longest counts."""
    for count in (3, 2, 1):
        joined = "".join(words[at : at + count])
        if at + count <= len(words) and joined in ROLE_OF_WORD:
            return ROLE_OF_WORD[joined], count
    return "", 0


def _ways(words: list[str]) -> Iterator[tuple[tuple[str, ...], Channels, float, bool]]:
    """Stem, channels, cost and weakness of every way to find a role in a name."""
    last = len(words)
    numbers = 0
    while numbers < 2 and last - numbers > 0 and _NUMBER.match(words[last - numbers - 1]):
        numbers += 1
    for tail in sorted({0, min(numbers, 1), numbers}):
        body, after = words[: last - tail], tuple(words[last - tail :])
        for stem, channels, cost, weak in _at_end(body):
            if tail:
                # A number after a role: of the set, or of the version.
                yield (*stem, *after), channels, cost + 0.4, weak
                yield stem, channels, cost + 0.6, True
            else:
                yield stem, channels, cost, weak
    yield from _elsewhere(words)


def _at_end(words: list[str]) -> Iterator[tuple[tuple[str, ...], Channels, float, bool]]:
    for count in (4, 3, 2):
        joined = "".join(words[-count:])
        if len(words) >= count and joined in _TOGETHER:
            yield tuple(words[:-count]), _TOGETHER[joined], -0.2, False
    for count in (3, 2, 1):
        joined = "".join(words[-count:])
        if len(words) >= count and joined in ROLE_OF_WORD:
            yield tuple(words[:-count]), (("rgb", ROLE_OF_WORD[joined]),), -0.05 * (count - 1), False
            break
    if not words:
        return
    yield from _by_letters(words)


def _by_letters(words: list[str]) -> Iterator[tuple[tuple[str, ...], Channels, float, bool]]:
    """What the last word tells by its letters, by a number glued to it, or by its end."""
    final = words[-1]
    if final in _LETTERS:
        yield tuple(words[:-1]), (("rgb", str(_LETTERS[final])),), 0.5, True
    packed = packed_channels(final)
    if packed:
        yield tuple(words[:-1]), packed, 0.1, False
    numbered = re.fullmatch(r"([a-z]+)(\d{1,3})", final)
    if numbered and numbered[1] in ROLE_OF_WORD:
        channels: Channels = (("rgb", ROLE_OF_WORD[numbered[1]]),)
        yield (*words[:-1], numbered[2]), channels, 0.9, True
        yield tuple(words[:-1]), channels, 1.1, True
    elif numbered and numbered[1] in _LETTERS and len(words) > 1:
        yield (*words[:-1], numbered[2]), (("rgb", str(_LETTERS[numbered[1]])),), 1.3, True
    glued = _glued(final)
    if glued:
        yield (*words[:-1], glued[0]), (("rgb", ROLE_OF_WORD[glued[1]]),), 1.0, True


def _glued(word: str) -> tuple[str, str] | None:
    """A word that ends in a role's word, as ``bricksnormal``: what is before it, and the role's word."""
    ends = (word[cut:] for cut in range(2, len(word) - _GLUED + 1))
    found = next((end for end in ends if end in ROLE_OF_WORD and len(end) >= _GLUED), None)
    return (word[: -len(found)], found) if found else None


def _elsewhere(words: list[str]) -> Iterator[tuple[tuple[str, ...], Channels, float, bool]]:
    """A role's word in front or within; it counts only beside others."""
    for at in range(len(words) - 1):
        role, count = _role_at(words, at)
        if role and at + count < len(words):
            stem = (*words[:at], *words[at + count :])
            yield stem, (("rgb", role),), 1.0 if at == 0 else 1.4, True
        elif words[at] in _PACKED_WORDS:
            yield (*words[:at], *words[at + 1 :]), packed_channels(words[at]), 1.4, True


_PACKED_WORDS = frozenset(["orm", "arm", "rma", "mra", "ord", "ormh", "mrao", "aorm", "rmao"])


def packed_channels(word: str) -> Channels:
    """Letters that each name a channel, as in ``orm`` or ``rmao``; empty if they do not."""
    named: list[str] = []
    rest = word
    while rest:
        step = "ao" if rest.startswith("ao") else rest[0]
        if step not in _PACKED:
            return ()
        named.append(step)
        rest = rest[len(step) :]
    roles = [str(_PACKED[name]) for name in named]
    rough = {str(MapKind.ROUGHNESS), GLOSSINESS}.intersection(roles)
    known = {str(MapKind.METALNESS), str(MapKind.AMBIENT_OCCLUSION)}.intersection(roles)
    if len(roles) not in {3, 4} or len(set(roles)) != len(roles) or not rough or not known:
        return ()
    return tuple(zip("rgba", roles, strict=False))
