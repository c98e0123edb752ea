"""Two tags that were on each other's leads from the start: everything said by tag before changes over."""

from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from careful_coil.core.job.entries import Entry, ReadingTaken, TagsSwapped

# where a body names leads by their tags, by its kind; what a lead looks like stays with its tag
NAMED: Mapping[str, tuple[str, ...]] = {
    "insulation": ("parts", "against"),
    "winding-ohm": ("between",),
    "found-hookup": ("joints",),
    "role-known": ("tag",),
    "reading-moved": ("between",),
    "step-ohm": ("between",),
    "joint": ("joint",),
    "stands-so": ("joints",),
    "parted": ("leads",),
    "insulated": ("lead",),
    "lead-clamped": ("lead",),
    "lead-mended": ("tag",),
}
OF_READING = ("between", "source", "sense", "tie", "across", "lines", "joints", "lead")
WORDS = {
    "reading": "readings",
    "insulation": "insulation tests",
    "winding-ohm": "winding ohms",
    "found-hookup": "the hookup as found",
    "joint": "joints",
    "stands-so": "joints",
    "lead-mended": "leads made good",
}


def changed_over(entries: Sequence[Entry]) -> tuple[Sequence[Entry], tuple[str, ...]]:
    """Return the entries with tags exchanged before each swap, and a remark for each."""
    if not any(isinstance(e.body, TagsSwapped) for e in entries):
        return entries, ()
    other: dict[str, str] = {}
    found, remarks = [], list[str]()
    for k in range(len(entries) - 1, -1, -1):
        entry = entries[k]
        if isinstance(entry.body, TagsSwapped):
            one, two = entry.body.tags
            other = _then({one: two, two: one}, other)
            remarks.append(_remark(one, two, entries[:k]))
        found.append(_renamed(entry, other))
    return tuple(reversed(found)), tuple(reversed(remarks))


def _then(first: Mapping[str, str], later: Mapping[str, str]) -> dict[str, str]:
    """Return two exchanges as one."""
    names = {*first, *later}
    return {n: later.get(first.get(n, n), first.get(n, n)) for n in names}


def _renamed(entry: Entry, other: Mapping[str, str]) -> Entry:
    body: Any = entry.body
    fields = OF_READING if isinstance(body, ReadingTaken) else NAMED.get(body.kind, ())
    if not fields or not other:
        return entry
    of = body.reading if isinstance(body, ReadingTaken) else body
    told = {n: _swap(getattr(of, n), other) for n in fields if hasattr(of, n)}
    changed = of.model_copy(update=told)
    if isinstance(body, ReadingTaken):
        changed = body.model_copy(update={"reading": changed})
    return entry.model_copy(update={"body": changed})


def _swap(value: Any, other: Mapping[str, str]) -> Any:
    if isinstance(value, str):
        return other.get(value, value)
    return tuple(_swap(v, other) for v in value) if isinstance(value, tuple) else value


def _remark(one: str, two: str, before: Sequence[Entry]) -> str:
    """Return what went over with two tags."""
    said = tuple(dict.fromkeys(_words(before, one, two)))
    what = ", ".join(said) or "nothing yet"
    return f"Tags {one} and {two} exchanged from the start: {what} went over. What the leads look like stays."


def _words(before: Sequence[Entry], one: str, two: str) -> Iterator[str]:
    for entry in before:
        if _renamed(entry, {one: two, two: one}) is not entry and entry.body.kind in WORDS:
            yield WORDS[entry.body.kind]
