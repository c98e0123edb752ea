"""Why it will not start: causes by odds, the test that parts them, wrong hookups that would show it."""

from functools import partial

from PySide6.QtWidgets import QWidget

from careful_coil.core.choices import one_of
from careful_coil.core.condition.answered import first_answer, read_symptoms
from careful_coil.core.condition.causes import CAUSES
from careful_coil.core.condition.symptoms import SYMPTOMS, WHEN, WHEN_KEY
from careful_coil.core.connect.called import in_marks
from careful_coil.core.errors import BadValue
from careful_coil.core.gear.causes import results_of
from careful_coil.core.gear.hookup_symptoms import Shown, hookups_that_show
from careful_coil.core.gear.separating import TESTS
from careful_coil.core.gear.suspects import right_hookup, symptoms_told
from careful_coil.core.gear.wiring import wiring_of
from careful_coil.core.job.noted import note
from careful_coil.core.ledger import Judgement
from careful_coil.core.values import show_percent
from careful_coil.desk.ask_row import AskRow
from careful_coil.desk.odds import Odds
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme

SHOWN, MOST_TESTS, HOOKUPS = 5, 4, 3
LEAST, LEAST_HOOKUP = 0.005, 0.03  # odds worth a bar, a line
FOUND = 0.95  # odds from which a cause counts as found
PUT_RIGHT = {  # the part of this station where a cause is put right
    "start-capacitor": "shelf",
    "switch-open": "fitting",
    "switch-stays": "fitting",
    "switch-weak": "fitting",
    "start-winding": "why",
    "wrong-hookup": "wiring",
    "thermistor-hot": "device",
    "protector": "device",
}
TAPPED = "A push or tap that starts it is a diagnosis, never a cure: the motor stays held until its cause is found."


class WhyPart(Part):
    """The part that ranks causes and asks for the test that separates the leaders."""

    name, title, remark = "why", "Causes", "why it will not start: a leaning; the test decides"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.words, self.odds = Prose(theme, "quiet", 13), Odds(theme)
        self.asked, self.would = AskRow(), Prose(theme, "quiet", 13)
        self.tapped = Prose(theme, "watch", 15)
        for part in (self.words, self.tapped, self.odds, self.asked, self.would):
            self.column.addWidget(part)
        self.when = AskRow()
        self.column.addWidget(self.when)
        self.add_field(
            "cause-symptom",
            "What else it does, or does not",
            self._symptom,
            "clicks, no smells, when warm",
            clears=True,
        )
        self.add_field(
            "cause-test",
            "A test made and what it showed, or: found, and the cause",
            self._typed,
            "coast-down short",
            clears=True,
        )
        self.done_head = Heading("Tests that count", theme, rule=True)
        self.done = Prose(theme)
        self.column.addWidget(self.done_head)
        self.column.addWidget(self.done)
        self.hook_head = Heading("Wrong hookups that would show it", theme, rule=True)
        self.hookups = Prose(theme)
        self.column.addWidget(self.hook_head)
        self.column.addWidget(self.hookups)
        self._asked_hookups: object = None

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return the likeliest cause."""
        if judged.facts.causes is None:
            return "", "no complaint"
        cause, odds = judged.facts.causes.odds[0]
        return "", f"{cause.title[0].lower()}{cause.title[1:]}, {show_percent(odds)}"

    def start(self) -> QWidget:
        """Start at the answers, where a test is asked for."""
        return self.asked.buttons[0] if self.asked.buttons else super().start()

    def show_judgement(self, judged: Judgement) -> None:
        """Show causes, the next test, and what each outcome would make of them."""
        causes = judged.facts.causes
        shown: tuple[QWidget, ...] = (self.odds, self.asked, self.hook_head)
        for widget in shown:
            widget.setVisible(causes is not None)
        self.when.setVisible(causes is not None and not causes.when)
        results = results_of(judged.job, judged.findings)
        lines = [f"{TESTS[t].title}: {o}" for t, o in results.items()]
        self.done.say("\n".join(lines))
        self.done_head.setVisible(bool(lines))
        if causes is None:
            self.words.say(
                "Nothing is complained of. Write the complaint down at Intake, at the counter."
            )
            for part in (self.would, self.tapped, self.hookups):
                part.say("")
            return
        when = f"; {WHEN[causes.when][0]}" if causes.when in WHEN else ""
        self.words.say(", ".join(SYMPTOMS[s][0] for s in causes.symptoms) + when)
        self.tapped.say(TAPPED if "starts-pushed" in causes.symptoms else "")
        self.when.ask("When does it happen?", tuple(w[0] for w in WHEN.values()), self._when)
        self.when.setVisible(not causes.when)
        self._ask_hookups(judged)
        self.odds.show_rows([(p, c.title, "") for c, p in causes.odds[:SHOWN] if p >= LEAST])
        if causes.key:  # by hand and uncoupled come before any test
            self.asked.ask(causes.ask, causes.answers, partial(self._first, causes.key))
            self.would.say("It comes before any test: a seized machine looks like a dead motor.")
            return
        known = CAUSES.get(judged.job.gear.cause)
        if known is not None:
            self.asked.ask(f"Cause found: {known.title}.", ("look again",), self._look_again)
            self.would.say("One timed start, load off, when it is put right: then it is proved.")
            return
        first, odds = causes.odds[0]
        if odds >= FOUND:
            self.asked.ask(
                f"Found: {first.title}.", ("that is it",), partial(self._go_on, first.name)
            )
            left = judged.facts.asks[0].test.title if judged.facts.asks else ""
            against = f" A test that could still speak against it: {left}." if left else ""
            self.would.say(f"Its repair, then one timed start, load off.{against}")
            return
        if not judged.facts.asks:
            self.asked.ask("No further test would part the causes.", (), lambda _: None)
            self.would.say("")
            return
        best = judged.facts.asks[0]
        self.asked.ask(best.test.title, best.test.outcomes, partial(self._answered, best.test.name))
        told = [
            f"{outcome} ({show_percent(chance)}): {cause.title[0].lower()}{cause.title[1:]}"
            for outcome, chance, cause in best.would
        ]
        others = ", ".join(a.test.name for a in judged.facts.asks[1:MOST_TESTS])
        after = f"\nThen: {others}." if others else ""
        self.would.say(f"Then the likeliest would be: {'; '.join(told)}.{after}")

    def _go_on(self, cause: str, _: str) -> None:
        """Log the cause and open the part where it is put right."""
        self.session.record(note("cause-found", "cause", cause), station="start-gear")
        self.session.station_wanted.emit("start-gear", PUT_RIGHT.get(cause, "capacitor"))

    def _look_again(self, _: str) -> None:
        self.session.record(note("cause-found", "cause"), station="start-gear")

    def _ask_hookups(self, judged: Judgement) -> None:
        """Run every single slip through the network, off this thread, where something asked changed."""
        causes, job = judged.facts.causes, judged.job
        if causes is None:
            return
        found, naming = judged.facts.identification, judged.facts.naming
        wiring = wiring_of(job, judged.facts.kinds, found, naming)
        right = right_hookup(job, wiring, judged.facts.connecting)
        if isinstance(right, str):
            self._asked_hookups = None
            self.hookups.say(f"Not worked out: {right}")
            return
        symptoms, called = symptoms_told(job, causes), judged.facts.connecting.called
        asked = (right, symptoms)
        if asked == self._asked_hookups:
            return
        self._asked_hookups = asked
        self.hookups.say("Working them out.")

        def arrived(told: tuple[Shown, ...]) -> None:
            if self._asked_hookups == asked:
                words = in_marks(_told(told), right[1].arrangement, called)
                self.hookups.say(words)

        self.session.aside(lambda: hookups_that_show(symptoms, *right), arrived, self.hookups.say)

    def _when(self, words: str) -> None:
        name = next(n for n, (title, _) in WHEN.items() if title == words)
        self.session.record(note("symptom", WHEN_KEY, name), station="intake")

    def _symptom(self, text: str) -> None:
        told = text.strip().lower()
        if not told:
            return
        if told.startswith(f"{WHEN_KEY} "):
            answer = one_of(told.removeprefix(f"{WHEN_KEY} "), tuple(WHEN))
            self.session.record(note("symptom", WHEN_KEY, answer), station="intake")
            return
        self.session.record(*read_symptoms(text), station="intake")

    def _first(self, key: str, answer: str) -> None:
        self.session.record(*first_answer(key, answer), station="intake")

    def _answered(self, test: str, outcome: str) -> None:
        self.session.record(note("cause-tested", test, outcome), station="start-gear")

    def _typed(self, text: str) -> None:
        name, _, outcome = text.strip().lower().partition(" ")
        if name == "found":
            cause = one_of(outcome, tuple(CAUSES)) if outcome else ""
            self.session.record(note("cause-found", "cause", cause), station="start-gear")
            return
        if name not in TESTS:
            raise BadValue(text, ", ".join(TESTS), "No such test.")
        known = TESTS[name].outcomes
        fits = [o for o in known if o == outcome] or [
            o for o in known if outcome and o.startswith(outcome)
        ]
        if outcome and len(fits) != 1:
            raise BadValue(text, f"{name} and one of: {', '.join(known)}")
        self._answered(name, fits[0] if outcome else "")


def _told(found: tuple[Shown, ...]) -> str:
    """Return the hookups that would show the complaint, the likeliest first."""
    shown = [s for s in found if s.odds >= LEAST_HOOKUP][:HOOKUPS]
    if not shown:
        return "No single wrong joint would show it."
    lines = [f"{show_percent(s.odds)} {s.title}" for s in shown]
    return "\n".join(
        [*lines, "Of single wrong joints alone, by the network; the joints as found decide."]
    )
