"""From a straight sheet to one that tiles, and the meters that judge it."""
