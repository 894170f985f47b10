"""The limits that a size is held to at the machine."""
