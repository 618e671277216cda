"""From the document to keyed tasks."""
