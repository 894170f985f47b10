"""Properties are about numbers, never about how long a shared machine took."""

from hypothesis import settings

settings.register_profile("anvil", deadline=None)
settings.load_profile("anvil")
