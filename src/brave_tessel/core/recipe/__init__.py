"""Procedural sources as named steps."""
