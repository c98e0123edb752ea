"""A plug's positions: numbered by row on its face, mirrored from the side the wires go in."""

import re
from collections.abc import Iterator, Sequence

from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_intake import MOST_PINS, Lead, PlugSeen

EMPTY, DUMMY, UNKNOWN = "empty", "dummy", "?"
STATES = (EMPTY, DUMMY, UNKNOWN)
WANTED = "rows and what each position carries, for example 3+3 A B C D empty dummy"


def read_plug(text: str, leads: Sequence[Lead], view: str) -> PlugSeen:
    """Return a plug typed as `3+3 A B empty D E dummy`. Raises: BadValue.

    Rows from above, positions from the left as seen in `view` (face or wires); positions left out
    at the end are not known yet.
    """
    shape, *names = text.split()
    if not re.fullmatch(r"\d{1,2}([+x]\d{1,2})*", shape):
        raise BadValue(shape, WANTED)
    if "x" in shape:
        rows_of, _, wide = shape.partition("x")
        rows = (int(wide),) * int(rows_of) if wide.isdecimal() and int(rows_of) <= 8 else ()
    else:
        rows = tuple(int(n) for n in shape.split("+"))
    if not rows or min(rows) < 1 or max(rows) > 20 or len(rows) > 8 or sum(rows) > MOST_PINS:
        raise BadValue(shape, f"one to eight rows, {MOST_PINS} positions at most")
    if len(names) > sum(rows):
        raise BadValue(" ".join(names), f"at most {sum(rows)} positions")
    tags = {x.tag.upper(): x.tag for x in leads}
    pins = []
    for name in names:
        known = name.lower() if name.lower() in STATES else tags.get(name.upper(), "")
        if not known or (known in tags.values() and known in pins):
            raise BadValue(
                name, f"each lead once: {', '.join(tags.values())}; or {', '.join(STATES)}"
            )
        pins.append(known)
    pins += [UNKNOWN] * (sum(rows) - len(pins))
    found = PlugSeen(rows=rows, pins=tuple(pins), view="face")
    if view == "face":
        return found
    return PlugSeen(rows=rows, pins=mirrored(found), view="wires")


def by_row(plug: PlugSeen) -> Iterator[tuple[str, ...]]:
    """Yield what each row carries, on the face."""
    at = 0
    for wide in plug.rows:
        yield plug.pins[at : at + wide]
        at += wide


def mirrored(plug: PlugSeen) -> tuple[str, ...]:
    """Return the positions as seen from the other side: each row the other way round."""
    return tuple(p for row in by_row(plug) for p in reversed(row))


def pin_of(plug: PlugSeen, tag: str) -> int | None:
    """Return the number of a lead's position, counted from 1 along the face."""
    return plug.pins.index(tag) + 1 if tag in plug.pins else None


def plug_words(plug: PlugSeen) -> str:
    """Return pins with leads, and what is empty or dummy."""
    counts = {s: sum(p == s for p in plug.pins) for s in STATES}
    carried = [f"{k} {p}" for k, p in enumerate(plug.pins, 1) if p not in STATES]
    rest = [f"{n} {s if s != UNKNOWN else 'not looked at'}" for s, n in counts.items() if n]
    return "; ".join(["pin " + ", ".join(carried)] * bool(carried) + rest)
