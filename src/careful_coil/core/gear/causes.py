"""What tests, Start gear's own findings and those of other stations say of the causes of a complaint."""

from collections.abc import Iterable
from dataclasses import replace

from careful_coil.core.condition.suspicion import Suspicion
from careful_coil.core.gear.capacitor_rules import capacitor_of
from careful_coil.core.gear.device_rules import told_of
from careful_coil.core.gear.separating import TESTS, Ask, Odds, weigh_with_tests, worth_testing
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.gear import Gear
from careful_coil.core.settings import Settings
from careful_coil.core.ways.devices import START_DEVICES

USUAL = Settings()


def results_of(
    job: Job, findings: Iterable[Finding] = (), settings: Settings = USUAL
) -> dict[str, str]:
    """Return test outcomes: those typed, and what capacitors, devices and other stations have shown."""
    found = {
        **_shown_elsewhere(findings),
        **_shown_by_capacitors(job.gear.was or job.gear, settings),
        **_shown_by_devices(job.gear.was or job.gear, settings),
    }
    typed = {t: o for t, o in job.gear.tests.items() if t in TESTS and o in TESTS[t].outcomes}
    return found | typed


# what a finding of another station shows: code, verdict: test, outcome
SHOWN_ELSEWHERE: dict[tuple[str, str], tuple[str, str]] = {
    ("coils-balanced", "good"): ("windings", "right"),
    ("coils-balanced", "hold"): ("windings", "uneven or low"),
    ("coil-open", "hold"): ("windings", "open"),
    ("insulation", "good"): ("insulation", "good"),
    ("frame-fault", "hold"): ("insulation", "to frame"),
    ("as-found", "watch"): ("joints", "other"),
    ("diagram", "hold"): ("joints", "other"),
    ("supply", "hold"): ("volts-at-start", "low"),
    ("coast-down", "watch"): ("coast-down", "short"),
    ("coast-down", "good"): ("coast-down", "long"),
    ("single-phased", "hold"): ("three-amps", "one at nothing"),
    ("trial-lines", "good"): ("three-amps", "equal"),
    ("trial-dead-line", "hold"): ("three-amps", "one at nothing"),
    ("trial-lines", "hold"): ("three-amps", "one off"),
    ("trial-start", "good"): ("lets-go", "opens"),
}
TO_FRAME_MEGOHM = 0.1  # less is metal, not damp (trade practice)


def _shown_elsewhere(findings: Iterable[Finding]) -> dict[str, str]:
    """Return what findings of the other stations show of the causes."""
    found = {}
    for f in findings:
        shown = SHOWN_ELSEWHERE.get((f.code, f.verdict))
        if f.code == "insulation" and f.verdict == "hold":
            bare = f.figure is not None and f.figure < TO_FRAME_MEGOHM
            shown = ("insulation", "to frame" if bare else "low")
        if shown is not None:
            found[shown[0]] = shown[1]
    return found


def _shown_by_capacitors(gear: Gear, settings: Settings) -> dict[str, str]:
    thought = [capacitor_of(gear, n, settings)[1] for n in gear.capacitors]
    verdicts = [t.verdict for t in thought if t is not None]
    if {"hold", "watch"} & set(verdicts):
        return {"capacitor": "low"}
    return {"capacitor": "right"} if verdicts and set(verdicts) == {"good"} else {}


_SWITCH_CAUSES = ("switch-open", "switch-stays", "switch-weak")
NOT_FITTED = 0.03  # of a cause's weight where the part it is of is not among those noted


def _fitted(gear: Gear, odds: Odds) -> Odds:
    """Return odds that know which start gear is noted: no thermistor, no hot thermistor."""
    kinds = set(gear.devices.values())
    switching = kinds & {*START_DEVICES}
    out: set[str] = set()
    if switching and "ptc" not in switching:
        out.add("thermistor-hot")
    if switching == {"ptc"}:
        out |= {"switch-stays", "switch-weak"}
    serves = {told.get("serves", "") for told in gear.capacitors.values()}
    if serves == {"run"} and not switching:
        out |= {*_SWITCH_CAUSES, "thermistor-hot"}
    return [(c, p * (NOT_FITTED if c.name in out else 1.0)) for c, p in odds]


_ACTUATOR = {
    "free": "opens",
    "dirty": "drags",
    "sticks": "stays",
    "weak spring": "drags",
    "worn": "drags",
}


def _shown_by_devices(gear: Gear, settings: Settings) -> dict[str, str]:
    found: dict[str, str] = {}
    for name, kind in gear.devices.items():
        told = [t for t in told_of(gear, name, settings) if t.verdict != "unproven"]
        for t in told:
            good = t.verdict in ("good", "watch")
            if kind == "protector" and t.expected is not None and not good:
                found["protector"] = "open cold"
            if kind == "speed-switch" and t.expected is not None:
                if t.expected.open:
                    found["switch-worked"] = "opens" if good else "stays"
                else:
                    found["switch-at-rest"] = "closed" if good else "open"
            elif kind in ("relay-current", "relay-voltage", "hot-wire") and t.expected is not None:
                if t.expected.what == "contact" and not t.expected.open:
                    found["switch-at-rest"] = "closed" if good else "open"
                elif t.expected.open and not good:
                    found["switch-worked"] = "stays"
        actuator = gear.noted.get((name, "actuator"), "")
        if (
            kind == "speed-switch"
            and found.get("switch-worked", "opens") == "opens"
            and actuator in _ACTUATOR
        ):
            found["switch-worked"] = _ACTUATOR[actuator]
    return found


def causes_after(
    job: Job,
    suspicion: Suspicion | None,
    findings: Iterable[Finding] = (),
    settings: Settings = USUAL,
) -> tuple[Suspicion | None, tuple[Ask, ...]]:
    """Return the suspicion with all results counted, and the tests still worth making."""
    if suspicion is None:
        return None, ()
    results = results_of(job, findings, settings)
    odds = weigh_with_tests(_fitted(job.gear.was or job.gear, suspicion.odds), results)
    brushed = any(c.brushed and p > 0.1 for c, p in suspicion.odds)
    asks = worth_testing(odds, results, job.plate.phases, brushed)
    return replace(suspicion, odds=odds), asks
