"""Common to all tests: Hypothesis without clock and chance, Qt without a monitor."""

import os

import pytest
from hypothesis import settings

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")  # no monitor, whoever calls pytest

settings.register_profile("house", deadline=None, derandomize=True, max_examples=32)
settings.load_profile("house")

# a file goes to a process as a whole: those of a second and more a test first, many quick ones at the end
LONGEST = (
    "test_leads",
    "test_window",
    "test_test_run",
    "test_identify",
    "test_connect",
    "test_whole_job",
)
SLOW = ("desk", "walk", "report")


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Begin with the longest files: with one file to a process none is left over at the end."""

    def rank(item: pytest.Item) -> int:
        slow = item.path.parent.name in SLOW
        return 0 if item.path.stem.startswith(LONGEST) else 1 if slow else 2

    items.sort(key=rank)
