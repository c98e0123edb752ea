"""What is logged at Insulation: ohms, tests of the insulation, what was made ready, drying, bonds."""

from typing import Annotated, Literal

from pydantic import Field

from careful_coil.core.job.at_trial import TrialStep
from careful_coil.core.job.body import Body, LongText, ShortText
from careful_coil.core.readings import End, Tag

Ohms = Annotated[float, Field(gt=0, le=1e9, allow_inf_nan=False)]
Megohm = Annotated[float, Field(ge=0, le=1e7, allow_inf_nan=False)]
Celsius = Annotated[float, Field(ge=-50, le=200, allow_inf_nan=False)]
AirCelsius = Annotated[float, Field(ge=-40, le=50, allow_inf_nan=False)]
Volts = Annotated[float, Field(gt=0, le=20000, allow_inf_nan=False)]
Seconds = Annotated[float, Field(gt=0, le=7200, allow_inf_nan=False)]
Percent = Annotated[float, Field(ge=1, le=100, allow_inf_nan=False)]
Point = Annotated[float, Field(allow_inf_nan=False)]
Metal = Literal["copper", "aluminium"]

# where the bond is read, each against the earth stud or lead
BondPlace = Literal["frame", "drive end bell", "other end bell"]
BOND_PLACES: tuple[BondPlace, ...] = ("frame", "drive end bell", "other end bell")


class WindingOhm(Body):
    """Ohms of the winding for its balance: between two leads (or leads clipped together), or lines.

    `value` as read; `wires` 2 or 4; `lead_ohm` what the test leads add, None where it is not known;
    `connected` the coils stood joined as made or as found, None apart; `at_c` the winding's °C.
    """

    kind: Literal["winding-ohm"] = "winding-ohm"
    between: tuple[End, End]
    value: Annotated[float, Field(gt=0, le=1e7, allow_inf_nan=False)]
    wires: Literal[2, 4] = 2
    lead_ohm: Annotated[float, Field(ge=0, le=10)] | None = None
    step_ohm: Annotated[float, Field(gt=0, le=100)] | None = None
    at_c: Celsius | None = None
    connected: Literal["apart", "made", "found"] = "apart"
    instrument: ShortText = "typed"


class TestReady(Body):
    """Before high volts go on: what was taken off or earthed, each ticked; lapses when touched."""

    kind: Literal["test-ready"] = "test-ready"
    __test__ = False  # the name is not that of a test
    items: Annotated[tuple[ShortText, ...], Field(min_length=1, max_length=30)]
    volt: Volts


class InsulationTested(Body):
    """Insulation resistance in MΩ: the one-minute figure, or the curve with it.

    `parts` the leads under test, empty for the whole winding joined; `against` the leads tested
    against, empty for the frame; `others` what the rest of the winding was on; `readings`
    (seconds, MΩ) of the curve.
    """

    kind: Literal["insulation"] = "insulation"
    megohm: Megohm
    at_c: Celsius
    test_volt: Volts = 500.0
    winding: Literal["thermosetting", "thermoplastic"] = "thermosetting"
    above: bool = False  # the tester's range ended: at least this much
    parts: Annotated[tuple[Tag, ...], Field(max_length=16)] = ()
    against: Annotated[tuple[Tag, ...], Field(max_length=16)] = ()
    others: Literal["earthed", "guarded", "loose"] = "earthed"
    readings: Annotated[tuple[tuple[Seconds, Megohm], ...], Field(max_length=2000)] = ()
    air_c: AirCelsius | None = None
    humidity_percent: Percent | None = None

    @property
    def length_s(self) -> float:
        """Return how long the volts were on, in seconds."""
        return max([s for s, _ in self.readings], default=60.0)


class Discharged(Body):
    """The winding was earthed after a test, so long."""

    kind: Literal["discharged"] = "discharged"
    seconds: Annotated[float, Field(ge=0, le=1e6)]


class Steps(Body):
    """Insulation at rising volts, each after the same time: (volts, MΩ)."""

    kind: Literal["step-voltage"] = "step-voltage"
    steps: Annotated[tuple[tuple[Volts, Megohm], ...], Field(min_length=2, max_length=40)]
    at_c: Celsius | None = None


class Surged(Body):
    """A surge comparison: traces by name, all at the same instants `step_s` apart, at a peak `volt`.

    `by` what the names are: windings at one voltage, or volts of one winding.
    """

    kind: Literal["surge"] = "surge"
    traces: Annotated[
        dict[ShortText, Annotated[tuple[Point, ...], Field(min_length=16, max_length=400)]],
        Field(min_length=2, max_length=3),
    ]
    step_s: Annotated[float, Field(gt=0, le=1)]
    by: Literal["windings", "volts"] = "windings"


class HeatRun(Body):
    """Temperature by resistance: cold ohms, ohms while cooling (seconds after switching off, Ω)."""

    kind: Literal["heat-run"] = "heat-run"
    cold_ohm: Ohms
    cold_c: Celsius
    hot: Annotated[
        tuple[tuple[Annotated[float, Field(ge=0, le=7200)], Ohms], ...],
        Field(min_length=1, max_length=200),
    ]
    air_c: AirCelsius
    metal: Metal = "copper"


class Work(Body):
    """Work on the winding or its leads: makes an earlier insulation test void.

    `method`, `hours` and `at_c` how it was cleaned, dried or baked.
    """

    kind: Literal["work"] = "work"
    what: Literal["cleaned", "dried", "varnished", "rewound", "leads renewed"]
    words: LongText = ""
    method: ShortText = ""
    hours: Annotated[float, Field(ge=0, le=10000)] | None = None
    at_c: Annotated[float, Field(ge=-50, le=400)] | None = None


class DryingRun(Body):
    """A drying campaign begins or ends; insulation tests in between are its readings."""

    kind: Literal["drying"] = "drying"
    act: Literal["begin", "end"]
    method: ShortText = ""
    out: Annotated[tuple[ShortText, ...], Field(max_length=20)] = ()  # taken out or kept cool


class EarthBond(Body):
    """Ohms from the earth stud or lead to bare metal, as read.

    `nulled` whether the test leads were subtracted; `cord` read through the cord's earth pin.
    """

    kind: Literal["earth-bond"] = "earth-bond"
    ohm: Annotated[float, Field(ge=0, le=1e6)]
    place: BondPlace = "frame"
    wires: Literal[2, 4] = 2
    nulled: bool = True
    cord: bool = False
    step_ohm: Annotated[float, Field(gt=0, le=100)] | None = None


class Covers(Body):
    """The covers and end bells went on, or came off again."""

    kind: Literal["covers"] = "covers"
    on: bool = True


class EarlierTest(Body):
    """One test of an earlier job: when, MΩ at 40 °C, the curve where there was one."""

    kind: Literal["earlier-test"] = "earlier-test"
    at: Annotated[str, Field(pattern=r"^\d{4}-\d\d-\d\d")]
    megohm_at_40: Megohm
    readings: Annotated[tuple[tuple[Seconds, Megohm], ...], Field(max_length=2000)] = ()


class SameMotor(Body):
    """This motor was here before: the other job's number, its tests and coil ohms at 20 °C, its last run."""

    kind: Literal["same-motor"] = "same-motor"
    number: Annotated[int, Field(ge=1)]
    tests: Annotated[tuple[EarlierTest, ...], Field(max_length=200)] = ()
    coil_ohm: Annotated[dict[ShortText, Ohms], Field(max_length=40)] = Field(default_factory=dict)
    run: Annotated[tuple[TrialStep, ...], Field(max_length=100)] = ()  # without load, whole
