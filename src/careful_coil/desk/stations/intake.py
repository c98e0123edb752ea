"""Intake: the counter's words, the nameplate as printed, the leads as found."""

import re
from collections.abc import Callable
from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QPushButton, QWidget

from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_intake import FoundHookup, Lead, Leads, PlateField, Ticket
from careful_coil.core.job.pasted import read_pasted
from careful_coil.core.job.plate import check_field, readable
from careful_coil.core.ledger import Judgement
from careful_coil.core.readings import LINES
from careful_coil.desk.field import Field
from careful_coil.desk.session import Session
from careful_coil.desk.stations.kind_panel import KindPanel
from careful_coil.desk.stations.page import Caution, Drawn, Heading, Page, plain_label
from careful_coil.desk.stations.worth_panel import WorthPanel
from careful_coil.desk.theme import Theme
from careful_coil.drawing.scene import as_found_drawing

TICKET = (
    ("name", "Motor, as the shop will call it", "Bakery, dough mixer"),
    ("customer", "Customer", ""),
    ("phone", "Telephone", ""),
    (
        "complaint",
        "What is wrong, in the customer's words",
        "hums, will not start",
    ),
    ("place", "Where it stands in the shop", "bench 1"),
)
PLATE = (
    ("phases", "Phases", "3"),
    ("volt", "Volts", "230/460"),
    ("hertz", "Hertz", "50"),
    ("amp", "Amps", "5.8/2.9"),
    ("power", "Power", "1 hp"),
    ("rpm", "Rev/min", "1420"),
    ("serial", "Serial", ""),
)
MORE = (
    ("poles", "Poles", "4"),
    ("power-factor", "Power factor", "0.81"),
    ("service-factor", "Service factor", "1.15"),
    ("code", "Code letter", "J"),
    ("capacitor", "Capacitor", "25 µF 450 V"),
    ("insulation-class", "Insulation class", "F"),
    ("ambient", "Ambient", "40 °C"),
    ("duty", "Duty", "S1"),
    ("rotation", "Rotation, and its view", "CWLE"),
    ("frame", "Frame", "184T"),
    ("enclosure", "Enclosure", "IP55"),
)
JOINTS_HINT = "L1 A G; L2 B H; L3 C J; D E F"


class IntakePage(Page):
    """The station."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.column.addWidget(
            Caution(
                "Isolate it, lock it out, prove it dead. Photograph the joints before anything is cut.",
                theme,
            )
        )
        self.column.addWidget(Heading("At the counter", theme))
        self._grid([("ticket", *row) for row in TICKET], 2, self._ticket)
        self.column.addWidget(
            Heading("Nameplate", theme, "as printed, both figures where there are two", rule=True)
        )
        pasted = Field(
            "The whole plate in any order, typed or pasted",
            self._paste,
            theme,
            hint="3~ 1.5 kW 230/400 V 5.9/3.4 A 50 Hz 1420 r/min",
            name="paste",
            clears=True,
        )
        self.fields["paste"] = pasted
        self.column.addWidget(pasted)
        self.left = plain_label()
        self.left.hide()
        self.column.addWidget(self.left)
        self._grid([("plate", *row) for row in PLATE], 4, self._plate)
        self._grid([("plate", *row) for row in MORE], 4, self._plate)
        self.more = QPushButton("More of the plate")
        self.more.setCheckable(True)
        self.more.toggled.connect(self._show_more)
        self.column.addWidget(self.more, 0, Qt.AlignmentFlag.AlignLeft)
        self.kind = KindPanel(session, theme)
        self.fields["look"] = self.kind.look
        self.column.addWidget(self.kind)
        self.column.addWidget(
            Heading(
                "Leads as found",
                theme,
                "colour / tracer, and what is printed on each",
                rule=True,
            )
        )
        self._none = plain_label("Count and tag the leads first: Ctrl+2.")
        self.column.addWidget(self._none)
        self._rows = QWidget()
        self._leads_grid = QGridLayout(self._rows)
        self._leads_grid.setContentsMargins(0, 0, 0, 0)
        self._leads_grid.setHorizontalSpacing(14)
        self.column.addWidget(self._rows)
        found = Field(
            "Joints as found, ; between them", self._found, theme, hint=JOINTS_HINT, name="found"
        )
        self.fields["found"] = found
        self.column.addWidget(found)
        self.told = plain_label()
        self.drawn = Drawn(theme)
        self.drawn.setMinimumHeight(theme.px(258))
        self.column.addWidget(self.told)
        self.column.addWidget(self.drawn)
        self.worth = WorthPanel(session, theme)
        self.fields |= self.worth.fields
        self.column.addWidget(self.worth)
        self.column.addStretch()
        self._tags: tuple[str, ...] = ()
        self._pending: tuple[Lead, ...] = ()

    def _grid(
        self,
        rows: list[tuple[str, str, str, str]],
        columns: int,
        commit: Callable[[str, str], None],
    ) -> None:
        grid = QGridLayout()
        grid.setHorizontalSpacing(14)
        grid.setVerticalSpacing(6)
        for k, (_, name, label, hint) in enumerate(rows):
            field = Field(label, partial(commit, name), self.theme, hint=hint, name=name)
            self.fields[name] = field
            grid.addWidget(field, k // columns, k % columns)
        self.column.addLayout(grid)

    def show_judgement(self, judged: Judgement) -> None:
        """Show ticket, plate and leads."""
        job = judged.job
        for name, *_ in TICKET:
            self.fields[name].show_text(job.ticket.get(name, ""))
        for name, *_ in (*PLATE, *MORE):
            self.fields[name].show_text(job.plate.printed(name))
        self._show_more(self.more.isChecked())
        self.kind.show_judgement(judged)
        if job.tags != self._tags:
            self._make_rows(job.tags)
        for lead in job.leads:
            colour = f"{lead.colour}/{lead.tracer}" if lead.tracer else lead.colour
            self.fields[f"colour-{lead.tag}"].show_text(colour)
            self.fields[f"marking-{lead.tag}"].show_text(lead.marking)
        self._none.setVisible(not job.leads)
        self._rows.setVisible(bool(job.leads))
        self.fields["found"].setVisible(bool(job.leads))
        joints = "; ".join(" ".join(j) for j in job.found.joints) if job.found else ""
        self.fields["found"].show_text(joints)
        own = [f for f in judged.findings if f.code == "as-found"]
        self.told.setText("\n".join(f"{f.subject}. {f.why}" for f in own))
        self.told.setVisible(bool(own))
        self.worth.show_judgement(judged)
        picture = as_found_drawing(judged)
        self.drawn.setVisible(picture is not None)
        if picture is not None:
            self.drawn.show_drawing(picture, self.told.text())

    def _make_rows(self, tags: tuple[str, ...]) -> None:
        """Make one pair of cells for each lead."""
        self._tags = tags
        while (item := self._leads_grid.takeAt(0)) is not None:
            widget = item.widget()
            if widget is not None:
                widget.deleteLater()
        for name in [n for n in self.fields if n.startswith(("colour-", "marking-"))]:
            del self.fields[name]
        for k, tag in enumerate(tags):
            cell = QWidget()
            row = QHBoxLayout(cell)
            row.setContentsMargins(0, 0, 0, 0)
            row.setSpacing(4)
            for kind, label, hint in (
                ("colour", f"{tag} colour", "brown/white"),
                ("marking", f"{tag} marking", "T1"),
            ):
                field = Field(
                    label,
                    partial(self._lead, tag, kind),
                    self.theme,
                    hint=hint,
                    name=f"{kind}-{tag}",
                )
                self.fields[f"{kind}-{tag}"] = field
                row.addWidget(field)
            self._leads_grid.addWidget(cell, k // 3, k % 3)

    def _ticket(self, name: str, text: str) -> None:
        self.session.record(Ticket.model_validate({"field": name, "text": text}), station="intake")

    def _plate(self, name: str, text: str) -> None:
        check_field(name, text)
        self.session.record(
            PlateField.model_validate({"field": name, "text": text}), station="intake"
        )

    def _show_more(self, wanted: bool) -> None:
        """Show the rarer fields that are filled, all of them where they are wanted."""
        for name, *_ in MORE:
            field = self.fields[name]
            field.setVisible(wanted or bool(field.cell.text()))

    def _paste(self, text: str) -> None:
        found = read_pasted(text)
        if not found.fields:
            raise BadValue(text, "a nameplate, for example 3~ 1.5 kW 230/400 V 50 Hz 1420 r/min")
        odd = [f for f, value in found.fields.items() if not readable(f, value)]
        left = [*found.left, *(found.fields[f] for f in odd)]
        self.left.setText(f"Not placed, look again: {', '.join(left)}." if left else "")
        self.left.setVisible(bool(left))
        self.session.record(
            *(
                PlateField.model_validate({"field": f, "text": value})
                for f, value in found.fields.items()
                if f not in odd
            ),
            station="intake",
        )

    def _lead(self, tag: str, kind: str, text: str) -> None:
        job = self.session.open.judged.job if self.session.open else None
        if job is None:
            return
        change = {"marking": text}
        if kind == "colour":
            colour, _, tracer = text.partition("/")
            change = {"colour": colour.strip(), "tracer": tracer.strip()}
        leads = tuple(
            x.model_copy(update=change) if x.tag == tag else x for x in self._newest(job.leads)
        )
        self._pending = leads
        self.session.record(Leads(leads=leads), station="intake")

    def _newest(self, recorded: tuple[Lead, ...]) -> tuple[Lead, ...]:
        """Return the leads with what is typed but still on its way to disk."""
        pending = self._pending
        if self.session.busy and [x.tag for x in pending] == [x.tag for x in recorded]:
            return pending
        return recorded

    def _found(self, text: str) -> None:
        joints = read_joints(text, self._tags)
        self.session.record(FoundHookup(joints=joints), station="intake")


def read_joints(text: str, tags: tuple[str, ...]) -> tuple[tuple[str, ...], ...]:
    """Return joints typed as `L1 A G; L2 B H; D E F`. Raises: BadValue."""
    known = {t.upper(): t for t in tags} | {n: n for n in LINES}
    wanted = f"joints of {', '.join(tags)} and L1, L2, L3, for example {JOINTS_HINT}"
    joints = []
    seen: set[str] = set()
    for part in text.split(";"):
        names = [n for n in re.split(r"[\s,–-]+", part.strip()) if n]
        if not names:
            continue
        joint = [known.get(n.upper(), "") for n in names]
        if "" in joint or len(joint) < 2 or seen & set(joint):
            raise BadValue(part.strip(), wanted + "; each once")
        seen |= set(joint)
        joints.append(tuple(joint))
    return tuple(joints)
