"""Which wrong hookups would show what the motor does: every single slip run through the network.

Figures are held against those of the right hookup, with an ordinary rotor: what is told is a leaning,
the test that shows the slip decides.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace

from careful_coil.core.condition.suspicion import SILENT
from careful_coil.core.condition.symptoms import REST, SYMPTOMS
from careful_coil.core.connect.explain import Slip, plain, slips_of
from careful_coil.core.connect.hookup import NOTHING, Answer, Hookup, start_and_run
from careful_coil.core.ways.states import states_of
from careful_coil.core.ways.way import Plan
from careful_coil.core.winding.single_phase import START_COILS

SURE, LIKELY, MAYBE = 0.9, 0.6, 0.35  # chance that a customer names it
NO_START, WEAK_START = 0.15, 0.6  # of the right starting torque
WEAK_RUN = 0.7  # of the right running torque
MUCH, VERY_MUCH = 1.3, 2.5  # times the right amps
ROUGH = 0.15  # backward field over forward, beyond the right hookup's: growls and shakes
# how often each kind of slip is made, in round numbers
COMMON: dict[str, float] = {
    "lead-left-out": 3.0,
    "terminal-left-out": 3.0,
    "leads-exchanged": 3.0,
    "coil-reversed": 3.0,
    "terminals-exchanged": 2.0,
    "coils-exchanged": 2.0,
    "joint-open": 2.0,
    "devices-exchanged": 1.5,
    "terminal-moved": 1.0,
    "device-bridged": 1.0,
}
STAYS = 0.02  # of the standstill amps: a start winding that is still in


@dataclass(frozen=True, slots=True, kw_only=True)
class Shown:
    """What wrong hookups of the same doing would do: slips, the commonest first, the chance of each
    symptom, their odds among all."""

    slips: tuple[Slip, ...]
    shows: Mapping[str, float]
    odds: float

    @property
    def title(self) -> str:
        """Return the commonest of them in words."""
        return self.slips[0].text()


def hookups_that_show(
    symptoms: Mapping[str, str], hookup: Hookup, right: Plan
) -> tuple[Shown, ...]:
    """Return single slips from the right hookup by how well they show these symptoms, best first.

    `symptoms` yes or no by name, as the complaint has them; slips that change nothing are left out,
    those of the same doing are told once.
    """
    meant = hookup.of_plan(right)
    states = states_of(right.devices)[:2]
    pair = (states[0], states[1])
    good = start_and_run(meant, right.field, pair)
    found: dict[tuple[tuple[str, float], ...], list[Slip]] = {}
    same = plain(right.joints, right.devices)
    for slip in slips_of(meant.inside(), right.joints, right.devices):
        joints = slip.done_to(right.joints)
        if plain(joints, right.devices) == same:
            continue
        made = start_and_run(replace(meant, joints=joints), right.field, pair)
        shows = symptoms_of(meant, made, good)
        if shows:
            found.setdefault(tuple(sorted(shows.items())), []).append(slip)
    weights = []
    for key, slips in found.items():
        slips.sort(key=lambda s: -COMMON[s.kind])
        often = sum(COMMON[s.kind] for s in slips)
        weights.append((tuple(slips), dict(key), often * _weight(dict(key), symptoms)))
    whole = sum(w for _, _, w in weights) or 1.0
    weights.sort(key=lambda x: -x[2])
    return tuple(Shown(slips=s, shows=shows, odds=w / whole) for s, shows, w in weights)


def _weight(shows: Mapping[str, float], symptoms: Mapping[str, str]) -> float:
    weight = 1.0
    for name in SYMPTOMS:
        chance = shows.get(name, REST)
        said = symptoms.get(name)
        weight *= chance if said == "yes" else 1 - chance if said == "no" else 1 - SILENT * chance
    return weight


def symptoms_of(
    hookup: Hookup, made: tuple[Answer, Answer], good: tuple[Answer, Answer]
) -> dict[str, float]:
    """Return the chance of each symptom of a hookup from its figures and the right one's.

    Both are at standstill and running. Empty where nothing differs.
    """
    (start, run), (start_right, run_right) = made, good
    if start.shorted or run.shorted:
        return {"trips-at-once": SURE, "smells": MAYBE}
    still, still_right = (_most(a.line_amp.values()) for a in (start, start_right))
    if still <= NOTHING * max(still_right, NOTHING):
        return {"dead": SURE}
    shows: dict[str, float] = {}

    def add(**chances: float) -> None:
        for name, chance in chances.items():
            key = name.replace("_", "-")
            shows[key] = max(shows.get(key, 0.0), chance)

    torque = _torque(start) * (start_right.turn or 1) / (_torque(start_right) or NOTHING)
    if abs(torque) < NO_START and abs(_torque(start_right)) > NOTHING:
        add(hums=SURE, starts_pushed=LIKELY, trips_later=LIKELY)
    elif start.turn * start_right.turn < 0:
        add(reversed=SURE)
    if NO_START <= abs(torque) < WEAK_START:
        add(slow=LIKELY, weak=MAYBE)
    amps, amps_right = (_most(a.line_amp.values()) for a in (run, run_right))
    ratio = amps / max(amps_right, NOTHING)
    if still / max(still_right, NOTHING) > VERY_MUCH or ratio > 2 * VERY_MUCH:
        add(trips_at_once=LIKELY)
    if ratio > MUCH:
        add(hot=LIKELY, trips_later=LIKELY)
    if ratio > VERY_MUCH:
        add(hot=SURE, smells=LIKELY, noisy=LIKELY)
    pull = abs(_torque(run)) / max(abs(_torque(run_right)), NOTHING)
    if pull < WEAK_RUN:
        add(weak=LIKELY, slow=LIKELY)
    if _rough(run) > _rough(run_right) + ROUGH:
        add(noisy=LIKELY, vibrates=MAYBE)
    if _stays_in(hookup, start, run) and not _stays_in(hookup, start_right, run_right):
        add(hot=SURE, smells=LIKELY, trips_later=LIKELY, noisy=MAYBE)
    return shows


def _most(values: Iterable[float]) -> float:
    return max(values, default=0.0)


def _torque(answer: Answer) -> float:
    return float(answer.steady.torque[0])


def _rough(answer: Answer) -> float:
    ahead = max(answer.forward, answer.backward)
    return min(answer.forward, answer.backward) / max(ahead, NOTHING)


def _stays_in(hookup: Hookup, start: Answer, run: Answer) -> bool:
    """Whether the start winding carries much in run, or a start capacitor still does."""
    largest = _most(abs(a) for a in start.coil_amp.values())
    coils = [c.name for c in hookup.inside().coils if c.like in START_COILS]
    run_can = any(d.kind in ("capacitor-run", "capacitor-dual") for d in hookup.devices)
    winding = not run_can and any(abs(run.coil_amp[c]) > STAYS * largest for c in coils)
    cans = [d.name for d in hookup.devices if d.kind == "capacitor-start"]
    before, after = (a.steady.capacitor_volt for a in (start, run))
    charged = any(
        abs(after[n][0]) > max(STAYS * abs(before[n][0]), NOTHING) for n in cans if n in after
    )
    return winding or charged
