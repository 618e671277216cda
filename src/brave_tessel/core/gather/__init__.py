"""From a picture to a straight, sized sheet."""
