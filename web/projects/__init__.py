"""Projects: scenes with their history, takes and presets, in the database."""
