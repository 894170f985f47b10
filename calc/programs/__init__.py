"""Programs for the lathe, in plain ISO 6983 words."""
