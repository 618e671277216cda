"""Recipe steps, by family."""
