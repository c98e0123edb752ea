"""What a reading does when the start mechanism is worked by hand."""

from careful_coil.core.probes.probe import Bench, Body, Probe, Request, Shown, Typing

WORDS = ("opens", "closes", "changes", "stays")


def _read(typed: Typing) -> Body:
    return typed.reading(between=typed.request.pair, value=typed.word(WORDS))


def _shown(bench: Bench, request: Request) -> Shown:
    a, b = (bench.lead(t) for t in request.ends)
    opens = bench.motor.start_device == "switch" and bench.passes(a, b, ("start", "auxiliary"))
    return Shown(text="opens" if opens else "stays", unit="")


PROBE = Probe(
    kind="switch",
    station="leads",
    prompt="watch while the start mechanism is worked",
    asks=("switch", "what it does"),
    words=WORDS,
    caution="Supply off and proved dead. Work the start mechanism by hand, not by running it.",
    read=_read,
    shown=_shown,
)
