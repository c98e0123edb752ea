"""What kind of motor is it? The odds, the look that would settle most, why each look counts."""

from functools import partial

from careful_coil.core.choices import one_of
from careful_coil.core.errors import BadValue
from careful_coil.core.job.entries import Supply
from careful_coil.core.job.noted import note
from careful_coil.core.kind import KINDS, SIGNS, Sign, Weighed, on_this_supply, weigh_kinds
from careful_coil.core.kind.rules import looks_of
from careful_coil.core.ledger import Judgement
from careful_coil.desk.ask_row import AskRow
from careful_coil.desk.odds import Odds
from careful_coil.desk.part import NOT_ASKED, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading, plain_label
from careful_coil.desk.theme import Theme

SHOWN, LEAST_SHOWN = 3, 0.005
LATER = "not now"


class KindPart(Part):
    """The part of Intake that weighs the kinds."""

    kept = ("_put_off",)
    name, title, remark = "kind", "Kind", "never one sign decides"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self._looks: dict[str, str] = {}
        self._put_off: set[str] = set()
        self._job = ""
        self.odds = Odds(theme)
        self.asked = AskRow()
        self.column.addWidget(self.odds)
        self.column.addWidget(self.asked)
        self.add_field(
            "look", "Any other look, and its answer", self._typed, "shading-rings yes", clears=True
        )
        self.means, self.reasons = plain_label(), plain_label()
        self.column.addWidget(self.means)
        self.column.addWidget(Heading("Why", theme, rule=True))
        self.column.addWidget(self.reasons)

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how far the kind is settled."""
        best = judged.facts.kinds.odds[0]
        if judged.facts.kinds.settled:
            return "good", best.kind.title.lower()
        looks = len(looks_of(judged.job, judged.facts.identification))
        return ("unproven", f"{best.kind.title.lower()}?") if looks else ("", NOT_ASKED)

    def show_judgement(self, judged: Judgement) -> None:
        """Show the odds, the next look and the reasons."""
        self._looks = looks_of(judged.job, judged.facts.identification)
        kinds = judged.facts.kinds
        self.odds.show_rows(
            [(o.probability, o.kind.title, o.kind.uses) for o in kinds.odds[:SHOWN]]
        )
        told = "settled" if kinds.settled else f"{len(self._looks)} looks so far, never one decides"
        self.heading.say("What kind of motor is it?", told)
        self.means.setText(kind_words(kinds, judged.job.supply))
        self._ask()
        self.reasons.setText("\n".join(reason_lines(kinds)))

    def _ask(self) -> None:
        """Put the question that would settle most and has not been put off."""
        wanted = _next(self._looks, self._put_off)
        if wanted is None:
            self.asked.ask("", (), lambda _: None)
            return
        question = f"Look: {wanted.question} {wanted.why}"
        self.asked.ask(question, (*wanted.answers, LATER), partial(self._answered, wanted.name))

    def _answered(self, sign: str, answer: str) -> None:
        if answer == LATER:
            self._put_off = {*self._put_off, sign}
            self._ask()
        else:
            self._note(sign, answer)

    def _note(self, sign: str, answer: str) -> None:
        self.session.record(note("look", sign, answer), station="intake")

    def _typed(self, text: str) -> None:
        if not text:
            return
        job = self.session.open
        step = job.judged.next if job else None
        asked = next((q for q in step.asks if q.reader == "look"), None) if step else None
        if (
            asked is not None and text.split(maxsplit=1)[0].lower() not in SIGNS
        ):  # the look that Next asks for
            self._note(asked.ends[0], one_of(text, asked.choices))
            return
        sign, answer = read_look(text)
        self._note(sign, answer)


def _next(looks: dict[str, str], put_off: set[str]) -> Sign | None:
    """Return the look of the largest gain that was not put off."""
    ask = weigh_kinds(looks, put_off=frozenset(put_off)).next
    return ask.sign if ask else None


def read_look(text: str) -> tuple[str, str]:
    """Return sign and answer typed as `shading-rings yes`. Raises: BadValue."""
    word, _, rest = text.strip().partition(" ")
    fits = [n for n in SIGNS if n == word.lower()] or [
        n for n in SIGNS if n.startswith(word.lower()) and word
    ]
    if len(fits) != 1:
        raise BadValue(word, "a look: " + ", ".join(fits or SIGNS))
    answers = SIGNS[fits[0]].answers
    wanted = rest.strip().lower()
    told = [a for a in answers if a.lower() == wanted] or [
        a for a in answers if wanted and a.lower().startswith(wanted)
    ]
    if len(told) != 1:
        raise BadValue(rest or "nothing", " or ".join(answers), SIGNS[fits[0]].question)
    return fits[0], told[0]


def kind_words(kinds: Weighed, supply: Supply | None) -> str:
    """Return what the likeliest kind means: speed, slowing, torque, supply, what not to try."""
    kind = kinds.odds[0].kind
    torque = (
        f"Starts with {kind.torque[0]:g} to {kind.torque[1]:g} times full-load torque. "
        if kind.torque
        else ""
    )
    runs = f" {on_this_supply(kind, supply.phases)}" if supply else ""
    return f"{kind.title}: speed {kind.speed}. Slowed {kind.slowing}. {torque}{kind.never}{runs}".replace(
        "Slowed cannot be slowed", "It cannot be slowed"
    )


def reason_lines(kinds: Weighed) -> list[str]:
    """Return why each look counts, and which contradict each other."""
    lines = []
    for r in kinds.reasons:
        names = "; ".join(KINDS[k].title.lower() for k in r.speaks_for[:4])
        if names:
            lines.append(f"{r.sign.question} {r.answer[0].upper()}{r.answer[1:]}: {names}.")
    for a, b in kinds.contradictions:
        lines.append(f"These do not go together: {SIGNS[a].question} {SIGNS[b].question}")
    return lines
