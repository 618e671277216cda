"""Trials by force: kills, damage, hostile files, long sessions."""
