"""Drawings on paper as SVG 1.1, PDF and PNG."""

from __future__ import annotations

import io
import xml.etree.ElementTree as ET
from collections.abc import Callable
from functools import lru_cache
from pathlib import Path

from fontTools.ttLib import TTFont
from PIL import Image, ImageDraw, ImageFont
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont as PdfFont
from reportlab.pdfgen.canvas import Canvas

from ..core.place.paper import Drawn, Paper, Words

_FONTS = Path(__file__).parents[1] / "ui" / "assets" / "fonts"
_FACES = {
    (False, False): ("IBM Plex Sans", "400", "ibm-plex-sans-latin-400-normal"),
    (True, False): ("IBM Plex Sans", "600", "ibm-plex-sans-latin-600-normal"),
    (False, True): ("IBM Plex Mono", "400", "ibm-plex-mono-latin-400-normal"),
    (True, True): ("IBM Plex Mono", "600", "ibm-plex-mono-latin-600-normal"),
}
_MM = 72 / 25.4
_ANCHORS = {"start": "start", "middle": "middle", "end": "end"}
PNG_DPI = 200


@lru_cache
def _font_file(name: str) -> bytes:
    """A shipped font as plain TrueType."""
    font = TTFont(_FONTS / f"{name}.woff")
    font.flavor = None
    out = io.BytesIO()
    font.save(out)
    return out.getvalue()


def to_svg(paper: Paper) -> str:
    """A drawing as SVG: its size in mm, its words as words."""
    root = ET.Element(
        "svg", xmlns="http://www.w3.org/2000/svg", width=f"{paper.width:g}mm", height=f"{paper.height:g}mm",
        viewBox=f"0 0 {paper.width:g} {paper.height:g}",
    )  # fmt: skip
    ET.SubElement(root, "title").text = paper.title
    ET.SubElement(root, "rect", width=f"{paper.width:g}", height=f"{paper.height:g}", fill="white")
    for item in paper.items:
        if isinstance(item, Words):
            _svg_words(root, paper, item)
        else:
            _svg_lines(root, paper, item)
    ET.indent(root)
    return '<?xml version="1.0" encoding="UTF-8"?>\n' + ET.tostring(root, encoding="unicode") + "\n"


def _svg_lines(root: ET.Element, paper: Paper, item: Drawn) -> None:
    way = " ".join(
        "M" + " L".join(f"{x:.3f},{paper.height - y:.3f}" for x, y in ring) + ("Z" if item.closed else "")
        for ring in item.rings
    )
    made = ET.SubElement(
        root, "path", {"d": way, "fill": item.fill or "none", "fill-rule": "evenodd", "stroke": item.line or "none",
                       "stroke-width": f"{item.width:g}", "stroke-linejoin": "round"},
    )  # fmt: skip
    if item.dashes:
        made.set("stroke-dasharray", " ".join(f"{v:g}" for v in item.dashes))


def _svg_words(root: ET.Element, paper: Paper, item: Words) -> None:
    family, weight, _ = _FACES[item.bold, item.mono]
    fallback = "monospace" if item.mono else "sans-serif"
    x, y = item.x, paper.height - item.y
    made = ET.SubElement(
        root, "text", {"x": f"{x:.3f}", "y": f"{y:.3f}", "font-family": f"{family}, {fallback}", "font-weight": weight,
                       "font-size": f"{item.size:g}", "fill": item.colour, "text-anchor": _ANCHORS[item.anchor]},
    )  # fmt: skip
    if item.turn:
        made.set("transform", f"rotate({-item.turn:g} {x:.3f} {y:.3f})")
    made.text = item.text


def to_pdf(paper: Paper) -> bytes:
    """A drawing as PDF of its true size, the shipped fonts in it; the same drawing gives the same bytes."""
    out = io.BytesIO()
    page = Canvas(out, pagesize=(paper.width * _MM, paper.height * _MM), invariant=True, pageCompression=1)
    page.setTitle(paper.title)
    page.setCreator("Brave Tessel")
    page.scale(_MM, _MM)
    for item in paper.items:
        if isinstance(item, Words):
            _pdf_words(page, item)
        else:
            _pdf_lines(page, item)
    page.showPage()
    page.save()
    return out.getvalue()


def _pdf_lines(page: Canvas, item: Drawn) -> None:
    way = page.beginPath()
    for ring in item.rings:
        way.moveTo(*(float(v) for v in ring[0]))
        for x, y in ring[1:]:
            way.lineTo(float(x), float(y))
        if item.closed:
            way.close()
    page.setLineWidth(item.width)
    page.setLineJoin(1)
    page.setDash(*([list(item.dashes)] if item.dashes else [[]]))
    if item.line:
        page.setStrokeColor(item.line)
    if item.fill:
        page.setFillColor(item.fill)
    page.drawPath(way, stroke=bool(item.line), fill=bool(item.fill), fillMode=0)


def _pdf_words(page: Canvas, item: Words) -> None:
    name = _FACES[item.bold, item.mono][2]
    if name not in pdfmetrics.getRegisteredFontNames():
        pdfmetrics.registerFont(PdfFont(name, io.BytesIO(_font_file(name))))
    page.saveState()
    page.setFillColor(item.colour)
    page.setFont(name, item.size)
    page.translate(item.x, item.y)
    page.rotate(item.turn)
    {"start": page.drawString, "middle": page.drawCentredString, "end": page.drawRightString}[item.anchor](
        0, 0, item.text
    )
    page.restoreState()


def _svg_bytes(paper: Paper) -> bytes:
    return to_svg(paper).encode()


def to_png(paper: Paper, dpi: int = PNG_DPI) -> bytes:
    """A drawing as a picture, for a look without a reader; drawn twice as large and halved."""
    scale = 2 * dpi / 25.4
    image = Image.new("RGB", (round(paper.width * scale), round(paper.height * scale)), "white")
    pen = ImageDraw.Draw(image)
    for item in paper.items:
        if isinstance(item, Words):
            _png_words(image, paper, item, scale)
        else:
            _png_lines(pen, paper, item, scale)
    out = io.BytesIO()
    image.reduce(2).save(out, "PNG", dpi=(dpi, dpi))
    return out.getvalue()


def _png_lines(pen: ImageDraw.ImageDraw, paper: Paper, item: Drawn, scale: float) -> None:
    width = max(1, round(item.width * scale))
    rings = [[(float(x) * scale, (paper.height - float(y)) * scale) for x, y in ring] for ring in item.rings]
    if item.fill:
        pen.polygon(rings[0], fill=item.fill)
        for hole in rings[1:]:
            pen.polygon(hole, fill="white")
    for ring in rings if item.line else ():
        pen.line([*ring, ring[0]] if item.closed else ring, fill=item.line, width=width, joint="curve")


def _png_words(image: Image.Image, paper: Paper, item: Words, scale: float) -> None:
    font = ImageFont.truetype(io.BytesIO(_font_file(_FACES[item.bold, item.mono][2])), item.size * scale)
    anchor = {"start": "ls", "middle": "ms", "end": "rs"}[item.anchor]
    x, y = item.x * scale, (paper.height - item.y) * scale
    if not item.turn:
        ImageDraw.Draw(image).text((x, y), item.text, font=font, fill=item.colour, anchor=anchor)
        return
    half = int(font.getlength(item.text) + item.size * scale) + 4
    mask = Image.new("L", (2 * half, 2 * half))
    ImageDraw.Draw(mask).text((half, half), item.text, font=font, fill=255, anchor=anchor)
    image.paste(item.colour, (round(x) - half, round(y) - half), mask.rotate(item.turn, Image.Resampling.BICUBIC))


WRITERS: dict[str, Callable[[Paper], bytes]] = {".pdf": to_pdf, ".svg": _svg_bytes, ".png": to_png}
"""By the ending of a file's name."""
