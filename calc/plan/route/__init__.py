"""Stop Route: how the pieces come about in time."""
