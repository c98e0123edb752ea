"""What if: any slip tried before it is made; all likely ones, worst first, with the test that shows each."""

from collections.abc import Mapping, Sequence

from PySide6.QtCore import QRect, QTimer
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QWidget

from careful_coil.core.connect.hookup import Hookup
from careful_coil.core.connect.slips import Likely, likely_slips, words_of
from careful_coil.core.connect.what_if import (
    WhatIf,
    asked,
    coverage,
    planned_tests,
    what_if,
    worst_first,
)
from careful_coil.core.ledger import Judgement
from careful_coil.core.values import show_ohm, show_percent
from careful_coil.core.ways.way import Joint, Plan
from careful_coil.core.winding.arrangements import arrangement
from careful_coil.desk import paint
from careful_coil.desk.part import Part
from careful_coil.desk.roll import Roll, reveal
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme
from careful_coil.drawing.hookup import draw_hookup
from careful_coil.drawing.scene import looks_by_name
from careful_coil.drawing.winding import Look

SHOWN = 40  # rows of slips; the worst come first
TESTS = {"ohms": "line ohms", "run": "reduced-voltage run", "kick": "kick", "none": "nothing"}


class SlipRoll(Roll):
    """A slip a row: what, the most amps of a line, the cheapest test that shows it."""

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme, "Likely misconnections")
        self.slips: tuple[Likely, ...] = ()
        self.fit()

    def show_slips(self, slips: Sequence[Likely]) -> None:
        """Show other slips."""
        self.slips = tuple(slips)
        self.retell()

    def count(self) -> int:
        """Return how many are shown."""
        return len(self.slips)

    def row_height(self, k: int) -> int:
        """Return a row's height in pixels."""
        return self.theme.px(30)

    def row_words(self, k: int) -> str:
        """Return a slip in words."""
        slip = self.slips[k]
        return f"{slip.title} {_amps(slip)}, shown by {TESTS[slip.cheapest]}"

    def paint_row(self, painter: QPainter, k: int, box: QRect) -> None:
        """Draw what it is, its amps, what shows it."""
        t, slip = self.theme, self.slips[k]
        right = t.px(96)
        middle = t.px(78)
        inner = box.adjusted(8, 0, -right - middle - 12, 0)
        paint.text(painter, t, inner, slip.title, size=14)
        at = QRect(inner.right() + 8, box.top(), middle, box.height())
        paint.text(painter, t, at, _amps(slip), size=13, bold=True)
        rest = QRect(at.right() + 4, box.top(), right, box.height())
        token = "hold" if slip.cheapest == "none" else "quiet"
        paint.text(painter, t, rest, TESTS[slip.cheapest], size=13, token=token)


def _amps(slip: Likely) -> str:
    if slip.short:
        return "a short"
    most = max(slip.amps.values(), default=0.0)
    return f"{most:.1f} × A"


class WhatIfPart(Part):
    """The part of slips."""

    name, title, remark = "what-if", "What if", "two leads exchanged, a coil turned, one left out"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.add_field("what-if", "Try", self._typed, "T4 T7, turn T1, out T9, other", clears=True)
        self.verdict = Prose(theme, "ink", 17)
        self.words = Prose(theme)
        self.drawing = Plot(theme, "Tried hookup")
        for shown in (self.verdict, self.words, self.drawing):
            self.column.addWidget(shown)
        self.head = Heading("Every single misconnection of this hookup", theme, "", rule=True)
        self.column.addWidget(self.head)
        self.covered = Prose(theme)
        self.roll = SlipRoll(theme)
        self.roll.moved.connect(self._picked)
        self.about = Prose(theme, "quiet", 13)
        for part in (self.covered, self.roll, self.about):
            self.column.addWidget(part)
        self._of: tuple[object, ...] = ()
        self._hookup: Hookup | None = None
        self._plan: Plan | None = None
        self._looks: Mapping[str, Look] = {}

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return whether there is a hookup to try one on."""
        return "", "try a misconnection" if judged.facts.connecting.plan else "no plan yet"

    def show_judgement(self, judged: Judgement) -> None:
        """Take the hookup; its slips are worked out aside, once for each hookup."""
        state = judged.facts.connecting
        self._hookup, self._plan = state.hookup, state.plan
        self._looks = looks_by_name(judged)
        if self._hookup is None or self._plan is None:
            self._of = ()
            self.roll.show_slips(())
            self.covered.say(state.why)
            self._clear()
            return
        supply = self._hookup.supply
        key = (self._plan.joints, self._plan.devices, supply.volt, supply.hertz)
        if key == self._of:
            return
        self._of = key
        self._clear()
        self.roll.show_slips(())
        self.covered.say("Working out every misconnection …")
        hookup, plan = self._hookup, self._plan

        def done(slips: tuple[Likely, ...]) -> None:
            if self._of == key:
                self._slips(slips)

        self.session.aside(lambda: likely_slips(hookup, plan), done)

    def _clear(self) -> None:
        self.verdict.say("")
        self.words.say("")
        self.about.say("")
        self.drawing.setVisible(False)

    def _slips(self, slips: tuple[Likely, ...]) -> None:
        phases = self._hookup.supply.phases if self._hookup else 3
        tests = planned_tests(self.session.settings.lists.on_the_bench(), phases)
        told = []
        for k in range(1, len(tests) + 1):
            caught, count = coverage(slips, tests[:k])
            with_it = "with a " if k > 1 else ""
            share = show_percent(caught / max(count, 1))
            told.append(f"{with_it}{TESTS[tests[k - 1]]} {caught} of {count} ({share})")
        self.covered.say(f"Shown by {', '.join(told)}.")
        worst = worst_first(slips)
        self.roll.show_slips(worst[:SHOWN])
        more = f"; the {SHOWN} worst are shown" if len(worst) > SHOWN else ""
        self.head.say(
            "Every single misconnection of this hookup", f"{len(slips)}, worst first{more}"
        )
        self._picked(self.roll.current)

    def _picked(self, k: int) -> None:
        if k < len(self.roll.slips):
            self.about.say(" ".join(words_of(self.roll.slips[k])))

    def start(self) -> QWidget:
        """Start at the cell where a slip is tried."""
        return self.fields["what-if"].cell

    def _typed(self, text: str) -> None:
        if self._hookup is None or self._plan is None or not text.strip():
            return
        title, joints = asked(self._plan, text)
        self._show(title, joints, what_if(self._hookup, self._plan, joints))
        QTimer.singleShot(0, self._again)

    def _again(self) -> None:
        """Back to the cell: the next one is tried here too."""
        self.fields["what-if"].cell.setFocus()
        reveal(self.drawing)
        reveal(self.fields["what-if"])

    def _show(self, title: str, joints: Sequence[Joint], found: WhatIf) -> None:
        plan = self._plan
        if plan is None:
            return
        self.verdict.say(f"{title} {found.verdict.capitalize()}.")
        self.words.say(" ".join(_words(found)))
        inside = arrangement(plan.arrangement).inside(plan.variant)
        right = {frozenset(j) for j in plan.joints}
        wrong = frozenset(frozenset(j) for j in joints) - right
        drawn = draw_hookup(
            inside, joints, self._looks, devices=plan.devices, wrong=wrong, beside=plan.joints
        )
        self.drawing.setVisible(True)
        self.drawing.show_whole(drawn, title)


def _words(found: WhatIf) -> list[str]:
    """Return what a tried hookup would do, a sentence each."""
    told = []
    amps = [(n, a) for n, a in found.amps.items() if a is not None]
    if amps:
        told.append("Amps over the right ones: " + ", ".join(f"{n} {a:.2f}" for n, a in amps) + ".")
    if found.heat is not None:
        told.append(f"Its hottest coil heats {found.heat:.1f} times as fast.")
    volts = max(found.volts.values(), default=0.0)
    if volts:
        told.append(f"A coil gets {show_percent(volts)} of its volts at most.")
    if found.field:
        told.append(
            {"forward": "It turns the right way.", "backward": "It turns backward."}[found.field]
        )
    elif found.field is None:
        told.append("It does not turn by itself.")
    ohms = ", ".join(
        f"{p.replace('-', ' to ')} {'open' if v == float('inf') else show_ohm(v)}"
        for p, v in found.ohms.items()
    )
    told.append(f"Lines read {ohms}.")
    tests = [
        w
        for w, shows in (
            ("line ohms", found.ohms_show),
            ("the reduced-voltage run", found.run_shows),
        )
        if shows
    ]
    told.append(
        f"Shown by {' and '.join(tests)}."
        if tests
        else "Neither ohms nor a reduced-voltage run show it."
    )
    return told
