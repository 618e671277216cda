"""What each stage asks of the workroom, one file a stage."""
