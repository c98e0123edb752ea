"""What must not leave unsaid: temporaries that hold, changes and how they were closed."""

from collections.abc import Mapping

from PySide6.QtWidgets import QWidget

from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_mechanics import Modified, Temporary
from careful_coil.core.job.hands import free_name
from careful_coil.core.ledger import Judgement
from careful_coil.core.mechanics.typed import left_on
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.shared.shown import Verdicts
from careful_coil.desk.theme import Theme

NEVER = "never"  # takes an entry back: it never was


class OpenPart(Part):
    """The part of temporaries and changes."""

    name, title, remark = (
        "temporaries",
        "Temporaries",
        "jumper, clip, tape-only joint, bypass, a speed left off",
    )

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.add_field(
            "temporary", "One more", self._temporary, "jumper across the protector", True
        )
        self.add_field("temporary-cleared", "Cleared, and how", self._cleared, "T1 taken off", True)
        self.temporaries = Verdicts(theme)
        self.column.addWidget(self.temporaries)
        self.column.addWidget(
            Heading("Changes", theme, "a hole, a surface machined, a pad", rule=True)
        )
        self.add_field(
            "changed", "What, and where", self._changed, "hole 6 mm in the end bell", True
        )
        self.add_field(
            "changed-closed", "How it was closed", self._closed, "M1 plug, sealant", True
        )
        self.changes = Verdicts(theme)
        self.column.addWidget(self.changes)

    def start(self) -> QWidget:
        """Start where one is cleared, if any stands."""
        left = self.judged is not None and any(
            not t.cleared for t in self.judged.job.hands.temporary.values()
        )
        return self.fields["temporary-cleared" if left else "temporary"].cell

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return what stands, the worst first."""
        own = [f for f in judged.findings if f.code in ("temporary", "changed")]
        return (own[0].verdict, own[0].subject) if own else ("", "none")

    def show_judgement(self, judged: Judgement) -> None:
        """Show temporaries and changes."""
        self.temporaries.show_findings([f for f in judged.findings if f.code == "temporary"])
        self.changes.show_findings([f for f in judged.findings if f.code == "changed"])

    def _hands(self) -> tuple[Mapping[str, Temporary], Mapping[str, Modified]]:
        if self.judged is None:
            return {}, {}
        return self.judged.job.hands.temporary, self.judged.job.hands.changed

    def _temporary(self, text: str) -> None:
        if text.strip():
            self.session.record(left_on(text, self._hands()[0]), station="mechanics")

    def _cleared(self, text: str) -> None:
        if not text.strip():
            return
        name, how = _named(text, self._hands()[0], "T1 taken off")
        words = self._hands()[0][name].words
        body = Temporary(name=name, words="" if how == NEVER else words, cleared=how)
        self.session.record(body, station="mechanics")

    def _changed(self, text: str) -> None:
        if text.strip():
            body = Modified(name=free_name("M", self._hands()[1]), words=text.strip())
            self.session.record(body, station="mechanics")

    def _closed(self, text: str) -> None:
        if not text.strip():
            return
        name, how = _named(text, self._hands()[1], "M1 plug and sealant")
        words = self._hands()[1][name].words
        body = Modified(name=name, words="" if how == NEVER else words, closed=how)
        self.session.record(body, station="mechanics")


def _named(text: str, known: Mapping[str, object], example: str) -> tuple[str, str]:
    """Return which of them, and what was said of it. Raises: BadValue."""
    first, _, rest = text.strip().partition(" ")
    if first.upper() not in known and len(known) == 1 and rest.strip():
        return next(iter(known)), text.strip()  # there is but one
    if first.upper() not in known or not rest.strip():
        names = ", ".join(known) or "none stands yet"
        raise BadValue(text, f"which ({names}) and how, such as {example}; {NEVER} takes it back")
    return first.upper(), rest.strip()
