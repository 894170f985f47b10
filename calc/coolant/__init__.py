"""Coolant."""
