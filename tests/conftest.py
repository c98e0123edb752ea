"""Common to all tests: Hypothesis without clock and chance, Qt without a monitor."""

import os

import pytest
from hypothesis import settings

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")  # no monitor, whoever calls pytest

settings.register_profile("house", deadline=None, derandomize=True, max_examples=45)
settings.load_profile("house")

LONGEST = ("test_whole_job", "test_estimate", "test_leads_whole", "test_window", "test_connect")


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Begin with the longest files: with one file to a process none is left over at the end."""
    items.sort(key=lambda item: not item.path.stem.startswith(LONGEST))
