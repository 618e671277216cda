"""Height, normals and light on a wrapped sheet."""
