"""A plan as it is read in one unit system: the one shape that screen, release, file and command line share."""
