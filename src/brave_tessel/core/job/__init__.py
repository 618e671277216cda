"""The document: frozen structs, and the commands that change it."""
