"""Grip of the chuck: from pressure, at height, at speed, and what the cuts ask of it."""
