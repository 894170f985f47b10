"""Soft jaws: their mass and centre, and the pocket bored into them."""
