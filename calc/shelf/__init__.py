"""What stands on the shop's shelf, as values; a plan takes from it and holds none of it."""
