"""What can be wrong with relays, protectors and bleed resistors: what they are to see, carry or bridge."""

from collections.abc import Iterator

from careful_coil.core.connect.explain import working_pairs
from careful_coil.core.connect.given import Fault, Given, Seen, fed, hold_of, largest
from careful_coil.core.connect.hookup import NOTHING, Answer
from careful_coil.core.ways.devices import Device
from careful_coil.core.ways.states import tied
from careful_coil.core.winding.single_phase import START_COILS

OUT_SHARE = 0.02  # of what flowed at standstill: less than this is out (a hot thermistor's trickle)
SAME_VIEW = 0.10  # how near a relay's coil must come to the volts or amps it is to see


def relay_faults(given: Given) -> Iterator[Fault]:
    """Yield faults of relays, bleed resistors and protectors."""
    yield from _relay(given)
    yield from _bleed(given)
    yield from _protector(given)


def _relay(given: Given) -> Iterator[Fault]:
    """A voltage relay's coil lies across the start winding, a current relay's in the main's path."""
    coils = {c.name: c.like for c in given.hookup.inside().coils}
    starts = [n for n, like in coils.items() if like in START_COILS]
    mains = [n for n, like in coils.items() if like not in START_COILS]
    for d in given.hookup.devices:
        if d.watches and starts:
            for seen in fed(given, "run"):
                if not _sees_start_winding(seen, starts, d):
                    yield hold_of(
                        "device-misplaced",
                        f"{_watching(d)} does not see the start winding: it cannot tell when the motor is up "
                        "to speed.",
                        seen.state.name,
                        leads=tuple(d.at(t) for t in d.watches),
                    )
                    break
        series = d.kind in ("relay-current", "hot-wire") or d.three
        if series and mains:
            for seen in fed(given, "start"):
                amps = _through(seen.made, d)
                right = seen.right if _has(seen.right, d) else None
                wanted = _through(right, d) if right else abs(seen.made.coil_amp[mains[0]])
                if not _near(amps, wanted):
                    ends = ("3", "2") if d.three else d.pulled[1]
                    what = "heater" if d.three else "coil"
                    yield hold_of(
                        "device-misplaced",
                        f"The {what} of {d.name}, {ends[0]} to {ends[1]}, does not carry the main "
                        "winding's amps: it does not act when it should.",
                        seen.state.name,
                        leads=(d.at(ends[0]), d.at(ends[1])),
                    )
                    break


def _watching(device: Device) -> str:
    one, two = device.watches
    what = "coil" if device.kind == "relay-voltage" else "sensing pair"
    return f"The {what} of {device.name}, {one} to {two},"


def _near(value: float, wanted: float) -> bool:
    return abs(value - wanted) <= SAME_VIEW * max(wanted, NOTHING)


def _has(answer: Answer | None, device: Device) -> bool:
    return (
        answer is not None
        and not answer.shorted
        and any(p.name == device.name for p in answer.network.parts)
    )


def _volts(answer: Answer, a: str, b: str) -> complex:
    volt = answer.steady.node_volt
    return complex(volt[a][0] - volt[b][0])


def _sees_start_winding(seen: Seen, starts: list[str], device: Device) -> bool:
    """Whether a relay's coil has the start winding's volts, in size and phase, whichever way round."""
    one, two = device.watches
    ends = device.at(one), device.at(two)
    coil = max(starts, key=lambda n: seen.made.coil_volt[n])
    wanted = 1.0 + 0j
    if seen.right is not None and _has(seen.right, device):
        wanted = _volts(seen.right, *ends) / (_coil(seen.right, coil) or 1.0)
    found = _volts(seen.made, *ends) / (_coil(seen.made, coil) or 1.0)
    return min(abs(found - wanted), abs(found + wanted)) <= SAME_VIEW * max(abs(wanted), NOTHING)


def _coil(answer: Answer, name: str) -> complex:
    coil = next(c for c in answer.network.coils if c.name == name)
    return _volts(answer, coil.start, coil.finish)


def _through(answer: Answer, device: Device) -> float:
    part = next(p for p in answer.network.parts if p.name == device.name)
    return abs(_volts(answer, part.start, part.finish)) / part.ohm


def _bleed(given: Given) -> Iterator[Fault]:
    """A bleed resistor lies across a start capacitor."""
    index = tied(given.pictures.run.network)
    cans = [
        {index[a], index[b]}
        for d in given.hookup.devices
        if d.kind == "capacitor-start"
        for a, b in working_pairs(d)
    ]
    for d in given.hookup.devices:
        if d.kind == "resistor" and cans and {index[t] for t in d.terminals()} not in cans:
            yield hold_of(
                "device-misplaced",
                f"{d.name} lies across no start capacitor: nothing discharges it after a run.",
                "off",
                leads=d.terminals(),
            )


def _protector(given: Given) -> Iterator[Fault]:
    """With the protector open nothing may carry current."""
    seen = given.pictures.tripped
    if seen is None or seen.made.shorted or given.pictures.shorted is not None:
        return
    still = largest(given.pictures.start)
    flows = largest(seen.made)
    name = next(d.name for d in given.hookup.devices if d.kind == "protector")
    if flows > OUT_SHARE * still:
        yield hold_of(
            "protector-bypassed",
            f"With {name} open current still flows in the winding: it protects nothing.",
            seen.state.name,
            leads=given.hookup.device(name).terminals(),
        )
        return
    for d in given.hookup.devices:
        if d.kind == "relay-voltage" and _through(seen.made, d) > NOTHING:
            yield hold_of(
                "device-misplaced",
                f"The coil of {d.name} is on the wrong side of {name}: with {name} open it still stands "
                "on the line, and the relay chatters.",
                seen.state.name,
                leads=(d.at("5"),),
            )
