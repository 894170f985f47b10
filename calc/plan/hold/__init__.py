"""Stop Hold."""
