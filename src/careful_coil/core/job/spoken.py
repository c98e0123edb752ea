"""Leads as they are spoken of at the bench: by tag, by line, by what is printed on them."""

import re
from collections.abc import Sequence

from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_intake import FoundHookup, Lead
from careful_coil.core.job.noted import Noted, note
from careful_coil.core.readings import LINES

EXAMPLE = "L1 A G; L2 B H; L3 C J; D E F"


def lead_named(word: str, leads: Sequence[Lead]) -> str:
    """Return the tag of the lead that a word means. Raises: BadValue, also where it means two.

    A tag comes first, then what is printed, with or without its T.
    """
    wanted = word.strip().upper()
    tags = [x.tag for x in leads if x.tag.upper() == wanted]
    printed = [x.tag for x in leads if _print_of(x) in (wanted, f"T{wanted}")]
    if tags and (not printed or printed == tags):
        return tags[0]
    if tags:
        raise BadValue(
            word, f"tags alone: {word} is the tag of one lead and printed on {printed[0]}"
        )
    if len(printed) != 1:
        told = ", ".join(_said(x) for x in leads)
        raise BadValue(word, f"one of {told}, or L1, L2, L3, N")
    return printed[0]


def _print_of(lead: Lead) -> str:
    return lead.marking.strip().upper()


def _said(lead: Lead) -> str:
    return f"{lead.tag} ({lead.marking})" if lead.marking.strip() else lead.tag


TERMINAL = re.compile(r"[A-Z][A-Z0-9]*\d\.\w{1,4}", re.I)  # of a device: C1.1, S1.2


def _no_lead(word: str) -> bool:
    return word.upper() in LINES or TERMINAL.fullmatch(word) is not None


APART = ("0", "apart", "all apart", "none", "loose", "-")  # no lead is joined to another


def read_joints(text: str, leads: Sequence[Lead]) -> tuple[tuple[str, ...], ...]:
    """Return joints typed as `L1 1 7; 4 5 6`, by tag or as printed. Raises: BadValue."""
    if text.strip().lower() in APART:
        return ()
    joints: list[tuple[str, ...]] = []
    told = [w for t in words_of(text.replace(";", " ")) for w in _unglued(t, leads)]
    every = {w.upper() for w in told if not _no_lead(w)}
    if every <= {x.tag.upper() for x in leads}:  # tags alone, whatever is printed on others
        leads = [x.model_copy(update={"marking": ""}) for x in leads]
    for part in text.split(";"):
        words = [w for told in words_of(part) for w in _unglued(told, leads)]
        if not words:
            continue
        joint = tuple(w.upper() if _no_lead(w) else lead_named(w, leads) for w in words)
        if len(joint) < 2:
            raise BadValue(part.strip(), f"two ends or more to a joint, for example {EXAMPLE}")
        joints.append(joint)
    check_once(joints)
    return tuple(joints)


_GLUED = re.compile(r"((?:L[123]|N)?)([A-Z]+)", re.IGNORECASE)


def _unglued(word: str, leads: Sequence[Lead]) -> list[str]:
    """Return the names in a word typed without blanks: L1AG is L1, A and G, where tags are single letters."""
    tags = {x.tag.upper() for x in leads}
    glued = _GLUED.fullmatch(word)
    if glued is None or _no_lead(word) or word.upper() in tags | {_print_of(x) for x in leads}:
        return [word]
    names = [n for n in (glued[1], *glued[2]) if n]
    return names if len(names) > 1 and {n.upper() for n in glued[2]} <= tags else [word]


LOOSE = re.compile(r"\b(loose|burnt|burned|hot|scorched|arced)\b", re.I)


def read_found(
    text: str, leads: Sequence[Lead], ran: str = "unknown"
) -> tuple[FoundHookup | Noted, ...]:
    """Return joints as found as typed, and those that are said to be loose or burnt: `L1 A; D E F loose`.

    Raises: BadValue.
    """
    if text.strip().lower() in APART:
        return (FoundHookup(joints=()),)
    bad = [p for p in text.split(";") if LOOSE.search(p)]
    joints = read_joints(LOOSE.sub(" ", text), leads)
    found = FoundHookup.model_validate({"joints": joints, "ran": ran})
    if not bad:
        return (found,)
    words = "; ".join(" ".join(LOOSE.sub(" ", p).split()) for p in bad)
    return found, note("condition", "terminals", "loose", words=f"{words}.")


def words_of(text: str) -> list[str]:
    """Return the names in a joint as typed: parted by blanks, commas, dashes."""
    return [w for w in re.split(r"[\s,–-]+", text.strip()) if w]


def check_once(joints: Sequence[Sequence[str]]) -> None:
    """Raise BadValue where an end stands in two joints, or twice in one."""
    seen: set[str] = set()
    for joint in joints:
        for name in joint:
            if name in seen:
                raise BadValue(name, f"each lead and line once, for example {EXAMPLE}")
            seen.add(name)
