"""Stills: what is seen, path traced in a process of its own, filtered, and written as files."""
