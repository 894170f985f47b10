"""Stop Cuts."""
