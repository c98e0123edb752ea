"""Whether a reading varies as the shaft is turned."""

from careful_coil.core.probes.probe import Bench, Body, Probe, Request, Shown, Typing

WORDS = ("varies", "steady")


def _read(typed: Typing) -> Body:
    return typed.reading(between=typed.request.pair, value=typed.word(WORDS))


def _shown(bench: Bench, request: Request) -> Shown:
    a, b = (bench.lead(t) for t in request.ends)
    return Shown(text="varies" if bench.passes(a, b, ("armature",)) else "steady", unit="")


PROBE = Probe(
    kind="shaft",
    station="leads",
    prompt="watch while the shaft is turned",
    asks=("turn", "what it does"),
    words=WORDS,
    caution="Supply off and proved dead, load off. Turn it slowly by hand; hands clear of the fan.",
    read=_read,
    shown=_shown,
)
