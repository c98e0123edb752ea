"""Start devices: ohms off the circuit read in turn, mechanism and plate looked at, where it lets go."""

from functools import partial

from PySide6.QtWidgets import QWidget

from careful_coil.core.choices import one_of
from careful_coil.core.errors import BadValue
from careful_coil.core.gear.device_rules import (
    LOOKED_AT,
    Told,
    fitted,
    told_of,
)
from careful_coil.core.gear.names import KINDS, kind_named, title_of
from careful_coil.core.gear.positions import read_table
from careful_coil.core.gear.stand_in import stands_in
from careful_coil.core.gear.table import FACTS, Expected
from careful_coil.core.gear.typed import device_read, part_name, read_inventory, reading_typed
from careful_coil.core.job import Finding
from careful_coil.core.job.at_start_gear import (
    DeviceFitted,
)
from careful_coil.core.ledger import Judgement
from careful_coil.core.sheets.gear import DEVICE
from careful_coil.core.values import show_ohm
from careful_coil.core.ways.devices import POSITIONED, Device
from careful_coil.desk.ask_row import AskRow
from careful_coil.desk.flow import Flow
from careful_coil.desk.gear.follow import asked_of
from careful_coil.desk.part import NARROWEST, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.shown import Prose, Verdicts
from careful_coil.desk.theme import Theme

TABLES = ("table", "stand-in")


class DevicesPart(Part):
    """The part of switches, relays and protectors."""

    codes = ("start-device",)
    nothing = "none noted"
    kept = (
        "chosen",
        "nulled",
        "followed",
    )
    name, title, remark = (
        "device",
        "Devices",
        "switch, relay, protector: off the circuit, leads nulled",
    )

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.chosen, self.nulled, self.followed = "", True, ""
        self.add_field(
            "start-gear",
            "All in one line: name, print or kind",
            self._listed,
            "189-227 250; centrifugal switch",
            clears=True,
            most=400,
        )
        grid = Flow(3, NARROWEST, theme)
        for name, label, hint, typed in (
            ("name", "Which", "S1", self._named),
            ("kind", "What it is", "centrifugal switch", self._kind),
            ("ohm", "Ohms, or open", "0.14", self._read),
            ("nulled", "Leads nulled", "yes", self._nulled),
        ):
            grid.add(self.add_field(f"device-{name}", label, typed, hint, place=False))
        for name in ("out", "back", "renewed", "make", "sensing", "posts"):
            grid.add(self.add_noted("device-noted", name, self._one))
        self.column.addWidget(grid)
        for name in TABLES:
            self.column.addWidget(self.add_noted("device-noted", name, self._one))
        self.fields["device-kind"].cell.offer([title_of(k).lower() for k in KINDS])
        self.fields["device-nulled"].cell.offer(("yes", "no"))
        self.looked = AskRow()
        self.column.addWidget(self.looked)
        self.next, self.list = Prose(theme), Verdicts(theme)
        self.stand_in, self.facts = Prose(theme), Prose(theme, "quiet", 13)
        for part in (self.next, self.list, self.stand_in, self.facts):
            self.column.addWidget(part)

    def start(self) -> QWidget:
        """Start at the ohms, where a device is known, else at its name."""
        if self.chosen and not self._left() and self.looked.buttons and self.looked.isVisible():
            return self.looked.buttons[0]
        return self.fields["device-ohm" if self.chosen else "device-name"].cell

    def show_judgement(self, judged: Judgement) -> None:
        """Show the chosen device, its readings, the next one, how it is judged."""
        gear, followed = judged.job.gear, self.followed
        self.followed = asked_of(judged, "device", gear.devices, self.followed) or self.followed
        self.chosen = self.followed if self.followed != followed else self.chosen
        self.chosen = self.chosen or next(iter(gear.devices), "")  # the first of those just listed
        kind = gear.devices.get(self.chosen, "")
        self.fields["device-name"].show_text(self.chosen)
        self.fields["device-kind"].show_text(title_of(kind) if kind else "")
        self.fields["device-ohm"].show_text("")
        self.fields["device-nulled"].show_text("yes" if self.nulled else "no")
        self.show_notes(judged)
        for field in TABLES:
            self.fields[f"device-{field}"].setVisible(kind in POSITIONED)
        for field in ("out", "back"):
            self.fields[f"device-{field}"].setVisible(bool(kind) and kind not in POSITIONED)
        for field in ("renewed", "make"):
            self.fields[f"device-{field}"].setVisible(bool(kind))
        self.fields["device-sensing"].setVisible(kind == "electronic-switch")
        self.fields["device-posts"].setVisible(kind == "relay-current")
        if not kind:
            for part in (self.next, self.stand_in, self.facts):
                part.say("")
            self.list.show_findings(())
            self.looked.ask("", (), self._nothing)
            self.looked.setVisible(False)
            return
        told = told_of(gear, self.chosen, self.session.settings, judged.job.plate)
        left = self._left()
        self._ask_looks(kind, told)
        if left:
            self.next.say(f"Next: {_asked(left[0])}")
        elif any(t.verdict == "unproven" for t in told):
            self.next.say("All read.")
        else:
            self.next.say("All read and looked at." if kind in LOOKED_AT else "All read.")
        self.list.show_findings([_row(t) for t in told])
        self.stand_in.say("\n".join(self._stand_in()))
        facts = FACTS["speed-switch" if kind == "interlock" else kind]
        lines = [
            f"Look: {'; '.join(facts.looks)}.",
            f"Held: {facts.mounting}. Off first: {facts.off}.",
        ]
        lines += [f"Opens: {facts.lets_go}.", f"Beware: {'; '.join(facts.traps)}."]
        self.facts.say("\n".join(lines))

    def _ask_looks(self, kind: str, told: list[Told]) -> None:
        """Ask how mechanism and plate look, one after the other."""
        gear = self.judged.job.gear if self.judged else None
        left = [
            field
            for field in LOOKED_AT.get(kind, ())
            if gear is not None and not gear.noted.get((self.chosen, field))
        ]
        if not left:
            self.looked.ask("", (), self._nothing)
            self.looked.setVisible(False)
            return
        asked = DEVICE.field(left[0])
        self.looked.ask(asked.label, asked.words, partial(self._looked, left[0]))
        self.looked.setVisible(True)

    def _nothing(self, _: str) -> None:
        """Take no answer: nothing is asked."""

    def _stand_in(self) -> list[str]:
        """Return whether the switch offered can stand in for this one."""
        gear = self.judged.job.gear if self.judged else None
        text = gear.noted.get((self.chosen, "stand-in"), "") if gear else ""
        if gear is None or not text:
            return []
        old = fitted(gear, self.chosen)
        try:
            new = Device(name="new", kind=old.kind, table=read_table(text))
        except BadValue as error:
            return [str(error)]
        serves, why = stands_in(old, new)
        return [f"The one offered {'serves' if serves else 'does not serve'}: {why}."]

    def _left(self) -> list[Expected]:
        gear = self.judged.job.gear if self.judged else None
        if gear is None or self.chosen not in gear.devices:
            return []
        every = told_of(gear, self.chosen, self.session.settings)
        return [
            t.expected
            for t in every
            if t.expected is not None
            and (self.chosen, t.expected.between, t.expected.when) not in gear.read
        ]

    def _one(self) -> str:
        return self.chosen

    def _named(self, text: str) -> None:
        cans = self.judged.job.gear.capacitors if self.judged else ()
        self.chosen = part_name(text, "S1", cans)
        self.again()

    def _kind(self, text: str) -> None:
        self._fitted(kind_named(text) if text.strip() else "")

    def _nulled(self, text: str) -> None:
        self.nulled = one_of(text, ("yes", "no")) == "yes"

    def _listed(self, text: str) -> None:
        if text.strip() and self.judged is not None:
            job = self.judged.job
            told = read_inventory(text, job.gear, job.plate.printed("capacitor"))
            self.session.record(*told, station="start-gear")

    def _looked(self, field: str, word: str) -> None:
        self.set_down("device-noted", field, word, self.chosen)

    def set_down(self, sheet: str, name: str, text: str, of: str = "") -> None:
        """Record a field of the device chosen. Raises: BadValue while none is."""
        if not of:
            raise BadValue("no name", "its name first, such as S1")
        super().set_down(sheet, name, text, of)

    def _fitted(self, kind: str) -> None:
        if not self.chosen:
            raise BadValue("no name", "its name first, such as S1")
        body = DeviceFitted.model_validate({"name": self.chosen, "device": kind})
        self.session.record(body, station="start-gear")

    def _read(self, text: str) -> None:
        if not text.strip():
            return
        left, again = self._left(), self._worst_contact()
        if not left and again is None:
            raise BadValue(
                text, "a device that still has a reading to give; Ctrl+Z strikes the last"
            )
        if left or again is None:
            bodies = reading_typed(self.chosen, left, text, self.nulled)
        else:
            bodies = [device_read(self.chosen, again, text, self.nulled)]
        self.session.record(*bodies, station="start-gear")

    def _worst_contact(self) -> Expected | None:
        """Return a contact that was found wanting: dressed, it is read again."""
        gear = self.judged.job.gear if self.judged else None
        if gear is None or self.chosen not in gear.devices:
            return None
        told = told_of(gear, self.chosen, self.session.settings)
        return next(
            (t.expected for t in told if t.expected is not None and t.verdict in ("hold", "watch")),
            None,
        )


def _asked(expected: Expected) -> str:
    """Return the reading that comes next: of a position every pair that conducts."""
    if expected.positional:
        return f"{expected.when}: which pairs conduct, with their ohms, or none"
    return _words(expected)


def _row(told: Told) -> Finding:
    """Return one thing of a device as it is shown in the list."""
    title = _words(told.expected) if told.expected is not None else told.what
    why = f"{told.why[0].upper()}{told.why[1:]}."
    if told.expected is not None:
        why = f"{told.expected.what[0].upper()}{told.expected.what[1:]}: {told.why}."
    return Finding(
        code="device-row",
        verdict=told.verdict,
        subject=f"{title[0].upper()}{title[1:]}",
        why=why,
        station="start-gear",
    )


def _words(e: Expected) -> str:
    span = "open" if e.open else f"under {show_ohm(e.high)}"
    if not e.open and e.low:
        span = f"{show_ohm(e.low)} to {show_ohm(e.high)}"
    return f"{e.between[0]} to {e.between[1]}, {e.when}: {span}"
