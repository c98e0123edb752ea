"""A probe: what is read with it, how it is typed, what an instrument is asked and the bench answers."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from random import Random
from typing import TYPE_CHECKING, Any, Literal, Protocol

from careful_coil.core.errors import BadValue
from careful_coil.core.stations import Station

if TYPE_CHECKING:
    from careful_coil.core.readings import Loaded, Meter
    from careful_coil.core.ways.devices import Device
    from careful_coil.core.winding.network import Network

Body = dict[str, Any]  # of a log entry, as in a document
Hooked = Literal["leads", "hookup", "sheet"]


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

    kind: str
    ends: tuple[str, ...]
    sense: tuple[str, ...] = ()
    also: tuple[str, ...] = ()
    lines: tuple[tuple[str, ...], ...] = ()
    joints: tuple[tuple[str, ...], ...] = ()
    seconds: float = 60.0
    devices: "tuple[Device, ...]" = ()
    supply: tuple[int, float, float] = (3, 60.0, 60.0)
    nominal: float = 0.0
    loaded: "Loaded" = "none"
    minutes: float = 0.0

    @property
    def pair(self) -> tuple[str, str]:
        """Return the two ends."""
        return self.ends[0], self.ends[1]

    @property
    def amps(self) -> int:
        """Return how many line amps belong to its supply."""
        return 3 if self.supply[0] == 3 else 1


@dataclass(frozen=True, slots=True, kw_only=True)
class Shown:
    """What the instrument shows: `text` in the bench-value grammar or a test's word."""

    text: str
    unit: str
    steady: bool = True


@dataclass(frozen=True, slots=True, kw_only=True)
class TestSetting:
    """What a test is made under: the winding's °C, test volts, air and humidity, the other windings."""

    __test__ = False  # the name is not that of a test
    at_c: float | None = None
    volt: float = 500.0
    others: Literal["earthed", "guarded", "loose"] = "earthed"
    air_c: float | None = None
    humidity: float | None = None


PLAIN_SETTING = TestSetting()


@dataclass(frozen=True, slots=True, kw_only=True)
class Typing:
    """A value as typed or taken: its text, what the probes are on, under what, by which instrument.

    `neighbours` are figures of the same kind read before, in the base unit.
    """

    text: str
    request: Request
    setting: TestSetting = PLAIN_SETTING
    instrument: str = "typed"
    neighbours: Sequence[float] = ()

    def reading(self, **told: Any) -> Body:
        """Return the entry of a reading of the winding."""
        return {
            "kind": "reading",
            "reading": {"kind": self.request.kind, **told},
            "instrument": self.instrument,
            "temperature_c": self.setting.at_c,
        }

    def word(self, words: Sequence[str]) -> str:
        """Return one of the words, typed or picked by its number. Raises: BadValue."""
        word = self.text.strip().lower().replace(" ", "-")
        if word in words:
            return word
        if word.isdecimal() and 1 <= int(word) <= len(words):
            return words[int(word) - 1]
        keys = ", ".join(f"{k} {w.replace('-', ' ')}" for k, w in enumerate(words, 1))
        raise BadValue(self.text, keys)


class Hidden(Protocol):
    """What of a simulated motor a probe can come to see."""

    network: "Network"
    lead_of: Mapping[str, str]
    start_device: str
    adjacent_halves: bool
    frame_megohm: float
    leak_share: float
    bond_ohm: float
    bar_ohms: tuple[float, ...]


class Bench(Protocol):
    """A simulated meter on a hidden motor, as far as its answers need it."""

    chance: Random
    gain: float
    meter: "Meter"

    @property
    def motor(self) -> Hidden:
        """The motor it is on."""

    def lead(self, tag: str) -> str:
        """Return the lead a tag hangs on. Raises: InstrumentError."""

    def place(self, name: str) -> str:
        """Return the lead that is really where a tag should be; lines are themselves."""

    def figure(self, ohm: float, pair: frozenset[str] = frozenset()) -> Shown:
        """Return ohms as this meter shows them."""

    def passes(self, a: str, b: str, kinds: tuple[str, ...]) -> bool:
        """Return whether current between two leads passes coils of some kinds."""

    def hooked(self, request: Request) -> "Network":
        """Return the winding with the joints and devices of a request, at rest."""

    def ran(self, request: Request) -> tuple[str, dict[str, float], str, dict[str, float]]:
        """Return how it turns, amps by line, which way, amps by lead."""

    def rig(self, request: Request) -> Any:
        """Return the motor on the test bench with the joints and devices of a request."""

    def steps(self, request: Request) -> int:
        """Return the minutes that a run has lasted once this step is read."""

    def warm(self, minutes: float) -> float:
        """Return the winding's °C after so many minutes of a run."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Probe:
    """One kind of reading.

    `station` where it is logged; `prompt` what the strip says; `asks` the quantity and the words of
    Next's question; `part` of what, {0} the first end; `unit` of a bare figure, empty where it is a
    text; `words` answers that are picked; `caution` what can hurt; `hooked` whether it is read on the
    bare leads, on the hookup as it is, or on that of an open test sheet. `read` gives the body of the
    entry and raises BadValue or AmbiguousValue; `shown` is what the simulated bench answers.
    """

    kind: str
    station: Station
    prompt: str
    asks: tuple[str, str]
    read: Callable[[Typing], Body]
    shown: Callable[[Any, Request], Shown]
    part: str = "winding"
    unit: str = ""
    words: tuple[str, ...] = ()
    caution: str = ""
    hooked: Hooked = "leads"
    wants: tuple[str, ...] = ()  # what of a run's figures must be said
    against: tuple[str, ...] = ()  # what it is held against where nothing else is named
