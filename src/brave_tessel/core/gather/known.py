"""Things of known size that turn up on photos."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class KnownThing:
    """A thing's width and height in mm, and the standard that says so."""

    name: str
    width_mm: float
    height_mm: float
    standard: str

    @property
    def longest_mm(self) -> float:
        """Its longest side, mm."""
        return max(self.width_mm, self.height_mm)


KNOWN = (
    KnownThing("Bank card", 85.60, 53.98, "ISO/IEC 7810, ID-1"),
    KnownThing("Sheet of A4", 210.0, 297.0, "ISO 216"),
    KnownThing("Coin of 1 euro", 23.25, 23.25, "EU regulation on coins"),
    KnownThing("Socket plate, one gang", 86.0, 86.0, "BS 4662"),
    KnownThing("Flat pallet", 1200.0, 800.0, "EN 13698-1"),
    KnownThing("Door leaf, metric", 826.0, 2040.0, "BS 4787-1"),
    KnownThing("Door leaf, imperial", 762.0, 1981.0, "BS 4787-1"),
    KnownThing("Door opening, DIN", 875.0, 2000.0, "DIN 18101"),
    KnownThing("Brick, face", 215.0, 65.0, "common practice"),
    KnownThing("Block, face", 440.0, 215.0, "common practice"),
)
