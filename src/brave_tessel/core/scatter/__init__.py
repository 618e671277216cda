"""Pieces made or cut out, strewn and laid on a wrapped sheet."""
