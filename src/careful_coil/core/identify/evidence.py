"""Readings digested for weighing: one observation a pair, whatever the order they came in."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace

from careful_coil.core.errors import BadDocument
from careful_coil.core.identify.result import code_of
from careful_coil.core.readings import (
    PLAIN_METER,
    AnyReading,
    Found,
    Frame,
    Kick,
    Meter,
    Resistance,
    Run,
    Series,
    Shaft,
    Spin,
    Switch,
    check_reading,
    ohm_value,
    volt_value,
)
from careful_coil.core.values import Qualifier, show_ohm

MOST_LEADS = 16
COARSEST_RESOLUTION_OHM = 0.1
USUALLY_ADJACENT = 0.15  # of motors with halved phases: the halves are adjacent poles
LEAST_SIGMA_OHM = 1e-4  # no bench meter tells less


@dataclass(frozen=True, slots=True, kw_only=True)
class Ohms:
    """What stands for one pair of leads: a figure in Ω as read, or what it did instead.

    `takes` are the readings averaged into it; `sigma` its own scatter in Ω, without the meter's
    gain, which all readings share.
    """

    a: int
    b: int
    state: str  # value, open, rising, unsteady, beep
    ohm: float = 0.0
    sigma: float = 0.0
    takes: tuple[int, ...] = ()

    @property
    def again(self) -> int:
        """How many takes say the same."""
        return max(len(self.takes), 1)

    @property
    def size(self) -> float:
        """Return its ohms for a density in the logarithm: not less than it can tell from nothing."""
        return max(self.ohm, self.sigma, LEAST_SIGMA_OHM)

    @property
    def conducts(self) -> bool:
        """Whether it says that the two leads belong together."""
        return self.state in ("value", "rising", "beep")


@dataclass(frozen=True, slots=True)
class KickTest:
    """What a battery kick showed: leads by number, the newest take's reading, how often it was so."""

    source: tuple[int, int]
    sense: tuple[int, int]
    value: str
    reading: int = -1
    takes: int = 1

    @property
    def leads(self) -> tuple[int, int, int, int]:
        """Return battery +, –, meter +, –."""
        return (*self.source, *self.sense)


@dataclass(frozen=True, slots=True)
class SeriesTest:
    """Low alternating volts on a path, two leads tied, read across: lead numbers, volts as share."""

    source: tuple[int, int]
    tie: tuple[int, int]
    across: tuple[int, int]
    ratio: float  # volts read over volts applied


@dataclass(frozen=True, slots=True)
class RunTest:
    """A run at reduced volts: leads on the three lines and joined, amps of the lines, how it turned."""

    lines: tuple[tuple[int, ...], ...]
    joints: tuple[tuple[int, ...], ...]
    volt: float
    amp: tuple[float, ...]
    turns: str


@dataclass(frozen=True, slots=True)
class FoundJoints:
    """Joints as found: lines by name, leads by number; and whether the motor ran with them."""

    joints: tuple[tuple[int | str, ...], ...]
    ran: str


@dataclass(frozen=True, slots=True)
class Leanings:
    """What speaks for a winding before anything is read: shop's odds, the kind of motor, clips.

    `arrangements` the shop's own odds over the usual ones, by slug; `kinds` how much likelier than
    usual the kind of motor makes each winding; `path` the odds of what lies in the start winding's path
    (nothing, a switch, a bled capacitor, a capacitor; none: the usual ones); `bunching` whether several
    leads may be asked for as one end; `clips` the leads the probes are on, which are cheaper to keep;
    `put_off` codes of readings that cannot be taken now; `adjacent` how many motors have halves of
    adjacent poles.
    """

    arrangements: tuple[tuple[str, float], ...] = ()
    kinds: tuple[tuple[str, float], ...] = ()
    path: tuple[float, ...] = ()
    bunching: bool = True
    clips: tuple[int, ...] = ()
    put_off: tuple[str, ...] = ()
    adjacent: float = USUALLY_ADJACENT

    @property
    def odds(self) -> "Leanings":
        """Return what of it bears on how common a winding is."""
        return Leanings(arrangements=self.arrangements, kinds=self.kinds)


PLAIN_LEANINGS = Leanings()


@dataclass(frozen=True, slots=True, kw_only=True)
class Evidence:
    """Tags in order, one `Ohms` a pair, tests by lead number, remarks."""

    tags: tuple[str, ...]
    meter: Meter
    ohms: tuple[Ohms, ...] = ()
    switches: tuple[tuple[int, int, str], ...] = ()
    kicks: tuple[KickTest, ...] = ()
    shafts: tuple[tuple[int, int, str], ...] = ()
    spins: tuple[tuple[int, int, float], ...] = ()
    bunched: tuple[tuple[int, tuple[int, ...], str], ...] = ()  # one lead against several
    serieses: tuple[SeriesTest, ...] = ()
    runs: tuple[RunTest, ...] = ()
    founds: tuple[FoundJoints, ...] = ()
    known: tuple[tuple[int, str], ...] = ()  # roles on somebody's word, by lead number
    marks: tuple[tuple[int, str], ...] = ()  # what is printed on leads, by lead number
    uses: tuple[tuple[int, str], ...] = ()  # what is said of leads beside the winding
    lugs_off: tuple[str, ...] = ()  # tags that read open to the frame once their lug was off it
    phases: int | None = None  # as the plate says
    leanings: Leanings = PLAIN_LEANINGS
    notes: tuple[str, ...] = ()
    frame: tuple[tuple[str, float], ...] = ()

    @property
    def printed(self) -> tuple[tuple[int, str], ...]:
        """Return what is printed on leads, and what those beside the winding are said to be."""
        return tuple(sorted({**dict(self.marks), **dict(self.uses)}.items()))

    def waits(self, kind: str, *ends: int | tuple[int, ...]) -> bool:
        """Whether a reading is put off, its leads by number."""
        names = (
            self.tags[e] if isinstance(e, int) else tuple(self.tags[k] for k in e) for e in ends
        )
        return bool(self.leanings.put_off) and code_of(kind, *names) in self.leanings.put_off

    @classmethod
    def of(
        cls,
        tags: Sequence[str],
        readings: Sequence[AnyReading],
        meter: Meter = PLAIN_METER,
        phases: int | None = None,
        known: Mapping[str, str] | None = None,
        leanings: Leanings = PLAIN_LEANINGS,
        marks: Mapping[str, str] | None = None,
        uses: Mapping[str, str] | None = None,
        stale: Collection[int] = (),
    ) -> "Evidence":
        """Digest readings; `phases` as the plate says, `known` roles by tag on somebody's word,
        `marks` what is printed on the leads, `uses` what those beside the winding are said to be,
        `stale` readings by number that count no more.

        Raises: BadDocument for an unknown tag or a pair of one lead.
        """
        _check_tags(tags)
        at = {tag: k for k, tag in enumerate(tags)}
        told, printed, beside = (
            tuple(sorted((at[t], word) for t, word in (words or {}).items() if t in at and word))
            for words in (known, marks, uses)
        )
        found = _digest(tuple(tags), readings, meter, stale)
        return replace(
            found, phases=phases, known=told, leanings=leanings, marks=printed, uses=beside
        )


def _check_tags(tags: Sequence[str]) -> None:
    if len(set(tags)) != len(tags):
        twice = next(t for t in tags if list(tags).count(t) > 1)
        raise BadDocument("leads", f"the tag {twice} twice", "each tag once")
    if not 1 <= len(tags) <= MOST_LEADS:
        raise BadDocument("leads", f"{len(tags)} leads", f"1 to {MOST_LEADS} leads")


def _digest(
    tags: tuple[str, ...],
    readings: Sequence[AnyReading],
    meter: Meter,
    stale: Collection[int],
) -> Evidence:
    number = {tag: k for k, tag in enumerate(tags)}
    takes: dict[tuple[int, int], list[_Take]] = {}
    switches: dict[tuple[int, int], str] = {}
    kicks: dict[tuple[int, ...], KickTest] = {}
    shafts: dict[tuple[int, int], str] = {}
    spins: dict[tuple[int, int], float] = {}
    bunched: dict[tuple[int, tuple[int, ...]], tuple[int, tuple[int, ...], str]] = {}
    frame: dict[str, float] = {}
    lugs: dict[str, float] = {}
    unweighed, stood = 0, 0
    serieses: set[SeriesTest] = set()
    runs: set[RunTest] = set()
    founds: set[FoundJoints] = set()
    for index, reading in enumerate(readings):
        where = f"reading {index} ({reading.kind})"

        check_reading(reading, tags, where)
        if index in stale:
            continue
        if isinstance(reading, Resistance) and reading.through:
            stood += 1
        elif isinstance(reading, Resistance):
            pair = reading.pair()
            if pair is None:
                told = _bunched(reading, number, meter)
                bunched |= {one[:2]: one for one in told}
                unweighed += not told
                continue
            a, b = sorted(number[t] for t in pair)
            takes.setdefault((a, b), []).append(_take(index, reading, meter))
        elif isinstance(reading, Frame):
            (lugs if reading.lug else frame)[reading.lead] = ohm_value(reading.value).value
        elif isinstance(reading, Switch):
            a, b = sorted(number[t] for t in reading.between)
            switches[(a, b)] = reading.value
        elif isinstance(reading, Kick):
            kick = _kick(reading, index, number)
            before = kicks.get(kick.leads)
            again = before is not None and before.value == kick.value
            kicks[kick.leads] = replace(kick, takes=before.takes + 1 if before and again else 1)
        elif isinstance(reading, Shaft):
            a, b = sorted(number[t] for t in reading.between)
            shafts[(a, b)] = reading.value
        elif isinstance(reading, Spin):
            a, b = sorted(number[t] for t in reading.between)
            spins[(a, b)] = reading.volt
        elif isinstance(reading, Series):
            serieses.add(_series(reading, number))
        elif isinstance(reading, Run):
            runs.add(_run(reading, number))
        elif isinstance(reading, Found):
            joints = sorted((tuple(number.get(t, t) for t in j) for j in reading.joints), key=repr)
            founds.add(FoundJoints(tuple(joints), reading.ran))
    resolution = meter.resolution_ohm or _finest(takes)
    ohms = tuple(_stand(pair, takes[pair], meter, resolution) for pair in sorted(takes))
    notes = []
    if unweighed:
        notes.append(
            "A reading of several leads against several that is not open proves no pair: it is kept, not "
            "weighed."
        )
    if stood:
        notes.append(
            f"{stood} reading{'s' if stood > 1 else ''} through joints that stood: kept, not taken for bare "
            "coils. Take it apart, read again."
        )
    for tag, ohm in frame.items():
        if ohm < meter.open_above_ohm:
            notes.append(f"{tag} reads {show_ohm(ohm)} to the frame: it must be open.")
    return Evidence(
        tags=tags,
        meter=meter,
        ohms=ohms,
        switches=tuple((a, b, v) for (a, b), v in sorted(switches.items())),
        kicks=tuple(kicks[k] for k in sorted(kicks)),
        shafts=tuple((a, b, v) for (a, b), v in sorted(shafts.items())),
        spins=tuple((a, b, v) for (a, b), v in sorted(spins.items())),
        bunched=tuple(bunched[k] for k in sorted(bunched)),
        serieses=tuple(sorted(serieses, key=repr)),
        runs=tuple(sorted(runs, key=repr)),
        founds=tuple(sorted(founds, key=repr)),
        notes=tuple(notes),
        frame=tuple(frame.items()),
        lugs_off=tuple(t for t, ohm in lugs.items() if ohm >= meter.open_above_ohm),
    )


def _kick(reading: Kick, index: int, number: dict[str, int]) -> KickTest:
    source, sense = ((number[ends[0]], number[ends[1]]) for ends in (reading.source, reading.sense))
    return KickTest(source, sense, reading.value, index)


def _series(reading: Series, number: dict[str, int]) -> SeriesTest:
    def pair(ends: tuple[str, str]) -> tuple[int, int]:
        return number[ends[0]], number[ends[1]]

    ratio = volt_value(reading.value).value / reading.applied_volt
    return SeriesTest(pair(reading.source), pair(reading.tie), pair(reading.across), ratio)


def _run(reading: Run, number: dict[str, int]) -> RunTest:
    def leads(joint: tuple[str, ...]) -> tuple[int, ...]:
        return tuple(number[t] for t in joint if t in number)

    return RunTest(
        lines=tuple(leads(j) for j in reading.lines),
        joints=tuple(sorted(leads(j) for j in reading.joints if len(leads(j)) > 1)),
        volt=reading.applied_volt,
        amp=reading.amp,
        turns=reading.turns,
    )


def _bunched(
    reading: Resistance, number: dict[str, int], meter: Meter
) -> list[tuple[int, tuple[int, ...], str]]:
    """Return one lead against several clipped together, and whether it conducts.

    Several against several say something only when they read open: then of each of them.
    """
    ends = [tuple(number[t] for t in ((e,) if isinstance(e, str) else e)) for e in reading.between]
    one, many = sorted(ends, key=len)
    take = _take(0, reading, meter)
    if take.state == "unsteady" or (len(one) > 1 and take.state != "open"):
        return []
    state = "open" if take.state == "open" else "conducts"
    return [(k, tuple(sorted(many)), state) for k in one]


@dataclass(frozen=True, slots=True)
class _Take:
    index: int
    state: str
    ohm: float = 0.0
    step: float = 0.0
    typed: bool = False  # digits came as text: their last place is the reading's own resolution


def _take(index: int, reading: Resistance, meter: Meter) -> _Take:
    value = ohm_value(reading.value)
    if value.qualifier in (Qualifier.RISING, Qualifier.UNSTEADY, Qualifier.BEEP):
        return _Take(index, str(value.qualifier))
    if value.value > meter.open_above_ohm or value.qualifier is Qualifier.ABOVE:
        return _Take(index, "open")
    return _Take(index, "value", value.value, value.step, isinstance(reading.value, str))


def _finest(takes: dict[tuple[int, int], list[_Take]]) -> float:
    steps = [t.step for several in takes.values() for t in several if t.state == "value"]
    return min(steps, default=COARSEST_RESOLUTION_OHM)


def _stand(pair: tuple[int, int], takes: list[_Take], meter: Meter, resolution: float) -> Ohms:
    """Average the takes that agree with the last one; an unsteady take gives way to a steady."""
    steady = [t for t in takes if t.state != "unsteady"]
    if not steady:
        return Ohms(a=pair[0], b=pair[1], state="unsteady", takes=(takes[-1].index,))
    last = steady[-1]
    if last.state != "value":
        same = tuple(t.index for t in steady if t.state == last.state)
        return Ohms(a=pair[0], b=pair[1], state=last.state, takes=same)
    share = meter.accuracy_percent / 100
    step = max(resolution, last.step if last.typed else 0.0)
    agree = [
        t
        for t in steady
        if t.state == "value" and abs(t.ohm - last.ohm) <= share * last.ohm + 1.5 * step
    ]
    # the stated accuracy is mostly gain, shared by all readings; a third of it is each one's own
    sigma = max(share * last.ohm / 3 + step / 2, LEAST_SIGMA_OHM)
    return Ohms(
        a=pair[0],
        b=pair[1],
        state="value",
        ohm=sum(t.ohm for t in agree) / len(agree),
        sigma=sigma / len(agree) ** 0.5,
        takes=tuple(t.index for t in agree),
    )
