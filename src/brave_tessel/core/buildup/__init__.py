"""Layers that meet by height."""
