"""How long something takes, in one run."""

import time
from collections.abc import Callable


def timed(work: Callable[[], object]) -> float:
    """Return how long it took in ms."""
    begun = time.perf_counter()
    work()
    return 1000 * (time.perf_counter() - begun)


def spread(times: list[float]) -> str:
    """Return middle and longest of several times."""
    ordered = sorted(times)
    return f"{ordered[len(ordered) // 2]:.1f} ms, longest {ordered[-1]:.1f} ms"
