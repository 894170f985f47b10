"""The notebook: cuts that worked, and how like they are to what is planned."""
