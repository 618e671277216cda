"""Checks and deliveries."""
