"""Files to core values and back."""
