"""The turned profile of a part: its steps, limits, contour, body, and where it can be gripped."""
