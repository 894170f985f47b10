"""Proposing: what a good setter would begin with."""
