"""What kind of motor is it? The odds, the look that would settle most, why each look counts."""

from functools import partial

from PySide6.QtWidgets import QGridLayout, QPushButton, QVBoxLayout, QWidget

from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_intake import LookNoted
from careful_coil.core.kind import KINDS, SIGNS, Sign, Weighed, weigh_kinds
from careful_coil.core.kind.rules import looks_of
from careful_coil.core.ledger import Judgement
from careful_coil.desk.field import Field
from careful_coil.desk.odds import Odds
from careful_coil.desk.session import Session
from careful_coil.desk.stations.page import Heading, plain_label
from careful_coil.desk.theme import Theme

SHOWN, LEAST_SHOWN = 3, 0.005
COLUMNS = 4  # of answers: they fit at 150 % text too


class KindPanel(QWidget):
    """The part of Intake that weighs the kinds."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self._theme = session, theme
        self._looks: dict[str, str] = {}
        self._put_off: set[str] = set()
        self._job = ""
        self.heading = Heading("What kind of motor is it?", theme, rule=True)
        self.odds = Odds(theme)
        self.question = plain_label()
        self.buttons: list[QPushButton] = []
        self._row = QGridLayout()
        self._row.setSpacing(8)
        self.look = Field(
            "Any other look, and its answer",
            self._typed,
            theme,
            hint="shading-rings yes",
            name="look",
            clears=True,
        )
        self.reasons = plain_label()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(8)
        for part in (self.heading, self.odds, self.question):
            column.addWidget(part)
        column.addLayout(self._row)
        column.addWidget(self.look)
        column.addWidget(self.reasons)

    def show_judgement(self, judged: Judgement) -> None:
        """Show the odds, the next look and the reasons."""
        job = self._session.open.id if self._session.open else ""
        if job != self._job:
            self._job, self._put_off = job, set()
        self._looks = looks_of(judged.job, judged.identification)
        kinds = judged.kinds
        self.odds.show_rows(
            [(o.probability, o.kind.title, o.kind.uses) for o in kinds.odds[:SHOWN]]
        )
        told = "settled" if kinds.settled else f"{len(self._looks)} looks so far, never one decides"
        self.heading.say("What kind of motor is it?", told)
        self._ask()
        self.reasons.setText("\n".join(reason_lines(kinds)))

    def _ask(self) -> None:
        """Put the question that would settle most and has not been put off."""
        wanted = _next(self._looks, self._put_off)
        for button in self.buttons:
            self._row.removeWidget(button)
            button.deleteLater()
        self.buttons = []
        self.question.setText(f"Look: {wanted.question} {wanted.why}" if wanted else "")
        self.question.setVisible(wanted is not None)
        if wanted is None:
            return
        for answer in wanted.answers:
            button = QPushButton(answer[0].upper() + answer[1:])
            button.clicked.connect(partial(self._note, wanted.name, answer))
            self._add(button)
        later = QPushButton("Not now")
        later.clicked.connect(partial(self._later, wanted.name))
        self._add(later)

    def _add(self, button: QPushButton) -> None:
        self._row.addWidget(button, len(self.buttons) // COLUMNS, len(self.buttons) % COLUMNS)
        self.buttons.append(button)

    def _note(self, sign: str, answer: str) -> None:
        self._session.record(LookNoted(sign=sign, answer=answer), station="intake")

    def _later(self, sign: str) -> None:
        self._put_off.add(sign)
        self._ask()

    def _typed(self, text: str) -> None:
        if not text:
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
