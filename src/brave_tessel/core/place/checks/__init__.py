"""The checks of a scene."""

from . import bare, corners, courses, sizes

__all__ = ["bare", "corners", "courses", "sizes"]
