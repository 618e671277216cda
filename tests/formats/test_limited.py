"""Readers in processes of their own: what breaks, hangs or grows in there costs one sentence."""

import io
import os
import signal
import struct
import time

import numpy as np
import pytest
import tifffile
import trimesh

from brave_tessel.core.errors import CancelledError, TooLargeError, UnreadableFileError
from brave_tessel.core.pace import watched
from brave_tessel.formats import images, limited
from brave_tessel.formats.drawings import outline_of
from brave_tessel.formats.images import decode_picture, read_header
from brave_tessel.formats.limited import read_limited
from brave_tessel.formats.models import model_kind, model_relief

HEAD = '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink">'


def nested_use(depth):
    """About a kilobyte that says a shape ten to the power of ``depth`` times."""
    text = f'{HEAD}<g id="a0"><rect width="1" height="1"/></g>'
    for level in range(1, depth):
        text += f'<g id="a{level}">' + f'<use xlink:href="#a{level - 1}"/>' * 10 + "</g>"
    return (text + "</svg>").encode()


def tiff(pixels):
    file = io.BytesIO()
    tifffile.imwrite(file, pixels, photometric="rgb")
    return file.getvalue()


def test_a_drawing_without_end_is_stopped():
    begun = time.monotonic()
    with pytest.raises(UnreadableFileError) as caught:
        read_limited("drawing", nested_use(13), "bomb.svg", seconds=1.0)
    assert "1 s" in str(caught.value.value)
    assert time.monotonic() - begun < 4


def test_the_work_that_asked_stops_it():
    begun = time.monotonic()
    with pytest.raises(CancelledError), watched(lambda _share: time.monotonic() - begun < 0.3):
        read_limited("drawing", nested_use(13), "bomb.svg")
    assert time.monotonic() - begun < 3


def test_a_reader_serves_again_and_one_that_died_does_not():
    pixels = np.arange(48, dtype=np.uint16).reshape(4, 4, 3) * 100
    first = decode_picture(tiff(pixels), "a.tif")
    reader = limited._IDLE[-1]
    assert np.array_equal(decode_picture(tiff(pixels), "a.tif"), first)
    assert limited._IDLE[-1] is reader
    os.kill(reader.process.pid, signal.SIGKILL)
    reader.process.wait()
    with pytest.raises(UnreadableFileError, match=r"a\.tif"):
        decode_picture(tiff(pixels), "a.tif")
    assert np.array_equal(decode_picture(tiff(pixels), "a.tif"), first)
    assert limited._IDLE[-1] is not reader


def test_what_comes_back_is_checked():
    result = os.memfd_create("x")
    try:
        os.write(result, b"0" * 64)
        good = [{"dtype": "<f4", "shape": [16], "at": 0}]
        assert limited._arrays_of(good, result, "x")[0].shape == (16,)
        for bad in ({"at": 4}, {"at": -4}, {"shape": [-1]}, {"shape": [1 << 40]}, {"dtype": "O"}):
            with pytest.raises(UnreadableFileError):
                limited._arrays_of([good[0] | bad], result, "x")
    finally:
        os.close(result)


def test_arrays_that_come_back_are_read_only():
    made = decode_picture(tiff(np.zeros((4, 4, 3), np.uint16)), "a.tif")
    assert made.shape == (4, 4, 3)
    (codes,) = read_limited("picture", tiff(np.zeros((4, 4, 3), np.uint16)), "a.tif")
    assert not codes.flags.writeable


def exr_header(width, height, channels):
    """The header of an OpenEXR file of so many channels, and nothing after it."""
    listed = b"".join(f"c{n}".encode() + b"\0" + struct.pack("<iB3xii", 2, 0, 1, 1) for n in range(channels)) + b"\0"
    window = struct.pack("<4i", 0, 0, width - 1, height - 1)

    def attribute(name, kind, value):
        return name + b"\0" + kind + b"\0" + struct.pack("<i", len(value)) + value

    return (
        b"\x76\x2f\x31\x01\x02\0\0\0"
        + attribute(b"channels", b"chlist", listed)
        + attribute(b"dataWindow", b"box2i", window)
        + b"\0"
    )


def test_a_light_picture_is_measured_by_all_its_channels(monkeypatch):
    monkeypatch.setattr(images, "memory_budget", lambda: 1 << 30)
    assert read_header(exr_header(2048, 2048, 4), "a.exr").channels == 4
    with pytest.raises(TooLargeError):
        read_header(exr_header(2048, 2048, 40), "a.exr")
    with pytest.raises(TooLargeError):
        read_header(exr_header(15_000, 15_000, 3), "a.exr")


@pytest.mark.parametrize("cut", range(8, 90, 3))
def test_a_light_header_cut_anywhere_is_refused_or_read(cut):
    with pytest.raises(UnreadableFileError):
        read_header(exr_header(64, 64, 3)[:cut], "a.exr")


def test_a_binary_stl_with_bytes_after_it_is_read():
    whole = trimesh.creation.box((3, 2, 1)).export(file_type="stl")
    plain = model_relief(whole, "box.stl")
    assert model_kind(whole + b"written by a scanner") == "stl"
    assert np.array_equal(model_relief(whole + b"written by a scanner", "box.stl"), plain)


def test_an_obj_in_latin_1_is_read():
    text = trimesh.creation.box((3, 2, 1)).export(file_type="obj")
    old = ("o Türblatt\n" + text).encode("latin-1")
    assert np.array_equal(model_relief(old, "door.obj"), model_relief(text.encode(), "door.obj"))


def test_a_drawing_still_is_a_drawing():
    square = outline_of(f'{HEAD}<rect width="4" height="5"/></svg>'.encode(), "a.svg")
    assert len(square.contours) == 1
    with pytest.raises(UnreadableFileError):
        outline_of(f"{HEAD}</svg>".encode(), "a.svg")
