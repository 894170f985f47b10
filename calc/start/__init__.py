"""A whole plan started: proposed from what the print says, then settled."""
