"""The ways of mending, one file each; a file that is added here is a way that is there."""
