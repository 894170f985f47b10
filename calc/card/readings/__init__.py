"""What is read at the machine, a file a reading: what is expected, and what follows from what was read."""
