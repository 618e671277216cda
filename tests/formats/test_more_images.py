"""Further formats, read against what independent writers wrote; sizes from metadata."""

import io

import cv2
import numpy as np
import OpenEXR
import pytest
import tifffile
from PIL import Image

from brave_tessel.core.colour import decode_srgb
from brave_tessel.core.errors import UnreadableFileError
from brave_tessel.engine.wording import sentence
from brave_tessel.formats.images import decode_codes, decode_picture, encode_png, read_header
from brave_tessel.formats.real_size import real_size


@pytest.fixture
def light():
    return np.random.default_rng(1).random((20, 30, 3)).astype(np.float32) * 3


def exr(tmp_path, channels):
    path = tmp_path / "a.exr"
    OpenEXR.File({"compression": OpenEXR.ZIP_COMPRESSION, "type": OpenEXR.scanlineimage}, channels).write(str(path))
    return path.read_bytes()


@pytest.mark.parametrize("half", [False, True])
def test_exr_keeps_its_light(tmp_path, light, half):
    stored = light.astype(np.float16) if half else light
    data = exr(tmp_path, {"RGB": stored})
    header = read_header(data, "a.exr")
    assert (header.width_px, header.height_px, header.depth) == (30, 20, 32)
    assert np.allclose(decode_picture(data, "a.exr"), stored.astype(np.float32))


def test_exr_with_named_channels_and_one_channel(tmp_path, light):
    data = exr(tmp_path, {f"diffuse.{k}": np.ascontiguousarray(light[..., i]) for i, k in enumerate("RGB")})
    assert np.allclose(decode_picture(data, "a.exr"), light)
    data = exr(tmp_path, {"Y": np.ascontiguousarray(light[..., 0])})
    assert np.allclose(decode_picture(data, "a.exr")[..., 2], light[..., 0])


def test_exr_without_numbers_is_made_finite(tmp_path, light):
    light[0, 0], light[1, 1], light[2, 2] = np.nan, np.inf, -4
    made = decode_picture(exr(tmp_path, {"RGB": light}), "a.exr")
    assert np.isfinite(made).all()
    assert (made[0, 0] == 0).all()
    assert (made[2, 2] == 0).all()


def test_radiance_hdr(light):
    data = cv2.imencode(".hdr", light[..., ::-1])[1].tobytes()
    assert read_header(data, "a.hdr").width_px == 30
    assert np.allclose(decode_picture(data, "a.hdr"), light, rtol=0.02, atol=0.02)


@pytest.mark.parametrize("kind", ["WEBP", "BMP", "TGA"])
def test_eight_bit_formats(kind):
    codes = np.random.default_rng(2).integers(0, 256, (20, 30, 3)).astype(np.uint8)
    out = io.BytesIO()
    Image.fromarray(codes).save(out, kind, **({"lossless": True} if kind == "WEBP" else {}))
    name = f"a.{kind.lower()}"
    assert np.allclose(decode_picture(out.getvalue(), name), decode_srgb(codes / 255), atol=1e-6)


@pytest.mark.parametrize("data", [b"\x76\x2f\x31\x01torn", b"#?RADIANCE\n\n-Y 4 +X", b"RIFF1234WEBPtorn", b"BMtorn"])
@pytest.mark.filterwarnings("ignore")
def test_torn_files_are_refused(data):
    with pytest.raises(UnreadableFileError):
        decode_picture(data, "a.exr")


def test_data_maps_keep_codes_and_alpha():
    codes = np.random.default_rng(3).integers(0, 65536, (20, 30, 4)).astype(np.uint16)
    data = cv2.imencode(".png", codes[..., [2, 1, 0, 3]])[1].tobytes()
    assert np.allclose(decode_codes(data, "a.png"), codes / 65535, atol=1e-7)
    eight = np.random.default_rng(3).integers(0, 256, (20, 30, 3)).astype(np.uint8)
    made = decode_codes(encode_png(eight), "a.png")
    assert np.allclose(made[..., :3], eight / 255)
    assert (made[..., 3] == 1).all()


def test_sizes_that_files_tell():
    codes = np.zeros((512, 1024), np.uint8)
    assert real_size(encode_png(codes, width_mm=900, height_mm=450)) == pytest.approx((900, 450))
    assert real_size(encode_png(codes)) is None
    out = io.BytesIO()
    tifffile.imwrite(out, codes, resolution=((1024, 225), (1024, 225)), resolutionunit="CENTIMETER")
    assert real_size(out.getvalue()) == pytest.approx((2250, 1125), rel=1e-4)


@pytest.mark.parametrize("dpi", [72, 96, 300])
def test_screen_and_print_densities_are_not_believed(dpi):
    out = io.BytesIO()
    Image.new("RGB", (100, 80)).save(out, "PNG", dpi=(dpi, dpi))
    assert real_size(out.getvalue()) is None
    out = io.BytesIO()
    tifffile.imwrite(out, np.zeros((80, 100), np.uint8), resolution=(dpi, dpi), resolutionunit="INCH")
    assert real_size(out.getvalue()) is None


GREEN = np.zeros((24, 36, 3), np.uint8)
GREEN[:, :18] = (30, 160, 60)
GREEN[:, 18:] = (200, 90, 20)


@pytest.mark.parametrize("suffix", ["ppm", "gif", "avif", "jp2", "dds"])
def test_formats_that_come_now_and_then_are_read(suffix):
    held = io.BytesIO()
    format = {"jp2": "JPEG2000"}.get(suffix, suffix.upper())
    Image.fromarray(GREEN).save(held, format)
    header = read_header(held.getvalue(), f"a.{suffix}")
    assert (header.width_px, header.height_px) == (36, 24)
    codes = decode_codes(held.getvalue(), f"a.{suffix}")[..., :3] * 255
    assert np.abs(codes - GREEN)[:, [4, 9, 24, 30]].max() < 12
    assert decode_picture(held.getvalue(), f"a.{suffix}").shape == (24, 36, 3)


def test_deep_greys_of_netpbm_keep_their_depth():
    ramp = np.linspace(0, 65_535, 300).astype(">u2")
    data = b"P5\n300 1\n65535\n" + ramp.tobytes()
    codes = decode_codes(data, "a.pgm")[0, :, 0]
    assert np.abs(codes * 65_535 - ramp.astype(float)).max() < 1


def test_of_several_pages_the_first_is_the_picture():
    held = io.BytesIO()
    with tifffile.TiffWriter(held) as file:
        for shade in (40_000, 10_000, 20_000):
            file.write(np.full((20, 30, 3), shade, np.uint16), photometric="rgb")
    codes = decode_codes(held.getvalue(), "a.tif")
    assert codes.shape == (20, 30, 4)
    assert codes[..., 0] == pytest.approx(40_000 / 65_535)


def test_layers_of_an_exr_are_not_mixed(tmp_path):
    path = tmp_path / "layers.exr"
    planes = {f"{layer}.{c}": np.full((6, 8), value, np.float32)
              for layer, value in (("diffuse", 0.25), ("normal", 0.75)) for c in "RGB"}  # fmt: skip
    with OpenEXR.File({"compression": OpenEXR.ZIP_COMPRESSION, "type": OpenEXR.scanlineimage}, planes) as file:
        file.write(str(path))
    assert decode_picture(path.read_bytes(), "layers.exr") == pytest.approx(0.25)


@pytest.mark.parametrize("name", ["a.xcf", "notes.txt", "a.blend", "noend"])
def test_what_is_no_known_format_is_not_called_damaged(name):
    with pytest.raises(UnreadableFileError) as told:
        read_header(b"something else entirely", name)
    assert "not a format this program reads" in sentence(told.value)
    assert "damaged" not in sentence(told.value)
