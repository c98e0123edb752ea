"""What can be wrong with the devices of a hookup: start winding, capacitors, misplaced parts."""

from collections.abc import Iterator

from careful_coil.core.connect.given import Fault, Given
from careful_coil.core.connect.hookup import NOTHING, Answer
from careful_coil.core.ways.devices import CAPACITORS

AUXILIARY = ("auxiliary", "start")
LITTLE = 1e-6


def device_faults(given: Given) -> Iterator[Fault]:
    """Yield faults of devices and of the start winding."""
    yield from _misplaced(given)
    yield from _across_line(given)
    yield from _start_winding(given)


def _misplaced(given: Given) -> Iterator[Fault]:
    for d in given.hookup.devices:
        where = [
            next((k for k, j in enumerate(given.hookup.joints) if t in j and len(j) > 1), None)
            for t in d.terminals()
        ]
        loose = [t for t, w in zip(d.terminals(), where, strict=True) if w is None]
        if loose:
            yield Fault(
                code="device-misplaced",
                severity="hold",
                leads=tuple(loose),
                text=f"{' and '.join(loose)} of {d.name} {'is' if len(loose) == 1 else 'are'} in no joint.",
            )
        elif len(set(where)) < len(where):
            yield Fault(
                code="device-misplaced",
                severity="hold",
                leads=d.terminals(),
                text=f"Terminals of {d.name} are joined to each other: it does nothing.",
            )


def _across_line(given: Given) -> Iterator[Fault]:
    lines = {
        n: line for j in given.hookup.joints for line in j if line in ("L1", "L2", "L3") for n in j
    }
    for d in given.hookup.devices:
        ends = [lines.get(t) for t in d.terminals()]
        if d.kind in CAPACITORS and None not in ends and len(set(ends)) > 1:
            yield Fault(
                code="capacitor-across-line",
                severity="hold",
                leads=d.terminals(),
                text=f"{d.name} stands straight across {' and '.join(sorted(set(filter(None, ends))))}: "
                "it does nothing for the start winding.",
                danger=d.kind == "capacitor-start",
            )


def _start_winding(given: Given) -> Iterator[Fault]:
    """Whether the start winding comes in at standstill and goes out, or onto a run capacitor."""
    inside = given.hookup.inside()
    coils = [c.name for c in inside.coils if c.like in AUXILIARY]
    p = given.pictures
    if not coils or p.start.shorted or p.run.shorted:
        return
    started = any(_share(p.start, c) > LITTLE for c in coils)
    if not started:
        yield Fault(
            code="start-never-in",
            severity="hold",
            coils=tuple(coils),
            text="At standstill the start winding carries nothing: it hums and does not start.",
        )
        return
    if not given.hookup.devices and given.same:
        yield Fault(
            code="start-device-unknown",
            severity="note",
            coils=tuple(coils),
            text="No start device is named: the start winding's switch must sit inside the motor.",
            shown_by_ohms=False,
        )
        return
    stays = [c for c in coils if _share(p.run, c) > LITTLE and _straight(given, c)]
    needs_device = given.right is not None and bool(given.right.devices)
    if stays and (given.hookup.devices or needs_device):
        yield Fault(
            code="start-stays-in",
            severity="hold",
            coils=tuple(stays),
            text="Once it runs, the start winding stays on the line without a run capacitor: it burns in seconds.",
            danger=True,
        )


def _share(answer: Answer, coil: str) -> float:
    largest = max(abs(a) for a in answer.coil_amp.values())
    return abs(answer.coil_amp[coil]) / max(largest, NOTHING)


def _straight(given: Given, coil: str) -> bool:
    """Whether the start winding is fed in run without a run capacitor in its path."""
    steady = given.pictures.run.steady
    run = {d.name for d in given.hookup.devices if d.kind in ("capacitor-run", "capacitor-dual")}
    feeds = [
        name
        for name, volt in steady.capacitor_volt.items()
        if name.split(".")[0] in run and abs(volt[0]) > 0
    ]
    return not feeds
