"""The layings, one file each; a file that is added here is a laying that is there."""
