"""The kinds of layers, one file each; a file that is added here is a kind that is there."""
