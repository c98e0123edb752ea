"""A meter on a motor with a hidden truth: gain, noise, lead ohms and rounding of a real one."""

import math
import random
from collections.abc import Mapping
from dataclasses import dataclass, field

from careful_coil.bench.low_run import run_of
from careful_coil.bench.port import Shown
from careful_coil.bench.trial_run import Rig, warmth
from careful_coil.core.errors import InstrumentError
from careful_coil.core.probes import Request
from careful_coil.core.readings import Meter
from careful_coil.core.values import show_ohm
from careful_coil.core.ways.states import state_at, with_devices
from careful_coil.core.winding.coupling import Halves
from careful_coil.core.winding.kick import coupled, kick
from careful_coil.core.winding.network import Network
from careful_coil.core.winding.turning import run_shown

SERIES_VOLT = 12.0  # of its small transformer
RUN_VOLT = 60.0  # what its bench gives for a tentative run
NOISE_SHARE = 1e-3  # of the reading, one sigma
FRAME_OPEN_ABOVE_OHM = 2e6
ABSORPTION = 0.75  # how its absorption current fades: t to the minus this


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


class SimulatedMeter:
    """An in-process instrument bound to one hidden motor; `seed` makes it repeatable."""

    def __init__(self, motor: HiddenMotor, seed: int, meter: Meter | None = None) -> None:
        self._motor = motor
        self._random = random.Random(seed)
        self._meter = meter or Meter(accuracy_percent=1.0, resolution_ohm=0.01, lead_ohm=0.0)
        share = self._meter.accuracy_percent / 100
        self._gain = 1 + self._random.uniform(-share, share)
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
        """Return what it shows for the probes as they are."""
        motor = self._motor
        if request.kind == "resistance":
            a, b, *also = (self._lead(t) for t in (*request.ends, *request.also))
            network = motor.network.joined([(b, *also)]) if also else motor.network
            return self._ohms(network.ohm_between(a, b), a, b)
        if request.kind in ("line", "step"):
            return self._line(request)
        if request.kind == "low-run":
            return self._low_run(request)
        if request.kind == "trial":
            return self._trial(request)
        if request.kind == "start":
            return self._start(request)
        if request.kind == "turning":
            return self._turning(request)
        if request.kind == "drop-in":
            rpm = self.rig(request).back_in() * self._random.gauss(1, 0.02)
            return Shown(text=f"{rpm:.0f} rpm", unit="rpm")
        if request.kind == "clamp":
            return self._clamp(request)
        if request.kind == "frame":
            ohm = motor.frame_megohm * 1e6
            return Shown(text="open" if ohm > FRAME_OPEN_ABOVE_OHM else f"{ohm:.0f}", unit="Ω")
        if request.kind == "insulation":
            return Shown(text=show_ohm(1e6 * self._insulation(request.seconds)), unit="MΩ")
        if request.kind == "bond":
            return Shown(text=f"{motor.bond_ohm + self._random.gauss(0, 5e-4):.3f}", unit="Ω")
        if request.kind == "bar":
            return self._bar(request)
        if request.kind == "switch":
            a, b = (self._lead(t) for t in request.ends)
            opens = motor.start_device == "switch" and self._through_start(a, b)
            return Shown(text="opens" if opens else "stays", unit="")
        if request.kind == "shaft":
            a, b = (self._lead(t) for t in request.ends)
            varies = self._passes(a, b, ("armature",))
            return Shown(text="varies" if varies else "steady", unit="")
        if request.kind == "series":
            return Shown(text=self._series(request), unit="V")
        if request.kind == "spin":
            return Shown(text="0.6 V" if self._tachometer(request.ends) else "0 V", unit="V")
        return Shown(
            text=self._run(request) if request.kind == "run" else self._kick(request), unit=""
        )

    def _lead(self, tag: str) -> str:
        try:
            return self._motor.lead_of[tag]
        except KeyError:
            raise InstrumentError(f"The simulated motor has no lead {tag}.") from None

    def _insulation(self, seconds: float) -> float:
        """Return MΩ after so many seconds: absorption fades, leakage stays."""
        share = self._motor.leak_share
        current = share + (1 - share) * (max(seconds, 1.0) / 60.0) ** -ABSORPTION
        return float(self._motor.frame_megohm / current * self._random.gauss(1, 0.005))

    def _through_start(self, a: str, b: str) -> bool:
        return self._passes(a, b, ("start", "auxiliary"))

    def _passes(self, a: str, b: str, kinds: tuple[str, ...]) -> bool:
        share = self._motor.network.shares(a, b)
        return any(
            c.like in kinds and abs(s) > 1e-9
            for c, s in zip(self._motor.network.coils, share, strict=True)
        )

    def _ohms(self, ohm: float, a: str, b: str) -> Shown:
        if self._motor.start_device == "capacitor" and self._through_start(a, b):
            return Shown(text="rising", unit="Ω", steady=False)
        ohm *= self._bad.pop(frozenset((a, b)), 1.0)
        return self._figure(ohm)

    def _figure(self, ohm: float) -> Shown:
        if ohm > self._meter.open_above_ohm:
            return Shown(text="open", unit="Ω")
        read = ohm * self._gain * self._random.gauss(1, NOISE_SHARE) + (self._meter.lead_ohm or 0.0)
        step = self._meter.resolution_ohm or 0.01
        places = max(0, len(f"{step:.6f}".rstrip("0").split(".")[1]))
        return Shown(text=f"{round(read / step) * step:.{places}f}", unit="Ω")

    def _bar(self, request: Request) -> Shown:
        """Return the ohms from a bar to the next, by four wires: a tenth of a milliohm shows."""
        bars = self._motor.bar_ohms
        number = request.ends[0].removeprefix("bar ")
        if not number.isdecimal() or not 0 < int(number) <= len(bars):
            raise InstrumentError(f"The simulated motor has no {request.ends[0]}.")
        ohm = bars[int(number) - 1] * self._gain * self._random.gauss(1, NOISE_SHARE)
        return Shown(text=f"{ohm:.4f}" if math.isfinite(ohm) else "open", unit="Ω")

    def _line(self, request: Request) -> Shown:
        network = self._motor.network.joined(self._joints(request))
        if request.devices:
            network = with_devices(network, request.devices, state_at(request.devices, "rest"))
        ends = [self._place(e) for e in request.ends]
        if any(e not in network.nodes() for e in ends):
            return Shown(text="open", unit="Ω")
        return self._figure(network.ohm_between(*ends))

    def _place(self, name: str) -> str:
        """Return the lead that is really where a tag should be; lines and terminals are themselves."""
        tag = self._motor.joined_as.get(name, name)
        return self._motor.lead_of.get(tag, tag)

    def _joints(self, request: Request) -> list[list[str]]:
        return [[self._place(n) for n in j] for j in request.joints]

    def _ran(self, request: Request) -> tuple[str, dict[str, float], str, dict[str, float]]:
        halves: Halves = "adjacent" if self._motor.adjacent_halves else "alternate"
        joints = self._joints(request)
        return run_of(self._motor.network, joints, request.devices, request.supply, halves)

    def _low_run(self, request: Request) -> Shown:
        """Return volts, amps of the lines, how it turns and which way at the drive end."""
        turns, amps, way, _ = self._ran(request)
        shown = "/".join(f"{a * self._random.gauss(1, NOISE_SHARE):.3g}" for a in amps.values())
        return Shown(text=f"{request.supply[1]:.0f} V {shown} {turns} {way}".rstrip(), unit="")

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
            halves="adjacent" if motor.adjacent_halves else "alternate",
            stiff=motor.stiff,
            dead_line=motor.dead_line,
            tired=motor.tired,
            magnetizing=motor.magnetizing,
        )

    def _trial(self, request: Request) -> Shown:
        """Return one step of a test run, in the words it is typed in; a step a minute, or as long as asked."""
        if request.supply[1] < 0.9 * self._volt:  # lower volts than before: another sheet
            self._steps = 0
        self._volt = request.supply[1]
        self._steps = max(self._steps + 1, int(request.minutes))
        amps, watt, rpm, turns = self.rig(request).step(request.loaded)
        shown = "/".join(f"{a * self._random.gauss(1, NOISE_SHARE):.3g}" for a in amps.values())
        speed = f" {rpm:.0f} rpm" if rpm else ""
        warm = f"{warmth(self._steps):.0f} °C {self._steps} min"
        text = f"{request.supply[1]:.0f} V {shown} A {watt:.0f} W{speed} {warm} {turns}"
        return Shown(text=text, unit="")

    def _start(self, request: Request) -> Shown:
        """Return what a timed start became, in the words it is typed in."""
        outcome, seconds, rpm = self.rig(request).start()
        at = f" {rpm:.0f} rpm" if rpm else ""
        return Shown(text=f"{outcome} {seconds * self._random.gauss(1, 0.02):.1f} s{at}", unit="")

    def _turning(self, request: Request) -> Shown:
        """Return the volts the shaft begins to turn from."""
        volt = self.rig(request).turns_from()
        if volt is None or volt > 1.1 * request.nominal:
            raise InstrumentError("It does not turn at any of these volts: type what you see.")
        return Shown(text=f"{volt * self._random.gauss(1, 0.01):.0f} V", unit="V")

    def _clamp(self, request: Request) -> Shown:
        """Return the amps in one lead."""
        *_, leads = self._ran(request)
        amp = leads.get(self._place(request.ends[0]), 0.0)
        return Shown(text=f"{amp * self._random.gauss(1, NOISE_SHARE):.3g}", unit="A")

    def _tachometer(self, tags: tuple[str, ...]) -> bool:
        ends = {self._lead(t) for t in tags}
        parts = self._motor.network.parts
        return any(p.kind == "tachometer" and {p.start, p.finish} == ends for p in parts)

    def _series(self, request: Request) -> str:
        """Return volts put on and volts read, the rotor in the bore: coils couple as in a kick."""
        network = self._motor.network
        a, b, c, d = (self._lead(t) for t in (*request.ends, *request.sense))
        halves: Halves = "adjacent" if self._motor.adjacent_halves else "alternate"
        led = network.kick_ratio((a, b), (c, d), coupled(network, halves))
        return f"{SERIES_VOLT:g} V {SERIES_VOLT * abs(1 + led):.2f}"

    def _run(self, request: Request) -> str:
        """Return volts, the amps of the lines, and how it turns."""
        lines, joints = (
            tuple(tuple(self._lead(t) for t in j) for j in every)
            for every in (request.lines, request.joints)
        )
        halves: Halves = "adjacent" if self._motor.adjacent_halves else "alternate"
        turns, amps = run_shown(self._motor.network, lines, joints, halves).likely()
        shown = "/".join(f"{RUN_VOLT * a:.3g}" if math.isfinite(a) else "99" for a in amps)
        return f"{RUN_VOLT:g} V {shown} {turns}"

    def _kick(self, request: Request) -> str:
        network = self._motor.network
        a, b = (self._lead(t) for t in request.ends)
        c, d = (self._lead(t) for t in request.sense)
        return kick(
            network, (a, b), (c, d), "adjacent" if self._motor.adjacent_halves else "alternate"
        )
