"""What every part of a station has: fields, what it shows, how far it is."""

from collections.abc import Callable, Mapping, Sequence
from copy import copy

from PySide6.QtWidgets import QVBoxLayout, QWidget

from careful_coil.core.errors import BadValue
from careful_coil.core.job import Finding
from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.written import written
from careful_coil.core.sheets import SHEETS
from careful_coil.desk.field import SHORT, Field
from careful_coil.desk.flow import Flow
from careful_coil.desk.scale import ScaleField
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.theme import Theme

NOT_ASKED = "not asked yet"
NARROWEST = 118  # pixels of a field at 100 % text
Row = tuple[str, str, str]  # field, label, hint
Of = Callable[[], str]  # which item of a sheet is shown


class Part(QWidget):
    """One idea of a station. `name` is its key, `title` what its line in the index says."""

    name, title, remark = "", "", ""
    topic = ""  # its heading in the handbook, where that is not its title
    kept: tuple[str, ...] = ()  # attributes that are one motor's, kept with it
    codes: tuple[str, ...] = ()  # of the findings it is about
    nothing = NOT_ASKED  # what its line says while there is none of them
    follows = True  # the cursor goes on with Next once Enter answered what it asked

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.session, self.theme = session, theme
        self.fields: dict[str, Field] = {}
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(0, 0, 0, 0)
        self.column.setSpacing(8)
        self._motor, self._by_motor = "", dict[str, dict[str, object]]()
        self._sheets: list[tuple[str, str, Of]] = []
        self.heading = Heading(self.title, theme, self.remark)
        self.column.addWidget(self.heading)

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        self.theme = theme

    def show_judgement(self, judged: Judgement) -> None:
        """Show a judgement of the open job."""

    def _follow(self, field: Field) -> None:
        """Let the cursor go on with Next from a field."""

        def skip() -> None:
            self.session.entered.emit()
            self.session.not_here()

        field.entered.connect(self.session.entered)
        field.on_empty, field.on_skip = self.session.next_wanted.emit, skip

    def taken_up(self, id: str) -> None:
        """Take up another motor: its own working state as it was left, else as it begins anew."""
        if id == self._motor:
            return
        if not self._by_motor:
            self._by_motor[""] = self._working()
        self._by_motor[self._motor] = self._working() if self._motor else self._by_motor[""]
        for name, value in self._by_motor.get(id, self._by_motor[""]).items():
            setattr(self, name, copy(value))
        self._motor = id
        self.opened()
        for sheet, name, of in self._sheets:
            self._field_of(sheet, name, of)

    def _working(self) -> dict[str, object]:
        return {name: copy(getattr(self, name)) for name in self.kept}

    def opened(self) -> None:
        """Begin anew what is not kept: nothing of the motor before stays. Called before it is shown."""

    @property
    def judged(self) -> Judgement | None:
        """Return the judgement of the open job."""
        return self.session.open.judged if self.session.open else None

    def own(self, judged: Judgement) -> list[Finding]:
        """Return the findings it is about, the worst first."""
        return [f for f in judged.findings if f.code in self.codes]

    def wanted(self, judged: Judgement) -> bool:
        """Whether a motor of this kind has it; it is shown all the same once something is asked there."""
        return True

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return the mark (a verdict or nothing) and the words of its line in the index: its worst finding."""
        for f in self.own(judged)[:1]:
            return f.verdict, f.subject[0].lower() + f.subject[1:]
        return "", self.nothing

    def again(self) -> None:
        """Show the open job once more."""
        if self.judged is not None:
            self.show_judgement(self.judged)

    def start(self) -> QWidget:
        """Return what the cursor goes to when the part is opened."""
        return next(iter(self.fields.values())).entry

    def owns(self, field: str) -> bool:
        """Whether a field is one of its own."""
        return field in self.fields

    def add_field(
        self,
        name: str,
        label: str,
        commit: Callable[[str], None],
        hint: str = "",
        clears: bool = False,
        holds: bool = False,
        place: bool = True,
        most: int = SHORT,
        beside: int = 0,
    ) -> Field:
        """Add a field, to the column unless it is placed elsewhere; `most` characters, `beside` as in Field."""
        field = Field(
            label,
            commit,
            self.theme,
            hint=hint,
            name=name,
            clears=clears,
            holds=holds,
            most=most,
            beside=beside,
        )
        if self.follows:
            self._follow(field)
        self.fields[name] = field
        if place:
            self.column.addWidget(field)
        return field

    def add_grid(
        self,
        rows: Sequence[Row],
        columns: int,
        commit: Callable[[str, str], None],
        prefix: str = "",
    ) -> None:
        """Add fields in a grid; `commit` is called with the field's own name and the text."""
        grid = Flow(columns, NARROWEST, self.theme)
        for name, label, hint in rows:

            def typed(text: str, name: str = name) -> None:
                commit(name, text)

            grid.add(self.add_field(prefix + name, label, typed, hint, place=False))
        self.column.addWidget(grid)

    def add_sheet(
        self,
        sheet: str,
        columns: int,
        names: Sequence[str] = (),
        of: Of = lambda: "",
        beside: int = 0,
    ) -> None:
        """Add fields of a declared sheet in a grid, all of them where none are named; `of` which item."""
        grid = Flow(columns, NARROWEST, self.theme)
        for name in names or tuple(f.name for f in SHEETS[sheet].fields):
            grid.add(self.add_noted(sheet, name, of, beside=beside))
        self.column.addWidget(grid)

    def add_noted(self, sheet: str, name: str, of: Of = lambda: "", beside: int = 0) -> Field:
        """Return a field of a declared sheet, not placed yet."""
        own = SHEETS[sheet]
        told = own.field(name)
        field = self.add_field(
            own.prefix + name,
            told.label,
            lambda text: self.set_down(sheet, name, text, of()),
            told.hint,
            place=False,
            most=max(told.longest, SHORT),
            beside=beside,
        )
        field.cell.offer(told.words)
        self._sheets.append((sheet, name, of))
        return field

    def add_scale(
        self, sheet: str, name: str, of: Of = lambda: "", says: Mapping[str, str] | None = None
    ) -> ScaleField:
        """Return a declared field as a scale of its answers, not placed yet; `says` as in ScaleField."""
        own = SHEETS[sheet]
        declared = own.field(name)
        field = ScaleField(
            declared.label,
            declared.words,
            lambda text: self.set_down(sheet, name, text, of()),
            self.theme,
            name=own.prefix + name,
            says=says,
        )
        if self.follows:
            self._follow(field)
        self.fields[own.prefix + name] = field
        self._sheets.append((sheet, name, of))
        return field

    def show_notes(self, judged: Judgement) -> None:
        """Show what is on record in the fields of declared sheets."""
        for sheet, name, of in self._sheets:
            text = judged.job.noted(sheet, of()).get(name, "")
            self._field_of(sheet, name, of).show_text(text)

    def _field_of(self, sheet: str, name: str, of: Of) -> Field:
        """Return a field of a declared sheet as it is this motor's, and this item's."""
        field = self.fields[SHEETS[sheet].prefix + name]
        field.take(f"{self._motor} {of()}")
        return field

    def set_down(self, sheet: str, name: str, text: str, of: str = "") -> None:
        """Record one field of a declared sheet, read as it says. Raises: BadValue, AmbiguousValue."""
        job = self.session.open
        if job is None:
            raise BadValue(text, "a job first: Ctrl+N new, Ctrl+K find")
        bodies = written(sheet, name, text, job.judged.job, of, self.choices(sheet, name))
        self.session.record(*bodies, station=SHEETS[sheet].station)

    def choices(self, sheet: str, name: str) -> tuple[str, ...]:
        """Return the answers there are now where they hang on something; none: those declared."""
        return ()
