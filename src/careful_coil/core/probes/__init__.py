"""What a probe can be on: one file a kind, found by looking into `kinds`."""

import importlib
import pkgutil

from careful_coil.core.probes import kinds
from careful_coil.core.probes.probe import (
    PLAIN_SETTING,
    Probe,
    Request,
    Shown,
    TestSetting,
    Typing,
)


def _found() -> dict[str, Probe]:
    names = sorted(m.name for m in pkgutil.iter_modules(kinds.__path__))
    probes = [importlib.import_module(f"{kinds.__name__}.{n}").PROBE for n in names]
    return {p.kind: p for p in probes}


PROBES: dict[str, Probe] = _found()
__all__ = ["PLAIN_SETTING", "PROBES", "Probe", "Request", "Shown", "TestSetting", "Typing"]
