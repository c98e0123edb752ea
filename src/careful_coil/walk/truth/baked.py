"""Faults worked into the physics of a motor document, and what tells of them taken out.

Most faults stand in the physics already (a capacitor's µF, joints as they came, a bearing's state). Those
that can be told without a figure of their own are put there: an open coil, a shaft, a switch, the insulation.
"""

from typing import Any

LABELS = ("kind", "faults", "right_end", "must_name")
LEAST_MEGOHM = {"earth-fault": 0.0, "damp": 1.2, "flooded": 0.3}  # at most so much
SHAFT = {"shaft-binding": "binding", "shaft-rough": "rough", "shaft-rubbing": "rubbing"}
BEARING = {"bearing-worn": "rough", "bearing-dry": "dry", "bearing-seized": "seized"}
USUAL_BEARINGS = {"drive": "6204-2Z", "other": "6203-2Z"}
SHORTED_SHARE, HALF = 0.82, 0.5  # of a coil's ohms that are left
DEVICES = {
    "switch-stuck-open": "stuck-open",
    "switch-stuck-closed": "stuck-closed",
    "switch-dirty": "dirty",
    "switch-bridged": "bridged",
    "switch-missing": "missing",
    "protector-open": "stuck-open",
    "protector-bridged": "bridged",
}
CAPACITORS: dict[str, dict[str, Any]] = {
    "capacitor-open": {"microfarad": 0},
    "capacitor-shorted": {"shorted": True},
}


def baked(document: dict[str, Any]) -> dict[str, Any]:
    """Return a motor document whose faults are physics alone: `kind`, `faults` and the answer taken out.

    A fault that is physics already changes nothing, so that doing it twice is doing it once.
    """
    found = {k: v for k, v in document.items() if k not in LABELS}
    if document.get("kind"):
        found["built"] = document["kind"]  # what eyes see of it: a shell, shading rings
    if any(fault["cure"] == "none" for fault in document.get("faults", ())):
        found["declined"] = True  # what the customer says when he is asked
    for fault in document.get("faults", ()):
        _work_in(found, fault["what"], fault.get("of", ""))
    return found


def _work_in(found: dict[str, Any], what: str, of: str) -> None:
    if what in LEAST_MEGOHM:
        own = dict(found.get("insulation", {}))
        own["megohm"] = min(own.get("megohm", 500.0), LEAST_MEGOHM[what])
        own["wet"] = own.get("wet", False) or what != "earth-fault"
        found["insulation"] = own
    elif what in ("coil-open", "turns-shorted", "phase-half"):
        share = {"coil-open": None, "turns-shorted": SHORTED_SHARE, "phase-half": HALF}[what]
        found["hurt"] = {**found.get("hurt", {}), of: share}
    elif what == "coil-reversed":
        found["turned"] = sorted({*found.get("turned", ()), of})
    elif what in SHAFT or what == "shaft-seized":
        found["shaft"] = {**found.get("shaft", {}), "feel": SHAFT.get(what, "seized")}
    elif what in BEARING:
        ends = dict(found.get("bearings", {}))
        was = ends.get(of, {"number": USUAL_BEARINGS.get(of, "6204-2Z")})
        if was.get("state", "good") == "good":
            ends[of] = {**was, "state": BEARING[what]}
        found["bearings"] = ends
    elif what == "fan-missing":
        found["fan"] = "missing"
    elif what == "earth-off":
        found["earth_ohm"] = max(float(found.get("earth_ohm", 0.0)), 1e6)
    elif what == "temporary-left":
        found["temporary"] = f"jumper across {of}" if of else "jumper across a terminal"
    elif what == "wrong-bearing":
        ends = dict(found.get("bearings", {}))
        was = ends.get(of, {"number": USUAL_BEARINGS.get(of, "6204-2Z")})
        ends[of] = {**was, "seat": _heavier(str(was.get("number", "")))}
        found["bearings"] = ends
    elif what == "joint-loose":
        found["loose"] = [*found.get("loose", ()), of]
    elif what == "lead-cracked":
        leads = found.get("leads", ())
        found["leads"] = [{**x, "looks": "cracked"} if _is(x, of) else x for x in leads]
    elif what in DEVICES:
        _change(found, "devices", of, {"state": DEVICES[what]})
    elif what in CAPACITORS:
        _change(found, "capacitors", of, CAPACITORS[what])


def _heavier(number: str) -> str:
    """Return the bearing of the same bore that the housing was made for: the next series up, or down."""
    for light, heavy in (("62", "63"), ("63", "62"), ("60", "62")):
        if number.startswith(light):
            return heavy + number[2:]
    return "6304-2Z"


def _is(lead: dict[str, Any], of: str) -> bool:
    """Whether a lead is meant: by its tag, its print, or what it is."""
    return of in (lead["tag"], lead.get("mark"), lead["is"])


def _change(found: dict[str, Any], parts: str, of: str, state: dict[str, Any]) -> None:
    """Put a device or capacitor into a state, by its name."""
    found[parts] = [{**d, **state} if d["name"] == of else d for d in found.get(parts, ())]
