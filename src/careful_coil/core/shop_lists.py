"""Lists a shop keeps as it is: its supplies, connectors, lead wire, supply colours, what its bench can give.

Each list is one line of text with ; between its rows, so that a settings file and a cell hold the same.
"""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, fields, replace

from careful_coil.core.errors import BadDocument

BENCH = ("battery", "low-ac", "variable-ac", "three-phase", "drive")
_NUMBER = r"(\d{1,5}(?:\.\d{1,3})?)"
_SUPPLY = re.compile(rf"{_NUMBER}\s*V?\s*/\s*([13])\s*/\s*{_NUMBER}\s*(?:Hz)?", re.IGNORECASE)
_CONNECTOR = re.compile(rf"([^,;]{{1,40}}),\s*{_NUMBER}\s*[-–]\s*{_NUMBER}\s*(?:mm²)?,\s*{_NUMBER}")
_METER = re.compile(r"([^,;]{1,60}),\s*(\d{4}-\d\d(?:-\d\d)?)")
_SIZE = re.compile(rf"{_NUMBER}\s*(?:mm²)?\s*/\s*{_NUMBER}\s*A?")
_LABEL = re.compile(rf"(leads|motor)\s+{_NUMBER}\s*[x×]\s*{_NUMBER}(?:\s*mm)?", re.IGNORECASE)
MOST_ROWS = 40
LABEL_MM = 8.0, 300.0  # the least and most of a side that anything can be printed on
MAY_BE_EMPTY = ("meters", "labels")


@dataclass(frozen=True, slots=True, kw_only=True)
class ShopSupply:
    """A supply this shop's customers have: V between lines, phases, Hz."""

    volt: float
    phases: int
    hertz: float

    @property
    def words(self) -> str:
        """Return it as one would say it."""
        kind = "three-phase" if self.phases == 3 else "single-phase"
        return f"{self.volt:g} V {kind}, {self.hertz:g} Hz"


@dataclass(frozen=True, slots=True, kw_only=True)
class Connector:
    """A connector: what all conductors in it may have together in mm², and the strip length in mm."""

    name: str
    low_mm2: float
    high_mm2: float
    strip_mm: float


@dataclass(frozen=True, slots=True, kw_only=True)
class LeadSize:
    """Lead wire: mm² and the amps this shop puts through it."""

    mm2: float
    amp: float


@dataclass(frozen=True, slots=True, kw_only=True)
class ShopLists:
    """The lists as their text; every row is read when it is asked for.

    `supplies` V/phases/Hz; `connectors` name, mm² from–to, strip mm (areas of all conductors together);
    `lead_sizes` mm²/A of lead wire (usual: IEC 60204-1, table 6, in conduit): the local code decides; `bench`
    what the shop's own bench can give; `meters` each with the day it was checked last; `labels` the page of a
    label printer for the leads' tags and the motor's, mm: without them a sheet to cut, and a card.
    """

    supplies: str = "400/3/50; 230/1/50; 480/3/60; 208/3/60; 240/1/60"
    connectors: str = (
        "small closed crimp, 1-3, 8; middle closed crimp, 2.5-8, 10; large closed crimp, 6-16, 12; "
        "copper sleeve 25, 14-25, 16; copper sleeve 50, 22-50, 20; copper sleeve 120, 45-120, 28"
    )
    lead_sizes: str = (
        "0.75/8.6; 1/10.3; 1.5/13.5; 2.5/18.3; 4/25; 6/32; 10/44; 16/60; 25/77; 35/97; 50/117; "
        "70/149; 95/180; 120/208"
    )
    bench: str = "; ".join(BENCH)
    meters: str = ""
    labels: str = ""

    def all_supplies(self) -> tuple[ShopSupply, ...]:
        """Return the supplies."""
        rows = (_match(_SUPPLY, row, "supplies") for row in _rows(self.supplies))
        return tuple(ShopSupply(volt=float(v), phases=int(p), hertz=float(f)) for v, p, f in rows)

    def all_connectors(self) -> tuple[Connector, ...]:
        """Return the connectors, small ones first."""
        rows = (_match(_CONNECTOR, row, "connectors") for row in _rows(self.connectors))
        found = (
            Connector(name=n.strip(), low_mm2=float(a), high_mm2=float(b), strip_mm=float(s))
            for n, a, b, s in rows
        )
        return tuple(sorted(found, key=lambda c: c.high_mm2))

    def all_lead_sizes(self) -> tuple[LeadSize, ...]:
        """Return the lead sizes, thin ones first."""
        rows = (_match(_SIZE, row, "lead_sizes") for row in _rows(self.lead_sizes))
        found = (LeadSize(mm2=float(a), amp=float(i)) for a, i in rows)
        return tuple(sorted(found, key=lambda s: s.mm2))

    def on_the_bench(self) -> tuple[str, ...]:
        """Return what the bench can give."""
        return tuple(_rows(self.bench))

    def all_meters(self) -> tuple[tuple[str, str], ...]:
        """Return the meters with the day each was checked, the one in daily use first."""
        rows = (_match(_METER, row, "meters") for row in _rows(self.meters))
        return tuple((name.strip(), day) for name, day in rows)

    def label(self, what: str) -> tuple[float, float] | None:
        """Return width and height in mm of the label for `leads` or `motor`; None where no size is set."""
        rows = (_match(_LABEL, row, "labels") for row in _rows(self.labels))
        sizes = {of.lower(): (float(wide), float(high)) for of, wide, high in rows}
        least, most = LABEL_MM
        for side in (side for size in sizes.values() for side in size):
            if not least <= side <= most:
                raise BadDocument("settings, labels", f"{side:g} mm", f"{least:g} to {most:g} mm")
        return sizes.get(what)

    def changed(self, name: str, wanted: object) -> "ShopLists":
        """Return the lists with another text of one. Raises: BadDocument with what a row looks like."""
        where = f"settings, {name}"
        least = 0 if name in MAY_BE_EMPTY else 1
        if not isinstance(wanted, str) or not least <= len(wanted) <= 2000:
            raise BadDocument(where, str(wanted), EXAMPLES[name])
        if len(_rows(wanted)) > MOST_ROWS:
            raise BadDocument(where, f"{len(_rows(wanted))} rows", f"{MOST_ROWS} at most")
        found = replace(self, **{name: wanted})
        if name == "bench":
            odd = [row for row in found.on_the_bench() if row not in BENCH]
            if odd:
                raise BadDocument(where, odd[0], "; ".join(BENCH))
            return found
        found.label("leads")  # read once, to refuse what is no size
        read: Mapping[str, Sequence[object]] = {
            "supplies": found.all_supplies(),
            "connectors": found.all_connectors(),
            "lead_sizes": found.all_lead_sizes(),
            "meters": found.all_meters(),
        }
        if least and not read[name]:
            raise BadDocument(where, "nothing", EXAMPLES[name])
        return found

    def told(self) -> dict[str, str]:
        """Return what differs from the usual lists."""
        return {n: getattr(self, n) for n in LISTS if getattr(self, n) != getattr(USUAL_LISTS, n)}


USUAL_LISTS = ShopLists()
LISTS = tuple(f.name for f in fields(ShopLists))
EXAMPLES = {
    "supplies": "volts/phases/hertz with ; between them, such as 400/3/50; 230/1/50",
    "connectors": "name, mm² from-to, strip mm with ; between them, such as small crimp, 1-3, 8",
    "lead_sizes": "mm²/amps with ; between them, such as 1.5/16; 2.5/22",
    "bench": "; ".join(BENCH) + ", or some of them",
    "meters": "name, day it was checked with ; between them, such as bench meter, 2026-01-15",
    "labels": "leads or motor, width x height in mm, with ; between them, such as leads 57x19; motor 100x62",
}
TITLES = {
    "supplies": "Supplies customers have",
    "connectors": "Connectors: name, mm² from-to, strip mm",
    "lead_sizes": "Lead wire: mm²/A (local code decides)",
    "bench": "What the bench can give",
    "meters": "Meters, the daily one first: name, day it was checked",
    "labels": "Label printer: its page for leads and motor, mm; empty: a sheet to cut",
}


def _rows(text: str) -> list[str]:
    return [row.strip() for row in text.split(";") if row.strip()]


def _match(pattern: re.Pattern[str], row: str, name: str) -> tuple[str, ...]:
    found = pattern.fullmatch(row)
    figures = [float(g) for g in found.groups() if re.fullmatch(_NUMBER, g)] if found else []
    if found is None or not all(f > 0 for f in figures):
        raise BadDocument(f"settings, {name}", row, EXAMPLES[name])
    return tuple(found.groups())


def size_for(lists: ShopLists, amp: float) -> LeadSize | None:
    """Return the thinnest lead wire of the shop's list that carries so many A; None: none does."""
    return next((s for s in lists.all_lead_sizes() if s.amp >= amp), None)


def connector_for(lists: ShopLists, mm2: float) -> Connector | None:
    """Return the smallest connector for conductors of so many mm² together; None: none fits."""
    return next((c for c in lists.all_connectors() if c.low_mm2 <= mm2 <= c.high_mm2), None)


# scheme → up to which volts between lines, colours of L1 L2 L3, neutral, earth
COLOURS: dict[str, tuple[tuple[float, tuple[str, ...]], ...]] = {
    "brown black grey": ((1e9, ("brown", "black", "grey", "blue", "green/yellow")),),  # IEC 60445
    "by voltage": (  # customary under NFPA 70, 210.5 and 215.12
        (250.0, ("black", "red", "blue", "white", "green")),
        (1e9, ("brown", "orange", "yellow", "grey", "green")),
    ),
    "red yellow blue": ((1e9, ("red", "yellow", "blue", "black", "green/yellow")),),
}


BY_SUPPLY = "by the supply"
SIXTY = 55.0  # Hz: above it the conductors of a 60 Hz country


NEUTRAL_60, NEUTRAL_50 = 130.0, 250.0  # V: up to here one phase is taken from a line to neutral


def to_neutral(volt: float, hertz: float, phases: int) -> bool:
    """Whether a single-phase supply lies between a line and neutral: L2 is the neutral then."""
    return phases == 1 and volt <= (NEUTRAL_60 if hertz > SIXTY else NEUTRAL_50)


def conductor(line: str, volt: float, hertz: float, phases: int) -> str:
    """Return what the conductor is called that a hookup's line is: N for L2 of a line and neutral."""
    return "N" if line == "L2" and to_neutral(volt, hertz, phases) else line


def line_colours(scheme: str, volt: float, hertz: float = 50.0, phases: int = 3) -> dict[str, str]:
    """Return the colours of L1 L2 L3 N PE under a scheme at so many volts between lines.

    By the supply: those customary with 60 Hz go by the volts, all others are one set for all volts.
    """
    if scheme == BY_SUPPLY:
        scheme = "by voltage" if hertz > SIXTY else "brown black grey"
    colours = next(c for up_to, c in COLOURS[scheme] if volt <= up_to)
    found = dict(zip(("L1", "L2", "L3", "N", "PE"), colours, strict=True))
    return {**found, "L2": found["N"]} if to_neutral(volt, hertz, phases) else found


def same_colour(lead: str, line: str) -> bool:
    """Whether a motor lead's colour is a line's; empty ones are none."""
    return bool(lead) and lead.strip().lower() == line.split("/", maxsplit=1)[0]
