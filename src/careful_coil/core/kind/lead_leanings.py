"""What the kind of motor and the shop's own experience say of its leads, before any is read."""

from collections.abc import Collection, Mapping

from careful_coil.core.identify.evidence import Leanings
from careful_coil.core.identify.extras import USES
from careful_coil.core.job import Job
from careful_coil.core.kind.kinds import KINDS
from careful_coil.core.kind.rules import looks_of
from careful_coil.core.kind.weigh import Weighed, weigh_kinds
from careful_coil.core.readings import Resistance
from careful_coil.core.settings import Settings
from careful_coil.core.winding.arrangements import ARRANGEMENTS

_CAGE: Mapping[str, float] = {
    "single-phase-2-lead": 0.3,
    "single-phase-3-lead": 1.0,
    "single-phase-4-lead": 1.0,
    "single-phase-dual-voltage-6-lead": 1.0,
    "single-phase-dual-voltage-8-lead": 1.0,
    "single-phase-speed-taps": 0.1,
    "single-phase-two-speed-coil": 0.01,
}
_BRUSHED: Mapping[str, float] = {
    "single-phase-2-lead": 0.3,
    "universal-4-lead": 1.0,
    "universal-5-lead": 1.0,
}
_THREE: Mapping[str, float] = {s: 1.0 for s, a in ARRANGEMENTS.items() if a.phases == 3}
# how well each winding goes with each kind of motor; kinds without a row say nothing here
WINDINGS_OF: Mapping[str, Mapping[str, float]] = {
    "split-phase": _CAGE,
    "capacitor-start": _CAGE,
    "capacitor-start-run": _CAGE,
    "permanent-capacitor": {**_CAGE, "single-phase-speed-taps": 1.0},
    "shaded-pole": {"single-phase-two-speed-coil": 1.0, "single-phase-2-lead": 1.0},
    "universal": _BRUSHED,
    "three-phase": _THREE,
    "three-phase-magnet": _THREE,
    "wound-rotor": _THREE,
    "synchronous": _THREE,
}
# what may lie in the start winding's path, by kind: nothing, a switch, a bled capacitor, a capacitor
_USUAL_PATH = (0.43, 0.35, 0.02, 0.20)
PATHS: Mapping[str, tuple[float, float, float, float]] = {
    "split-phase": (0.25, 0.74, 0.005, 0.005),
    "capacitor-start": (0.25, 0.60, 0.02, 0.13),
    "capacitor-start-run": (0.30, 0.50, 0.03, 0.17),
    "permanent-capacitor": (0.80, 0.001, 0.02, 0.179),
    "shaded-pole": (0.997, 0.001, 0.001, 0.001),
}
SEALED = ("single-phase-3-lead", "three-phase-3-lead")  # what comes out on the pins of a compressor
LEAST, MOST = 0.02, 50.0  # signs are seen wrongly too
EXCLUDED = 0.1  # a winding so much less likely by the kind than without it is excluded
PLAIN_SIGNS = (
    *("leads", "plate-phases", "three-equal", "varies-with-shaft", "tachometer"),
)  # these count by themselves


def leanings_of(job: Job, settings: Settings, put_off: Collection[str] = ()) -> Leanings:
    """Return them. `put_off`: codes of readings that cannot be taken now.

    Signs that the plate or the leads give are left out: they count by themselves."""
    tags = {lead.tag: k for k, lead in enumerate(job.leads)}
    last = next((t.reading for t in reversed(job.readings)), None)
    pair = last.pair() if isinstance(last, Resistance) else None
    return Leanings(
        arrangements=tuple(sorted(settings.arrangement_odds.items())),
        kinds=winding_odds(job),
        path=path_odds(job),
        bunching=settings.school("bunching") == "yes",
        clips=tuple(sorted(tags[t] for t in pair)) if pair else (),
        put_off=tuple(sorted(put_off)),
        adjacent=min(settings.adjacent_halves.value, 99.0) / 100,
    )


def _telling(job: Job) -> dict[str, str]:
    """Return the signs that say something of the kind besides what plate and leads say by themselves."""
    looks = looks_of(job, None)
    return {s: a for s, a in looks.items() if s not in PLAIN_SIGNS}


def winding_odds(job: Job) -> tuple[tuple[str, float], ...]:
    """Return how much likelier than usual the kind of motor makes each winding, by slug."""
    looks = _telling(job)
    if not looks:
        return ()
    after: dict[str, float] = {o.kind.name: o.probability for o in weigh_kinds(looks).odds}
    whole = sum(KINDS[k].prior for k in WINDINGS_OF)
    sealed = looks.get("sealed") == "yes"
    found = []
    for slug in ARRANGEMENTS:
        before = sum(KINDS[k].prior / whole * fit.get(slug, 0.0) for k, fit in WINDINGS_OF.items())
        now = sum(after[k] * fit.get(slug, 0.0) for k, fit in WINDINGS_OF.items())
        if sealed and slug not in SEALED:
            now = 0.0
        found.append((slug, round(min(max(now / before, LEAST), MOST), 4)))
    return tuple(found)


def path_odds(job: Job) -> tuple[float, ...]:
    """Return the odds of nothing, a switch, a bled capacitor, a capacitor in the start winding's path."""
    looks = _telling(job)
    if not looks:
        return _USUAL_PATH
    odds = [0.0] * len(_USUAL_PATH)
    for o in weigh_kinds(looks).odds:
        for k, p in enumerate(PATHS.get(o.kind.name, _USUAL_PATH)):
            odds[k] += o.probability * p
    bare = looks.get("speed-switch") == "none" or "start-device" in looks
    if bare or looks.get("sealed") == "yes":
        odds[1] *= 0.02
    whole = sum(odds)
    return tuple(round(p / whole, 5) for p in odds)


def excluded(job: Job, kinds: Weighed) -> tuple[str, ...]:
    """Return in words which windings of so many leads the kind of motor excludes, and the kind."""
    inside = [(s, v) for s, a in ARRANGEMENTS.items() for v in ("", *a.variants)]
    count = len([x for x in job.leads if x.use not in USES])
    fits = {s for s, v in inside if len(ARRANGEMENTS[s].inside(v).leads) == count}
    out = [
        ARRANGEMENTS[slug].title.lower()
        for slug, odds in winding_odds(job)
        if odds <= EXCLUDED and slug in fits
    ]
    if not out:
        return ()
    best = kinds.odds[0]
    kind = f"{best.kind.title.lower()}, {best.probability:.0%}"
    kind = "a sealed compressor" if job.seen.sealed else kind
    return (f"By its kind ({kind}) hardly: {'; '.join(out)}.",)
