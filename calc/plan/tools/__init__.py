"""Stop Tools."""
