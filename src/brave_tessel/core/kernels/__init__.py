"""Compiled loops without policy."""
