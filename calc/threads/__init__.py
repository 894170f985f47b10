"""Threads: their designations."""
