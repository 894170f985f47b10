"""Thin walls between jaws: how far out of round they are squeezed."""
