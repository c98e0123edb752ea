"""What each start device and switch must read off the circuit, how it is held, what misleads.

Figures are trade practice; the maker's own win. Contacts are judged freshly nulled or by four wires.
"""

import itertools
import math
from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Literal

from careful_coil.core.settings import Settings
from careful_coil.core.values import show_ohm
from careful_coil.core.ways.devices import Device
from careful_coil.core.ways.states import OFF, position_words

Verdict = Literal["good", "watch", "hold", "unproven"]
OPEN = math.inf
CONTACT_OHM, SWITCH_OHM = 0.5, 0.1  # a start contact or protector; a selector's contact
TIRED = 4.0  # times the limit: a contact that is dirty, not dead
OPEN_ABOVE_OHM = 1e5  # what counts as open with everything disconnected
UNPROVEN_SHARE = 0.5  # a meter that leaves more of the limit open than this proves nothing


POSITION = "position "


@dataclass(frozen=True, slots=True, kw_only=True)
class Expected:
    """One reading: between which terminals, in what posture, Ω from `low` to `high` (infinite: open)."""

    between: tuple[str, str]
    when: str
    low: float
    high: float
    what: str

    @property
    def positional(self) -> bool:
        """Whether it is one of a position of a switch worked by hand: all its pairs are read at once."""
        return self.when.startswith(POSITION)

    @property
    def open(self) -> bool:
        """Whether it must be open."""
        return self.high == OPEN


@dataclass(frozen=True, slots=True, kw_only=True)
class DeviceFacts:
    """A kind of device: its readings, what to look at, how it is mounted, what must be off, traps."""

    title: str
    expected: tuple[Expected, ...]
    looks: tuple[str, ...]
    mounting: str
    off: str
    lets_go: str
    traps: tuple[str, ...]


def _contact(between: tuple[str, str], when: str, what: str = "contact") -> Expected:
    return Expected(between=between, when=when, low=0.0, high=CONTACT_OHM, what=what)


def _open(between: tuple[str, str], when: str, what: str = "contact") -> Expected:
    return Expected(between=between, when=when, low=OPEN_ABOVE_OHM, high=OPEN, what=what)


def _ohms(between: tuple[str, str], when: str, low: float, high: float, what: str) -> Expected:
    return Expected(between=between, when=when, low=low, high=high, what=what)


_BAND = "at 70 to 80 % of synchronous speed"
_ONE = ("1", "2")
LINKED = "as it is to work"  # the posture in which a relay's link is read
FACTS: dict[str, DeviceFacts] = {
    "speed-switch": DeviceFacts(
        title="Centrifugal switch",
        expected=(
            _contact(_ONE, "at rest"),
            _open(_ONE, "mechanism worked by hand"),
        ),
        looks=(
            "contacts: evenly pitted is normal; burnt, welded or meeting on the edge is not",
            "weights and collar move freely, springs alike, a drop of oil at the pivots only",
        ),
        mounting="contact plate and actuator are judged apart; the collar's travel must reach the plate",
        off="its leads off the winding: the start winding reads through it",
        lets_go=f"with a snap {_BAND}; must not reclose under load",
        traps=(
            "a contact that closes at speed is an interlock, right so",
            "a stiff bearing or low volts holds the motor below switching speed",
        ),
    ),
    "change-over": DeviceFacts(
        title="Centrifugal switch that changes over",
        expected=(
            _contact(_ONE, "at rest"),
            _open(("1", "3"), "at rest"),
            _open(_ONE, "mechanism worked by hand"),
            _contact(("1", "3"), "mechanism worked by hand"),
        ),
        looks=("as of any centrifugal switch; ask what each contact feeds",),
        mounting="contact plate and actuator are judged apart; the collar's travel must reach the plate",
        off="its leads off the winding: the start winding reads through it",
        lets_go=f"with a snap {_BAND}; must not reclose under load",
        traps=(
            "1 to 3 closes at speed and is right so: a signal, a heater, a control",
            "both contacts closed for a moment joins two circuits",
        ),
    ),
    "relay-current": DeviceFacts(
        title="Current relay",
        expected=(
            _open(("L", "S"), "upright"),
            _contact(("L", "S"), "turned over"),
            _ohms(("L", "M"), "any way up", 0.0, 1.0, "coil"),
        ),
        looks=("plunger free, contact not burnt",),
        mounting="the right way up: its weight opens the contact",
        off="out of its socket, or all three leads off",
        lets_go="when the main winding's inrush has fallen; up to about 0.75 kW",
        traps=("on its side or head it keeps the start winding in",),
    ),
    "hot-wire": DeviceFacts(
        title="Hot-wire relay",
        expected=(
            _contact(("L", "S"), "cold"),
            _ohms(("L", "M"), "cold", 0.0, 2.0, "heater"),
        ),
        looks=("wire whole, contacts not welded",),
        mounting="as marked; it is the overload too",
        off="all leads off",
        lets_go="when its wire is hot",
        traps=("obsolete: a start thermistor or electronic switch needs an overload besides",),
    ),
    "ptc": DeviceFacts(
        title="Start thermistor (PTC)",
        expected=(
            _ohms(_ONE, "cold", 1.0, 80.0, "thermistor"),
            _ohms(_ONE, "just after a run", 5e3, 2e5, "thermistor"),
        ),
        looks=("not cracked, clips tight, no heat marks",),
        mounting="air round it: it stays hot while the motor runs",
        off="out of its socket; minutes to cool before it is judged",
        lets_go="in about a second, by its own heat",
        traps=("warm it reads high and seems dead", "a restart before it is cool only hums"),
    ),
    "relay-voltage": DeviceFacts(
        title="Voltage relay",
        expected=(
            _contact(_ONE, "off the circuit"),
            _ohms(("5", "2"), "off the circuit", 1.5e3, 2.5e4, "coil"),
            _ohms(("1", "5"), "off the circuit", 1.5e3, 2.5e4, "coil, through the contact"),
        ),
        looks=("contact not welded, coil not burnt",),
        mounting="as marked",
        off="all leads off: the start winding lies across its coil",
        lets_go="when the start winding's volts pass its pick-up, at 75 to 80 % speed",
        traps=(
            "numbers differ by maker: go by the coil's ohms",
            "other terminals only join",
            "always with a start capacitor; 5 on the motor's side of the overload",
        ),
    ),
    "electronic-switch": DeviceFacts(
        title="Electronic switch",
        expected=(),
        looks=("no heat marks; jumpers and terminals as the kit's list",),
        mounting="as its maker says",
        off="before any insulation test",
        lets_go=_BAND,
        traps=(
            "its readings are its maker's",
            "its sensing leads must see the start winding's volts",
            "the old switch's leads come off",
        ),
    ),
    "protector": DeviceFacts(
        title="Thermal protector",
        expected=(_contact(_ONE, "cold"),),
        looks=("seated against the winding, leads whole",),
        mounting="where it feels the winding",
        off="one lead off",
        lets_go="by heat: find why before it is reset",
        traps=("an automatic one restarts unannounced", "open while hot is its duty: let it cool"),
    ),
}
for _kind, _title in (("selector", "Selector"), ("reversing-switch", "Reversing switch")):
    FACTS[_kind] = DeviceFacts(
        title=_title,
        expected=(),
        looks=("contacts not burnt, detent firm, shaft and terminals tight",),
        mounting="order of positions and rating as the old one's; off must part it from the line",
        off="all leads off, each marked by its terminal",
        lets_go="by hand; reverse only from standstill (a motor with a run capacitor may be plugged)",
        traps=(
            "a switch of another make may close other contacts in the same position",
            "between two taps no position may close both",
        ),
    )
_INTERLOCK = (
    _open(_ONE, "at rest", "interlock"),
    _contact(_ONE, "mechanism worked by hand", "interlock"),
)


def expected_of(device: Device, capacitor: bool = False) -> tuple[Expected, ...]:
    """Return what a device must read, terminal to terminal, everything else disconnected.

    `capacitor` whether a start capacitor goes with it: a current relay's link is out then, else in.
    """
    if device.table:
        return tuple(_of_table(device))
    if device.kind == "speed-switch" and device.action == "closes":
        return _INTERLOCK
    if device.three:
        return (_contact(("1", "3"), "cold"), _contact(("3", "2"), "cold", "heater"))
    if device.posts:
        return _posts(capacitor)
    return FACTS[device.kind].expected if device.kind in FACTS else ()


def _posts(capacitor: bool) -> tuple[Expected, ...]:
    """Return what a current relay with posts reads: its link is out where a start capacitor goes in."""
    contact, link = ("1", "2"), ("2", "3")
    last = _open(link, LINKED, "link") if capacitor else _contact(link, LINKED, "link")
    return (
        _open(contact, "upright"),
        _contact(contact, "turned over"),
        _ohms(("1", "M"), "any way up", 0.0, 1.0, "coil"),
        last,
    )


def limited(expected: Iterable[Expected], settings: Settings) -> tuple[Expected, ...]:
    """Return readings with the shop's own limits of contacts in place of the usual ones."""
    own = {CONTACT_OHM: settings.start_contact.value, SWITCH_OHM: settings.switch_contact.value}
    return tuple(
        replace(e, high=own.get(e.high, e.high)) if e.what == "contact" and not e.open else e
        for e in expected
    )


def _of_table(device: Device) -> list[Expected]:
    """Return for each position which pairs conduct, through several contacts too, and which do not."""
    ends = [t.removeprefix(f"{device.name}.") for t in device.terminals()]
    words = position_words(device)
    found = []
    for position, closed in device.table.items():
        group = {t: {t} for t in ends}
        for a, b in closed:
            joined = group[a] | group[b]
            for t in joined:
                group[t] = joined
        name = f"{POSITION}{position}" if words[position] != OFF else f"{POSITION}{position}, off"
        for a, b in itertools.combinations(ends, 2):
            inside = b in group[a]
            found.append(
                Expected(
                    between=(a, b),
                    when=name,
                    low=0.0 if inside else OPEN_ABOVE_OHM,
                    high=SWITCH_OHM if inside else OPEN,
                    what="contact",
                )
            )
    return found


def judged(
    expected: Expected, ohm: float, left_open: float = 0.0, dress: bool = True
) -> tuple[Verdict, str]:
    """Return the verdict on a reading in Ω (infinite for open) and why.

    `left_open` what the meter itself leaves open in Ω: resolution, and leads that are not nulled;
    `dress` whether this shop dresses contacts, else it replaces them.
    """
    if expected.open:
        if ohm >= expected.low:
            return "good", "open, as it must be"
        if ohm <= TIRED * CONTACT_OHM + left_open:
            if expected.what == "link":
                return "hold", "its link is in: it shorts the start capacitor; take it out"
            return "hold", f"conducts {expected.when}: welded, stuck, or bridged outside"
        return (
            "hold",
            f"reads {show_ohm(ohm)} where it must be open: something still lies across it",
        )
    if ohm == OPEN:
        why = {"coil": "broken", "heater": "burnt through", "thermistor": "broken"}
        why |= {"link": "without a capacitor its link goes between them"}
        return "hold", f"open: {why.get(expected.what, 'it does not make')}"
    if ohm > expected.high + left_open:
        if expected.what == "contact" and ohm <= TIRED * expected.high + left_open:
            return (
                "watch",
                f"{show_ohm(ohm)}, over {show_ohm(expected.high)}: "
                f"{'dress the contacts, read again' if dress else 'fit new contacts'}",
            )
        if expected.what == "thermistor":
            return (
                "watch",
                f"{show_ohm(ohm)}, over {show_ohm(expected.high)}: let it cool and read again",
            )
        return "hold", f"{show_ohm(ohm)}, over {show_ohm(expected.high)}"
    if ohm < expected.low - left_open:
        return (
            "hold",
            f"{show_ohm(ohm)}, under {show_ohm(expected.low)}: shorted, or not the part it should be",
        )
    if expected.low == 0 and left_open > UNPROVEN_SHARE * expected.high:
        return "unproven", (
            f"the meter leaves {left_open:.2g} Ω open of {expected.high:g}: null the leads, or four wires"
        )
    low = f"{show_ohm(expected.low)} to " if expected.low else ""
    return "good", f"{show_ohm(ohm)}, within {low}{show_ohm(expected.high)}"
