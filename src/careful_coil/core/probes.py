"""What the probes are on: what an instrument is asked for."""

from dataclasses import dataclass

from careful_coil.core.readings import Loaded, RequestKind
from careful_coil.core.ways.devices import Device


@dataclass(frozen=True, slots=True, kw_only=True)
class Request:
    """What the probes are on. `ends` are tags (or L1…); `sense` the second pair of a kick, or of a
    series test: the source's second lead is tied to its first, read from the first to the last.

    `also` are leads clipped together with the second end; `joints` the joints made at that moment,
    for readings on the lines and for runs, where `lines` are the leads on each line. An insulation
    test has the leads under test in `ends` (none: all joined), those it is held against in `sense`
    (none: the frame), and the `seconds` its volts have been on.
    A low run and a clamped lead have all joints, the `devices` in them, the `supply`: phases, V, Hz;
    a step or start of a test run the `nominal` volts of the supply too, whether it is `loaded`, and
    after how many `minutes` it is read.
    """

    kind: RequestKind
    ends: tuple[str, ...]
    sense: tuple[str, ...] = ()
    also: tuple[str, ...] = ()
    lines: tuple[tuple[str, ...], ...] = ()
    joints: tuple[tuple[str, ...], ...] = ()
    seconds: float = 60.0
    devices: tuple[Device, ...] = ()
    supply: tuple[int, float, float] = (3, 60.0, 60.0)
    nominal: float = 0.0
    loaded: Loaded = "none"
    minutes: float = 0.0
