"""Running: what is measured while pieces come off, when to look again, when an edge is due, and what to correct."""
