"""What the run says: departures with causes, losses taken apart, where the temperature will end, before and after."""

from functools import partial

from PySide6.QtWidgets import QWidget

from careful_coil.core.job.trials import Trial
from careful_coil.core.ledger import Judgement
from careful_coil.core.trial.meaning import losses_of, losses_words, pair_words, warm_words
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose, Verdicts, finding_of, told_of
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
            "Loss separation", theme, "watts less copper over volts squared", True
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
            "\n".join(pair_words(judged.job, judged.facts.start_way))
            or "After two sheets with a step at rated volts."
        )

    def _show_losses(self, judged: Judgement, shown: Trial | None) -> None:
        found = (
            losses_of(judged.job, judged.facts.connecting, shown)
            if shown
            else "After four steps without load."
        )
        supply = judged.job.supply
        self.apart.setVisible(not isinstance(found, str))
        if isinstance(found, str) or supply is None:
            self.losses.say(str(found))
            return
        words = losses_words(found, supply.volt)
        self.losses.say(words)
        self.apart.draw(partial(draw_losses, found, supply.volt), words)
