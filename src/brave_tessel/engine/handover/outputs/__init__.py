"""What a delivery can write, one file each; a file that is added here is a format that is there."""
