"""Settling: the fastest figures that every limit allows, found among all that are worth a try."""
