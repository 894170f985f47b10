"""Stop Sides."""
