"""Practice: short exercises from a seed, each with an answer that the calculators compute."""
