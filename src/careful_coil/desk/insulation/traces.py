"""Step voltage and surge comparison, where the shop does them: typed, or read from a CSV."""

from functools import partial

from careful_coil.core.condition.later_rules import odd_trace
from careful_coil.core.condition.traces import read_surge
from careful_coil.core.condition.typed import read_curve_csv, read_steps, read_steps_csv
from careful_coil.core.job.at_insulation import InsulationTested, Steps, Surged
from careful_coil.core.ledger import Judgement
from careful_coil.core.probes.kinds.insulation import tested
from careful_coil.core.probes.probe import Request, Typing
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.files import MOST_NAME, read_file
from careful_coil.desk.shared.page import Caution
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Verdicts, finding_of, told_of
from careful_coil.desk.theme import Theme
from careful_coil.drawing.curve import draw_traces


class TracesPart(Part):
    """The part of step voltage and surges."""

    name, title, remark = "traces", "Steps and surges", "where the shop does them"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.column.addWidget(
            Caution(
                "Kilovolts: only after a good insulation test, never on a wet winding; a second person stands by.",
                theme,
            )
        )
        self.add_field(
            "steps",
            "Step voltage: volts and MΩ of each step, or a CSV of them",
            self._steps,
            "500 420; 1000 410; 1500 390",
            clears=True,
        )
        self.add_field(
            "surge-file",
            "Surge traces, a CSV: time in s, then two or three traces",
            partial(self._surge, "windings"),
            "surge.csv",
            clears=True,
            most=MOST_NAME,
        )
        self.add_field(
            "surge-volts",
            "The same winding at rising volts, a CSV",
            partial(self._surge, "volts"),
            "A-at-volts.csv",
            clears=True,
            most=MOST_NAME,
        )
        self.add_field(
            "curve-file",
            "A tester's own curve, a CSV: time in s, MΩ",
            self._curve,
            "insulation.csv",
            clears=True,
            most=MOST_NAME,
        )
        self.plot = Plot(theme, "Surge traces", 220)
        self.column.addWidget(self.plot)
        self.verdicts = Verdicts(theme)
        self.column.addWidget(self.verdicts)

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return what the newest says."""
        return told_of(finding_of(judged, "surge", "step-voltage"), "none")

    def show_judgement(self, judged: Judgement) -> None:
        """Show traces and verdicts."""
        surges = judged.job.tested.surges
        self.plot.setVisible(bool(surges))
        if surges:
            traces = tuple(surges[-1].body.traces.items())
            odd = odd_trace(surges[-1].body.traces)
            self.plot.draw(partial(draw_traces, traces, odd), ", ".join(n for n, _ in traces))
        self.verdicts.show_findings(
            [finding_of(judged, "surge"), finding_of(judged, "step-voltage")]
        )

    def _steps(self, text: str) -> None:
        file = text.lower().strip("'\" ").endswith(".csv")
        steps = read_steps_csv(read_file(text)) if file else read_steps(text)
        body = Steps(steps=steps, at_c=self.session.under.at_c)
        self.session.record(body, station="insulation")

    def _surge(self, by: str, text: str) -> None:
        step, traces = read_surge(read_file(text))
        body = Surged.model_validate({"traces": traces, "step_s": step, "by": by})
        self.session.record(body, station="insulation")

    def _curve(self, text: str) -> None:
        target = self.session.target or Request(kind="resistance", ends=())
        told = Typing(text=text, request=target, setting=self.session.setting)
        body = InsulationTested.model_validate(tested(read_curve_csv(read_file(text)), told))
        self.session.record(body, station="insulation")
