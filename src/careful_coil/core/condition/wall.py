"""The insulation wall of a motor: what limits hang on, which tests are wanted, what each test gives."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.condition.insulation import EXTRA_LOW_VOLT, corrected, dc_test_volts
from careful_coil.core.condition.polarization import insulation_minimum
from careful_coil.core.condition.suspicion import symptoms_in
from careful_coil.core.identify import Identification, Naming
from careful_coil.core.job import Job, Verdict
from careful_coil.core.job.at_insulation import InsulationTested
from careful_coil.core.job.tested import Logged
from careful_coil.core.settings import Settings
from careful_coil.core.sheets.insulation import MADE

FRAME = "frame"
AS_HARD = 0.5  # of the volts: a test at fewer does not take an earlier one's place
THERMAL: dict[str, int] = {"A": 105, "E": 120, "B": 130, "F": 155, "H": 180}  # IEC 60085, °C
INDEX_CLASS = "B"  # IEEE 43: from class 130 an index of 2 is wanted, 1.5 below
LOWEST_CLASS = "A"  # where nobody says: no limit of it hurts a better one
THREE = 3
WET_VOLT = (100.0, 250.0)  # first volts on a wet winding
Group = tuple[str, ...]
Spot = frozenset[str]  # a pair of names that a test has between its poles


NEAR_HELD = 0.95  # of it: a tester's own tolerance
HELD_VOLT = 1000.0  # V DC that may stand for a high-potential test after a rewind


@dataclass(frozen=True, slots=True, kw_only=True)
class Wall:
    """What limits hang on. `volt` rated, None unknown; `thermal` class in °C; `groups` the separate
    windings by tags, proven; `extras` tags of sensors and the like with what they are; `wet` the motor
    was wet and nothing dry has been read yet; `minimum` MΩ at 40 °C of the whole, with its source."""

    volt: float | None
    phases: int | None
    power_w: float | None
    construction: str
    material: Literal["thermosetting", "thermoplastic"]
    metal: str
    letter: str
    groups: tuple[Group, ...]
    extras: dict[str, str]
    wet: bool
    minimum: float
    minimum_source: str
    doubt: str = ""  # why it is looked at more closely than an ordinary one
    rewound: bool = False  # and its one high-potential test not made yet
    class_assumed: bool = False  # nobody says its class
    apart_wanted: str = ""  # why its windings are tested one by one, empty where together is enough

    @property
    def thermal(self) -> int:
        """Return the thermal class in °C that an index is held against: the stricter column where it is assumed."""
        return THERMAL[INDEX_CLASS if self.class_assumed else self.letter]

    @property
    def beside(self) -> tuple[str, ...]:
        """Return the leads that stand at the frame while the winding is tested: the earth lead, and sensors.

        Sensors once the windings are proven: a pair that is only taken for one is tested with the rest.
        """
        return tuple(t for t, what in self.extras.items() if what == "earth" or self.groups)

    def test_volts(self) -> tuple[float, float] | None:
        """Return the DC volts (low, high) to test with; None while the rating is not known."""
        if self.volt is None:
            return None
        if self.rewound and not self.wet and self.volt < HELD_VOLT:
            return HELD_VOLT, HELD_VOLT
        return WET_VOLT if self.wet else dc_test_volts(self.volt)

    def volts_why(self) -> str:
        """Return why these volts."""
        if self.volt is None:
            return "The plate's volts decide them; they are not known yet."
        if self.wet:
            return "It was wet: low volts until a reading shows it dry."
        if self.rewound and self.volt < HELD_VOLT:
            return f"Rewound: {HELD_VOLT:g} V held a minute stand for the high-potential test."
        low = self.volt <= EXTRA_LOW_VOLT
        source = "IEC 60364-6, extra-low volts" if low else "IEEE 43, DC test volts"
        return f"For {self.volt:g} V rated. Source: {source}."


def wall_of(job: Job, found: Identification | None, naming: Naming, settings: Settings) -> Wall:
    """Return what this motor's limits hang on."""
    made = job.tested.made
    volts = job.plate.volts
    volt = volts[-1][1] if volts else None
    construction = _one_of(made, "construction", "random")
    material = "thermoplastic" if construction == "old" else "thermosetting"
    limit = settings.insulation_sealed if job.seen.sealed else settings.insulation_minimum
    minimum, source = limit.value, limit.source
    if construction != "random" and not job.seen.sealed:
        minimum = insulation_minimum((volt or 400.0) / 1000, construction)
        source = "IEEE 43, minimum insulation resistance at 40 °C"
    extras = dict(found.best.extras) if found else {}
    proven = found is not None and naming.known
    doubt, size = _doubt(job), settings.apart_from
    apart = (
        doubt or (settings.school("windings-apart") == "always" and "this shop's practice") or ""
    )
    if not apart and (job.plate.power_w or 0.0) >= 1e3 * size.value:
        apart = f"{size.value:g} kW and more"
    groups = tuple(g for g in found.best.groups if not set(g) & set(extras)) if proven else ()  # type: ignore[union-attr]
    return Wall(
        volt=volt,
        phases=job.plate.phases,
        power_w=job.plate.power_w,
        construction=construction,
        material=_one_of(made, "material", material),  # type: ignore[arg-type]
        metal=_one_of(made, "metal", "copper"),
        letter=class_of(job),
        class_assumed=not class_told(job),
        groups=groups,
        extras=extras,
        wet=_wet(job) and not any(_dry(t.body, limit.value) for t in job.tested.tests),
        minimum=minimum,
        minimum_source=source,
        doubt=doubt,
        rewound=_still_to_hold(job, groups),
        apart_wanted=apart,
    )


def _still_to_hold(job: Job, groups: tuple[Group, ...]) -> bool:
    """Whether it was rewound and not all of it has been held at the high volts yet: that is done once."""
    tests = [t.body for t in made_since(job, "apart")]
    held = held_at(tests, groups) >= NEAR_HELD * HELD_VOLT
    return any(job.deeds.counted(("rewound",))) and not held


def held_at(tests: Sequence[InsulationTested], groups: Sequence[Group]) -> float:
    """Return the volts at which every separate winding was tested to the frame, all tied or one by one; V."""
    to_frame = [t for t in tests if not t.against]
    whole = [t.test_volt for t in to_frame if not t.parts]
    each = [
        max((t.test_volt for t in to_frame if set(g) <= set(t.parts)), default=0.0) for g in groups
    ]
    return max([*whole, min(each, default=0.0)])


def _one_of(made: object, field: str, usual: str) -> str:
    text = made.get(field, "") if isinstance(made, dict) else ""
    return text if MADE.field(field).means(text) else usual


def class_told(job: Job) -> str:
    """Return the letter of the insulation class: as set, else as on the plate; empty where nobody says."""
    made = job.tested.made.get("class", "")
    if made in THERMAL:
        return made
    printed = (
        job.plate.printed("insulation-class").strip().upper().removeprefix("CLASS").strip(" .")
    )
    by_degrees = {str(c): letter for letter, c in THERMAL.items()}
    letter = by_degrees.get(printed, printed)
    return letter if letter in THERMAL else ""


def class_of(job: Job) -> str:
    """Return the letter of the insulation class, the lowest there is where nobody says."""
    return class_told(job) or LOWEST_CLASS


def class_words(job: Job) -> str:
    """Return the class in words, said where it is assumed."""
    told = class_told(job)
    return f"class {told}" if told else f"class {LOWEST_CLASS}, assumed: nobody says its class"


def _wet(job: Job) -> bool:
    seen = job.seen.condition.get("windings")
    return (
        "wet" in symptoms_in(job.ticket.get("complaint", ""))
        or job.seen.symptoms.get("wet") == "yes"
        or (seen is not None and seen.text == "wet")
    )


def _doubt(job: Job) -> str:
    """Return why the insulation is in doubt: rewound, wet or burnt; empty where it is not."""
    done = {d.kind: d.words for d in job.deeds.counted(("rewound", "flooded"))}
    seen = job.seen.condition.get("windings")
    if done:
        return next(iter(done.values()))
    if _wet(job):
        return "it was wet"
    return f"windings {seen.text}" if seen is not None and seen.text in ("brown", "burnt") else ""


def _dry(test: InsulationTested, minimum: float) -> bool:
    at_40 = corrected(test.megohm, test.at_c, test.winding).megohm
    return at_40 is not None and at_40 >= minimum


def made_since(job: Job, fact: str) -> tuple[Logged[InsulationTested], ...]:
    """Return the tests that nothing done since has voided: of the wall to the frame, or between windings."""
    return job.tested.valid(job.deeds.last(fact))


# --- which tests, and what they cover ---------------------------------------------------------------


@dataclass(frozen=True, slots=True, kw_only=True)
class TestWanted:
    """A test to make: the leads joined under test, against which (empty: the frame and the rest)."""

    __test__ = False  # the name is not that of a test
    parts: Group = ()
    against: Group = ()

    def words(self) -> str:
        """Return it in words."""
        if not self.parts:
            return "All leads joined, to the frame"
        if self.against:
            return f"{' '.join(self.parts)} against {' '.join(self.against)}"
        return f"{' '.join(self.parts)} to the frame, the other windings earthed"


def group_names(groups: Sequence[Group]) -> dict[str, int]:
    """Return which separate winding each tag belongs to."""
    return {tag: k for k, g in enumerate(groups) for tag in g}


def covers(test: InsulationTested | TestWanted, groups: Sequence[Group]) -> frozenset[Spot]:
    """Return the pairs (winding number as text, or frame) that a test had volts between."""
    of = group_names(groups)
    if not test.parts or (not groups and not test.against):
        return frozenset(frozenset((str(k), FRAME)) for k in range(max(len(groups), 1)))
    mine = {str(of[t]) for t in test.parts if t in of}
    if test.against:
        theirs = {str(of[t]) for t in test.against if t in of} - mine
        return frozenset(frozenset((a, b)) for a in mine for b in theirs)
    others = {FRAME}
    if getattr(test, "others", "earthed") == "earthed":
        others |= {str(k) for k in range(len(groups))} - mine
    return frozenset(frozenset((a, b)) for a in mine for b in others)


def spots(groups: Sequence[Group]) -> frozenset[Spot]:
    """Return all pairs that must hold: each winding to the frame, each to each other one."""
    names = [*(str(k) for k in range(max(len(groups), 1))), FRAME]
    return frozenset(frozenset((a, b)) for a in names for b in names if a != b)


def standing(
    tests: Iterable[Logged[InsulationTested]], groups: Sequence[Group]
) -> tuple[Logged[InsulationTested], ...]:
    """Return the tests that no later one has taken the place of: all its pairs read again, as hard."""
    kept: list[Logged[InsulationTested]] = []
    for test in tests:
        mine, volt = covers(test.body, groups), test.body.test_volt
        if not mine:  # of parts beside the winding: a line of its own
            continue
        kept = [
            k
            for k in kept
            if not covers(k.body, groups) <= mine or volt < AS_HARD * k.body.test_volt
        ]
        kept.append(test)
    return tuple(kept)


def wanted_tests(wall: Wall, tests: Iterable[Logged[InsulationTested]]) -> tuple[TestWanted, ...]:
    """Return the tests still to make: each separate winding once, the others earthed.

    One winding, leads not proven yet, or no reason to test them apart: all joined, to the frame. What a
    test has covered, alone or with others, is not asked for again.
    """
    groups = wall.groups
    done: set[Spot] = set()
    for test in tests:
        done |= covers(test.body, groups)
    if len(groups) < 2 or not wall.apart_wanted:
        left = {s for s in spots(groups) if FRAME in s} - done
        return (TestWanted(),) if left else ()
    found = []
    for group in groups:
        one = TestWanted(parts=group)
        if not covers(one, groups) <= done:
            found.append(one)
            done |= covers(one, groups)
    return tuple(found)


def search_tests(wall: Wall, failed: InsulationTested) -> Iterator[TestWanted]:
    """Yield the tests that find where a failed one fails: each winding, then each pair alone."""
    groups = wall.groups
    of = group_names(groups)
    if len(groups) < 2:
        return
    if not failed.parts:
        yield from (TestWanted(parts=g) for g in groups)
        return
    if failed.against:
        return
    mine = {of[t] for t in failed.parts if t in of}
    for k, group in enumerate(groups):
        if k not in mine:
            yield TestWanted(parts=failed.parts, against=group)


# --- what a test gives ----------------------------------------------------------------------------


@dataclass(frozen=True, slots=True, kw_only=True)
class Given:
    """A test at 40 °C: `megohm` None where no correction holds (`why`); `factor` of the correction;
    `divisor` by which a part's figure stands for the whole."""

    megohm: float | None
    factor: float | None
    divisor: int
    why: str


def divisor_of(test: InsulationTested, wall: Wall) -> int:
    """Return by how much a part's figure is divided to stand for the whole winding.

    A phase of three alone, the others earthed: 2; on guard: 3 (IEEE 43). Of n windings of another
    make each alone leaks at least an n-th of what the whole does: n. Between windings: 1.
    """
    if not test.parts or test.against or len(wall.groups) < 2:
        return 1
    if wall.phases == THREE and len(wall.groups) == THREE:
        return 3 if test.others == "guarded" else 2
    return len(wall.groups)


def given(test: InsulationTested, wall: Wall) -> Given:
    """Return what a test gives for the whole winding at 40 °C."""
    at_40 = corrected(test.megohm, test.at_c, _material(test, wall))
    divisor = divisor_of(test, wall)
    return Given(
        megohm=None if at_40.megohm is None else at_40.megohm / divisor,
        factor=at_40.factor,
        divisor=divisor,
        why=at_40.why,
    )


def stands(test: InsulationTested, wall: Wall) -> Verdict:
    """Return whether a test reaches the minimum; unproven where it cannot be said."""
    got = given(test, wall).megohm
    if got is None:
        return "unproven"
    if got >= wall.minimum:
        return "unproven" if too_few_volts(test, wall) else "good"
    return "unproven" if test.above else "hold"


def too_few_volts(test: InsulationTested, wall: Wall) -> float | None:
    """Return the volts wanted where a test had less than half of them: it proves nothing."""
    usual = wall.test_volts()
    if usual is None or test.test_volt >= AS_HARD * usual[0]:
        return None
    return usual[0]


def frame_left(wall: Wall, tests: Iterable[Logged[InsulationTested]]) -> bool:
    """Whether a winding has no good test to the frame among these."""
    done: set[Spot] = set()
    for test in tests:
        if stands(test.body, wall) == "good":
            done |= covers(test.body, wall.groups)
    return any(FRAME in s and s not in done for s in spots(wall.groups))


def _material(test: InsulationTested, wall: Wall) -> Literal["thermosetting", "thermoplastic"]:
    return "thermoplastic" if test.winding == "thermoplastic" else wall.material
