"""The made scenes, one file each; a file that is added here is a scene that is there."""
