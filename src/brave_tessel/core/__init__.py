"""Computation without interface and without files."""
