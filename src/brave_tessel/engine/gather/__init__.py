"""Sources: reading them in, scanning, following their files."""
