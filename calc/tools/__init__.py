"""Edges and what carries them: designations, shapes, bars, and which tool does a job."""
