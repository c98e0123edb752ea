"""From a right hookup, every single slip: which test shows it, by how much, and the cheapest.

An ohmmeter between lines cannot see a reversed or exchanged equal coil; a run at a quarter of the
volts with three amps compared can, and a kick on the loose leads can.
"""

import itertools
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cache

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.connect.check import check
from careful_coil.core.connect.explain import DEVICE_SLIPS, Slip, equals, plain, slips_of
from careful_coil.core.connect.given import OHMS_SHARE, ohms_differ
from careful_coil.core.connect.hookup import Answer, Hookup, Supplied, answer
from careful_coil.core.connect.plans import Plate
from careful_coil.core.values import show_figure
from careful_coil.core.ways.book import plans_of
from careful_coil.core.ways.way import Plan
from careful_coil.core.winding.arrangements import arrangement
from careful_coil.core.winding.kick import HALF_OTHER_PHASE, HALF_SAME_PHASE, kick_class
from careful_coil.core.winding.network import Network
from careful_coil.core.winding.symmetry import parts

RENAMING = ("coil-reversed", "coils-exchanged", "leads-exchanged")
RUNNING = ("start", "run", "star", "delta", "first-half")  # a start at full volts shows these
RATED = 400.0  # any volts: only ratios are told
RUN_SHARE = 0.25  # of the supply's volts
AMPS_APART = 0.10  # of the mean: what three clamp readings tell
AMPS_OTHER = 0.20  # more or less current than the right hookup's
OPEN = float("inf")


@dataclass(frozen=True, slots=True, kw_only=True)
class Likely:
    """One slip and what each test shows of it.

    `ohms` the line pair that changes most with its reading and the right one in Ω (infinite: open);
    `amps` each line's current at standstill over the right hookup's; `amps_apart` the largest
    departure from their mean, of 1; `kick` the pair of pairs whose kick changes, or None; `state` the
    state of its devices in which it shows first, where that is what shows it.
    """

    title: str
    slip: Slip | None
    short: bool
    ohms: tuple[str, float, float] | None
    amps: dict[str, float]
    amps_apart: float
    turns: int
    run_shows: bool
    kick: tuple[tuple[str, str], tuple[str, str]] | None
    cheapest: str
    state: str = ""

    @property
    def ohms_show(self) -> bool:
        """Whether line ohms show it by 3 % or more."""
        return self.ohms is not None


def likely_slips(hookup: Hookup, right: Plan) -> tuple[Likely, ...]:
    """Return all single slips from a right hookup on its supply; what is as good as it is none."""
    meant = hookup.of_plan(right)
    good = _quarter(meant, right)
    as_good = {plain(j, right.devices) for j in equals(meant.inside(), right)}
    found = []
    for slip in slips_of(meant.inside(), right.joints, right.devices):
        likely = _judged(meant, right, good, slip)
        same = plain(slip.done_to(right.joints), right.devices) in as_good
        if slip.kind in DEVICE_SLIPS:
            likely = _in_states(meant, right, slip, likely)
            same = not likely.state
        if likely.ohms_show or likely.run_shows or not same:
            found.append(likely)
    for other in plans_of(right.arrangement, right.variant, right.devices):
        alike = other.start == "direct" and other.speed == right.speed and not other.reversed
        if alike and other.connection != right.connection:
            found.append(_other_volts(meant, right, good, other))
    return tuple(found)


def _quarter(hookup: Hookup, right: Plan) -> Answer:
    low = replace(hookup.supply, volt=hookup.supply.volt * RUN_SHARE)
    return answer(replace(hookup, supply=low), "start", 1.0, right.field)


def _judged(meant: Hookup, right: Plan, good: Answer, slip: Slip) -> Likely:
    wrong = replace(meant, joints=slip.done_to(right.joints))
    network = meant.inside()
    kick = kick_change(network, slip) if slip.kind in RENAMING else None
    return _likely(slip.text(), slip, _quarter(wrong, right), good, kick)


def _in_states(meant: Hookup, right: Plan, slip: Slip, likely: Likely) -> Likely:
    """Return a slip of a device with the state in which the check finds it; none where it is as good."""
    found = check(replace(meant, joints=slip.done_to(right.joints)))
    holds = [f for f in found.faults if f.severity == "hold"]
    if not holds:
        return likely
    states = [f.state for f in holds if f.state] or ["start"]
    state = min(states, key=lambda s: (s.split(",")[0] not in RUNNING, s != "start"))
    run = likely.run_shows or state.split(",")[0] in RUNNING
    shows = "ohms" if likely.ohms else "run" if run else "none"
    return replace(likely, state=state, run_shows=run, cheapest=shows)


def _other_volts(meant: Hookup, right: Plan, good: Answer, other: Plan) -> Likely:
    shown = _quarter(replace(meant, joints=other.joints), right)
    return _likely(f"Joined as {other.connection}.", None, shown, good, None)


def _likely(
    title: str,
    slip: Slip | None,
    shown: Answer,
    good: Answer,
    kick: tuple[tuple[str, str], tuple[str, str]] | None,
) -> Likely:
    ohms = _ohms(shown, good)
    lines = [n for n, a in good.line_amp.items() if a > 0]
    ratios = {n: shown.line_amp[n] / good.line_amp[n] for n in lines}
    finite = not shown.shorted and bool(ratios)
    mean = sum(ratios.values()) / len(ratios) if finite else OPEN
    apart = max(abs(r - mean) / mean for r in ratios.values()) if finite and mean > 0 else 1.0
    run = (
        bool(shown.shorted)
        or (len(lines) == 3 and apart > AMPS_APART)
        or abs(mean - 1) > AMPS_OTHER
        or shown.turn != good.turn
    )
    cheapest = "ohms" if ohms else "run" if run else "kick" if kick else "none"
    return Likely(
        title=title,
        slip=slip,
        short=bool(shown.shorted),
        ohms=ohms,
        amps=ratios,
        amps_apart=apart,
        turns=shown.turn * (good.turn or 1),
        run_shows=run,
        kick=kick,
        cheapest=cheapest,
    )


def _ohms(shown: Answer, good: Answer) -> tuple[str, float, float] | None:
    if not ohms_differ(shown.line_ohm, good.line_ohm):
        return None

    def apart(pair: str) -> float:
        read, wanted = shown.line_ohm.get(pair, OPEN), good.line_ohm[pair]
        if (read == OPEN) != (wanted == OPEN):
            return OPEN
        return 0.0 if wanted == OPEN else abs(read / wanted - 1)

    pair = max(good.line_ohm, key=apart)
    return pair, shown.line_ohm.get(pair, OPEN), good.line_ohm[pair]


def kick_change(network: Network, slip: Slip) -> tuple[tuple[str, str], tuple[str, str]] | None:
    """Return a kick on the loose leads that a mix-up of these leads changes, (source, sense).

    The slip is taken for leads whose marks are exchanged. None where every kick stays in its class,
    and where the leads then belong to other pairs: ohms of the loose leads show that at once.
    """
    other = dict(zip(slip.leads[::2], slip.leads[1::2], strict=True))
    other |= {b: a for a, b in other.items()}
    number = {n: k for k, n in enumerate(network.leads)}
    moved = {number[n]: number[other.get(n, n)] for n in network.leads}
    pairs, classes = _kicks(network)
    where = {p: k for k, p in enumerate(pairs)}
    to, sign = [], []
    for a, b in pairs:
        c, d = moved[a], moved[b]
        key = (min(c, d), max(c, d))
        if key not in where:
            return None
        to.append(where[key])
        sign.append(1 if c < d else -1)
    turned = 2 + (classes[np.ix_(to, to)] - 2) * np.outer(sign, sign)
    changed = np.argwhere(turned != classes)
    if not len(changed):
        return None
    source, sense = changed[0]

    def names(pair: tuple[int, int]) -> tuple[str, str]:
        return network.leads[pair[0]], network.leads[pair[1]]

    return names(pairs[source]), names(pairs[sense])


@cache
def _kicks(network: Network) -> tuple[list[tuple[int, int]], NDArray[np.int64]]:
    """Return the pairs that conduct and the class of every kick between two of them."""
    pairs = [p for part in parts(network) for p in itertools.combinations(part, 2)]
    share = np.array([network.shares(network.leads[a], network.leads[b]) for a, b in pairs])
    flux = share @ network.mutual(HALF_SAME_PHASE, HALF_OTHER_PHASE) @ share.T
    ratio = flux / np.diag(flux)[:, None]
    return pairs, np.array([[kick_class(r) for r in row] for row in ratio], dtype=np.int64)


UNSEEN = {
    "coil-reversed": "a coil reversed",
    "coils-exchanged": "two coils exchanged",
    "leads-exchanged": "two leads exchanged",
    "lead-left-out": "a lead left out",
    "joint-open": "a joint open",
    "terminals-exchanged": "terminals of a device exchanged",
    "devices-exchanged": "two devices exchanged",
    "terminal-moved": "a terminal of a device in another joint",
    "terminal-left-out": "a terminal of a device left out",
    "device-bridged": "a device bridged",
}


@cache
def unseen_by_ohms(slug: str, variant: str, connection: str) -> tuple[str, ...]:
    """Return what line ohms cannot show of a hookup, and what would, for coils that are equal.

    One text for each kind of slip, with the largest of the line amps over the right ones.
    """
    right = next(p for p in plans_of(slug, variant) if p.connection == connection)
    supply = Supplied(phases=arrangement(slug).phases, volt=RATED)
    plate = Plate(((RATED, RATED),), supply.hertz)
    hookup = Hookup(
        arrangement=slug, variant=variant, joints=right.joints, plate=plate, supply=supply
    )
    kinds: dict[str, list[Likely]] = {}
    for likely in likely_slips(replace(hookup, devices=right.devices), right):
        if likely.slip and not likely.ohms_show:
            kinds.setdefault(likely.slip.kind, []).append(likely)
    return tuple(_unseen(UNSEEN[kind], found) for kind, found in kinds.items())


def _unseen(words: str, found: list[Likely]) -> str:
    amps = max(r for likely in found for r in likely.amps.values())
    ways = []
    if all(likely.run_shows for likely in found):
        ways.append(f"amps up to {amps:.1f} times" if amps > 1.05 else "the run")
    if all(likely.kick for likely in found):
        ways.append("a kick test")
    return (
        f"{words} ({' or '.join(ways)} would)" if ways else f"{words} (nothing at the lines would)"
    )


def words_of(likely: Likely) -> Iterator[str]:
    """Yield what each test shows, a sentence each."""
    if likely.ohms:
        pair, read, wanted = likely.ohms
        yield f"Ohms show it: {pair} reads {_ohm(read)} where {_ohm(wanted)} is right."
    else:
        yield f"Ohms cannot show it: every line pair reads within {OHMS_SHARE:.0%} of right."
    if likely.state:
        when = "standing on the line" if likely.state == "start" else f"in the state {likely.state}"
        yield f"It shows {when}."
    if likely.short:
        yield "A run shows it at once: a short across the supply."
    elif likely.run_shows and likely.state:
        yield "One direct start, watched, shows it: never a ramp."
    elif likely.run_shows:
        amps = ", ".join(f"{n} {r:.2f}" for n, r in likely.amps.items())
        way = " It turns the other way." if likely.turns < 0 else ""
        yield f"A run at a quarter of the volts shows it: amps over the right ones {amps}.{way}"
    else:
        yield "A run at a quarter of the volts does not show it."
    if likely.state:
        return
    if likely.kick:
        (a, b), (c, d) = likely.kick
        yield f"A kick on the loose leads shows it: {a} to {b}, sensed on {c} to {d}."
    else:
        yield "A kick on the loose leads does not show it."


def _ohm(value: float) -> str:
    return "open" if value == OPEN else f"{show_figure(value, 4)} Ω"
