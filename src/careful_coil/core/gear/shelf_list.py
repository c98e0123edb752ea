"""The shelf as a list in CSV: read with every line that cannot be named, written so that no cell is a formula."""

import csv
import io
from collections.abc import Iterable, Mapping

from careful_coil.core.can_marking import read_marking
from careful_coil.core.errors import BadDocument, BadValue, CoilError
from careful_coil.core.figures import figure
from careful_coil.core.gear.shelf import Item
from careful_coil.core.units import Quantity

COLUMNS = ("tag", "kind", "marking", "diameter_mm", "length_mm", "count")
KINDS = ("start", "run", "dc", "")
MOST_LINES, LONGEST = 5000, 200
LARGEST_MM, MOST_COUNT = 1000.0, 10_000
FORMULA = ("=", "+", "-", "@", "\t", "\r")


def read_shelf(text: str) -> tuple[Item, ...]:
    """Return the items of a CSV list; `tag` and `marking` are required, `kind` where the marking is silent.

    Lines that begin with # are comments; decimals with a comma stand in quotes. Raises: BadDocument with
    the line, what was read and what is accepted; nothing of a list with a bad line is taken.
    """
    lines = [
        line for line in text.lstrip("\ufeff").splitlines() if not line.lstrip().startswith("#")
    ]
    rows = list(csv.reader(io.StringIO("\n".join(lines))))
    rows = [r for r in rows if any(cell.strip() for cell in r)]
    if not rows:
        raise BadDocument("shelf", "nothing", "a first line " + ",".join(COLUMNS))
    head = [cell.strip().lower() for cell in rows[0]]
    missing = [c for c in ("tag", "marking") if c not in head]
    if missing or len(set(head)) != len(head):
        raise BadDocument("shelf, first line", ",".join(rows[0]), ",".join(COLUMNS))
    if len(rows) > MOST_LINES:
        raise BadDocument("shelf", f"{len(rows)} lines", f"at most {MOST_LINES}")
    items = []
    for number, row in enumerate(rows[1:], 2):
        if len(row) > len(head):
            raise BadDocument(f"shelf, line {number}", ",".join(row), f"{len(head)} cells")
        told = dict(zip(head, (cell.strip() for cell in row), strict=False))
        items.append(_item(f"shelf, line {number}", told))
    tags = [i.tag for i in items]
    twice = next((t for t in tags if tags.count(t) > 1), None)
    if twice is not None:
        raise BadDocument("shelf", f"{twice} twice", "a tag of its own for each")
    return tuple(items)


def _item(where: str, told: Mapping[str, str]) -> Item:
    tag = told.get("tag", "").removeprefix("'")
    if not tag or len(tag) > LONGEST:
        raise BadDocument(f"{where}, tag", tag or "nothing", "a tag")
    try:
        marking = read_marking(told.get("marking", "").removeprefix("'"))
    except CoilError as error:
        raise BadDocument(f"{where}, marking", told.get("marking", ""), str(error)) from error
    kind = told.get("kind", "").lower()
    if kind not in KINDS:
        raise BadDocument(f"{where}, kind", kind, "start, run or dc")
    if not (kind or marking.kind):
        raise BadDocument(f"{where}, kind", "nothing", "start or run: the marking does not tell")
    if not marking.volt:
        raise BadDocument(f"{where}, marking", marking.text, "its volts too")
    low, high = marking.allowed(0, 0)
    return Item(
        tag=tag,
        kind="dc" if marking.kind == "dc" else kind or marking.kind,  # type: ignore[arg-type]
        low=low,
        high=high,
        volt=marking.volt,
        diameter=_number(where, told, "diameter_mm", LARGEST_MM),
        length=_number(where, told, "length_mm", LARGEST_MM),
        count=round(_number(where, told, "count", MOST_COUNT, 1.0)),
    )


def _number(
    where: str, told: Mapping[str, str], name: str, most: float, usual: float = 0.0
) -> float:
    text = told.get(name, "")
    if not text:
        return usual
    quantity = Quantity.LENGTH if name.endswith("_mm") else Quantity.NUMBER
    try:
        return figure(text, quantity, most=most)
    except BadValue:
        raise BadDocument(f"{where}, {name}", text, f"a figure from 0 to {most:g}") from None


def write_shelf(items: Iterable[Item]) -> str:
    """Return the list as CSV that `read_shelf` reads back; no cell begins a formula."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for i in items:
        span = f"{i.low:g}" if i.high == i.low else f"{i.low:g}-{i.high:g}"
        marking = f"{span} µF {i.volt:g} V{' DC' if i.kind == 'dc' else ''}"
        cells = (i.tag, i.kind, marking, f"{i.diameter:g}", f"{i.length:g}", str(i.count))
        writer.writerow([_safe(c) for c in cells])
    return out.getvalue()


def _safe(cell: str) -> str:
    return f"'{cell}" if cell.startswith(FORMULA) else cell
