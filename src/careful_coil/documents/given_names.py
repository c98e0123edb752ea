"""A hookup typed in the marks on its leads: read by them, and answered in them.

Lead names of the document are those of its arrangement; IEC marks, old letters and bare numbers are taken too,
where all of them belong to one marking and each means one lead.
"""

import re
from collections.abc import Callable, Mapping, Sequence
from itertools import chain
from typing import Any

from careful_coil.core.winding.arrangements import arrangement
from careful_coil.core.winding.markings import leads_of, windings_in

LINES = ("L1", "L2", "L3", "N")
Rename = Callable[[str], str]


def given_names(slug: str, variant: str, joints: Sequence[Sequence[str]]) -> dict[str, str]:
    """Return the lead each mark means, where the joints are typed in marks; empty where in lead names, or unclear."""
    leads = arrangement(slug).inside(variant).leads
    told = [
        n for n in dict.fromkeys(chain.from_iterable(joints)) if n not in LINES and "." not in n
    ]
    if not told or any(n in leads for n in told):
        return {}
    for system in windings_in(slug):
        by_mark = {mark.upper(): lead for lead, mark in system.items() if lead in leads}
        if all(n.upper() in by_mark for n in told):
            return {n: by_mark[n.upper()] for n in told}
    single = {n: leads_of(slug, n, leads) for n in told}
    if all(len(v) == 1 for v in single.values()) and len({v[0] for v in single.values()}) == len(
        told
    ):
        return {n: v[0] for n, v in single.items()}
    return {}


def back(names: Mapping[str, str], slug: str, variant: str) -> Rename:
    """Return what puts lead names in a text back into the marks that were given."""
    marks = {lead: mark for mark, lead in names.items()}
    leads = arrangement(slug).inside(variant).leads
    system = next((s for s in windings_in(slug) if set(marks.items()) <= set(s.items())), {})
    marks = {n: system[n] for n in leads if n in system} | marks
    if not marks:
        return lambda text: text
    own = sorted(marks, key=len, reverse=True)
    pattern = re.compile(rf"(?<![\w.])(?:{'|'.join(map(re.escape, own))})(?![\w]|\.\w)")
    return lambda text: pattern.sub(lambda found: marks[found[0]], text)


def renamed(value: Any, rename: Rename) -> Any:
    """Return a document's value with every text in it, keys too, put in other names."""
    if isinstance(value, str):
        return rename(value)
    if isinstance(value, Mapping):
        return {rename(str(k)): renamed(v, rename) for k, v in value.items()}
    if isinstance(value, list | tuple):
        return [renamed(v, rename) for v in value]
    return value
