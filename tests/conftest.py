"""Common to all tests: Hypothesis without clock and chance, paths of what ships."""

from hypothesis import settings

settings.register_profile("house", deadline=None, derandomize=True, max_examples=60)
settings.load_profile("house")
