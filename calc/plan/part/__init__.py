"""Stop Part."""
