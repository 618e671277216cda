"""The setting-out sheet, its dimensions read back from its SVG and from the text of its PDF."""

import io
import re
import xml.etree.ElementTree as ET

import pytest
from PIL import Image
from pypdf import PdfReader

from brave_tessel.core.errors import MissingError
from brave_tessel.core.job.scene import Level
from brave_tessel.core.place.gauge import gauge_of
from brave_tessel.core.place.setting_out import courses_in, setting_out
from brave_tessel.core.place.site import site_of
from brave_tessel.formats.papers import to_pdf, to_png, to_svg

from .scenes import brick, job, laid, part, room

LEVELS = (Level(id="a", name="floor", height=0.0), Level(id="b", name="sill", height=936.0))


@pytest.fixture(scope="module")
def site():
    return site_of(room(brick(), levels=LEVELS))


@pytest.fixture(scope="module")
def paper(site):
    return setting_out(site, "north", 1)


def words_of_svg(text):
    return [node.text for node in ET.fromstring(text).iter("{http://www.w3.org/2000/svg}text")]


def test_its_dimensions_are_those_of_the_wall(paper):
    """A dado of 4500 × 1248 with a window of 900 from 1404 on, its sill at 936."""
    said = words_of_svg(to_svg(paper))
    for wanted in ("1404", "900", "2196", "4500", "936", "312", "1248"):
        assert wanted in said, wanted


def test_levels_stand_beside_it_with_their_heights(paper):
    said = words_of_svg(to_svg(paper))
    assert "±0.000" in said
    assert "+0.936" in said


def test_the_pdf_says_the_same(paper):
    page = PdfReader(io.BytesIO(to_pdf(paper))).pages[0]
    said = page.extract_text()
    for wanted in ("1404", "900", "2196", "4500", "1248", "north", "Schedule", "215 × 65"):
        assert wanted in said, wanted
    assert float(page.mediabox.width) / 72 * 25.4 == pytest.approx(420.0, abs=0.01)
    assert float(page.mediabox.height) / 72 * 25.4 == pytest.approx(297.0, abs=0.01)


def test_what_is_drawn_has_the_scale_that_is_said(paper):
    text = to_svg(paper)
    scale = int(re.search(r"Scale 1:(\d+)", text)[1])
    root = ET.fromstring(text)
    heavy = [n for n in root.iter("{http://www.w3.org/2000/svg}path") if n.get("stroke-width") == "0.4"]
    xs = [float(x) for n in heavy[:1] for x, _ in re.findall(r"([\d.]+),([\d.]+)", n.get("d"))]
    assert (max(xs) - min(xs)) * scale == pytest.approx(4500.0, abs=0.1)


def test_the_picture_is_of_its_size(paper):
    image = Image.open(io.BytesIO(to_png(paper, 100)))
    assert image.size == pytest.approx((420 / 25.4 * 100, 297 / 25.4 * 100), abs=1)


def test_the_same_wall_gives_the_same_bytes(site, paper):
    again = setting_out(site, "north", 1)
    assert to_svg(again) == to_svg(paper)
    assert to_pdf(again) == to_pdf(paper)


def test_words_are_said_in_another_language(site):
    said = words_of_svg(to_svg(setting_out(site, "north", 1, tr=lambda text: f"<{text}>")))
    assert "<Schedule>" in said


def test_a_part_with_nothing_on_it_is_refused():
    with pytest.raises(MissingError):
        setting_out(site_of(job(part("w", "wall"))), "w", 0)


def test_a_surface_without_units_still_has_its_dimensions():
    held = site_of(job(part("w", "wall", {"length": 3000.0, "height": 2400.0}, laid=[laid("flat", "front")])))
    said = words_of_svg(to_svg(setting_out(held, "w", 0)))
    assert "3000" in said
    assert "This surface has no units to be cut." in said


@pytest.mark.parametrize(
    "op", ["wall", "curved_wall", "vault", "dome", "roof", "column", "steps", "moulding", "arch", "floor", "ball"]
)
def test_every_shape_has_a_sheet(op):
    held = site_of(job(part("p", op, laid=[laid("flat", surface="brick")]), surface=brick()))
    assert to_svg(setting_out(held, "p", 0)).startswith("<?xml")


def test_courses_between_two_places():
    gauge = gauge_of(brick())
    assert courses_in(0.0, 2550.0, gauge) == (34, ())
    assert courses_in(10.0, 1240.0, gauge) == (15, (65.0, 40.0))
    assert courses_in(0.0, 50.0, gauge) == (0, (50.0,))
