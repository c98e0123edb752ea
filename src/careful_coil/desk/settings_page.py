"""Shop settings: limits with their source, schools in plain words with their reasons, currency."""

from PySide6.QtCore import QRect, Qt, Signal
from PySide6.QtGui import QKeyEvent, QPainter
from PySide6.QtWidgets import QLineEdit

from careful_coil.core.figures import figure
from careful_coil.core.identify.models import PRIOR
from careful_coil.core.schools import SCHOOLS, School
from careful_coil.core.settings import USUAL, Limit, Settings
from careful_coil.core.shop_lists import TITLES, USUAL_LISTS
from careful_coil.core.values import show_ohm, show_percent
from careful_coil.core.winding import ARRANGEMENTS
from careful_coil.desk import paint
from careful_coil.desk.field import LONG, Field
from careful_coil.desk.keeping import change_settings
from careful_coil.desk.roll import Roll
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading, Page, plain_label
from careful_coil.desk.theme import Theme
from careful_coil.records.pins import change_pin


def _row(painter: QPainter, t: Theme, box: QRect, title: str, figure: str, rest: str) -> None:
    """Draw what it is, its figure, and where that comes from."""
    left = box.adjusted(10, 0, -box.width() // 2 - 4, 0)
    middle = QRect(left.right() + 6, box.top(), t.px(104), box.height())
    right = QRect(middle.right() + 4, box.top(), box.right() - middle.right() - 10, box.height())
    paint.text(painter, t, left, title)
    paint.text(painter, t, middle, figure, bold=True)
    paint.text(painter, t, right, rest, size=13, token="quiet")


class LimitRoll(Roll):
    """A limit a row: what, the figure, where it comes from."""

    def __init__(self, theme: Theme, settings: Settings) -> None:
        super().__init__(theme, "Limits")
        self.settings = settings
        self.retell()

    def count(self) -> int:
        """Return how many limits there are."""
        return len(self.settings.limits())

    def name(self) -> str:
        """Return the name of the current limit."""
        return list(self.settings.limits())[self.current]

    def row_words(self, k: int) -> str:
        """Return a limit in words."""
        limit = list(self.settings.limits().values())[k]
        return f"{limit.title} {_figure(limit)}, {limit.source}"

    def paint_row(self, painter: QPainter, k: int, box: QRect) -> None:
        """Draw a limit."""
        limit = list(self.settings.limits().values())[k]
        _row(painter, self.theme, box, limit.title, _figure(limit), limit.source)


def _figure(limit: Limit) -> str:
    return show_ohm(limit.value) if limit.unit == "Ω" else f"{limit.value:g} {limit.unit}"


class SchoolRoll(Roll):
    """A school a row: the question, this shop's choice, its reason; Left and Right choose."""

    chosen = Signal(str, str)  # school, choice

    def __init__(self, theme: Theme, settings: Settings) -> None:
        super().__init__(theme, "Schools")
        self.settings = settings
        self.retell()

    def count(self) -> int:
        """Return how many schools there are."""
        return len(SCHOOLS)

    def row_height(self, k: int) -> int:
        """Return a row's height in pixels."""
        return self.theme.px(52)

    def row_words(self, k: int) -> str:
        """Return a school in words."""
        school = list(SCHOOLS.values())[k]
        choice = self.settings.school(school.name)
        return f"{school.question} {choice}: {school.choices[choice]}; {_where(school)}"

    def pressed(self, key: str) -> bool:
        """Choose by number."""
        school = list(SCHOOLS.values())[self.current]
        if key.isdecimal() and 1 <= int(key) <= len(school.choices):
            self.chosen.emit(school.name, list(school.choices)[int(key) - 1])
            return True
        return False

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Left and Right take the choice before or after."""
        by = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()))
        if by is None:
            super().keyPressEvent(event)
            return
        school = list(SCHOOLS.values())[self.current]
        choices = list(school.choices)
        at = choices.index(self.settings.school(school.name)) + by
        self.chosen.emit(school.name, choices[at % len(choices)])

    def paint_row(self, painter: QPainter, k: int, box: QRect) -> None:
        """Draw the question and where it speaks; below it the choices, the reason of the one taken."""
        t = self.theme
        school = list(SCHOOLS.values())[k]
        taken = self.settings.school(school.name)
        half = box.height() // 2
        upper = QRect(box.left() + 10, box.top() + 2, box.width() - 20, half)
        where = _where(school)
        room = upper.adjusted(0, 0, -paint.width_of(t, where, 13) - 12, 0)
        paint.text(painter, t, room, school.question)
        paint.text(painter, t, upper, where, size=13, token="quiet", align=1)
        x, y = box.left() + 10, box.top() + half
        for n, choice in enumerate(school.choices, 1):
            words = f"{n} {choice}"
            wide = paint.width_of(t, words, 13, True) + 14
            at = QRect(x, y, wide, t.px(22))
            if choice == taken:
                painter.fillRect(at, t.colour("ink"))
            token = "ground" if choice == taken else "quiet"
            paint.text(
                painter,
                t,
                at.adjusted(7, 0, 0, 0),
                words,
                size=13,
                bold=choice == taken,
                token=token,
            )
            x += wide + 6
        rest = QRect(x + 8, y, box.right() - x - 16, t.px(22))
        paint.text(painter, t, rest, school.choices[taken], size=13, token="quiet")


def _where(school: School) -> str:
    """Return at which station a school speaks."""
    return f"at {school.station.replace('-', ' ').capitalize()}"


class OddsRoll(Roll):
    """A winding a row: how much oftener than usual this shop meets it."""

    def __init__(self, theme: Theme, settings: Settings) -> None:
        super().__init__(theme, "How often windings are met")
        self.settings = settings
        self.retell()

    def count(self) -> int:
        """Return how many windings there are."""
        return len(ARRANGEMENTS)

    def name(self) -> str:
        """Return the slug of the current winding."""
        return list(ARRANGEMENTS)[self.current]

    def row_words(self, k: int) -> str:
        """Return a winding's odds in words."""
        slug, known = list(ARRANGEMENTS.items())[k]
        return f"{known.title}, {_times(self.settings, slug)}, usually {_usual(slug)}"

    def paint_row(self, painter: QPainter, k: int, box: QRect) -> None:
        """Draw a winding, this shop's factor, and what is usual."""
        slug, known = list(ARRANGEMENTS.items())[k]
        times = _times(self.settings, slug)
        _row(painter, self.theme, box, known.title, times, f"usually {_usual(slug)} of all")


def _times(settings: Settings, slug: str) -> str:
    factor = settings.arrangement_odds.get(slug, 1.0)
    return "as usual" if factor == 1 else f"{factor:g} × usual"


def _usual(slug: str) -> str:
    share = sum(p for (s, _), p in PRIOR.items() if s == slug) / sum(PRIOR.values())
    return show_percent(share)


class SettingsPage(Page):
    """The view of the shop's settings."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.column.addWidget(
            Heading("Shop settings", theme, "kept with the shop; what can hurt is no setting")
        )
        self.fields["currency"] = Field(
            "Sign of money", self._currency, theme, hint="£", name="currency"
        )
        self.fields["currency"].setMaximumWidth(260)
        self.column.addWidget(self.fields["currency"])
        self.fields["foreman"] = Field(
            "Foreman's initials, who waives lines",
            self._foreman,
            theme,
            hint="CD",
            name="foreman",
        )
        self.fields["foreman"].setMaximumWidth(260)
        self.column.addWidget(self.fields["foreman"])
        self.fields["pin"] = Field(
            "PIN to sign with: initials and figures; to change it the old, the new; none ends it",
            self._pin,
            theme,
            hint="AB 4711",
            name="pin",
            clears=True,
        )
        self.fields["pin"].cell.setEchoMode(QLineEdit.EchoMode.Password)
        self.column.addWidget(self.fields["pin"])
        self.column.addWidget(
            Heading("Limits", theme, "arrows walk; type another figure below", rule=True)
        )
        self.limits = LimitRoll(theme, session.settings)
        self.column.addWidget(self.limits)
        self.fields["limit"] = Field("This limit", self._limit, theme, name="limit", clears=True)
        self.column.addWidget(self.fields["limit"])
        self.source, self.note = plain_label(), plain_label()
        self.note.hide()
        self.column.addWidget(self.source)
        self.column.addWidget(self.note)
        heading = "numbers or Left and Right choose"
        self.column.addWidget(
            Heading("Schools: where good shops differ", theme, heading, rule=True)
        )
        self.schools = SchoolRoll(theme, session.settings)
        self.column.addWidget(self.schools)
        remark = "a leaning that readings overrule; arrows walk, type a factor below"
        self.column.addWidget(
            Heading("How often this shop meets a winding", theme, remark, rule=True)
        )
        self.odds = OddsRoll(theme, session.settings)
        self.column.addWidget(self.odds)
        self.fields["odds"] = Field("This winding", self._odds, theme, name="odds", clears=True)
        self.column.addWidget(self.fields["odds"])
        remark = "; between rows; steps, amps and what can be taken follow them"
        self.column.addWidget(Heading("Lists of this shop", theme, remark, rule=True))
        for name, title in TITLES.items():

            def typed(text: str, name: str = name) -> None:
                self._list(name, text)

            field = Field(title, typed, theme, name=f"list-{name}", most=LONG)
            self.fields[f"list-{name}"] = field
            self.column.addWidget(field)
        self.limits.moved.connect(self._named)
        self.odds.moved.connect(self._named)
        self.schools.chosen.connect(lambda s, c: self._change({"schools": {s: c}}))
        session.settings_changed.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Show the settings as they stand."""
        settings = self.session.settings
        self.limits.settings = self.schools.settings = self.odds.settings = settings
        self.odds.retell()
        self.limits.retell()
        self.schools.retell()
        self.fields["currency"].show_text(settings.currency)
        self.fields["foreman"].show_text(settings.foreman)
        for name in TITLES:
            self.fields[f"list-{name}"].show_text(getattr(settings.lists, name))
        self._named()

    def _named(self, _: int = 0) -> None:
        limit = self.session.settings.limits()[self.limits.name()]
        self.fields["limit"].label.setText(f"{limit.title}, in {limit.unit}; or the word usual")
        winding = ARRANGEMENTS[self.odds.name()].title
        self.fields["odds"].label.setText(f"{winding}: times as often as usual; 1 is usual")
        self.source.setText(f"It stands at {_figure(limit)} by: {limit.source}.")

    def start(self) -> bool:
        """Begin with the limits."""
        self.limits.setFocus(Qt.FocusReason.OtherFocusReason)
        return True

    def _currency(self, text: str) -> None:
        self._change({"currency": text})

    def _foreman(self, text: str) -> None:
        self._change({"foreman": text})

    def _pin(self, text: str) -> None:
        if text:
            self._say(change_pin(self.session.shop, text))

    def _limit(self, text: str) -> None:
        if not text:
            return
        name = self.limits.name()
        if text.lower() == "usual":
            self._change({name: USUAL[name].value})
            return
        unit = self.session.settings.limits()[name].unit
        bare = text.removesuffix(unit) if unit else text
        wanted = f"a figure in {unit}, or usual"
        self._change({name: figure(bare, least=-1e9, wanted=wanted)})

    def _odds(self, text: str) -> None:
        if not text:
            return
        factor = figure(text, wanted="a factor, for example 3 or 0.2; 1 is usual")
        self._change({"arrangement_odds": {self.odds.name(): factor}})

    def _list(self, name: str, text: str) -> None:
        usual = text.strip().lower() == "usual"
        self._change({name: getattr(USUAL_LISTS, name) if usual else text.strip()})

    def _change(self, told: dict[str, object]) -> None:
        self._say("")
        change_settings(self.session, told, self._say)

    def _say(self, words: str) -> None:
        self.note.setText(words)
        self.note.setVisible(bool(words))
