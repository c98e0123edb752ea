"""Job logs as a careful technician writes them, as documents: bases that careless ones depart from."""

from collections.abc import Callable, Iterable, Sequence
from datetime import UTC, datetime, timedelta
from typing import Any

from careful_coil.core.probes import PROBES

Body = dict[str, Any]
START = datetime(2026, 3, 1, 8, tzinfo=UTC)


def document(bodies: Iterable[Body], by: str = "AB") -> dict[str, Any]:
    """Return a job document of bodies a minute apart.

    `at`, `by` and `id` in a body are its entry's; `wait` puts days before it.
    """
    entries, now = [], START
    for k, told in enumerate(bodies, 1):
        body = dict(told)
        now += timedelta(minutes=1, days=body.pop("wait", 0))
        at = body.pop("at", now.strftime("%Y-%m-%dT%H:%M:%SZ"))
        who = body.pop("by_whom", by)
        entry = {"id": body.pop("id", f"e{k}"), "at": at, "by": who}
        station = PROBES[body["kind"]].station if body["kind"] in PROBES else "release"
        entries.append({**entry, "station": station, "body": {"v": 1, **body}})
    return {
        "format": "careful-coil/job",
        "version": 1,
        "id": "gate",
        "number": 1,
        "entries": entries,
    }


# --- bodies -----------------------------------------------------------------------------------------


def plate(**fields: str) -> list[Body]:
    return [{"kind": "plate", "field": f.replace("_", "-"), "text": t} for f, t in fields.items()]


def ticket(**fields: str) -> list[Body]:
    return [{"kind": "ticket", "field": f, "text": t} for f, t in fields.items()]


def leads(tags: str, marks: Sequence[str] = ()) -> Body:
    marked = [*marks, *[""] * len(tags)]
    return {
        "kind": "leads",
        "leads": [{"tag": t, "marking": m} for t, m in zip(tags, marked, strict=False)],
    }


def reading(**told: Any) -> Body:
    return {"kind": "reading", "reading": told}


def ohm(pair: str, value: str) -> Body:
    return reading(kind="resistance", between=list(pair), value=value)


def kick(source: str, sense: str, value: str = "down-small") -> Body:
    return reading(kind="kick", source=list(source), sense=list(sense), value=value)


def felt(**fields: str) -> list[Body]:
    return [{"kind": "felt", "field": f.replace("_", "-"), "text": t} for f, t in fields.items()]


def bearing(end: str, **fields: str) -> list[Body]:
    return [{"kind": "bearing", "end": end, "field": f, "text": t} for f, t in fields.items()]


def insulated(parts: str = "", megohm: float = 480.0, volt: float = 500.0) -> list[Body]:
    test = {"kind": "insulation", "megohm": megohm, "at_c": 20.0, "test_volt": volt}
    return [{**test, "parts": list(parts)}, {"kind": "discharged", "seconds": 240.0}]


def joint(*names: str) -> Body:
    return {"kind": "joint", "joint": list(names)}


def line(pair: str, value: str) -> Body:
    a, b = pair.split("-")
    return {"kind": "line-ohm", "lines": [a, b], "value": value}


def ticks(*names: str) -> list[Body]:
    return [{"kind": "step-ticked", "step": n} for n in names]


def supply(
    volt: float = 400.0, phases: int = 3, hertz: float = 50.0, measured: bool = True
) -> Body:
    return {"kind": "supply", "volt": volt, "hertz": hertz, "phases": phases, "measured": measured}


def low_run(volt: float, amp: Sequence[float], turns: str = "smooth", way: str = "") -> Body:
    return {"kind": "low-run", "volt": volt, "amp": list(amp), "turns": turns, "way": way}


def step(volt: float, amp: Sequence[float], **more: Any) -> Body:
    return {"kind": "trial-step", "volt": [volt], "amp": list(amp), "turns": "smooth"} | more


def sheet(*steps: Body, covers: str = "on", **more: Any) -> list[Body]:
    return [
        {"kind": "trial-begun", "covers": covers, **more},
        {"kind": "trial-ready", "items": ["clamp"]},
        *steps,
        {"kind": "trial-ended"},
    ]


def bonds(ohm: float = 0.03, places: Sequence[str] = ()) -> list[Body]:
    every = places or ("frame", "drive end bell", "other end bell")
    return [{"kind": "earth-bond", "ohm": ohm, "place": p} for p in every]


COVERS_ON: Body = {"kind": "covers", "on": True}
COVERS_OFF: Body = {"kind": "covers", "on": False}
SIGNED: Body = {"kind": "released", "signed": "AB"}
METER: Body = {"kind": "meter", "accuracy_percent": 0.5, "resolution_ohm": 0.01, "lead_ohm": 0.0}
IDLE = (2.6, 2.6, 2.7)


# --- a three-phase motor of six leads ---------------------------------------------------------------


def three_named() -> list[Body]:
    """What it is and which lead is what."""
    return [
        *ticket(name="Mill"),
        *plate(phases="3", volt="230/400", hertz="50", amp="11/6.4", rpm="1440", power="3 kW"),
        leads("ABCDEF"),
        METER,
        *three_read(),
    ]


def three_read(value: str = "2.60") -> list[Body]:
    apart = [ohm(p, "open") for p in ("AB", "AC", "BC")]
    return [
        *(ohm(p, value) for p in ("AD", "BE", "CF")),
        *apart,
        kick("AD", "BE"),
        kick("AD", "CF"),
        kick("BE", "CF"),
    ]


def handled() -> list[Body]:
    """Shaft and bearings."""
    return [
        *felt(feel="free", coast_down="8"),
        *bearing("drive", number="6205-2Z", state="good"),
        *bearing("other", number="6203-2Z", state="good"),
    ]


def three_walled(volt: float = 500.0) -> list[Body]:
    return [b for p in ("AD", "BE", "CF") for b in insulated(p, volt=volt)]


def three_joined(ohms: str = "5.20") -> list[Body]:
    made = [joint("L1", "A"), joint("L2", "B"), joint("L3", "C"), joint("D", "E", "F")]
    return [*made, *(line(p, ohms) for p in ("L1-L2", "L1-L3", "L2-L3"))]


def checked() -> list[Body]:
    return ticks("count", "earth", "sensors", "shaft", "alone", "covers", "clear", "pinch")


def three_low() -> list[Body]:
    return [low_run(100.0, (2.0, 2.05, 1.98))]


def three_closed(tags: str = "ABCDEF") -> list[Body]:
    return [COVERS_ON, *insulated(tags), *bonds()]


def three_run(minute: float = 10.0, **more: Any) -> list[Body]:
    return sheet(step(400.0, IDLE, watt=190.0, rpm=1494.0, minute=minute), **more)


def three_phase() -> list[Body]:
    """A whole careful job."""
    return [
        *three_named(),
        *handled(),
        *three_walled(),
        supply(),
        *three_joined(),
        *checked(),
        *three_low(),
        *three_closed(),
        *three_run(),
        SIGNED,
    ]


def before_signing(job: Callable[[], list[Body]], *more: Body) -> list[Body]:
    """Return a job with something more done before it was signed."""
    return [*job()[:-1], *more, SIGNED]


# --- a capacitor-start motor ------------------------------------------------------------------------

CAN = "189-227 µF 250 V"


def start_named(**fields: str) -> list[Body]:
    known = {
        "phases": "1",
        "volt": "230",
        "hertz": "50",
        "amp": "5.0",
        "rpm": "1425",
        "power": "0.55 kW",
    }
    return [
        *ticket(name="Saw"),
        *plate(**{**known, **fields}),
        {"kind": "look", "sign": "speed-switch", "answer": "opens at speed"},
        leads("ABCD"),
        METER,
        ohm("AB", "2.60"),
        ohm("CD", "7.40"),
        ohm("AC", "open"),
    ]


def can(
    name: str = "C1", marking: str = CAN, microfarad: str = "205", serves: str = "start"
) -> list[Body]:
    told = {
        "marking": marking,
        "serves": serves,
        "looks": "sound",
        "drained": "0",
        "microfarad": microfarad,
    }
    return [
        {"kind": "capacitor", "name": name, "field": f, "text": t} for f, t in told.items() if t
    ]


def switch(name: str = "S1", contact: float | None = 0.05) -> list[Body]:
    told = {"kind": "device-read", "name": name, "between": ["1", "2"], "left_open": 0.01}
    return [
        {"kind": "device-fitted", "name": name, "device": "speed-switch"},
        {**told, "when": "at rest", "ohm": contact},
        {**told, "when": "mechanism worked by hand", "ohm": None},
        {"kind": "device-noted", "name": name, "field": "actuator", "text": "free"},
        {"kind": "device-noted", "name": name, "field": "plate", "text": "even"},
    ]


def start_joined(can_name: str = "C1") -> list[Body]:
    made = [
        *ticks(f"fit {can_name}", "fit S1"),
        joint(f"{can_name}.2", "C"),
        joint("S1.2", f"{can_name}.1"),
        joint("L2", "B", "D"),
        joint("L1", "A", "S1.1"),
    ]
    return [*made, line("L1-L2", "2.60"), *checked()]


def start_run(seconds: float = 0.8, outcome: str = "dropped out", **more: Any) -> list[Body]:
    timed = {
        "kind": "trial-start",
        "volt": 230.0,
        "outcome": outcome,
        "seconds": seconds,
        "rpm": 1120.0,
    }
    run = step(230.0, [3.4], watt=180.0, rpm=1488.0, minute=10.0) | more
    back = {"kind": "trial-heard", "what": "drop-in", "text": "620 rpm"}
    return sheet(step(50.0, [6.0], turns="none"), timed, run, back)


def start_known() -> list[Body]:
    """Identified, start gear and hands done."""
    return [
        *start_named(),
        {"kind": "proved-dead"},
        reading(kind="switch", between=["C", "D"], value="opens"),
        *can(),
        *switch(),
        *handled(),
        *insulated("ABCD"),
        supply(230.0, 1),
    ]


def capacitor_start() -> list[Body]:
    """A whole careful job on a motor with a start switch."""
    return [
        *start_known(),
        *start_joined(),
        low_run(50.0, [6.0], turns="none"),
        *three_closed("ABCD"),
        *start_run(),
        SIGNED,
    ]


# --- what was done more ------------------------------------------------------------------------------


def rewound() -> list[Body]:
    """A motor that came, was rewound, and is proven anew from the readings on."""
    again = [*three_read("1.31"), *three_walled(1000.0), *three_joined("2.62"), *checked()]
    return [
        *three_named(),
        *handled(),
        *three_walled(),
        {"kind": "work", "what": "rewound"},
        *again,
        supply(),
        *three_low(),
        *three_closed(),
        *three_run(30.0),
        SIGNED,
    ]


def bearing_renewed() -> list[Body]:
    worn = bearing("drive", number="6205-2Z", state="rough")
    mended = [*bearing("drive", done="renewed", fitted="6205-2Z"), *felt(feel="free")]
    other = bearing("other", number="6203-2Z", state="good")
    return [
        *three_named(),
        *felt(feel="rough"),
        *worn,
        *other,
        *mended,
        *three_walled(),
        supply(),
        *three_joined(),
        *checked(),
        *three_low(),
        *three_closed(),
        *three_run(30.0),
        SIGNED,
    ]


def capacitor_renewed() -> list[Body]:
    """A weak start capacitor, renewed by one that fits and proven before it is joined."""
    known, weak = start_known(), can(microfarad="120")
    at = next(k for k, b in enumerate(known) if b["kind"] == "capacitor")
    new: Body = {"kind": "capacitor", "name": "C1", "field": "renewed", "text": "AB"}
    gear = [*weak, new, *can()]
    return [*known[:at], *gear, *known[at + len(weak) :], *capacitor_start()[len(known) :]]


def complaint_settled() -> list[Body]:
    """A complaint whose cause was found."""
    found: Body = {"kind": "cause-found", "cause": "lost-phase"}
    return [*ticket(complaint="hums and trips"), *three_phase()[:-1], found, SIGNED]


def complaint_run_out() -> list[Body]:
    """A complaint whose cause nobody found: it ran half an hour without showing it."""
    return [*ticket(complaint="trips now and then"), *three_phase()[:-1], *three_run(30.0), SIGNED]


def opened_again() -> list[Body]:
    """Opened after its run, a joint made anew, and everything that this voids proven again."""
    again = [*three_joined(), *checked(), *three_low(), COVERS_OFF, *three_closed(), *three_run()]
    return before_signing(three_phase, {"kind": "parted", "leads": ["A"]}, *again)


def waived_by_another() -> list[Body]:
    """Idle amps a little over the plate's, set aside by a second person for what they are."""
    high = sheet(step(400.0, (6.5, 6.6, 6.5), rpm=1490.0, minute=10.0))
    waiver: Body = {"kind": "waived", "code": "trial-amps", "reason": "wide gap", "second": "CD"}
    return [*three_phase()[: -len(three_run()) - 1], *high, waiver, SIGNED]
