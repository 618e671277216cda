"""What people want to do, as commands."""
