"""The hookups a motor can have, and the one its supply needs.

Which connection belongs to which rating follows from the volts a coil gets: the ratios of the plate's
volts must be those of the connections.
"""

import itertools
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from careful_coil.core.errors import CannotConnect, SupplyUnfit
from careful_coil.core.ways.book import plans_of, unlined
from careful_coil.core.ways.devices import Device
from careful_coil.core.ways.way import LINES, Joint, Plan, Stage
from careful_coil.core.winding.arrangements import Arrangement, arrangement

SUPPLY_APART_PERCENT = 10.0  # NEMA MG 1: rated volts ±10 % at rated frequency
EDGE_PERCENT = 5.0
FLUX_WATCH, FLUX_HOLD = 1.05, 1.10  # volts per hertz over rated
RATIO_SLACK = 0.06
SAME_FACTOR = 1e-9
Volts = tuple[float, float]


@dataclass(frozen=True, slots=True)
class Plate:
    """What the plate says of volts: one entry a connection, each a range (low, high), rising."""

    volts: tuple[Volts, ...]
    hertz: float = 60.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Wish:
    """What else is asked of a hookup; empty words leave it to the tables."""

    start: str = "direct"
    family: str = ""
    speed: str = ""
    reverse: bool = False
    variant: str = ""
    devices: tuple[Device, ...] = ()
    equal: bool = False  # both windings read alike: then it reverses at the capacitor
    by_other: bool = False  # turned round by the main winding, a universal motor by its field
    apart: float = SUPPLY_APART_PERCENT  # % a supply may be off a rating, and from where it is said
    edge: float = EDGE_PERCENT
    phases: int | None = None
    one: str = ""  # of which connection the only rating of the plate is: HIGHEST or LOWEST


MAIN_LEADS, FIELD_LEADS = ("main-1", "main-2"), ("field-1", "field-tap", "field-2")
HIGHEST, LOWEST = "highest", "lowest"


def plan(
    slug: str,
    plate: Plate,
    supply_volt: float,
    supply_hertz: float | None = None,
    wish: Wish | None = None,
) -> Plan:
    """Return the hookup for a supply.

    Raises: NotKnownYet for an arrangement or variant not known; CannotConnect with the reason and
    the nearest that fits, or with the question that must be answered first.
    """
    wish = wish or Wish()
    known = arrangement(slug)
    if wish.phases is not None and wish.phases != known.phases:
        raise CannotConnect(
            f"A {wish.phases}-phase supply does not fit: this winding has {known.phases} "
            f"phase{'s' if known.phases > 1 else ''}. "
            + (
                "A drive can make three phases of one."
                if known.phases == 3
                else "Name two lines, or line and neutral, whichever have its volts."
            )
        )
    options = _spoken(_asked(known, wish), wish)
    ratings = _ratings(known, options, plate, wish)
    apart = [_apart_percent(supply_volt, volts) for volts in plate.volts]
    ratio = (supply_hertz or plate.hertz) / plate.hertz
    if ratio != 1.0 and not slug.startswith("universal"):  # volts per hertz decide
        by_hertz = [_apart_percent(supply_volt, (v[0] * ratio, v[1] * ratio)) for v in plate.volts]
        apart = [min(a, b, key=abs) for a, b in zip(apart, by_hertz, strict=True)]
    usable = [k for k, options_of in enumerate(ratings) if options_of]
    if not usable:
        raise CannotConnect(
            f"A {wish.start} start runs on the lower of two ratings; the plate gives one. Start it direct, "
            "or give both ratings, as 230/460.",
            "start",
            ("direct",),
        )
    rank = min(usable, key=lambda k: abs(apart[k]))
    nearest = min(range(len(apart)), key=lambda k: abs(apart[k]))
    if abs(apart[rank]) > wish.apart:
        words = _off(wish, plate, supply_volt, apart, rank, nearest)
        if nearest != rank and abs(apart[nearest]) <= wish.apart:
            raise CannotConnect(words, "start", ("direct",))
        raise SupplyUnfit(words)
    found = _one_way(ratings[rank], wish)
    # a commutator's speed follows volts and load: hertz change neither it nor the flux by much
    hertz = None if slug.startswith("universal") else supply_hertz
    remarks = _remarks(apart[rank], supply_volt, plate.volts[rank], plate.hertz, hertz, wish.edge)
    return replace(found, rank=rank, notes=(*found.notes, *remarks))


def rating_of(found: Plan, plate: Plate) -> Volts | None:
    """Return the plate's rating that a hookup belongs to; None where the plate does not tell.

    Where both families could be, the hookup's own decides.
    """
    known = arrangement(found.arrangement)
    for family in dict.fromkeys(("", found.family)):
        wish = Wish(family=family, speed=found.speed, variant=found.variant)
        try:
            ratings = _ratings(known, _spoken(_asked(known, wish), wish), plate, wish)
        except CannotConnect:
            continue
        for volts, own in zip(plate.volts, ratings, strict=True):
            if any(abs(p.factor - found.factor) < SAME_FACTOR for p in own):
                return volts
    return None


def fits_supply(rated: Volts, volt: float) -> bool:
    """Return whether a supply is within what a rating allows."""
    return abs(_apart_percent(volt, rated)) <= SUPPLY_APART_PERCENT


def which_plan(slug: str, joints: Iterable[Sequence[str]], variant: str = "") -> Plan | None:
    """Return the hookup that these joints make, whichever line goes where; None when none."""
    made = unlined(joints)
    return next((p for p in plans_of(slug, variant) if unlined(p.joints) == made), None)


def _asked(known: Arrangement, wish: Wish) -> list[Plan]:
    """Return the hookups with the wished start and family."""
    options = list(plans_of(known.slug, wish.variant, wish.devices))
    starts = list(dict.fromkeys(p.start for p in options))
    if wish.start not in starts:
        words = f"{known.title}: no {wish.start} start. It has: {', '.join(starts)}."
        raise CannotConnect(words, "start", tuple(starts))
    options = [p for p in options if p.start == wish.start]
    families = list(dict.fromkeys(p.family for p in options if p.family))
    if wish.family:
        if families and wish.family not in families:
            raise _other_family(known, wish, families[0])
        options = [p for p in options if not p.family or p.family == wish.family]
    return options


def _other_family(known: Arrangement, wish: Wish, family: str) -> CannotConnect:
    """Return why it is not of the wished family, and what of the wish gives way: the start, or the family."""
    every = plans_of(known.slug, wish.variant, wish.devices)
    starts = tuple(dict.fromkeys(p.start for p in every if p.family == wish.family))
    started = f"Started {wish.start}, {known.title[0].lower()}{known.title[1:]}"
    words = (
        f"{started if starts else known.title} cannot be joined as {wish.family}, only as {family}."
    )
    return CannotConnect(words, *(("start", starts) if starts else ("family", (family,))))


def _spoken(options: list[Plan], wish: Wish) -> list[Plan]:
    """Return the hookups of the wished speed. Raises: CannotConnect with the speeds there are."""
    speeds = list(dict.fromkeys(p.speed for p in options if p.speed))
    if wish.speed not in (speeds or [""]):
        if not speeds:
            raise CannotConnect(
                f"This winding has one speed; “{wish.speed}” is not one of its own. Empty the speed.",
                "speed",
            )
        asked = f"no speed “{wish.speed}”" if wish.speed else "which speed?"
        words = f"{asked.capitalize()} It has: {', '.join(speeds)}."
        raise CannotConnect(words, "speed", tuple(speeds))
    return [p for p in options if p.speed == wish.speed]


def _ratings(known: Arrangement, options: list[Plan], plate: Plate, wish: Wish) -> list[list[Plan]]:
    """Return for each rating of the plate the hookups that belong to it."""
    factors: list[float] = []
    for p in sorted(options, key=lambda p: p.factor):
        if not factors or p.factor - factors[-1] > SAME_FACTOR:
            factors.append(p.factor)
    if wish.start != "direct":
        return _started_ratings(known, options, plate, wish)
    count = len(plate.volts)
    if count == 1 and len(factors) == 1:
        return [options]
    fits = [c for c in itertools.combinations(factors, count) if _match(c, plate.volts)]
    if len(fits) == 1:
        return [[p for p in options if abs(p.factor - f) < SAME_FACTOR] for f in fits[0]]
    if count == 1 and len({p.family for p in options}) == 1 and wish.one:
        factor = max(factors) if wish.one == HIGHEST else min(factors)
        return [[p for p in options if abs(p.factor - factor) < SAME_FACTOR]]
    families = tuple(dict.fromkeys(p.family for p in options if p.family))
    if count == 1 and len(families) < 2 and len(factors) > 1:
        words = _why_no_rating(options, factors, plate, len(fits))
        raise CannotConnect(words, "rated", (HIGHEST, LOWEST))
    either = len(fits) > 1 and len(families) > 1 and not wish.family
    words = _why_no_rating(options, factors, plate, len(fits))
    raise CannotConnect(words, "family" if either else "volt", families if either else ())


def _started_ratings(
    known: Arrangement, options: list[Plan], plate: Plate, wish: Wish
) -> list[list[Plan]]:
    """Return for each rating the hookup that ends in that rating's direct one."""
    direct = _asked(known, replace(wish, start="direct", family="", devices=()))
    direct = [p for p in direct if not wish.family or p.family == wish.family]
    of_rating = _ratings(known, direct, plate, replace(wish, start="direct"))
    return [[p for p in options if any(_alike(p, d) for d in directs)] for directs in of_rating]


def _alike(started: Plan, direct: Plan) -> bool:
    """Whether a started hookup runs as a direct one: the same family, the same volts of a coil."""
    return started.family == direct.family and abs(started.factor - direct.factor) < SAME_FACTOR


def _match(factors: Sequence[float], volts: Sequence[Volts]) -> bool:
    return all(
        abs(volts[k][1] / volts[0][1] / (factors[k] / factors[0]) - 1) <= RATIO_SLACK
        for k in range(len(volts))
    )


def _why_no_rating(options: list[Plan], factors: list[float], plate: Plate, fits: int) -> str:
    spans = " and ".join(span_words(v) for v in plate.volts)
    names = " or ".join(dict.fromkeys(p.connection.split(":")[0] for p in options))
    families = list(dict.fromkeys(p.family for p in options))
    if fits > 1:
        if len(plate.volts) == 1:
            return f"The plate gives one rating ({spans}). Is that for {names}? Give both ratings, as 230/460."
        return (
            f"Ratings {spans} fit more than one way ({' or '.join(families)}): the wrong one puts "
            "173 % on the coils. The plate's diagram, a third rating or the hookup as found with its "
            "supply must say which internal connection, wye or delta."
        )
    if len(factors) == 1:
        return f"This winding has one connection; the plate gives {spans}. Which of them is it wound for?"
    if len(plate.volts) > len(factors):
        return f"The plate gives {len(plate.volts)} ratings ({spans}); this winding has {len(factors)} connections."
    ratio = plate.volts[1][1] / plate.volts[0][1]
    wanted = " or ".join(
        dict.fromkeys(f"{b / a:.2f}" for a, b in itertools.combinations(factors, 2))
    )
    return (
        f"Ratings {spans} stand {ratio:.2f} to 1; this winding gives {wanted} to 1. "
        "Look at the plate again."
    )


def _off(
    wish: Wish, plate: Plate, volt: float, apart: Sequence[float], rank: int, nearest: int
) -> str:
    if nearest != rank and abs(apart[nearest]) <= wish.apart:
        return (
            f"A {wish.start} start needs the supply at {span_words(plate.volts[rank])}; on {volt:g} V this "
            "motor runs in another connection. Start it direct, or through a drive."
        )
    takes = " or ".join(f"{v[1]:g} V" if v[0] == v[1] else span_words(v) for v in plate.volts)
    return (
        f"A supply of {volt:g} V is {apart[rank]:+.0f} % off the nearest rating, "
        f"{span_words(plate.volts[rank])}; "
        f"±{wish.apart:g} % is allowed. This motor takes about {takes}."
    )


def _one_way(options: list[Plan], wish: Wish) -> Plan:
    """Return the hookup that turns as wished. Raises: CannotConnect where leads cannot do it."""
    forward = next(p for p in options if not p.reversed)
    if not wish.reverse:
        return forward
    if not forward.turning:
        return with_lines_exchanged(forward)
    other = next((p for p in options if p.reversed), None)
    if forward.turning == "opening" and not (wish.equal and other):
        raise CannotConnect(
            "This direction cannot be had from outside: only by opening the motor, unless both "
            "windings are equal; then the line goes to the other end of the capacitor.",
            "rotation",
        )
    if other is None:
        words = "This direction cannot be had by leads. " + " ".join(forward.notes)
        raise CannotConnect(words.strip(), "rotation")
    return turned_round(forward, wish.by_other) or other


def turned_round(forward: Plan, by_other: bool) -> Plan | None:
    """Return a hookup turned round by its main winding or its field; None where it is turned by the other.

    Exchanging either winding alone turns a motor round; the tables exchange the start winding, or the
    armature. Both ends of the one must come out by themselves.
    """
    own = FIELD_LEADS if forward.arrangement.startswith("universal") else MAIN_LEADS
    ends = [n for j in forward.joints for n in j if n in own]
    if not by_other or len(ends) != 2:
        return None
    one, two = ends
    other = {one: two, two: one}
    joints = tuple(tuple(other.get(n, n) for n in j) for j in forward.joints)
    return replace(forward, joints=joints, reversed=True)


def with_lines_exchanged(found: Plan) -> Plan:
    """Return a three-phase hookup with lines 1 and 2 exchanged: the other direction."""
    other = {"L1": "L2", "L2": "L1"}

    def exchanged(joints: Sequence[Joint]) -> tuple[Joint, ...]:
        swapped = [tuple(other.get(n, n) for n in j) for j in joints]
        return tuple(sorted(swapped, key=lambda j: LINES.index(j[0]) if j[0] in LINES else 9))

    return replace(
        found,
        joints=exchanged(found.joints),
        stages=tuple(Stage(s.name, exchanged(s.joints)) for s in found.stages),
        reversed=not found.reversed,
    )


DEFAULT_DIRECTION = ("cw", "drive-end")
_OTHER_WAY = {"cw": "ccw", "ccw": "cw"}


def against_default(rotation: str, seen_from: str) -> bool:
    """Return whether a direction is the other than the tables': clockwise seen from the drive end.

    IEC 60034-8: line order U V W turns clockwise seen from the drive end, which is counter-clockwise
    from the opposite end (the view of NEMA MG 1). Raises: CannotConnect without the end.
    """
    if not rotation:
        return False
    if not seen_from:
        words = f"{rotation} seen from which end? drive-end or opposite."
        raise CannotConnect(words, "seen-from", ("drive-end", "opposite"))
    at_drive = rotation if seen_from == "drive-end" else _OTHER_WAY[rotation]
    return at_drive != DEFAULT_DIRECTION[0]


def with_direction(found: Plan) -> str:
    """Return which way a hookup turns, from both ends, where marks and lines say so."""
    if found.turning in ("no", "opening"):
        return "The direction is built in: see it on the first run."
    if "universal" in found.arrangement:
        return "The direction follows field against armature: see it on the first run."
    words = {"cw": "clockwise", "ccw": "counter-clockwise"}
    at_drive = "ccw" if found.reversed else "cw"
    here, there = words[at_drive], words[_OTHER_WAY[at_drive]]
    by = "by the usual marks" if found.turning else "on lines in the order L1 L2 L3"
    return f"{here} seen from the drive end, {there} from the opposite end, {by}."


def _apart_percent(volt: float, rated: Volts) -> float:
    nearest = min(max(volt, rated[0]), rated[1])
    return 100.0 * (volt / nearest - 1.0)


def span_words(volts: Volts) -> str:
    """Return a rating's volts in words."""
    return f"{volts[0]:g} V" if volts[0] == volts[1] else f"{volts[0]:g}–{volts[1]:g} V"


def _at_speed(ratio: float) -> str:
    """Return what another speed means for power, load and cooling: P ∝ n at one torque, n³ for a fan or pump."""
    load = f"A fan or pump on it takes × {ratio**3:.2f} of its power"
    if ratio > 1:
        return (
            f"At its torque it gives × {ratio:.2f} of its power. {load}: the load may be too much for it; bearings, "
            "rotor and what it drives must bear the speed."
        )
    return f"At its torque it gives × {ratio:.2f} of its power. {load}; its own fan blows less: load it no further."


def _remarks(
    apart: float,
    volt: float,
    rated: Volts,
    plate_hertz: float,
    hertz: float | None,
    edge: float,
) -> tuple[str, ...]:
    notes = []
    if abs(apart) > edge:
        share = (volt / (rated[0] if apart < 0 else rated[1])) ** 2
        notes.append(
            f"{volt:g} V on a {span_words(rated)} rating is at the edge: torque {share:.2f} of rated."
        )
    if hertz is not None and hertz != plate_hertz:
        flux = volt / hertz / (rated[1] / plate_hertz)
        hold = " Too much iron flux: do not run it so." if flux > FLUX_HOLD else ""
        watch = " Watch the no-load amps." if FLUX_WATCH < flux <= FLUX_HOLD else ""
        ratio = hertz / plate_hertz
        notes.append(
            f"{hertz:g} Hz on a {plate_hertz:g} Hz plate: speed × {ratio:.2f}, "
            f"volts per hertz × {flux:.2f}.{hold}{watch} {_at_speed(ratio)}"
        )
    return tuple(notes)
