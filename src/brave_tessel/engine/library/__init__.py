"""Kits, stock recipes and marks of use."""
