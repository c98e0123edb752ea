"""The verbs connect and hookup: what they take, and their words for people."""

from collections.abc import Iterator
from dataclasses import dataclass

from careful_coil.core.connect import Check, Hookup, Plan, Plate, Supplied, Wish, check, plan
from careful_coil.core.connect.hookup import start_and_run
from careful_coil.core.connect.plans import against_default
from careful_coil.core.connect.slips import Likely, likely_slips, words_of
from careful_coil.core.connect.steps import Step, change_steps
from careful_coil.core.errors import BadDocument
from careful_coil.core.job.plate import read_volts
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse, show_ohm
from careful_coil.core.ways.way import Ohms
from careful_coil.core.winding.arrangements import arrangement
from careful_coil.documents.base import parse_json
from careful_coil.documents.connection import ConnectionDocument, connection_document
from careful_coil.documents.given_names import back, given_names, renamed
from careful_coil.documents.hookup import (
    HookupCheckDocument,
    hookup_check_document,
    read_hookup,
)


@dataclass(frozen=True, slots=True, kw_only=True)
class ConnectOptions:
    """What the command line says, as text."""

    arrangement: str
    rated: str
    supply: str
    hertz: str | None
    rated_hertz: str
    start: str
    family: str | None
    speed: str | None
    rotation: str | None
    seen_from: str | None
    coil_ohm: str | None
    inside: str | None


def connection_of(options: ConnectOptions, present: str | None) -> tuple[ConnectionDocument, str]:
    """Return the hookup for a supply and its words; `present` the text of the present hookup."""
    document = read_hookup(parse_json(present)) if present is not None else None
    before = document.hookup() if document else None
    if before and before.arrangement != options.arrangement:
        raise BadDocument("--from, arrangement", before.arrangement, options.arrangement)
    hertz = positive(options.rated_hertz, Quantity.FREQUENCY)
    plate = Plate(read_volts(options.rated), hertz)
    wish = Wish(
        start=options.start,
        family=options.family or (before.family if before else ""),
        speed=options.speed or "",
        reverse=against_default(options.rotation or "", options.seen_from or ""),
        variant=options.inside or (before.variant if before else ""),
        devices=before.devices if before else (),
    )
    volt = positive(options.supply, Quantity.VOLTAGE)
    at = positive(options.hertz, Quantity.FREQUENCY) if options.hertz else hertz
    found = plan(options.arrangement, plate, volt, at, wish)
    ohms: Ohms | None = None
    if options.coil_ohm:
        ohms = positive(options.coil_ohm, Quantity.RESISTANCE)
    elif document and document.coil_ohm is not None:
        ohms = document.coil_ohm
    steps = _steps(before, found, ohms) if before else None
    shown = connection_document(
        found,
        ohms,
        document.amps_at(volt) if document else (),
        _coil_volts(found, plate, volt, at, ohms),
        steps,
    )
    return shown, "\n".join(_connection_words(found, shown))


def _coil_volts(
    found: Plan, plate: Plate, volt: float, hertz: float, ohms: Ohms | None
) -> dict[str, float]:
    phases = arrangement(found.arrangement).phases
    hookup = Hookup(
        arrangement=found.arrangement,
        variant=found.variant,
        joints=found.joints,
        devices=found.devices,
        plate=plate,
        supply=Supplied(phases=phases, volt=volt, hertz=hertz),
        coil_ohm=ohms or 1.0,
    )
    return start_and_run(hookup, found.field)[1].coil_volt


def _steps(before: Hookup, found: Plan, ohms: Ohms | None) -> tuple[Step, ...]:
    had, has = {d.name for d in before.devices}, {d.name for d in found.devices}
    used = {n for j in before.joints for n in j}
    alias = {"N": "L2"} if "L2" not in used and before.supply.phases == 1 else {}
    return change_steps(
        before.inside().leads,
        [tuple(alias.get(n, n) for n in j) for j in before.joints],
        found.joints,
        found.line_ohm(ohms) if ohms else None,
        gone=sorted(had - has),
        fresh=sorted(has - had),
    )


def _connection_words(found: Plan, shown: ConnectionDocument) -> Iterator[str]:
    yield found.connection
    for stage in found.stages:
        yield f"  {stage.name}:"
        yield from ("    " + " – ".join(joint) for joint in stage.joints)
    if not found.stages:
        yield from ("  " + " – ".join(joint) for joint in found.joints)
    for device in shown.devices or ():
        if device.closed:
            states = [s for s, pairs in device.closed.items() if pairs]
            yield f"  {device.name} ({device.kind}): closed in {', '.join(states)}"
    for pair, value in (shown.line_ohm or {}).items():
        yield f"  {pair}: {value if isinstance(value, str) else show_ohm(value)}"
    for line, amp in (shown.amp or {}).items():
        yield f"  {line}: {amp:g} A"
    yield from found.notes
    yield shown.direction
    for number, step in enumerate(shown.steps or (), 1):
        loose = f" ({step.loose_after} loose)" if step.loose_after else ""
        yield f"  {number}. {step.text}{loose}"


def hookup_answer(text: str, with_slips: bool = False) -> tuple[HookupCheckDocument, str, bool]:
    """Return the check of a hookup document, its words, and whether it is bad news.

    `with_slips` adds every single slip from the right hookup.
    """
    document = read_hookup(parse_json(text))
    names = given_names(document.arrangement, document.inside, document.joints)
    rename = back(names, document.arrangement, document.inside)
    hookup = document.called(names).hookup()
    found = check(hookup)
    slips = likely_slips(hookup, found.right) if with_slips and found.right else ()
    shown = hookup_check_document(
        found, document.coil_ohm is not None, slips if with_slips else None
    )
    words = rename("\n".join((*_check_words(found, shown), *_slip_words(slips))))
    if names:
        shown = HookupCheckDocument.model_validate(renamed(shown.model_dump(), rename))
    return shown, words, found.verdict != "sound"


def _slip_words(slips: tuple[Likely, ...]) -> Iterator[str]:
    if slips:
        unseen = sum(not s.ohms_show for s in slips)
        yield f"{len(slips)} single slips from the right hookup; {unseen} leave the line ohms as they are:"
    for slip in sorted(slips, key=lambda s: s.ohms_show):
        yield f"  {slip.title}"
        yield from (f"    {words}" for words in words_of(slip))
        yield f"    Cheapest: {slip.cheapest}."


def _check_words(found: Check, shown: HookupCheckDocument) -> Iterator[str]:
    yield f"{found.verdict}: {found.connection or 'no hookup known'}"
    for f in found.faults:
        yield f"  {f.severity}: {f.text}"
        if f.severity != "note" and f.shown_by_ohms is not None:
            yield f"    Line ohms {'show' if f.shown_by_ohms else 'cannot show'} it."
    for pair, value in (shown.line_ohm or {}).items():
        yield f"  {pair}: {value if isinstance(value, str) else show_ohm(value)}"
    if found.right and found.verdict != "sound":
        yield f"right: {found.right.connection}"
        yield from ("  " + " – ".join(joint) for joint in found.right.joints)
    yield f"direction can be changed {shown.direction}"


def positive(text: str, quantity: Quantity) -> float:
    """Return a figure above nothing. Raises: BadValue, BadDocument."""
    value = parse(text, quantity).value
    if not 0 < value < float("inf"):
        raise BadDocument(quantity.value, text, "a figure above nothing")
    return value
