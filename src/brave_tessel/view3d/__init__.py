"""The 3D renderer on a context of its own."""
