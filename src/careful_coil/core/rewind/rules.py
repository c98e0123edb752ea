"""What stands against a winding's record, what is still to read, and the lines of the ledger."""

from collections.abc import Iterator
from functools import partial

from careful_coil.core.condition.coils import Measured
from careful_coil.core.identify import Naming
from careful_coil.core.job import Finding, Job
from careful_coil.core.kind import Weighed
from careful_coil.core.rewind.explain import explain, off_percent
from careful_coil.core.rewind.layout import MAIN, PHASES, START, Layout, circuits_of, off_centre
from careful_coil.core.rewind.record import Record, copper_mm2
from careful_coil.core.rewind.worked import Plate, Worked, work_out
from careful_coil.core.settings import Settings
from careful_coil.core.sheets.winding import title_of
from careful_coil.core.values import show_ohm

# what a rewind wants, in the order the hands meet it
WANTED = {
    3: (
        "slots",
        "poles",
        "exit",
        "connection",
        "groups",
        "coils",
        "span",
        "turns",
        "wire",
        "circuits",
        "mass",
        "extension",
        "core",
        "bore",
        "slot-depth",
        "tooth",
        "back-iron",
        "liner",
    ),
    1: (
        "slots",
        "poles",
        "exit",
        "main",
        "main-wire",
        "start",
        "start-wire",
        "extension",
        "core",
        "bore",
        "slot-depth",
        "tooth",
        "back-iron",
        "liner",
    ),
}
CENTRED_DEGREES = 5.0  # off the middle between the mains: within what slots allow is no fault
SHORT_SPAN = 0.6  # of a pole pitch: shorter is unusual
DOUBLE_APART = 0.15  # of two volts over each other: nearer to two than to the root of three
THIN = 0.8  # start wire's area over the main's, split phase


def record_of(job: Job) -> Record:
    """Return the record; three phases unless the plate says one."""
    return Record(job.winding, 1 if job.plate.phases == 1 else 3)


def beside_ohms(record: Record, naming: Naming, ohms: Measured | None) -> Record:
    """Return the record with the ohms of a phase as they were measured, unless one was typed.

    A coil between two leads is a whole phase as it is joined inside, or one of its halves: these are in
    parallel where the circuits are even, else in series.
    """
    network, arranged = naming.network, naming.arrangement
    if record.phases != 3 or record.told.get("phase-ohm") or not record.told or ohms is None:
        return record
    if network is None or arranged is None or arranged.phases != 3 or ohms.missing or ohms.untold:
        return record
    halves, left = divmod(len(network.coils), 3)
    circuits = record.whole("circuits") or 1
    known = [ohms.ohm.get(c.name, 0.0) for c in network.coils]
    if left or not halves or min(known) <= 0:
        return record
    side_by_side = halves if circuits % halves == 0 else 1
    phase = sum(known) / len(known) * halves / side_by_side**2
    at_c = f" at {ohms.at_c:g}" if ohms.at_c is not None else ""
    return Record({**record.told, "phase-ohm": f"{phase:.5g}{at_c}"}, 3)


def start_over_main(record: Record) -> float | None:
    """Return the start winding's effective turns over the main's by the record; None while not both are."""
    layout = record.layout() if record.phases == 1 else ""
    if isinstance(layout, str):
        return None
    main, start = (
        sum(c.turns for c in layout.of(w)) * layout.factor(w) if layout.of(w) else 0.0
        for w in (MAIN, START)
    )
    return start / main if main > 0 and start > 0 else None


def plate_of(job: Job) -> Plate:
    """Return what the plate gives the winding as it is joined on record.

    Of two volts √3 apart delta takes the lower; of two that are double, circuits side by side do (even
    circuits); amps go the other way.
    """
    plate = job.plate
    volts = [v for span in plate.volts for v in span]
    low, high = min(volts, default=None), max(volts, default=None)
    lower = job.winding.get("connection") == "delta" or plate.phases == 1
    if low is not None and high is not None and abs(high / low - 2) < DOUBLE_APART:
        circuits = Record(job.winding, 3).whole("circuits") or 1
        lower = circuits % 2 == 0 or plate.phases == 1
    amp = None
    if plate.amps:
        amp = max(plate.amps) if lower and plate.phases != 1 else min(plate.amps)
    return Plate(volt=low if lower else high, hertz=plate.hertz, amp=amp)


def left_to_read(record: Record) -> tuple[str, ...]:
    """Return the fields still to read before anything is stripped, in the order the hands meet them."""
    either = {"mass": "mean-turn", "mean-turn": "mass"}
    return tuple(
        f
        for f in WANTED[record.phases]
        if not record.told.get(f) and not record.told.get(either.get(f, f))
    )


def winding_findings(job: Job, record: Record, kinds: Weighed, settings: Settings) -> list[Finding]:
    """Return findings on a record that was begun; the gate asks for it whole once a rewind was logged."""
    if not job.winding:
        return []
    plate = plate_of(job)
    worked = work_out(record, plate, settings)
    found = [*_contradictions(record, worked, kinds), *_figures(worked)]
    found += _ohms(record, plate, settings)
    left = left_to_read(record)
    of = partial(Finding, code="winding-data", station="winding", gate="rewound" in job.work)
    if left:
        names = ", ".join(title_of(f) for f in left[:5]) + (" …" if len(left) > 5 else "")
        subject = f"{len(left)} data still to read" if len(left) > 1 else f"{names} still to read"
        why = f"{names}. Nothing can be read after stripping."
        found.append(of(verdict="unproven", subject=subject, why=why))
    else:
        why = f"{len(job.winding)} data."
        found.append(of(verdict="good", subject="Winding data complete", why=why))
    return found


# a finding that contradicts a datum bears the name of its field: `winding-span`
_OF = partial(Finding, station="winding")


def _contradictions(record: Record, worked: Worked, kinds: Weighed) -> Iterator[Finding]:
    """Yield what cannot be true, where it stands."""
    layout = worked.layout
    if layout is None:
        if record.told.get("slots") and record.told.get("poles") and worked.why:
            if record.phases == 1 and not record.told.get("main"):
                return
            yield _OF(
                code="winding-slots", verdict="hold", subject="No such winding", why=worked.why
            )
        return
    if record.phases == 1:
        yield from _single(record, layout, kinds)
        return
    yield from _counts(record, layout)
    span, pitch = record.span, layout.slots / layout.poles
    if span is not None and (span > pitch or span < SHORT_SPAN * pitch):
        word = "beyond" if span > pitch else "far below"
        yield _OF(
            code="winding-span",
            verdict="watch",
            subject=f"Span 1-{span + 1} is {word} the pole pitch",
            why=f"A pole is {pitch:g} slots: 1-{int(pitch) + 1} is full. Count again.",
        )
    circuits = record.whole("circuits")
    fit = circuits_of(layout)
    if circuits is not None and circuits not in fit:
        yield _OF(
            code="winding-circuits",
            verdict="hold",
            subject=f"{circuits} circuits do not part the groups",
            why=f"Equal ones: {', '.join(map(str, fit))}.",
        )


def _counts(record: Record, layout: Layout) -> Iterator[Finding]:
    for field, wanted in (
        ("coils", len(layout.coils)),
        ("groups", sum(len(layout.groups(p)) for p in PHASES)),
    ):
        said = record.whole(field)
        if said is not None and said != wanted:
            kind = "one layer" if layout.layers == 1 else "two layers"
            yield _OF(
                code=f"winding-{field}",
                verdict="hold",
                subject=f"{said} {field}, not {wanted}",
                why=f"{layout.slots} slots, {layout.poles} poles in {kind} have {wanted}. Count again, or it is "
                "of another make: layers, consequent poles.",
            )


def _single(record: Record, layout: Layout, kinds: Weighed) -> Iterator[Finding]:
    main, start = layout.of(MAIN), layout.of(START)
    if not start:
        return
    off = off_centre(layout)
    if abs(off) > CENTRED_DEGREES:
        yield _OF(
            code="winding-start-at",
            verdict="watch",
            subject="Start winding not centred between the mains",
            why=f"{abs(off):.0f}° electrical off the middle: one direction starts worse. Count its slots again.",
        )
    ratio = sum(c.turns for c in start) / sum(c.turns for c in main)
    thin = copper_mm2(record.wire("start-wire")) / (copper_mm2(record.wire("main-wire")) or 1.0)
    best = max(kinds.odds, key=lambda o: o.probability, default=None)
    kind = best.kind.name if best is not None and best.probability > 0.5 else ""
    if kind == "split-phase" and ratio >= 1:
        yield _OF(
            code="winding-start",
            verdict="watch",
            subject=f"Start winding has {ratio:.2f} times the main's turns",
            why="A split phase has fewer, of thin wire: kind or record is wrong.",
        )
    elif kind in ("capacitor-start", "permanent-capacitor", "capacitor-start-run") and ratio < 0.8:
        yield _OF(
            code="winding-start",
            verdict="watch",
            subject=f"Start winding has {ratio:.2f} times the main's turns",
            why="A capacitor kind has about as many or more: kind or record is wrong.",
        )
    if kind == "split-phase" and thin > THIN:
        yield _OF(
            code="winding-start-wire",
            verdict="watch",
            subject="Start wire as thick as the main's",
            why="A split phase starts by its thin wire's ohms: kind or record is wrong.",
        )


def _figures(worked: Worked) -> Iterator[Finding]:
    """Yield figures outside what is usual; a slot that is more than full is a hold."""
    for f in worked.figures:
        if f.mark != "watch" or f.value is None:
            continue
        over = f.high is not None and f.value > f.high.value
        limit = f.high if over else f.low
        full = f.name == "fill" and f.value > 100
        yield Finding(
            code=f"winding-{f.name}",
            verdict="hold" if full else "watch",
            subject=f"{f.title} {f.shown}",
            why="More than the slot holds: turns, wire or slot area is wrong."
            if full
            else f"{'Over' if over else 'Under'} {limit.value if limit else 0:g} {f.unit}: look at the record again.",
            station="winding",
            figure=f.value,
            limit=limit.value if limit else None,
            unit=f.unit,
            source=limit.source if limit else "",
        )


def _ohms(record: Record, plate: Plate, settings: Settings) -> Iterator[Finding]:
    """Yield whether the record's ohms are those measured, and what would explain it if not."""
    off, limit = off_percent(record, plate, settings), settings.record_ohm_apart
    if off is None:
        return
    ohm = work_out(record, plate, settings).of("ohm")
    apart = abs(off) > limit.value
    told = explain(record, plate, settings) if apart else ()
    words = "; ".join(c.words for c in told)
    explained = f" Would explain it: {words}." if words else " No single datum explains it."
    yield Finding(
        code="winding-ohms",
        verdict="hold" if apart else "good",
        subject="Record contradicts the ohms" if apart else "Record fits the ohms",
        why=f"{show_ohm(ohm.value or 0.0)} worked out, {ohm.words}.{explained if apart else ''}",
        station="winding",
        figure=off,
        limit=limit.value,
        unit="%",
        source=limit.source,
    )
