"""Stop Jaws."""
