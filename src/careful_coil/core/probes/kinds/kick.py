"""Which way a meter kicks when a battery is put on another coil (DC polarity test)."""

from careful_coil.core.probes.probe import Bench, Body, Probe, Request, Shown, Typing
from careful_coil.core.readings import DEFAULT_OPEN_ABOVE_OHM
from careful_coil.core.winding.coupling import Halves
from careful_coil.core.winding.kick import kick

WORDS = ("up-large", "up-small", "none", "down-small", "down-large")


def _read(typed: Typing) -> Body:
    asked = typed.request
    sense = asked.sense[0], asked.sense[1]
    return typed.reading(source=asked.pair, sense=sense, value=typed.word(WORDS))


def _shown(bench: Bench, request: Request) -> Shown:
    a, b, c, d = (bench.lead(t) for t in (*request.ends, *request.sense))
    halves: Halves = "adjacent" if bench.motor.adjacent_halves else "alternate"
    network = bench.motor.network
    broken = max(network.ohm_between(a, b), network.ohm_between(c, d)) > DEFAULT_OPEN_ABOVE_OHM
    text = "none" if broken else kick(network, (a, b), (c, d), halves)  # no current, or no meter
    return Shown(text=text, unit="")


PROBE = Probe(
    kind="kick",
    station="leads",
    prompt="battery on the first pair, watch the second",
    asks=("kick", "which way it kicks"),
    words=WORDS,
    caution="Through a fuse or a lamp, rotor still. Hands off the sense leads: the break bites.",
    read=_read,
    shown=_shown,
)
