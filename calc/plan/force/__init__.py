"""Stop Force."""
