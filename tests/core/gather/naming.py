"""Folders of map sets named in the ways of the trade (common practice), of known truth."""

# ruff: noqa: C408 (roles read better as names than as strings)

import random

STEMS = (
    "brick wall old", "metal 06", "rusty metal sheet", "rough stone", "base wood", "wood planks", "color glass",
    "norm street", "ground sand wet", "plaster white 02", "roof tiles clay", "concrete floor worn 001", "fabric plain",
    "leather brown", "gravel", "asphalt 04", "marble tiles", "bark oak", "moss rock", "ice cracked", "tin ceiling",
    "smooth concrete", "height marker", "mask wall", "diamond plate", "cobble 3", "terrazzo b", "wall a", "door m",
    "carpet red n", "mud dry cracked", "snow fresh", "cliff 12", "paving slabs", "bamboo", "cardboard", "rubber mat",
    "ceramic green", "glow panel", "spec test wall",
)  # fmt: skip
STYLES = (
    # separator, case, words of roles, what stands before and after
    ("_", "lower", dict(base_colour="diff", normal="nor", roughness="rough", height="disp", ambient_occlusion="ao"),
     "{stem}_{role}_{size}.{ext}"),
    ("_", "lower", dict(base_colour="diff", normal="nor_gl", roughness="rough", height="disp",
                        ambient_occlusion="ao", metalness="metal"), "{stem}_{role}_4k.{ext}"),
    ("", "camel", dict(base_colour="Color", normal="NormalGL", roughness="Roughness", height="Displacement",
                       ambient_occlusion="AmbientOcclusion", metalness="Metalness"), "{stem}_2K-PNG_{role}.{ext}"),
    ("_", "camel", dict(base_colour="BaseColor", normal="Normal", orm="OcclusionRoughnessMetallic",
                        height="Height"), "T_{stem}_{role}.{ext}"),
    ("_", "camel", dict(base_colour="D", normal="N", specular="S", height="H"), "{stem}_{role}.{ext}"),
    ("_", "camel", dict(base_colour="BC", normal="N", orm="ORM", emission="E"), "T_{stem}_{role}.{ext}"),
    ("-", "lower", dict(base_colour="albedo", normal="normal-ogl", roughness="roughness", height="height",
                        ambient_occlusion="ao", metalness="metallic"), "{stem}_{role}.{ext}"),
    (" ", "title", dict(base_colour="Base Color", normal="Normal", roughness="Roughness", metalness="Metallic",
                        height="Height", ambient_occlusion="Ambient Occlusion"), "{stem} {role}.{ext}"),
    ("_", "upper", dict(base_colour="COL", normal="NRM", roughness="GLOSS", height="DISP", specular="REFL"),
     "{stem}_{role}_VAR1_3K.{ext}"),
    ("_", "lower", dict(base_colour="c", normal="n", roughness="r", metalness="m", height="h"), "{stem}_{role}.{ext}"),
    ("_", "lower", dict(base_colour="", normal="_n", specular="_s", height="_h"), "{stem}{role}.{ext}"),
    ("_", "lower", dict(base_colour="", normal="_nrm", specular="_spec", height="_bump", emission="_glow"),
     "{stem}{role}.{ext}"),
    ("_", "lower", dict(base_colour="diffuse", normal="normal", roughness="roughness"), "{role}_{stem}.{ext}"),
    (".", "lower", dict(base_colour="basecolor", normal="normal", roughness="rgh", metalness="mtl", height="ht"),
     "{stem}.{role}.{size}.{ext}"),
    ("", "lower", dict(base_colour="diffuse", normal="normal", specular="specular", height="bump"),
     "{stem}{role}.{ext}"),
    ("_", "lower", dict(base_colour="albedo", normal="normal", opacity="opacity", roughness="roughness",
                        translucency="translucency"), "{stem}_{size}_{role}.{ext}"),
    ("_", "camel", dict(base_colour="AlbedoTransparency", normal="Normal", metalness="MetallicSmoothness",
                        ambient_occlusion="AO", emission="Emission"), "{stem}_{role}.{ext}"),
    ("_", "lower", dict(base_colour="dif", normal="nml", roughness="rgh", ambient_occlusion="occ", mask="mask",
                        kind_id="id"), "{stem}_{role}_v02.{ext}"),
    ("_", "lower", dict(base_colour="col", normal="nrm", roughness="gloss", height="disp", ambient_occlusion="ao"),
     "{stem}_{role}_1.{ext}"),
    ("_", "lower", dict(base_colour="diff", normal="ddn", roughness="rough"), "{stem}_{role}.{ext}"),
)  # fmt: skip


def styled(stem, separator, case):
    """A stem as a style writes it."""
    words = stem.split()
    if case in {"camel", "title"}:
        words = [word.capitalize() for word in words]
    elif case == "upper":
        words = [word.upper() for word in words]
    return separator.join(words)


def folders(count=60, seed=20):
    """Folders, each a mapping of file name to (set, role); a folder has one to six sets, mostly of one style."""
    rng = random.Random(seed)
    for _ in range(count):
        style = rng.choice(STYLES)
        files = {}
        for stem in rng.sample(STEMS, rng.randint(1, 6)):
            own = rng.choice(STYLES) if rng.random() < 0.1 else style
            separator, case, roles, pattern = own
            size, ext = rng.choice(("1k", "2k", "2048", "4096")), rng.choice(("png", "jpg", "tif"))
            name = styled(stem, separator, case)
            for role in rng.sample(sorted(roles), rng.randint(min(3, len(roles)), len(roles))):
                files[pattern.format(stem=name, role=roles[role], size=size, ext=ext)] = (stem, role)
        yield files
