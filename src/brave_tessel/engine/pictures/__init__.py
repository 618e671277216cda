"""What each stage shows, made off the window's thread."""
