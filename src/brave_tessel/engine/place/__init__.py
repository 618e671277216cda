"""Place: models brought in, and the scene standing, for readers of one snapshot."""
