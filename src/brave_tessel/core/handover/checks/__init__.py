"""The checks of stage 5, one file each; a file that is added here is a check that is made."""
