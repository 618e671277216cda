"""The demo's strewn sheet and its scan from the simulated light rig."""

from __future__ import annotations

import msgspec

from ..core.job.document import Source, Straightening
from ..core.job.layers import LaidPiece, PieceKind, Scatter
from ..core.job.nodes import Setting
from ..engine.cache import Cache
from ..engine.gather.intake import Intake
from ..engine.gather.rig import LightRig, RigSettings, measure
from ..engine.gather.scans import scan_source
from ..engine.kept import KeptFiles

_WHOLE = ((0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0))


def strandline() -> Source:
    """What the tide left: shingle, shells and weed."""
    kinds = (
        PieceKind(
            id="stone",
            name="Shingle",
            width_mm=46.0,
            height_mm=34.0,
            shape=Setting(op="shape.pebble", values={"thickness": 15.0, "irregular": 0.5, "colour": "#6F6A62"}),
        ),
        PieceKind(
            id="grit",
            name="Pea gravel",
            width_mm=15.0,
            height_mm=12.0,
            share=2.4,
            shape=Setting(op="shape.pebble", values={"thickness": 6.0, "colour": "#8A7B66"}),
        ),
        PieceKind(
            id="shell",
            name="Broken shell",
            width_mm=24.0,
            height_mm=18.0,
            share=0.45,
            shape=Setting(op="shape.chip", values={"thickness": 3.0, "colour": "#DDD3C1"}),
        ),
        PieceKind(
            id="weed",
            name="Weed",
            width_mm=90.0,
            height_mm=26.0,
            share=0.18,
            shape=Setting(op="shape.leaf", values={"thickness": 1.2, "colour": "#3A3A1E", "rim": "#55502A"}),
        ),
    )
    strew = Setting(
        op="scatter.strew",
        values={"density": 2600.0, "spacing": 0.35, "size_spread": 0.5, "jitter": 0.5, "ground": "#6B5F4E", "seed": 8},
    )
    laid = (
        LaidPiece(id="laid-1", kind="stone", x_mm=590.0, y_mm=310.0, turn=24.0, size=1.7, level=3.0),
        LaidPiece(id="laid-2", kind="shell", x_mm=214.0, y_mm=402.0, turn=-40.0, size=1.6, tilt=14.0, level=8.0),
        LaidPiece(id="laid-3", kind="weed", x_mm=330.0, y_mm=150.0, turn=12.0, size=1.5, level=9.0),
    )
    scatter = Scatter(width_mm=600.0, height_mm=600.0, kinds=kinds, strew=strew, laid=laid)
    return Source(
        id="strandline", name="Strandline", kind="scatter", straightening=Straightening(corners=_WHOLE), scatter=scatter
    )


def scanned_render() -> tuple[Source, dict[str, bytes]]:
    """A sample of the old render as the light rig measured it, and its files."""
    intake = Intake(KeptFiles(), Cache())
    capture = LightRig(RigSettings(frames=8, seconds=0.0)).take(lambda *_: None)
    source = scan_source(intake, capture, measure(capture)).source
    return msgspec.structs.replace(source, id="render-scan", name="Old render, scanned"), dict(intake.kept.view)
