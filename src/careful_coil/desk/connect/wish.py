"""What is wanted: direction with the end it is seen from, start, speed; what this motor can take at all."""

from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from careful_coil.core.connect.called import in_marks, in_words
from careful_coil.core.connect.field_taps import field_hookups
from careful_coil.core.connect.rotation import how_to_turn, wanted_direction
from careful_coil.core.connect.takes import starts_of, takes
from careful_coil.core.job import Finding
from careful_coil.core.kind.plug import pin_of
from careful_coil.core.ledger import Judgement
from careful_coil.core.sheets.connect import WISH
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose, Verdicts
from careful_coil.desk.theme import Theme
from careful_coil.drawing.bench import draw_load

SAID = {
    "cw": "clockwise",
    "ccw": "counterclockwise",
    "drive-end": "drive end",
    "opposite": "opposite end",
}
SCALES = ("rotation", "seen-from")
ROWS = ("start", "speed", "family", "terminals", "cable-mm2")


class WishPart(Part):
    """The part of what is wanted."""

    name, title, remark = "wanted", "Wanted", "empty leaves it to the tables"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.load = Plot(theme, "The load, and which way it is to turn", 10)
        turns = QVBoxLayout()
        for name in SCALES:
            turns.addWidget(self.add_scale("wished", name, says=SAID))
        turns.addStretch()
        both = QHBoxLayout()
        both.setSpacing(20)
        both.addWidget(self.load, 2)
        both.addLayout(turns, 3)
        self.column.addLayout(both)
        self.add_sheet("wished", 3, ROWS)
        self.words = Prose(theme)
        self.column.addWidget(self.words)
        self.turn = Prose(theme, "quiet", 13)
        self.column.addWidget(self.turn)
        self.column.addWidget(
            Heading(
                "Suitable supplies", theme, "of the shop's own, worked out of its winding", True
            )
        )
        self.list = Verdicts(theme)
        self.column.addWidget(self.list)

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return what is wanted, or what must be answered."""
        state = judged.facts.connecting
        if state.asks:
            asked = (
                "plate's volts" if state.asks == "volt" else WISH.field(state.asks).label.lower()
            )
            return "unproven", f"{asked}?"
        wish = judged.job.joined.wish
        told = [wish[k] for k in ("rotation", "start", "speed", "family") if k in wish]
        return "", ", ".join(told) or "by the tables"

    def show_judgement(self, judged: Judgement) -> None:
        """Show the wishes, the direction drawn, what the motor takes."""
        job, state = judged.job, judged.facts.connecting
        self.show_notes(judged)
        for name in ROWS:  # the scales keep their answers
            now = self.choices("wished", name) or WISH.field(name).words
            self.fields[f"wish-{name}"].cell.offer(now)
        self.words.say(self._plan_words(judged))
        wanted, wish = wanted_direction(job), job.joined.wish
        told = wanted.words(state.view) if wanted is not None else "either way: nobody has said"
        turns = wish.get("rotation", "") if wanted is not None else ""
        self.load.show_whole(draw_load(turns, wish.get("seen-from", "")), told)
        self.turn.say(f"The other way: {how_to_turn(state)}" if state.plan else "")
        self.list.show_findings(self._takes(judged))

    def _plan_words(self, judged: Judgement) -> str:
        state = judged.facts.connecting
        if state.plan is None:
            return state.why
        started = f", {state.plan.start} start" if state.plan.start != "direct" else ""
        stages = "; ".join(
            f"{s.name}: {', '.join(state.said(j) for j in s.joints if len(j) > 1)}"
            for s in state.plan.stages
        )
        notes = in_words(" ".join(state.plan.notes), state.called)
        called = judged.facts.connection
        head = f"{called[0].upper()}{called[1:]}{started}."
        return " ".join(w for w in (head, notes, f"Stages: {stages}." if stages else "") if w)

    def _takes(self, judged: Judgement) -> list[Finding]:
        naming, state = judged.facts.naming, judged.facts.connecting
        if naming.arrangement is None:
            return []
        slug, variant = naming.arrangement.slug, naming.variant
        devices = state.plan.devices if state.plan else ()
        supplies = self.session.settings.lists.all_supplies()
        rows = takes(judged.job, slug, variant, devices, supplies)
        own = [t for t in rows if "phase supply does not fit" not in t.words]
        found = [
            Finding(code="takes", verdict=t.verdict, subject=t.what, why=t.words, station="connect")
            for t in own
        ]
        plug = judged.job.seen.plug
        numbers = {n: pin_of(plug, t) for t, n in state.names.items()} if plug else {}
        pins = {n: k for n, k in numbers.items() if k is not None}
        found += [
            Finding(
                code="field-hookup",
                verdict="note",
                subject=h.title,
                why=in_marks(h.words({j: state.said(j) for j in h.plan.joints}, pins), slug),
                station="connect",
            )
            for h in field_hookups(slug, variant, state.ohms)
        ]
        starts = starts_of(slug, variant)
        ways = f"Starts: {', '.join(starts)}; through a drive always." if len(starts) > 1 else ""
        return found + (
            [
                Finding(
                    code="starts",
                    verdict="note",
                    subject="Ways to start",
                    why=ways,
                    station="connect",
                )
            ]
            if ways
            else []
        )

    def start(self) -> QWidget:
        """Start at what must be answered, else at the direction."""
        job = self.session.open
        asks = job.judged.facts.connecting.asks if job else ""
        own = self.fields.get(f"wish-{asks}", self.fields["wish-rotation"])
        return own.entry

    def choices(self, sheet: str, name: str) -> tuple[str, ...]:
        """Return the answers that this motor's hookup leaves, where it asks for one."""
        job = self.session.open
        state = job.judged.facts.connecting if job else None
        return tuple(state.choices) if state is not None and state.asks == name else ()
