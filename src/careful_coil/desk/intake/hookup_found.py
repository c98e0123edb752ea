"""The hookup as found: typed as read, built with J, or a standard one confirmed joint by joint."""

from functools import partial

from PySide6.QtCore import QRect, QRectF, Signal
from PySide6.QtGui import QPainter

from careful_coil.core.connect.standard import (
    Standard,
    offered,
    read_found_or_number,
    standards_for,
)
from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_intake import FoundHookup
from careful_coil.core.job.lead_words import lead_words
from careful_coil.core.job.noted import note
from careful_coil.core.job.spoken import EXAMPLE, check_once, read_joints
from careful_coil.core.ledger import Judgement
from careful_coil.desk import paint
from careful_coil.desk.ask_row import AskRow
from careful_coil.desk.field import LONG
from careful_coil.desk.part import NOT_ASKED, Part
from careful_coil.desk.roll import Roll
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Drawn, Heading, plain_label
from careful_coil.desk.theme import Theme
from careful_coil.drawing.scene import as_found_drawing

Joints = tuple[tuple[str, ...], ...]
LINE_KEYS = {"1": "L1", "2": "L2", "3": "L3", "n": "N"}
RAN = {"it ran so": "yes", "it did not run so": "no", "nobody knows": "unknown"}
KEYS = "Space selects, 1 2 3 N add a line, J joins, U parts. Arrows walk."


class JointRoll(Roll):
    """Leads to select and join; each shows the joint it is in."""

    joined = Signal(object)  # joints as they then are

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme, "Leads to join")
        self.rows: list[tuple[str, str, str, str]] = []  # tag, colour, tracer, words
        self.joints: Joints = ()
        self.selected: list[str] = []
        self.fit()

    def show_job(self, rows: list[tuple[str, str, str, str]], joints: Joints) -> None:
        """Show leads and joints."""
        self.rows, self.joints = rows, joints
        tags = {r[0] for r in rows}
        self.selected = [s for s in self.selected if s in tags or s in LINE_KEYS.values()]
        self.retell()

    def count(self) -> int:
        """Return how many leads there are."""
        return len(self.rows)

    def row_height(self, k: int) -> int:
        """Return a row's height in pixels."""
        return self.theme.px(30)

    def joint_of(self, tag: str) -> tuple[str, ...]:
        """Return the joint a lead is in, or nothing."""
        return next((j for j in self.joints if tag in j), ())

    def row_words(self, k: int) -> str:
        """Return a lead with its joint in words."""
        tag, _, _, words = self.rows[k]
        joint = self.joint_of(tag)
        picked = "selected, " if tag in self.selected else ""
        return f"{tag} {words}, {picked}{' – '.join(joint) if joint else 'on its own'}"

    def pressed(self, key: str) -> bool:
        """Select, add a line, join, part."""
        if not self.rows:
            return False
        tag = self.rows[self.current][0]
        if key == " ":
            self._toggle(tag)
        elif key.lower() in LINE_KEYS:
            self._toggle(LINE_KEYS[key.lower()])
        elif key in ("j", "J"):
            self._join()
        elif key in ("u", "U"):
            self.joined.emit(tuple(j for j in self.joints if tag not in j))
        else:
            return False
        self.update()
        return True

    def _toggle(self, name: str) -> None:
        if name in self.selected:
            self.selected.remove(name)
        else:
            self.selected.append(name)
        self.retell()

    def _join(self) -> None:
        """Join what is selected; a lead leaves the joint it was in."""
        wanted = sorted(self.selected, key=lambda n: (n not in LINE_KEYS.values(), n))
        if len(wanted) < 2:
            return
        rest = tuple(tuple(n for n in j if n not in wanted) for j in self.joints)
        self.selected = []
        self.joined.emit((*(j for j in rest if len(j) > 1), tuple(wanted)))

    def paint_row(self, painter: QPainter, k: int, box: QRect) -> None:
        """Draw a lead: selection, wire, tag, print, joint."""
        t = self.theme
        tag, colour, tracer, words = self.rows[k]
        x = box.left() + 8
        square = QRectF(x, box.center().y() - 7, 14, 14)
        painter.setPen(t.colour("note"))
        painter.setBrush(t.colour("ink") if tag in self.selected else t.colour("surface"))
        painter.drawRect(square)
        paint.stub(painter, t, QRectF(x + 24, box.center().y() - 7, 8, 14), colour, tracer)
        third = max(box.width() // 3, t.px(90))
        paint.text(
            painter, t, QRect(box.left() + 48, box.top(), t.px(26), box.height()), tag, bold=True
        )
        at = QRect(box.left() + 48 + t.px(28), box.top(), third - t.px(20), box.height())
        paint.text(painter, t, at, words, size=13, token="quiet")
        joint = self.joint_of(tag)
        rest = QRect(at.right() + 8, box.top(), box.right() - at.right() - 14, box.height())
        paint.text(
            painter,
            t,
            rest,
            " – ".join(joint) if joint else "on its own",
            token="ink" if joint else "quiet",
        )


class HookupPart(Part):
    """The part of Intake that keeps the joints as found."""

    kept = (
        "_picked",
        "_at",
    )
    name, title, remark = "hookup", "Hookup as found", "before anything is cut"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.none = plain_label("Count the leads first, one part up.")
        self.column.addWidget(self.none)
        self.told_words = plain_label()
        self.drawn = Drawn(theme)
        self.drawn.setMinimumHeight(theme.px(220))
        self.add_field(
            "found", "All joints, ; between them, 0: apart", self._found, EXAMPLE, most=LONG
        )
        self.add_field("joint", "A joint as read", self._joint, "L1 1 7", clears=True)
        self.roll = JointRoll(theme)
        self.roll.joined.connect(self._record)
        self.keys = plain_label(KEYS)
        self.standard, self.ran = AskRow(), AskRow()
        for part in (self.standard, self.told_words, self.drawn, self.ran, self.keys, self.roll):
            self.column.addWidget(part)
        self.column.addWidget(Heading("Voltage tags", theme, "every place one hangs", rule=True))
        self.add_field(
            "voltage-tag", "Place: volts", self._voltage_tag, "lead box: 230 V", clears=True
        )
        self.tags = plain_label()
        self.column.addWidget(self.tags)
        self._picked: Standard | None = None
        self._at = 0

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return what the hookup as found is."""
        job = judged.job
        if job.seen.arrived and "dismantled" in job.seen.arrived.states and not job.found:
            return "note", "came dismantled"
        if job.found is None or not job.found.joints:
            return "", NOT_ASKED
        own = next((f for f in judged.findings if f.code == "as-found"), None)
        if own is None:
            return "unproven", f"{len(job.found.joints)} joints, no marks to read them by"
        return ("good" if own.verdict == "note" else own.verdict), own.subject

    def show_judgement(self, judged: Judgement) -> None:
        """Show joints, what they are, the next question."""
        job, seen = judged.job, judged.job.seen
        joints = job.found.joints if job.found else ()
        rows = [(x.tag, x.colour, x.tracer, x.marking or lead_words(x)) for x in job.leads]
        self.roll.show_job(rows, joints)
        self.none.setVisible(not job.leads)
        for part in (self.roll, self.keys, self.fields["joint"], self.fields["found"]):
            part.setVisible(bool(job.leads))
        self.fields["found"].show_text("; ".join(" ".join(j) for j in joints))
        own = [f for f in judged.findings if f.code == "as-found"]
        self.told_words.setText("\n".join(f"{f.subject}. {f.why}" for f in own))
        self.told_words.setVisible(bool(own))
        picture = as_found_drawing(judged)
        self.drawn.setVisible(picture is not None)
        if picture is not None:
            self.drawn.show_drawing(picture, self.told_words.text())
        self._ask(judged, joints)
        asked = bool(joints) and job.found is not None and job.found.ran == "unknown"
        self.ran.ask("Did it run so?" if asked else "", tuple(RAN) if asked else (), self._ran)
        self.tags.setText(
            "\n".join(f"{place}: {words}" for place, words in seen.voltage_tags.items())
        )
        self.tags.setVisible(bool(seen.voltage_tags))

    def _ask(self, judged: Judgement, joints: Joints) -> None:
        """Offer standard hookups while there are no joints; then confirm the picked one."""
        picked = self._picked
        if picked is not None and self._at < len(picked.joints):
            joint = " – ".join(picked.joints[self._at])
            question = (
                f"{picked.title}. Joint {self._at + 1} of {len(picked.joints)}: {joint}. Is it so?"
            )
            self.standard.ask(question, ("yes, it is so", "not so", "leave it"), self._confirmed)
            return
        every = () if joints else standards_for(judged.job, judged.facts.naming)
        by_title = {s.title: s for s in every}
        words = "Or start from a standard hookup and look at each joint:" if every else ""
        numbered = () if joints else offered(judged.job, judged.facts.naming)
        printed = {x.tag: x.marking for x in judged.job.leads if x.marking}
        if numbered:
            told = (
                f"{k}  {', '.join('–'.join(printed.get(n, n) for n in j) for j in s.joints)}"
                for k, s in enumerate(numbered, 1)
            )
            words = "\n".join(("Its number alone where every joint stands just so:", *told, words))
        self.standard.ask(words, tuple(by_title), partial(self._pick, by_title))

    def _pick(self, standards: dict[str, Standard], title: str) -> None:
        self._picked, self._at = standards[title], 0
        self.again()
        self.standard.buttons[0].setFocus()

    def _confirmed(self, answer: str) -> None:
        picked = self._picked
        if picked is None:
            return
        joint = picked.joints[self._at]
        self._at = self._at + 1 if answer != "leave it" else len(picked.joints)
        if answer.startswith("yes"):
            rest = tuple(j for j in self.roll.joints if not set(j) & set(joint))
            self._record((*rest, joint))
        else:
            self.again()

    def _joint(self, text: str) -> None:
        if not text:
            return
        leads = self.session.open.judged.job.leads if self.session.open else ()
        fresh = read_joints(text, leads)
        joints = (*self.roll.joints, *fresh)
        check_once(joints)
        self._record(joints)

    def _found(self, text: str) -> None:
        own = self.session.open
        if own is None:
            return
        bodies = read_found_or_number(text, own.judged.job, own.judged.facts.naming)
        self.roll.joints = bodies[0].joints if isinstance(bodies[0], FoundHookup) else ()
        self.session.record(*bodies, station="intake")

    def _record(self, joints: Joints) -> None:
        self.roll.joints = joints  # the next key must not go by what is still on its way to disk
        found = self.session.open.judged.job.found if self.session.open else None
        ran = found.ran if found and joints else "unknown"
        self.session.record(FoundHookup(joints=joints, ran=ran), station="intake")

    def _ran(self, answer: str) -> None:
        body = FoundHookup.model_validate({"joints": self.roll.joints, "ran": RAN[answer]})
        self.session.record(body, station="intake")

    def _voltage_tag(self, text: str) -> None:
        place, colon, words = (p.strip() for p in text.partition(":"))
        if not text:
            return
        if not colon or not place:
            raise BadValue(text, "place and volts, for example lead box: 230 V")
        self.session.record(note("voltage-tag", place, words), station="intake")
