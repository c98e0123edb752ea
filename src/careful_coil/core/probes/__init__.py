"""What a probe can be on: one file a kind, found by looking into `kinds` when they are first asked for."""

import importlib
import pkgutil
from typing import TYPE_CHECKING

from careful_coil.core.probes.probe import (
    PLAIN_SETTING,
    Probe,
    Request,
    Shown,
    TestSetting,
    Typing,
)

if TYPE_CHECKING:
    PROBES: dict[str, Probe]


def _found() -> dict[str, Probe]:
    from careful_coil.core.probes import kinds

    names = sorted(m.name for m in pkgutil.iter_modules(kinds.__path__))
    probes = [importlib.import_module(f"{kinds.__name__}.{n}").PROBE for n in names]
    return {p.kind: p for p in probes}


def __getattr__(name: str) -> dict[str, Probe]:
    """Return `PROBES`, found once: a window that shows no motor yet needs none of them."""
    if name != "PROBES":
        raise AttributeError(f"module {__name__!r} has no attribute {name!r}")
    found = _found()
    globals()["PROBES"] = found
    return found


__all__ = ["PLAIN_SETTING", "PROBES", "Probe", "Request", "Shown", "TestSetting", "Typing"]
