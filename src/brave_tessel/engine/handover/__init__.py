"""Deliveries as files."""
