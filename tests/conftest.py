"""Common to all tests: Hypothesis without clock and chance, Qt without a monitor."""

import os

from hypothesis import settings

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")  # no monitor, whoever calls pytest

settings.register_profile("house", deadline=None, derandomize=True, max_examples=60)
settings.load_profile("house")
