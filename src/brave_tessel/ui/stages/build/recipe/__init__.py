"""The sheet of steps, within Build."""
