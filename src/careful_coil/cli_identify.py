"""The verb identify: what it takes, and its words for people."""

from collections.abc import Iterator

from careful_coil.core.identify import Identification, identify
from careful_coil.core.values import show_ohm
from careful_coil.documents.base import parse_json
from careful_coil.documents.identification import IdentificationDocument, identification_document
from careful_coil.documents.readings import read_readings


def identified(text: str) -> tuple[IdentificationDocument, str, bool]:
    """Return what the leads of a document are, in words too, and whether its readings contradict each other.

    Raises: BadDocument.
    """
    found = identify(read_readings(parse_json(text)).evidence())
    words = "\n".join(_identification_words(found))
    return identification_document(found), words, found.status == "contradictory"


def _identification_words(found: Identification) -> Iterator[str]:
    best = found.best
    yield f"{found.status}: {best.arrangement or 'no winding known'} ({best.probability:.0%})"
    yield "groups: " + "  ".join(" ".join(g) for g in best.groups)
    for tag, role in best.roles.items():
        yield f"  {tag} = {role} ({best.certainty[tag]})"
    for name, ohm in best.coil_ohm.items():
        yield f"  {name}: {show_ohm(ohm)}"
    for s in found.suspects:
        yield f"suspect: reading {s.reading}. {s.why}"
    if found.next is not None:
        n = found.next
        ends = [
            *(n.between or ()),
            *(n.source or ()),
            *(n.sense or ()),
            *(n.tie or ()),
            *(n.across or ()),
        ]
        ends += n.lines or ()
        words = " ".join(
            e if isinstance(e, str) else "+".join(e) for e in (*ends, *(n.joints or ()))
        )
        yield f"next: {n.kind} {words}. {n.why}"
    for a, b in found.never_energise:
        yield f"never line voltage: {a} to {b}"
    yield from found.notes
