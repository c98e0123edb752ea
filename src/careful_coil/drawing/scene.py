"""The drawings of a judged job: the winding as it looks now, the hookup as it is and must be."""

from collections.abc import Mapping, Sequence

from careful_coil.core.connect import Plan
from careful_coil.core.identify.engine import SURE
from careful_coil.core.ledger import Judgement
from careful_coil.core.readings import Meter, Resistance
from careful_coil.core.ways.states import State
from careful_coil.core.winding.arrangements import ARRANGEMENTS
from careful_coil.drawing.hookup import draw_hookup
from careful_coil.drawing.shapes import Drawing, moved
from careful_coil.drawing.tokens import wire
from careful_coil.drawing.winding import Look, draw_groups, draw_winding, plain_part

COARSE_STEP_OHM = 0.1


def looks_of(judged: Judgement) -> dict[str, Look]:
    """Return the look of every tag."""
    return {
        lead.tag: Look(tag=lead.tag, token=wire(lead.colour), tracer=lead.tracer)
        for lead in judged.job.leads
    }


def winding_now(judged: Judgement, columns: int = 1) -> Drawing:
    """Return the winding as the readings so far show it, its parts in so many columns."""
    looks, found = looks_of(judged), judged.facts.identification
    if found is None:
        return Drawing((), 62.0, 10.0)
    network, names = judged.facts.naming.network, judged.facts.naming.names
    alike = [
        c
        for c in found.candidates
        if (c.arrangement, c.groups) == (found.best.arrangement, found.best.groups)
    ]
    if network is None or sum(c.probability for c in alike) < 0.5:
        lone = [t for t in looks if not any(t in g for g in _read_groups(judged))]
        return draw_groups(_read_groups(judged), lone, looks)
    own = {names[t]: look for t, look in looks.items() if t in names}
    if not all(plain_part(network, g) for g in network.groups()):
        return _with_extras(draw_hookup(network, (), own), judged)
    read, alone, doubtful = _passed(judged)
    dead = {names[t] for t in found.best.broken if t in names}
    drawn = draw_winding(
        network,
        own,
        _coil_ohm(judged),
        frozenset(read),
        frozenset(doubtful),
        _step(judged.job.meter),
        inferred=frozenset(read - alone) if found.best.probability < SURE else frozenset(),
        opened=frozenset(c.name for c in network.coils if {c.start, c.finish} <= dead),
        columns=columns,
    )
    return _with_extras(drawn, judged)


def _with_extras(drawn: Drawing, judged: Judgement) -> Drawing:
    """Return the winding's drawing with sensor pairs and lone leads below it."""
    found = judged.facts.identification
    if found is None or not found.best.extras:
        return drawn
    pairs = [g for g in found.best.groups if g[0] in found.best.extras]
    lone = [t for t in found.best.extras if not any(t in g for g in pairs)]
    beside = draw_groups(pairs, lone, looks_of(judged))
    shapes = (*drawn.shapes, *moved(beside.shapes, 0.0, drawn.height))
    return Drawing(shapes, max(drawn.width, beside.width), drawn.height + beside.height)


def _step(meter: Meter) -> float:
    """Return the finest ohms worth showing: not finer than the meter, nor than its leads' unknown."""
    step = meter.resolution_ohm or COARSE_STEP_OHM
    return max(step, COARSE_STEP_OHM) if meter.lead_ohm is None else step


def _coil_ohm(judged: Judgement) -> dict[str, float]:
    """Return coil ohms under the names in use, which may be relabelled from the answer's."""
    found, network = judged.facts.identification, judged.facts.naming.network
    if found is None or network is None:
        return {}
    tag_of = {name: tag for tag, name in found.best.names.items()}
    here = judged.facts.naming.names
    ohms = {}
    for c in network.coils:
        if c.name not in found.best.coil_ohm:
            continue
        ends = {here[tag_of[n]] if n in tag_of else n for n in (c.start, c.finish)}
        ours = next((d.name for d in network.coils if {d.start, d.finish} == ends), c.name)
        ohms[ours] = found.best.coil_ohm[c.name]
    return ohms


def _passed(judged: Judgement) -> tuple[set[str], set[str], set[str]]:
    """Return the coils some reading passes, those one passes alone, and those a suspect passes."""
    network, names, found = (
        judged.facts.naming.network,
        judged.facts.naming.names,
        judged.facts.identification,
    )
    read: set[str] = set()
    alone: set[str] = set()
    doubtful: set[str] = set()
    if network is None or found is None:
        return read, alone, doubtful
    suspects = {s.reading for s in found.suspects}
    for index, taken in enumerate(judged.job.readings):
        pair = taken.reading.pair() if isinstance(taken.reading, Resistance) else None
        if pair is None or not set(pair) <= set(names):
            continue
        shares = network.shares(names[pair[0]], names[pair[1]])
        coils = {c.name for c, s in zip(network.coils, shares, strict=True) if abs(s) > 1e-9}
        read |= coils
        alone |= coils if len(coils) == 1 else set()
        doubtful |= coils if index in suspects else set()
    return read, alone, doubtful


def _read_groups(judged: Judgement) -> list[tuple[str, ...]]:
    """Return the tags that conduct to each other as read."""
    found = judged.facts.identification
    return list(found.read_groups) if found else []


def hookup_drawing(
    judged: Judgement,
    plan: Plan,
    beside: Sequence[Sequence[str]] = (),
    lines: Mapping[str, str] | None = None,
    state: State | None = None,
) -> Drawing | None:
    """Return a plan drawn on this motor's leads; joints that are not among `beside` in copper.

    `beside` the joints as they stand, drawn next to it in the same places; `lines` wire colours of the
    supply's lines; `state` what its devices stand at.
    """
    looks = looks_by_name(judged)
    if not looks:
        return None
    old = {frozenset(j) for j in beside}
    fresh = {frozenset(j) for j in plan.joints} - old if beside else set()
    inside = ARRANGEMENTS[plan.arrangement].inside(plan.variant)
    return draw_hookup(
        inside,
        plan.joints,
        looks,
        frozenset(fresh),
        plan.devices,
        beside=beside,
        lines={n: wire(c) for n, c in (lines or {}).items()},
        state=state or "rest",
    )


def joints_drawing(
    judged: Judgement,
    joints: Sequence[Sequence[str]],
    beside: Sequence[Sequence[str]] = (),
    lines: Mapping[str, str] | None = None,
) -> Drawing | None:
    """Return joints as they stand drawn on this motor's leads; those that must go in copper."""
    state = judged.facts.connecting
    looks = looks_by_name(judged)
    plan = state.plan
    if not looks or plan is None:
        return None
    wanted = {frozenset(j) for j in beside}
    gone = frozenset(frozenset(j) for j in joints) - wanted if beside else frozenset()
    inside = ARRANGEMENTS[plan.arrangement].inside(plan.variant)
    own = {n: wire(c) for n, c in (lines or {}).items()}
    word = "loose" if state.now.loose else "insulated singly"
    return draw_hookup(
        inside, joints, looks, gone, plan.devices, beside=beside, lines=own, alone_words=word
    )


def looks_by_name(judged: Judgement) -> dict[str, Look]:
    """Return the look of every lead by its name, labelled by its mark."""
    looks, state = looks_of(judged), judged.facts.connecting
    return {
        name: Look(tag=state.mark(name), token=looks[tag].token, tracer=looks[tag].tracer)
        for tag, name in state.names.items()
    }


def as_found_drawing(judged: Judgement) -> Drawing | None:
    """Return the joints as found on the winding they belong to; coils of a slip marked."""
    if not judged.facts.as_found:
        return None
    first = judged.facts.as_found[0]
    network = ARRANGEMENTS[first.arrangement].inside(first.variant)
    prints = {x.tag: x.marking.strip() for x in judged.job.leads}
    looks = {
        name: Look(tag=prints.get(tag) or name, token=looks_of(judged)[tag].token)
        for tag, name in first.names.items()
    }
    marks = {coil: "watch" for slip in first.meant.slips for coil in slip.coils}
    return draw_hookup(network, first.joints, looks, marks=marks)
