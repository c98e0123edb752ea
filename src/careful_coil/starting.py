"""What a start need not wait for: garbage while thousands of classes are made, sources read a second time."""

import contextlib
import gc
from types import ModuleType

OBJECTS = (
    50_000  # made and not given back before the youngest are looked through; Python's own is 700
)


def few_collections() -> None:
    """Look for garbage seldom: a tenth of the start would be spent on it, and an entry would wait for it."""
    gc.set_threshold(OBJECTS, 20, 50)


def no_feature_search() -> None:
    """Keep Qt's binding from reading the source of every module that is loaded after it, and from keeping it.

    It looks there for its own name, to switch another spelling of its methods on; nothing here does.
    """
    with contextlib.suppress(ImportError):
        from shibokensupport import feature  # type: ignore[import-not-found]

        feature._mod_uses_pyside = _no_module


def _no_module(module: ModuleType) -> bool:
    return False
