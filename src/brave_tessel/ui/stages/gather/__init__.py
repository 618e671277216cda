"""Stage 1."""
