"""Scripts that make the demo job from fixed seeds."""
