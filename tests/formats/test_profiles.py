"""Colour profiles, alpha, orientation and memory: held against littlecms, Pillow and tifffile."""

import io
import struct

import cv2
import numpy as np
import OpenEXR
import pytest
import tifffile
from PIL import Image, ImageCms, ImageOps

from brave_tessel.core.colour import decode_srgb, encode_srgb
from brave_tessel.core.errors import TooLargeError
from brave_tessel.formats import images
from brave_tessel.formats.images import decode_picture, encode_png, read_header
from brave_tessel.formats.profiles import linear_by_profile

P3 = ((0.515102, 0.241182, -0.001049), (0.291965, 0.692236, 0.041882), (0.157153, 0.066582, 0.784378))
"""Display P3 colorants adapted to D50, as profiles of that space hold them (from memory)."""
WIDE = ((0.60974, 0.31111, 0.01947), (0.20528, 0.62567, 0.06087), (0.14919, 0.06322, 0.74457))
"""Colorants of the opRGB colour encoding, adapted to D50 (IEC 61966-2-5)."""


def fixed(value):
    return struct.pack(">i", round(value * 65_536))


def profile(colorants, curve):
    """A version 2 display profile of three colorants and one curve."""
    tags = {b"wtpt": b"XYZ \0\0\0\0" + fixed(0.9642) + fixed(1.0) + fixed(0.8249)}
    for key, column in zip((b"rXYZ", b"gXYZ", b"bXYZ"), colorants, strict=True):
        tags[key] = b"XYZ \0\0\0\0" + b"".join(fixed(v) for v in column)
    for key in (b"rTRC", b"gTRC", b"bTRC"):
        tags[key] = curve
    tags[b"desc"] = b"desc\0\0\0\0" + struct.pack(">I", 5) + b"test\0" + b"\0" * 79
    tags[b"cprt"] = b"text\0\0\0\0none\0"
    body, table = b"", b""
    start = 128 + 4 + 12 * len(tags)
    for key, tag in tags.items():
        tag += b"\0" * (-len(tag) % 4)
        table += key + struct.pack(">II", start + len(body), len(tag))
        body += tag
    head = struct.pack(">I4sI4s4s4s", start + len(body), b"lcms", 0x02400000, b"mntr", b"RGB ", b"XYZ ")
    head += struct.pack(">6H", 2020, 1, 1, 0, 0, 0) + b"acsp" + b"\0" * 28 + fixed(0.9642) + fixed(1.0) + fixed(0.8249)
    head += b"\0" * (128 - len(head))
    return head + struct.pack(">I", len(tags)) + table + body


GAMMA = b"curv\0\0\0\0" + struct.pack(">IH", 1, round(2.2 * 256))
TABLE = (
    b"curv\0\0\0\0"
    + struct.pack(">I", 256)
    + b"".join(struct.pack(">H", round(float(decode_srgb(np.array(k / 255))) * 65_535)) for k in range(256))
)
PARA = (
    b"para\0\0\0\0"
    + struct.pack(">HH", 3, 0)
    + b"".join(fixed(v) for v in (2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045))
)


@pytest.fixture
def codes():
    return np.random.default_rng(5).integers(0, 256, (24, 32, 3)).astype(np.uint8)


@pytest.mark.parametrize(
    ("colorants", "curve"), [(P3, PARA), (WIDE, GAMMA), (P3, TABLE)], ids=["P3", "wide", "P3 by table"]
)
def test_a_profile_is_honoured_as_littlecms_does(codes, colorants, curve):
    told = profile(colorants, curve)
    file = io.BytesIO()
    Image.fromarray(codes).save(file, "PNG", icc_profile=told)
    ours = encode_srgb(np.clip(decode_picture(file.getvalue(), "a.png"), 0, 1)) * 255
    source = ImageCms.ImageCmsProfile(io.BytesIO(told))
    theirs = np.asarray(
        ImageCms.profileToProfile(
            Image.fromarray(codes),
            source,
            ImageCms.createProfile("sRGB"),
            renderingIntent=ImageCms.Intent.RELATIVE_COLORIMETRIC,
            outputMode="RGB",
        )
    )
    # littlecms cuts what lies outside sRGB in another way; inside, one code of 255 apart at most.
    inside = (ours > 3).all(2) & (ours < 252).all(2)
    assert inside.mean() > 0.3
    assert np.abs(ours - theirs)[inside].max() < 1.6


def test_a_profile_on_sixteen_bits_keeps_them(codes):
    told = profile(P3, PARA)
    deep = codes.astype(np.uint16) * 257
    file = io.BytesIO()
    tifffile.imwrite(file, deep, photometric="rgb", iccprofile=told)
    made = decode_picture(file.getvalue(), "a.tif")
    eight = io.BytesIO()
    Image.fromarray(codes).save(eight, "PNG", icc_profile=told)
    assert np.allclose(made, decode_picture(eight.getvalue(), "a.png"), atol=2e-4)
    grey = np.full((4, 4, 3), 30_001, np.uint16)
    assert np.allclose(made_linear(grey, told), decode_srgb(np.array(30_001 / 65_535)), atol=3e-4)


def made_linear(codes, told):
    file = io.BytesIO()
    tifffile.imwrite(file, codes, photometric="rgb", iccprofile=told)
    return decode_picture(file.getvalue(), "a.tif")


def test_the_profile_of_srgb_changes_nothing(codes):
    told = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes()
    file = io.BytesIO()
    Image.fromarray(codes).save(file, "PNG", icc_profile=told)
    assert np.array_equal(decode_picture(file.getvalue(), "a.png"), decode_picture(encode_png(codes), "b.png"))


def test_a_torn_profile_is_left_alone(codes):
    told = profile(P3, PARA)
    for cut in range(0, len(told), 7):
        assert linear_by_profile(codes, told[:cut]) is None or cut > 200
    file = io.BytesIO()
    Image.fromarray(codes).save(file, "PNG", icc_profile=told[:150])
    assert np.array_equal(decode_picture(file.getvalue(), "a.png"), decode_picture(encode_png(codes), "b.png"))


@pytest.mark.parametrize("orientation", range(1, 9))
def test_sixteen_bits_are_turned_upright_as_pillow_does(orientation):
    small = np.random.default_rng(2).integers(0, 65_536, (5, 7, 3)).astype(np.uint16)
    file = io.BytesIO()
    tifffile.imwrite(file, small, photometric="rgb", extratags=[(274, 3, 1, orientation, True)])
    made = decode_picture(file.getvalue(), "a.tif")
    expected = []
    for channel in range(3):
        image = Image.fromarray((small[..., channel] >> 8).astype(np.uint8))
        image.getexif()[274] = orientation
        expected.append(np.asarray(ImageOps.exif_transpose(image)))
    assert made.shape[:2] == expected[0].shape
    assert np.abs(encode_srgb(made) * 255 - np.stack(expected, 2)).max() < 1.01


def test_alpha_is_stated_and_premultiplied_colours_are_divided():
    colour = np.full((6, 6, 3), 200, np.uint8)
    alpha = np.linspace(40, 255, 36).reshape(6, 6).astype(np.uint8)
    multiplied = np.rint(colour * (alpha[..., None] / 255)).astype(np.uint8)
    for kind, word, rgb in (("assocalpha", "premultiplied", multiplied), ("unassalpha", "straight", colour)):
        file = io.BytesIO()
        tifffile.imwrite(file, np.dstack([rgb, alpha]), photometric="rgb", extrasamples=[kind])
        assert read_header(file.getvalue(), "a.tif").alpha == word
        made = encode_srgb(decode_picture(file.getvalue(), "a.tif")) * 255
        assert np.abs(made - 200).max() < 4
        deep = io.BytesIO()
        tifffile.imwrite(deep, np.dstack([rgb, alpha]).astype(np.uint16) * 257, photometric="rgb", extrasamples=[kind])
        assert np.abs(encode_srgb(decode_picture(deep.getvalue(), "a.tif")) * 255 - 200).max() < 4
    straight = io.BytesIO()
    Image.fromarray(np.dstack([colour, alpha])).save(straight, "PNG")
    assert read_header(straight.getvalue(), "a.png").alpha == "straight"
    assert read_header(encode_png(colour), "a.png").alpha == ""


def test_exr_alpha_is_premultiplied(tmp_path):
    colour, alpha = np.full((4, 4), 0.6, np.float32), np.full((4, 4), 0.25, np.float32)
    path = tmp_path / "a.exr"
    channels = {**dict.fromkeys("RGB", colour * alpha), "A": alpha}
    OpenEXR.File({"compression": OpenEXR.ZIP_COMPRESSION, "type": OpenEXR.scanlineimage}, channels).write(str(path))
    assert read_header(path.read_bytes(), "a.exr").alpha == "premultiplied"
    assert np.allclose(decode_picture(path.read_bytes(), "a.exr"), 0.6, atol=1e-5)


def test_what_does_not_fit_into_memory_is_refused_by_its_header(monkeypatch):
    monkeypatch.setattr(images, "memory_budget", lambda: 1000)
    with pytest.raises(TooLargeError) as caught:
        read_header(encode_png(np.zeros((64, 64, 3), np.uint8)), "a.png")
    assert "fits" in caught.value.allowed


def test_tiled_and_planar_tiff_are_read_as_written():
    rng = np.random.default_rng(8)
    for dtype, top in ((np.uint16, 65_535), (np.float32, 1)):
        whole = (rng.random((40, 50, 3)) * top).astype(dtype)
        for more in ({"tile": (16, 16)}, {"planarconfig": "separate"}):
            pixels = np.moveaxis(whole, 2, 0) if "planarconfig" in more else whole
            file = io.BytesIO()
            tifffile.imwrite(file, pixels, photometric="rgb", **more)
            made = decode_picture(file.getvalue(), "a.tif")
            expected = decode_srgb(whole / top) if dtype == np.uint16 else whole
            assert np.allclose(made, expected, atol=1e-4)


def test_cv2_reads_our_sixteen_bits():
    deep = np.random.default_rng(1).integers(0, 65_536, (8, 9, 3)).astype(np.uint16)
    back = cv2.imdecode(np.frombuffer(encode_png(deep), np.uint8), cv2.IMREAD_UNCHANGED)
    assert np.array_equal(back[..., ::-1], deep)
