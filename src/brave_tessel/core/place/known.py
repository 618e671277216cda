"""Things whose size everybody knows: they stand in the scene, and models are measured by them."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Known:
    """Width, depth and height in mm, and where they are laid down."""

    size_mm: tuple[float, float, float]
    source: str
    round: bool = False


KNOWN: dict[str, Known] = {
    "door leaf": Known((762.0, 35.0, 1981.0), "BS 4787-1"),
    "door leaf, metric": Known((826.0, 44.0, 2040.0), "BS 4787-1"),
    "A4 sheet": Known((210.0, 297.0, 0.5), "ISO 216"),
    "ID-1 card": Known((85.6, 53.98, 0.76), "ISO/IEC 7810"),
    "1 euro coin": Known((23.25, 23.25, 2.33), "EU regulation on coins", round=True),
    "flat pallet": Known((1200.0, 800.0, 144.0), "EN 13698-1"),
    "switch plate": Known((86.0, 9.0, 86.0), "BS 4662"),
    "brick": Known((215.0, 102.5, 65.0), "BS EN 771-1, UK work size"),
    "block": Known((440.0, 100.0, 215.0), "BS EN 771-3, UK practice"),
    "paving flag": Known((600.0, 600.0, 50.0), "BS EN 1339"),
}
