"""The where-rules, one file each; a file that is added here is a rule that is there."""
