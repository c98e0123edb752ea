"""What can be wrong with the devices of a hookup, in whichever state it shows.

The start winding must be in at start and out in run, the start capacitor out in run; off isolates; a
relay's coil sees what it is to watch; an open protector stops everything.
"""

import math
from collections.abc import Iterator

from careful_coil.core.connect.explain import working_pairs
from careful_coil.core.connect.given import Fault, Given, fed, hold_of, largest
from careful_coil.core.connect.hookup import NOTHING, Answer
from careful_coil.core.connect.relay_faults import OUT_SHARE, relay_faults
from careful_coil.core.ways.devices import CAPACITORS, POSITIONED, START_DEVICES, Device
from careful_coil.core.ways.states import tied
from careful_coil.core.ways.way import LINES
from careful_coil.core.winding.single_phase import START_COILS

IN_SHARE = 0.002  # of the largest coil's amps: a start winding with less than this is not in
LEAK_SHARE = 1e-6  # of what flowed at standstill: off is off
SHOWS = (
    {"protector": "protector open"}
    | dict.fromkeys(POSITIONED, "off")
    | dict.fromkeys(START_DEVICES, "run")
)  # where a bridged device shows; a capacitor at start


def device_faults(given: Given) -> Iterator[Fault]:
    """Yield faults of devices and of the start winding."""
    yield from _placed(given)
    yield from _old_and_new(given)
    yield from _coil_shorted(given)
    yield from _across_line(given)
    yield from _start_winding(given)
    yield from _start_capacitor(given)
    yield from relay_faults(given)
    yield from _off(given)
    yield from _reverse(given)


def _placed(given: Given) -> Iterator[Fault]:
    """Terminals in no joint, and devices whose ends are joined to each other."""
    joined = {t: k for k, j in enumerate(given.hookup.joints) if len(j) > 1 for t in j}
    for d in given.hookup.devices:
        loose = [t for t in d.terminals() if t not in joined]
        if loose and _may_be_loose(d, loose):
            yield Fault(
                code="device-unused",
                severity="note",
                leads=tuple(loose),
                text=f"{' and '.join(loose)} of {d.name} {_in_no_joint(loose)}: insulate what is live.",
                shown_by_ohms=False,
            )
        elif loose:
            text = f"{' and '.join(loose)} of {d.name} {_in_no_joint(loose)}."
            yield hold_of("device-misplaced", text, leads=tuple(loose))
        for a, b in working_pairs(d):
            if a in joined and joined[a] == joined.get(b):
                yield hold_of(
                    "device-misplaced",
                    f"Terminals {a} and {b} of {d.name} are joined to each other: it does nothing.",
                    SHOWS.get(d.kind, "start"),
                    leads=(a, b),
                )


def _in_no_joint(loose: list[str]) -> str:
    return "is in no joint" if len(loose) == 1 else "are in no joint"


def _may_be_loose(device: Device, loose: list[str]) -> bool:
    """Whether these terminals need not be used: the other motor's section, an interlock, spare poles."""
    if device.kind == "capacitor-dual":
        return len(loose) == 1 and loose[0] != device.at("common")
    if device.kind == "speed-switch" and device.action == "closes":
        return len(loose) == len(device.terminals())
    if device.kind == "electronic-switch":
        return not device.watches and not set(loose) & {device.at(t) for t in ("1", "2")}
    if device.kind == "relay-voltage":
        return not set(loose) & {device.at(t) for t in ("1", "2", "5")}
    poles = [set(p) for p in working_pairs(device)] if device.kind in POSITIONED else []
    return bool(poles) and all(any(t in p and p <= set(loose) for p in poles) for t in loose)


def _old_and_new(given: Given) -> Iterator[Fault]:
    """Two start devices of different kinds: one of them was left in."""
    starters = [d for d in given.hookup.devices if d.switches]
    if len({d.kind for d in starters}) < 2:
        return
    old = next((d for d in starters if d.kind == "speed-switch"), starters[0])
    new = next(d for d in starters if d.kind != old.kind)
    index = tied(given.pictures.run.network)
    ends = [{index[t] for t in d.terminals()} for d in (old, new)]
    beside = len(ends[0] & ends[1]) > 1
    why = (
        f"{old.name} lies beside {new.name}: if either stays closed the start winding stays in."
        if beside
        else f"{old.name} and {new.name} both take the start winding out: {new.name} loses sight of it "
        f"when {old.name} opens."
    )
    leads = old.terminals()
    yield hold_of("device-misplaced", f"{why} Take {old.name}'s leads off.", "run", leads=leads)


def _coil_shorted(given: Given) -> Iterator[Fault]:
    """Coils whose ends a device's contacts join in some state: two taps on one line at once."""
    told: set[str] = set()
    for seen in given.pictures.seen if given.hookup.devices else ():
        index, plain = tied(seen.made.network), given.hookup.bare().node_index()
        for c in given.hookup.inside().coils:
            shorted = index[c.start] == index[c.finish] and plain[c.start] != plain[c.finish]
            if shorted and c.name not in told:
                told.add(c.name)
                yield hold_of(
                    "coil-shorted",
                    f"Contacts join both ends of coil {c.name}: shorted on itself it burns.",
                    seen.state.name,
                    coils=(c.name,),
                    leads=(c.start, c.finish),
                )


def _across_line(given: Given) -> Iterator[Fault]:
    told: set[str] = set()
    for seen in given.pictures.seen:
        index = tied(seen.made.network)
        at = {index[n]: n for n in LINES if n in index}
        for d in given.hookup.devices:
            if d.kind not in CAPACITORS or d.name in told:
                continue
            for a, b in working_pairs(d):
                ends = {at[index[t]] for t in (a, b) if index[t] in at}
                if len(ends) > 1:
                    told.add(d.name)
                    yield hold_of(
                        "capacitor-across-line",
                        f"{d.name} stands straight across {' and '.join(sorted(ends))}: it does nothing "
                        "for the start winding.",
                        seen.state.name,
                        leads=d.terminals(),
                        danger=d.kind == "capacitor-start",
                    )


def _auxiliary(given: Given) -> list[str]:
    return [c.name for c in given.hookup.inside().coils if c.like in START_COILS]


def _start_winding(given: Given) -> Iterator[Fault]:
    """Whether the start winding comes in at standstill and goes out, or onto a run capacitor."""
    coils = _auxiliary(given)
    if not coils:
        return
    for seen in fed(given, "start"):
        if not any(_share(seen.made, c) > IN_SHARE for c in coils):
            yield hold_of(
                "start-never-in",
                "At standstill the start winding carries nothing: it hums and does not start.",
                seen.state.name,
                coils=tuple(coils),
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
    if not given.hookup.devices and (given.right is None or not given.right.devices):
        return
    still = largest(given.pictures.start)
    for seen in fed(given, "run"):
        stays = [c for c in coils if abs(seen.made.coil_amp[c]) > OUT_SHARE * still]
        if stays and not _run_capacitor_fed(given, seen.made):
            yield hold_of(
                "start-stays-in",
                "Once it runs, the start winding stays on the line without a run capacitor: it burns in "
                "seconds.",
                seen.state.name,
                coils=tuple(stays),
                danger=True,
            )
            return


def _share(answer: Answer, coil: str) -> float:
    return abs(answer.coil_amp[coil]) / max(largest(answer), NOTHING)


def _run_capacitor_fed(given: Given, made: Answer) -> bool:
    """Whether a run capacitor carries current."""
    run = {d.name for d in given.hookup.devices if d.kind in ("capacitor-run", "capacitor-dual")}
    volts = made.steady.capacitor_volt.items()
    return any(name.split(".")[0] in run and abs(volt[0]) > NOTHING for name, volt in volts)


def _start_capacitor(given: Given) -> Iterator[Fault]:
    """Start capacitors that still carry current in run."""
    names = [d.name for d in given.hookup.devices if d.kind == "capacitor-start"]
    starts, runs = list(fed(given, "start")), list(fed(given, "run"))
    for name in names:
        for still, seen in zip(starts, runs, strict=True):
            before, after = (abs(s.made.steady.capacitor_volt[name][0]) for s in (still, seen))
            if after > OUT_SHARE * max(before, NOTHING) and after > NOTHING:
                yield hold_of(
                    "start-stays-in",
                    f"Once it runs, start capacitor {name} stays in circuit: it is made for seconds and "
                    "bursts.",
                    seen.state.name,
                    leads=(f"{name}.1", f"{name}.2"),
                    danger=True,
                )
                break


def _off(given: Given) -> Iterator[Fault]:
    """Off must isolate; a line that stays on the winding is at least a live one."""
    seen = given.pictures.off
    if seen is None:
        return
    if seen.made.shorted:
        lines = seen.made.shorted
        text = f"{' and '.join(lines)} are joined to each other when it is off: a short."
        yield hold_of("short-circuit", text, "off", leads=lines, danger=True)
        return
    amps = max(seen.made.line_amp.values())
    if amps > LEAK_SHARE * max(largest(given.pictures.start), NOTHING):
        yield hold_of(
            "off-does-not-isolate",
            "Switched off, current still flows: off must isolate the motor.",
            "off",
        )
        return
    network = seen.made.network
    leads = [n for n in network.leads if any(n in j for j in given.hookup.joints)]
    live = [
        n for n in LINES if n in network.nodes() and _reaches(network.islands(), n, leads, given)
    ]
    if live and not (given.hookup.neutral and live == ["L2"]):
        yield Fault(
            code="off-one-line",
            severity="watch",
            leads=tuple(live),
            text=f"Switched off, {' and '.join(live)} still {'stands' if len(live) == 1 else 'stand'} on "
            "the winding: dead only when isolated before it.",
            state="off",
            shown_by_ohms=False,
        )


def _reaches(
    islands: tuple[frozenset[int], ...], line: str, leads: list[str], given: Given
) -> bool:
    seen = given.pictures.off
    index = seen.made.network.node_index() if seen else {}
    return any(
        index[line] in island and any(index[n] in island for n in leads) for island in islands
    )


def _reverse(given: Given) -> Iterator[Fault]:
    """Forward and reverse of a switch must turn the shaft opposite ways."""
    turns = {s.state.direction: s.made.turn for s in fed(given, "start") if s.state.direction}
    if len(turns) == 2 and not math.prod(turns.values()) < 0 and all(turns.values()):
        yield hold_of(
            "reverse-does-not-reverse",
            "In forward and in reverse it turns the same way.",
            "reverse",
        )
