"""The card: a released plan as steps at the machine, and what is read there."""
