"""Surfaces laid on the parts of a building."""
