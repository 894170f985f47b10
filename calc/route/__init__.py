"""The route: which operations, in which order."""
