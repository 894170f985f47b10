"""The drawing as geometry in mm with fact names, from the same values as the plan."""
