"""Curves that span openings: round, segmental, pointed, parabolic and flat, by span and rise."""

from __future__ import annotations

import math

import numpy as np

from .solids import Ring, arc, steps_for


def segment_radius(span: float, rise: float) -> float:
    """Radius of the arc over a chord ``span`` with a rise, mm: (s²/4 + f²) / 2f."""
    return (span * span / 4 + rise * rise) / (2 * rise)


def head_of(span: float, rise: float, shape: str, *, chord: float = 2.0) -> Ring:
    """The curve over an opening from its right springing to its left, both included; the middle of the springing line
    is the origin, mm.
    """
    half = span / 2
    if shape == "flat" or (shape == "segmental" and rise <= 0):
        return np.array([[half, 0.0], [-half, 0.0]])
    if shape == "pointed":
        # Equilateral where the rise is √3/2 of the span; else struck from centres on the springing line.
        radius = (half * half + rise * rise) / (2 * half)
        angle = math.asin(min(1.0, rise / radius)) if radius >= half else math.pi / 2
        angle = math.atan2(rise, radius - half)
        count = steps_for(radius, angle, chord=chord)
        right = arc((half - radius, 0.0), radius, 0.0, angle, count)
        return np.concatenate([right, (right * [-1, 1])[-2::-1]])
    rise = half if shape == "round" else min(rise, half)
    radius = segment_radius(span, rise)
    angle = math.asin(min(1.0, half / radius))
    count = steps_for(radius, 2 * angle, chord=chord)
    # An even number, so that there is a point at the crown.
    curve = arc((0.0, rise - radius), radius, math.pi / 2 - angle, math.pi / 2 + angle, count + count % 2)
    curve[0], curve[-1] = (half, 0.0), (-half, 0.0)
    return curve
