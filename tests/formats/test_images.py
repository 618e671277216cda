"""Pictures read and written; sizes checked with independent readers (Pillow, pypng)."""

import io
import json
import struct
import zlib

import numpy as np
import png
import pytest
import tifffile
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image

from brave_tessel.core.colour import decode_srgb
from brave_tessel.core.errors import TesselError, TooLargeError, UnreadableFileError
from brave_tessel.formats.images import decode_picture, encode_png, read_file, read_header


def picture(rows=24, columns=36, dtype=np.uint8):
    top = 255 if dtype == np.uint8 else 65535
    rng = np.random.default_rng(1)
    return rng.integers(0, top + 1, (rows, columns, 3)).astype(dtype)


def as_bytes(image, kind, **more):
    out = io.BytesIO()
    image.save(out, kind, **more)
    return out.getvalue()


def test_eight_bit_png_and_jpeg():
    codes = picture()
    assert np.allclose(decode_picture(encode_png(codes), "a.png"), decode_srgb(codes / 255), atol=1e-6)
    smooth = np.full((24, 36, 3), 120, np.uint8)
    jpeg = as_bytes(Image.fromarray(smooth), "JPEG", quality=95)
    assert np.allclose(decode_picture(jpeg, "a.jpg"), decode_srgb(120 / 255), atol=0.01)


def test_sixteen_bits_survive_untouched():
    codes = picture(dtype=np.uint16)
    data = encode_png(codes)
    assert read_header(data, "a").depth == 16
    assert np.allclose(decode_picture(data, "a"), decode_srgb(codes / 65535), atol=1e-6)
    out = io.BytesIO()
    tifffile.imwrite(out, codes, photometric="rgb")
    assert np.allclose(decode_picture(out.getvalue(), "a"), decode_srgb(codes / 65535), atol=1e-6)


def test_what_we_write_an_independent_reader_reads():
    codes = picture(dtype=np.uint16)
    width, height, rows, info = png.Reader(bytes=encode_png(codes)).read()
    assert (width, height, info["bitdepth"]) == (36, 24, 16)
    assert (np.vstack([np.asarray(row) for row in rows]).reshape(24, 36, 3) == codes).all()


def test_grey_alpha_palette_and_one_bit():
    grey = np.arange(36 * 24, dtype=np.uint32).reshape(24, 36) % 256
    for mode in ("L", "LA", "RGBA", "P", "1"):
        data = as_bytes(Image.fromarray(grey.astype(np.uint8)).convert(mode), "PNG")
        made = decode_picture(data, mode)
        assert made.shape == (24, 36, 3)
        if mode in {"L", "LA"}:
            assert np.allclose(made[..., 0], decode_srgb(grey / 255), atol=1e-6)


@pytest.mark.parametrize("orientation", range(1, 9))
def test_exif_orientation_turns_the_picture_upright(orientation):
    image = Image.new("RGB", (40, 20), (200, 200, 200))
    image.paste((250, 10, 10), (0, 0, 8, 8))
    exif = Image.Exif()
    exif[0x0112] = orientation
    data = as_bytes(image, "JPEG", quality=95, exif=exif)
    made = decode_picture(data, "a.jpg")
    header = read_header(data, "a.jpg")
    assert (header.width_px, header.height_px) == (made.shape[1], made.shape[0])
    red = {1: (3, 3), 2: (3, 36), 3: (16, 36), 4: (16, 3), 5: (3, 3), 6: (3, 16), 7: (36, 16), 8: (36, 3)}[orientation]
    assert made[red][0] > 3 * made[red][1]


def test_planar_and_float_tiff():
    values = np.random.default_rng(1).random((24, 36, 3)).astype(np.float32)
    out = io.BytesIO()
    tifffile.imwrite(out, values, photometric="rgb")
    assert np.allclose(decode_picture(out.getvalue(), "a"), values)
    codes = picture(dtype=np.uint16)
    out = io.BytesIO()
    tifffile.imwrite(out, np.moveaxis(codes, 2, 0), photometric="rgb", planarconfig="separate")
    assert np.allclose(decode_picture(out.getvalue(), "a"), decode_srgb(codes / 65535), atol=1e-6)


def bomb(width, height):
    body = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    chunk = struct.pack(">I", 13) + b"IHDR" + body + struct.pack(">I", zlib.crc32(b"IHDR" + body))
    return b"\x89PNG\r\n\x1a\n" + chunk + struct.pack(">I", 0) + b"IDAT" + struct.pack(">I", zlib.crc32(b"IDAT"))


def test_huge_pictures_are_refused_by_their_header():
    with pytest.raises(TooLargeError) as caught:
        read_header(bomb(100_000, 100_000), "bomb.png")
    assert "16384" in caught.value.allowed


@pytest.mark.parametrize(
    "data",
    [
        b"",
        b"\x89PNG\r\n\x1a\n",
        b"not a picture at all",
        b"II*\x00",
        b"\xff\xd8\xff\xe0",
        b"PK\x03\x04" + b"\0" * 80,
        bomb(0, 5),
    ],
    ids=["empty", "torn png", "text", "torn tiff", "torn jpeg", "zip", "zero-sized"],
)
def test_what_is_no_picture_is_refused(data):
    with pytest.raises(UnreadableFileError):
        decode_picture(data, "x")


@pytest.mark.filterwarnings("ignore")
@settings(max_examples=150)
@given(st.data())
def test_damaged_files_give_a_picture_or_a_typed_error(data):
    kinds = [
        encode_png(picture()),
        encode_png(picture(dtype=np.uint16)),
        as_bytes(Image.fromarray(picture()), "JPEG"),
        as_bytes(Image.fromarray(picture()), "TIFF"),
    ]
    whole = bytearray(data.draw(st.sampled_from(kinds)))
    for _ in range(data.draw(st.integers(1, 6))):
        whole[data.draw(st.integers(0, len(whole) - 1))] = data.draw(st.integers(0, 255))
    whole = whole[: data.draw(st.integers(0, len(whole)))]
    try:
        made = decode_picture(bytes(whole), "x")
    except TesselError:
        return
    assert made.ndim == 3
    assert np.isfinite(made).all()


def test_missing_files_and_folders(tmp_path):
    with pytest.raises(UnreadableFileError):
        read_file(tmp_path / "none.png")
    with pytest.raises(UnreadableFileError):
        read_file(tmp_path)


def chunks(data):
    return dict(png.Reader(bytes=data).chunks())


@pytest.mark.parametrize(("px", "width_mm"), [((2048, 1024), 2250.0), ((1024, 1024), 600.0)])
def test_png_carries_its_real_size(px, width_mm):
    # W3C PNG and the extensions register; check-values E5.
    data = encode_png(np.zeros((px[1], px[0]), np.uint8), width_mm=width_mm, height_mm=width_mm * px[1] / px[0])
    found = chunks(data)
    unit, across, down = found[b"sCAL"][0], *(float(t) for t in found[b"sCAL"][1:].split(b"\0"))
    assert unit == 1
    assert across * px[0] == pytest.approx(width_mm / 1000, rel=1e-9)
    assert down * px[1] == pytest.approx(width_mm / 1000 * px[1] / px[0], rel=1e-9)
    ppu = struct.unpack(">IIB", found[b"pHYs"])
    assert ppu[2] == 1
    assert px[0] / ppu[0] == pytest.approx(width_mm / 1000, rel=0.5 / ppu[0])
    words = json.loads(Image.open(io.BytesIO(data)).info["Repeat"])
    assert words["width_m"] == pytest.approx(width_mm / 1000)


def test_pillow_and_cv2_still_decode_a_sized_picture():
    import cv2

    codes = picture()
    data = encode_png(codes, width_mm=100, height_mm=66, srgb=True)
    assert (np.asarray(Image.open(io.BytesIO(data))) == codes).all()
    assert (cv2.imdecode(np.frombuffer(data, np.uint8), -1)[..., ::-1] == codes).all()
