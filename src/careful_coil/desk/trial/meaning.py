"""What the run says: departures with causes, losses taken apart, where the temperature will end, before and after."""

from collections.abc import Iterator
from functools import partial

from PySide6.QtWidgets import QWidget

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.job.trials import Trial
from careful_coil.core.ledger import Judgement
from careful_coil.core.trial.begin import full_volt
from careful_coil.core.trial.pairs import compared
from careful_coil.core.trial.separate import (
    Losses,
    no_load_steps,
    separated,
    warm_points,
    warming,
)
from careful_coil.core.values import show_percent
from careful_coil.desk.insulation.plot import Plot
from careful_coil.desk.insulation.shown import Prose, Verdicts, finding_of, told_of
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.stations.page import Heading
from careful_coil.desk.theme import Theme
from careful_coil.drawing.trial import draw_losses


class MeaningPart(Part):
    """The part of what it says."""

    name, title, remark = "told", "What it says", "a departure, its likely causes, what parts them"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.verdicts = Verdicts(theme)
        self.column.addWidget(self.verdicts)
        self.losses_head = Heading(
            "Losses taken apart", theme, "watts less copper over volts squared", True
        )
        self.losses = Prose(theme)
        self.apart = Plot(theme, "Watts less copper over volts squared", 150)
        self.warm_head = Heading("Temperature", theme, "", True)
        self.warm = Prose(theme)
        self.pair_head = Heading("Before and after", theme, "at rated volts, two sheets", True)
        self.pairs = Prose(theme)
        for part in (
            self.losses_head,
            self.losses,
            self.apart,
            self.warm_head,
            self.warm,
            self.pair_head,
            self.pairs,
        ):
            self.column.addWidget(part)
        self.setFocusPolicy(self.focusPolicy())

    def start(self) -> QWidget:
        """Nothing is typed here: the verdicts are looked at."""
        return self.verdicts

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return the worst of what was found."""
        own = [f for f in judged.findings if f.code.startswith("trial-")]
        bad = next((f for f in own if f.verdict in ("hold", "watch")), None)
        if bad is not None:
            return told_of(bad, "")
        return told_of(finding_of(judged, "test-run"), "not run yet")

    def show_judgement(self, judged: Judgement) -> None:
        """Show everything that the sheets say."""
        own = [f for f in judged.findings if f.station == "test-run"]
        self.verdicts.show_findings(own)
        sheets = judged.job.trials.sheets
        shown = next((t for t in reversed(sheets) if t.steps), None)
        self._show_losses(judged, shown)
        self.warm.say(
            warm_words(shown)
            if shown
            else "After three steps with °C; minutes as logged, or typed."
        )
        self.pairs.say(
            "\n".join(pair_words(judged)) or "After two sheets with a step at rated volts."
        )

    def _show_losses(self, judged: Judgement, shown: Trial | None) -> None:
        found = losses_of(judged, shown) if shown else "After four steps without load."
        supply = judged.job.supply
        self.apart.setVisible(not isinstance(found, str))
        if isinstance(found, str) or supply is None:
            self.losses.say(str(found))
            return
        words = losses_words(found, supply.volt)
        self.losses.say(words)
        self.apart.draw(partial(draw_losses, found, supply.volt), words)


def losses_of(judged: Judgement, trial: Trial) -> Losses | str:
    """Return the losses of a sheet, or in words what is missing for them."""
    supply = judged.job.supply
    lines = judged.connecting.read or judged.connecting.expected or {}
    ohms = [v for v in lines.values() if v != float("inf")]
    if supply is None or not ohms or trial.begun.load != "none":
        return "Line ohms and a run without load are wanted."
    try:
        return separated(no_load_steps(trial), sum(ohms) / len(ohms), supply.volt, supply.phases)
    except ValueOutOfRange as error:
        return str(error)


def losses_words(found: Losses, volt: float) -> str:
    """Return losses in words."""
    return (
        f"At {volt:g} V: friction and windage {found.friction:.0f} ± {found.friction_error:.0f} W, iron "
        f"{found.iron:.0f} ± {found.iron_error:.0f} W, copper {found.copper:.0f} W."
    )


def warm_words(trial: Trial) -> str:
    """Return where the temperature of a sheet will end, or what is missing for it."""
    points = warm_points(trial)
    if len(points) < 3:
        return "After three steps with °C it says where they will end."
    try:
        found = warming(points)
    except ValueOutOfRange:
        return "Still rising straight on: more minutes are wanted."
    steady = "steady" if found.steady else "still moving"
    return f"It ends near {found.end_c:.0f} °C, time constant {found.minutes:.0f} min; {steady}."


def _same(one: Trial, other: Trial) -> bool:
    """Whether two sheets are of one speed and direction."""
    return (one.begun.speed, one.begun.direction) == (other.begun.speed, other.begun.direction)


def pair_words(judged: Judgement) -> Iterator[str]:
    """Yield each figure of the last two whole sheets side by side, and what was done between them."""
    job = judged.job
    whole = [t for t in job.trials.sheets if t.whole and t.begun.load == "none"]
    alike = [t for t in whole if _same(t, whole[-1])]
    if len(alike) < 2 or job.supply is None:
        return
    before, after = alike[-2:]
    volt = full_volt(job, judged.start_way)
    done = after.begun.since or (
        "covers put on" if after.begun.covers == "on" else "nothing logged"
    )
    pairs = compared(before, after, volt)
    if pairs:
        yield f"Between them: {done}."
    for p in pairs:
        more = "more than two readings of one thing differ" if p.more else "within the noise"
        sign = "+" if p.change >= 0 else "−"
        change = show_percent(abs(p.change))
        yield f"{p.what}: {p.before:.4g} → {p.after:.4g} {p.unit}, {sign}{change}: {more}."
