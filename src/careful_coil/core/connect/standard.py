"""Standard hookups that a motor's marks allow, and what a printed diagram is among them."""

import itertools
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from careful_coil.core.connect.as_found import Reading, meant_by, windings_marked
from careful_coil.core.errors import BadValue, CoilError
from careful_coil.core.identify import Naming
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.at_intake import FoundHookup
from careful_coil.core.job.noted import Noted
from careful_coil.core.job.spoken import APART, EXAMPLE, read_found
from careful_coil.core.ways.book import plans_of
from careful_coil.core.ways.way import LINES, Joint, line_ohms, made
from careful_coil.core.winding.arrangements import ARRANGEMENTS
from careful_coil.core.winding.markings import leads_of
from careful_coil.core.winding.network import Network

SHORT_OHM = 1e-9
IDLE = 1e-9
MOST_OFFERED = 6


@dataclass(frozen=True, slots=True, kw_only=True)
class Standard:
    """A standard hookup on this motor: its title, its joints by tag."""

    title: str
    joints: tuple[Joint, ...]


def standards_for(job: Job, naming: Naming) -> tuple[Standard, ...]:
    """Return every direct hookup the leads' marks allow, by tag, each set of joints once.

    Empty where a lead has no mark that a winding carries.
    """
    marks = {lead.tag: lead.marking for lead in job.leads}
    found: dict[frozenset[frozenset[str]], Standard] = {}
    for slug, variant, names in windings_marked(marks, naming):
        tag = {name: t for t, name in names.items()}
        for p in plans_of(slug, variant):
            if p.start != "direct" or p.devices:
                continue
            joints = tuple(tuple(tag.get(n, n) for n in j) for j in p.joints)
            key = frozenset(frozenset(j) for j in joints)
            title = f"{p.connection}, {ARRANGEMENTS[slug].title.lower()}"
            found.setdefault(key, Standard(title=title, joints=joints))
    return tuple(found.values())


def offered(job: Job, naming: Naming) -> tuple[Standard, ...]:
    """Return the standard hookups that can be named by number as found, none where they are too many."""
    every = standards_for(job, naming)
    return every if len(every) <= MOST_OFFERED else ()


def read_found_or_number(text: str, job: Job, naming: Naming) -> tuple[FoundHookup | Noted, ...]:
    """Return joints as found as typed, or the number of a standard hookup that stands just so.

    Raises: BadValue.
    """
    told = text.strip()
    standards = offered(job, naming)
    if told.isascii() and told.isdecimal() and told not in APART and standards:
        if not 1 <= int(told) <= len(standards):
            raise BadValue(text, f"1 to {len(standards)}, or the joints: {EXAMPLE}")
        return (FoundHookup(joints=standards[int(told) - 1].joints),)
    return read_found(text, job.leads)


def diagram_findings(job: Job) -> list[Finding]:
    """Return what the diagram printed on the motor is, where it differs, and what in it can hurt."""
    diagram = job.seen.diagram
    if diagram is None:
        return []
    name = f"Printed diagram{f' ({diagram.title})' if diagram.title else ''}"
    for joint in diagram.joints:
        if len({n for n in joint if n in LINES}) > 1:
            return [
                _finding(
                    "hold", name, f"It joins {' and '.join(joint)}: a short. Do not follow it."
                )
            ]
    marks = {n: n for j in diagram.joints for n in j if n not in LINES and n not in ("N", "PE")}
    joints = tuple(tuple(n for n in j if n != "PE") for j in diagram.joints)
    meant = meant_by(joints, marks)
    exact = [r for r in meant if not r.meant.slips]
    if exact:
        titles = " or ".join(
            dict.fromkeys(
                f"{r.plan.connection}, {ARRANGEMENTS[r.arrangement].title}" for r in exact
            )
        )
        return [
            _finding("note", name, f"It is the standard {titles}. The maker's diagram decides.")
        ]
    wrong = _wrong_in(joints, marks)
    if wrong:
        return [_finding("hold" if "short" in wrong else "watch", name, wrong)]
    if meant:
        slip = meant[0].meant.slips[0].text()
        near = _title(meant[0])
        return [
            _finding(
                "watch",
                name,
                f"It differs from {near}: {slip} Read it again; if it stands, the maker's wins.",
            )
        ]
    return [_finding("note", name, "It is no hookup known here: the maker's diagram decides.")]


def _title(reading: Reading) -> str:
    winding = ARRANGEMENTS[reading.arrangement].title
    return f"{reading.plan.connection} ({winding[0].lower()}{winding[1:]})"


def _wrong_in(joints: Sequence[Joint], marks: Mapping[str, str]) -> str:
    """Return what shorts or stays open on every winding that can carry these marks, else nothing."""
    told = []
    for network, names in _networks(marks):
        named = tuple(tuple(names.get(n, n) for n in j) for j in joints)
        told.append(_short_or_open(network, named, {n: mark for mark, n in names.items()}))
    if not told or not all(told):
        return ""
    return min(told, key=len)


def _networks(marks: Mapping[str, str]) -> list[tuple[Network, dict[str, str]]]:
    """Return the windings whose leads include all these marks, fewest leads first."""
    found = []
    for known in ARRANGEMENTS.values():
        network = known.network
        names = {}
        for mark in marks:
            fits = leads_of(known.slug, mark, network.leads)
            if len(fits) == 1:
                names[mark] = fits[0]
        if len(set(names.values())) == len(marks):
            found.append((network, names))
    least = min((len(n.leads) for n, _ in found), default=0)
    return [(n, names) for n, names in found if len(n.leads) == least]


def _short_or_open(network: Network, joints: Sequence[Joint], printed: Mapping[str, str]) -> str:
    """Return in words what is shorted, or which coils carry nothing between any two lines.

    `printed` what the diagram calls a lead.
    """
    lines = [n for n in LINES if any(n in j for j in joints)]
    try:
        whole = made(network, tuple(joints))
        ohms = line_ohms(whole, lines)
    except CoilError:
        return ""
    if any(r < SHORT_OHM for r in ohms.values()):
        pair = min(ohms, key=lambda p: ohms[p])
        return f"It shorts {pair.replace('-', ' to ')}. Do not follow it."
    used: set[str] = set()
    for a, b in itertools.combinations(lines, 2):
        if ohms[f"{a}-{b}"] == float("inf"):
            continue
        shares = whole.shares(a, b)
        used |= {c.name for c, s in zip(whole.coils, shares, strict=True) if abs(s) > IDLE}
    idle = [
        f"{printed.get(c.start, c.start)}-{printed.get(c.finish, c.finish)}"
        for c in network.coils
        if c.name not in used
    ]
    return f"It leaves {', '.join(idle)} without current." if idle else ""


def _finding(verdict: str, subject: str, why: str) -> Finding:
    return Finding(
        code="diagram",
        verdict="hold" if verdict == "hold" else "watch" if verdict == "watch" else "note",
        subject=subject,
        why=why,
        station="intake",
        gate=verdict == "hold",
    )
