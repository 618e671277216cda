"""The checks of a scene, each file found by itself."""
