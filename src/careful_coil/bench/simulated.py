"""A meter on a motor with a hidden truth: gain, noise, lead ohms and rounding of a real one."""

import random
from collections.abc import Mapping
from dataclasses import dataclass, field

from careful_coil.bench.low_run import run_of
from careful_coil.bench.trial_run import Rig, warmth
from careful_coil.core.errors import InstrumentError
from careful_coil.core.probes import PROBES, Request, Shown
from careful_coil.core.readings import Meter
from careful_coil.core.ways.states import state_at, with_devices
from careful_coil.core.winding.coupling import Halves
from careful_coil.core.winding.network import Network

FOUR_WIRE_STEP = 1e-4  # Ω
NOISE_SHARE = 1e-3  # of the reading, one sigma


@dataclass(frozen=True, slots=True, kw_only=True)
class HiddenMotor:
    """What a simulated motor really is.

    `lead_of` gives the lead name of each tag; `start_device` what stands in the start path;
    `frame_megohm` insulation to the frame after a minute, `leak_share` the leakage's share of the
    current then; `bond_ohm` the earth bond; `joined_as` slips made while joining, by tag.
    """

    network: Network
    lead_of: Mapping[str, str]
    start_device: str = ""  # "", "switch" or "capacitor"
    adjacent_halves: bool = False
    pole_changing: bool = False
    frame_megohm: float = 550.0
    leak_share: float = 0.3
    bond_ohm: float = 0.03
    bar_ohms: tuple[float, ...] = ()  # from each bar of a commutator to the next
    poles: int = 4
    stiff: float = 1.0  # times the usual drag: a dry bearing
    dead_line: str = ""  # a line that is open while it runs
    magnetizing: float = 0.4  # of an ordinary machine's: small motors idle nearer to plate amps
    tired: float = 1.0  # what its capacitors have left of their marked µF
    joined_as: Mapping[str, str] = field(default_factory=dict)  # tag → lead really in its place
    bad_clips: Mapping[frozenset[str], float] = field(default_factory=dict)  # read once too high

    @property
    def halves(self) -> Halves:
        """Return how the halves of a phase lie."""
        if self.pole_changing:
            return "pole-changing"
        return "adjacent" if self.adjacent_halves else "alternate"


class SimulatedMeter:
    """An in-process instrument bound to one hidden motor; `seed` makes it repeatable.

    Below `four_below` Ω it reads by four wires.
    """

    def __init__(
        self,
        motor: HiddenMotor,
        seed: int,
        meter: Meter | None = None,
        four_below: float = 0.0,
    ) -> None:
        self._motor, self._four_below = motor, four_below
        self.chance = random.Random(seed)
        self._meter = meter or Meter(accuracy_percent=1.0, resolution_ohm=0.01, lead_ohm=0.0)
        share = self._meter.accuracy_percent / 100
        self.gain = 1 + self.chance.uniform(-share, share)
        self._bad = dict(motor.bad_clips)
        self._steps = 0  # of a test run so far
        self._volt = 0.0  # of the last step of a run

    def put_on(self, motor: HiddenMotor) -> None:
        """Put the probes on a motor as it is now; gain and noise stay those of this meter."""
        self._motor = motor

    @property
    def name(self) -> str:
        """Name shown on the strip."""
        return "bench meter, simulated"

    @property
    def meter(self) -> Meter:
        """What it can tell."""
        return self._meter

    def show(self, request: Request) -> Shown:
        """Return what it shows for the probes as they are. Raises: InstrumentError."""
        return PROBES[request.kind].shown(self, request)

    @property
    def motor(self) -> HiddenMotor:
        """What it is on."""
        return self._motor

    def lead(self, tag: str) -> str:
        """Return the lead a tag hangs on. Raises: InstrumentError."""
        try:
            return self._motor.lead_of[tag]
        except KeyError:
            raise InstrumentError(f"The simulated motor has no lead {tag}.") from None

    def passes(self, a: str, b: str, kinds: tuple[str, ...]) -> bool:
        """Return whether current between two leads passes coils of some kinds."""
        share = self._motor.network.shares(a, b)
        return any(
            c.like in kinds and abs(s) > 1e-9
            for c, s in zip(self._motor.network.coils, share, strict=True)
        )

    def figure(self, ohm: float, pair: frozenset[str] = frozenset()) -> Shown:
        """Return ohms as this meter shows them; a bad clip on a pair shows once."""
        ohm *= self._bad.pop(pair, 1.0)
        if ohm > self._meter.open_above_ohm:
            return Shown(text="open", unit="Ω")
        read = ohm * self.gain * self.chance.gauss(1, NOISE_SHARE) + (self._meter.lead_ohm or 0.0)
        step = self._meter.resolution_ohm or 0.01
        if ohm < self._four_below:  # its four-wire range: no lead ohms, a tenth of a milliohm
            read, step = read - (self._meter.lead_ohm or 0.0), FOUR_WIRE_STEP
        places = max(0, len(f"{step:.6f}".rstrip("0").split(".")[1]))
        return Shown(text=f"{round(read / step) * step:.{places}f}", unit="Ω")

    def hooked(self, request: Request) -> Network:
        """Return the winding with the joints and devices of a request, at rest."""
        network = self._motor.network.joined(self._joints(request))
        if request.devices:
            network = with_devices(network, request.devices, state_at(request.devices, "rest"))
        return network

    def place(self, name: str) -> str:
        """Return the lead that is really where a tag should be; lines and terminals are themselves."""
        tag = self._motor.joined_as.get(name, name)
        return self._motor.lead_of.get(tag, tag)

    def _joints(self, request: Request) -> list[list[str]]:
        return [[self.place(n) for n in j] for j in request.joints]

    def ran(self, request: Request) -> tuple[str, dict[str, float], str, dict[str, float]]:
        """Return how it turns, amps by line, which way, amps by lead."""
        halves = self._motor.halves
        joints = self._joints(request)
        return run_of(self._motor.network, joints, request.devices, request.supply, halves)

    def rig(self, request: Request) -> Rig:
        """Return the motor on the bench with the joints and devices of a request."""
        motor = self._motor
        return Rig(
            network=motor.network,
            joints=self._joints(request),
            devices=request.devices,
            supply=request.supply,
            nominal=request.nominal,
            poles=motor.poles,
            halves=motor.halves,
            stiff=motor.stiff,
            dead_line=motor.dead_line,
            tired=motor.tired,
            magnetizing=motor.magnetizing,
        )

    def steps(self, request: Request) -> int:
        """Return the minutes a run has lasted: one a step, or as long as asked."""
        if request.supply[1] < 0.9 * self._volt:  # lower volts than before: another sheet
            self._steps = 0
        self._volt = request.supply[1]
        self._steps = max(self._steps + 1, int(request.minutes))
        return self._steps

    def warm(self, minutes: float) -> float:
        """Return the winding's °C after so many minutes of a run."""
        return warmth(minutes)
