"""Cutting: speed, chip, force, power, finish."""
