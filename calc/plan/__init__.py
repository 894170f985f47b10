"""The whole plan as one value in, one value out: plain functions in dependency order, no state."""
