"""What a file of a map set is: told by the words of its name and by what its pixels look like."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..colour import decode_srgb
from ..maps import MapKind
from ..sheet import AnyArray
from .names import GLOSSINESS, MASK, SPECULAR, UNKNOWN, Reading, readings_of
from .several import SAME_PATCH

ROLES = (*(kind.value for kind in MapKind), GLOSSINESS, SPECULAR, MASK, SAME_PATCH, UNKNOWN)


def read_name(file_name: str) -> Reading:
    """What a name tells by itself, without others of its folder."""
    return next(way for way in readings_of(file_name) if not way.weak or not way.channels)


@dataclass(frozen=True, slots=True)
class Looks:
    """What pixels tell: a role or ``unknown``, how sure in [0, 1], and why in a few words."""

    role: str
    confidence: float
    reason: str
    curved: bool = False


_LENGTH_OFF = 0.06
_ROUGHLY = 0.35
"""How far vectors may be off length and still be normals that want making unit."""


def _unit_share(values: AnyArray, off: float = _LENGTH_OFF) -> float:
    """Share of pixels that are unit vectors pointing out; 0 where they do not point out as a whole."""
    vectors = values * 2 - 1
    unit = float(np.mean(np.abs(np.linalg.norm(vectors, axis=2) - 1) < off))
    outward = float(np.mean(vectors[..., 2] > 0)) > 0.98 and float(values[..., 2].mean()) > 0.6
    return unit if outward else 0.0


def two_channels(values: AnyArray) -> bool:
    """Whether red and green of codes (H, W, 3) hold slopes about the middle, and blue nothing: black, grey or white."""
    middle = np.abs(values[..., :2].mean((0, 1)) - 0.5)
    blue = float(values[..., 2].mean())
    empty = values[..., 2].std() < 0.01 and min(blue, abs(blue - 0.5), 1 - blue) < 0.008
    return bool(empty and middle.max() < 0.12 and values[..., :2].std((0, 1)).min() > 0.005)


def read_pixels(codes: AnyArray) -> Looks:
    """Role by content of codes in [0, 1], (H, W, 3) float; encoded as stored."""
    values = np.asarray(codes, np.float32)
    unit = _unit_share(values)
    if unit > 0.85:
        return Looks(MapKind.NORMAL, unit, "its pixels are unit vectors")
    vectors = values * 2 - 1
    if unit > 0.6 and float(np.median(np.abs(np.linalg.norm(vectors, axis=2) - 1))) < 0.04:
        # Blocks and thinned-out colour of a JPEG put some vectors off length.
        return Looks(MapKind.NORMAL, unit, "most of its pixels are unit vectors")
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


def decide(named: Reading, looks: Looks, codes: AnyArray | None = None, *, alone: bool = False) -> Looks:
    """Name and content together: they confirm or contradict each other, and that is said. ``codes`` are the pixels
    looked at; ``alone`` says that nothing else of its set is there.
    """
    said = named.role
    if len(named.channels) > 1:
        return Looks(said, 0.9, "its name tells what each channel is")
    if said == UNKNOWN:
        return looks
    if named.space:
        return Looks(UNKNOWN, 0.7, f"normals in {named.space} space hold on their own model alone")
    word = said.replace("_", " ")
    if looks.role == said:
        return Looks(said, 0.98, f"its name says {word}, and {looks.reason}", looks.curved)
    if said in {MapKind.NORMAL, MapKind.COAT_NORMAL}:
        return _named_normal(said, codes)
    if looks.role == MapKind.NORMAL:
        return Looks(MapKind.NORMAL, 0.7, f"its name says {word}, but {looks.reason}", looks.curved)
    if said == SPECULAR and looks.role == MapKind.METALNESS:
        return Looks(MapKind.METALNESS, 0.6, f"its name says {word}, but {looks.reason}, as metalness is")
    if looks.role == MapKind.BASE_COLOUR and said not in _COLOURED:
        if alone:
            return Looks(MapKind.BASE_COLOUR, 0.6, f"its name says {word}, but it has colour and stands alone")
        return Looks(said, 0.6, f"its name says {word}, though it has colour")
    return Looks(said, 0.9, f"its name says {word}")


_COLOURED = frozenset(
    {str(MapKind.BASE_COLOUR), str(MapKind.EMISSION), str(MapKind.SHEEN), str(MapKind.KIND_ID), SPECULAR, MASK}
) | {str(MapKind.TRANSLUCENCY), str(MapKind.TRANSMISSION)}


def _named_normal(said: str, codes: AnyArray | None) -> Looks:
    """Normals by name whose pixels are not quite: off length, or without their third channel."""
    if codes is not None:
        if two_channels(codes):
            return Looks(said, 0.75, "its name says normal; it has two channels, the third is worked out")
        if _unit_share(codes, _ROUGHLY) > 0.8:
            return Looks(said, 0.7, "its name says normal; its vectors are off length and are made unit")
    return Looks(UNKNOWN, 0.4, "its name says normal, but its pixels are no unit vectors")
