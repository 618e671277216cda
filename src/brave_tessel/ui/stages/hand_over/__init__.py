"""Stage 5."""
