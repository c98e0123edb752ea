"""The run: stop rules, the stall guard, each step typed or taken, points over the band expected."""

from collections.abc import Sequence
from functools import partial

from PySide6.QtWidgets import QWidget

from careful_coil.core.connect.dress import amps_at
from careful_coil.core.connect.rotation import read_direction
from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_trial import Outcome, TrialEnded, TrialHeard, TrialStart
from careful_coil.core.ledger import Judgement
from careful_coil.core.machine.estimate import Estimate, estimate
from careful_coil.core.probes import PROBES
from careful_coil.core.trial.begin import (
    check_step,
    clicks,
    full_volt,
    open_sheet,
    stop_rules,
)
from careful_coil.core.trial.expect import Expected, expected_at, facts_of, turning_volt
from careful_coil.core.trial.pairs import run_before
from careful_coil.core.trial.stall import allowed, check_pause
from careful_coil.core.trial.typed import read_step, step_words
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.field import LONG
from careful_coil.desk.flow import Flow
from careful_coil.desk.open_job import OpenJob
from careful_coil.desk.part import NARROWEST, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme
from careful_coil.desk.trial.guard import StallGuard
from careful_coil.desk.trial.invert import invert
from careful_coil.drawing.shapes import Drawing
from careful_coil.drawing.trial import draw_trial

HEARD = ("drop-out", "drop-in", "sound", "spark", "starts-turning", "smoke")
HEARD_WANTED = f"{', '.join(HEARD)} and what it was: drop-out 1120 rpm, starts-turning 48 V, direction cw drive-end"
SHARES = tuple(k / 20 for k in range(3, 23))  # of rated volts: where the band is worked out


class RunPart(Part):
    """The part of the run itself."""

    name, title, remark = (
        "run",
        "The run",
        "the bench switch is yours: nothing is switched from here",
    )

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.rules = Prose(theme, "hold", 20)
        self.column.addWidget(self.rules)
        self.guard = StallGuard(theme, self._steady)
        self.guard.ended.connect(self._ended)
        self.guard.beeped.connect(self._beep)
        self.guard.over.connect(partial(invert, self))
        self.guard.over.connect(self._over)
        self.guard.wait = self._pause
        self.column.addWidget(self.guard)
        self.plot = Plot(theme, "Run over volts", 210)
        self.column.addWidget(self.plot)
        self.band = Prose(theme, "quiet", 13)
        self.column.addWidget(self.band)
        self.add_field("step", "A step as read", self._step, PROBES["trial"].prompt, most=LONG)
        grid = Flow(2, 2 * NARROWEST, theme)
        for name, label, commit, hint in (
            ("heard", "Heard or seen", self._heard, "drop-out 1120 rpm"),
            ("abandon", "Abandoned, why", self._abandon, "amps over plate"),
        ):
            grid.add(self.add_field(name, label, commit, hint, place=False, clears=True))
        self.column.addWidget(grid)
        self.end = EnterButton("End: bench switch is off, supply read as zero")
        self.end.clicked.connect(self._end)
        self.column.addWidget(self.end)
        self.list = Prose(theme, "quiet", 13)
        self.column.addWidget(self.list)
        self._key: tuple[object, ...] = ()
        self._guarded: OpenJob | None = None  # the motor the guard was armed for
        self._expected: Sequence[Expected] = ()

    def _steady(self) -> float:
        """Return seconds that only go on, from the session's own clock."""
        return self.session.clock.steady()

    def start(self) -> QWidget:
        """Start at the guard where a timed start comes first, else at the step."""
        job = self.session.open
        now = job.judged.job.trials.now if job else None
        direct = job is not None and job.judged.facts.start_way.way == "direct"
        first = direct and now is not None and not now.starts and bool(now.steps)
        return self.guard if first else self.fields["step"].cell

    def opened(self) -> None:
        """Show no band of another motor."""
        self._key, self._expected = (), ()

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how many steps the sheet has."""
        now = judged.job.trials.now
        if now is None:
            return "", "no sheet open"
        return "", f"{len(now.steps)} steps, {len(now.starts)} starts"

    def show_judgement(self, judged: Judgement) -> None:
        """Show stop rules, steps, and the band once it is worked out."""
        job, way = judged.job, judged.facts.start_way
        sheets = job.trials.sheets
        now = job.trials.now or (sheets[-1] if sheets else None)
        volt = full_volt(job, way, now)
        self.rules.say(stop_rules(judged.job, way, self.session.settings))
        limit = allowed(
            job, judged.facts.winding, way, judged.facts.connecting, self.session.settings
        )
        self.guard.limit, self.guard.limit_words = limit.seconds, limit.words
        self.guard.says = "dropped out" if clicks(job, judged.facts.connecting) else "turns"
        self.guard.fit()
        before = sheets[-2] if len(sheets) > 1 else run_before(job)
        earlier = before.steps if before is not None else ()
        steps = now.steps if now is not None else ()

        amp, rpm = (amps_at(job, job.supply) if job.supply else None), job.plate.rpm
        plate = {k: v for k, v in (("amp", amp), ("rpm", rpm)) if v}

        def make(wide: float, high: float) -> Drawing:
            return draw_trial(steps, self._expected, earlier, volt, wide, high, plate)

        self.plot.draw(make, f"{len(steps)} steps")
        self.list.say("\n".join(step_words(s) for s in steps))
        self.end.setEnabled(job.trials.now is not None)
        self._work_out(judged, volt)

    def _work_out(self, judged: Judgement, volt: float) -> None:
        """Fit the machine aside, once for each set of facts."""
        told = facts_of(
            judged.job,
            judged.facts.connecting,
            judged.facts.kinds,
            judged.facts.identification,
            judged.facts.naming,
        )
        if isinstance(told, str):
            self._key, self._expected = (), ()
            self.band.say(told)
            return
        plan, facts = told
        key = (plan.joints, str(facts), volt)
        if key == self._key:
            return
        self._key, self._expected = key, ()
        self.band.say("Working out what it should show …")

        def work() -> tuple[Estimate, list[Expected], float]:
            fit = estimate(plan, facts)
            band = expected_at(fit, [share * volt for share in SHARES])
            return fit, band, turning_volt(fit.motor)

        def done(found: tuple[Estimate, list[Expected], float]) -> None:
            if self._key == key:
                self._told(*found, volt=volt)

        self.session.aside(work, done, self.band.say)

    def _told(self, fit: Estimate, band: list[Expected], turns: float, volt: float) -> None:
        self._expected = band
        at = min(band, key=lambda b: abs(b.volt - volt), default=None)
        if at is None:
            self.band.say(
                "By its figures it does not turn at any of these volts: look at the plate."
            )
            return
        assumed = ", ".join(a.name for a in fit.assumed[:4])
        self.band.say(
            f"Dashed: expected without load. At {at.volt:.0f} V {at.amp[0]:.2g} to {at.amp[2]:.2g} A, "
            f"{at.watt[0]:.0f} to {at.watt[2]:.0f} W, {at.rpm[0]:.0f} to {at.rpm[2]:.0f} rpm; a free shaft turns "
            f"from about {turns:.0f} V. Assumed: {assumed}."
        )
        self.plot.update()

    def _pause(self) -> str:
        """Return why no start may be tried now: the winding must cool after two. The guard is this motor's then."""
        job = self._guarded = self.session.open
        if job is None:
            return ""
        try:
            open_sheet(job.judged.job, "a start")
            check_pause(job.judged.job, self.session.at_bench.now, self.session.settings)
        except BadValue as error:
            return str(error)
        return ""

    def _step(self, text: str) -> None:
        job = self.session.open
        if job is None:
            raise BadValue(text, "a job first")
        judged = job.judged
        open_sheet(judged.job, text)
        supply = judged.job.supply
        step = read_step(text, 3 if supply is None or supply.phases == 3 else 1)
        check_step(judged.job, judged.facts.start_way, step, text)
        self.session.record(step, station="test-run")

    def _heard(self, text: str) -> None:
        job = self.session.open
        if job is None:
            raise BadValue(text, "a job first")
        open_sheet(job.judged.job, text)
        what, _, words = text.strip().partition(" ")
        if what.lower() == "direction":
            self.session.record(
                read_direction(words, "run", job.judged.facts.connecting.view), station="test-run"
            )
            return
        if what.lower() not in HEARD or not words.strip():
            raise BadValue(text, HEARD_WANTED)
        body = TrialHeard.model_validate({"what": what.lower(), "text": words.strip()})
        self.session.record(body, station="test-run")

    def _ended(self, outcome: Outcome, seconds: float) -> None:
        job, here = self._guarded, self.session.open
        if job is not None and here is not None and here.id == job.id:
            job = here
        now = job.judged.job.trials.now if job else None
        if job is None or now is None or not now.ready:
            words = "No sheet is open and ready: what the guard saw was not logged."
            self.session.told.emit(words, "watch")
            return
        volt = full_volt(job.judged.job, job.judged.facts.start_way, now)
        body = TrialStart(volt=volt, outcome=outcome, seconds=seconds)
        self.session.record(body, station="test-run", into=job)

    def _over(self, over: bool) -> None:
        if over:
            self.session.alarm.emit("OFF NOW: bench switch off. The seconds allowed are used up.")

    def _beep(self) -> None:
        self.session.clock.beep()

    def _end(self) -> None:
        job = self.session.open
        if job is not None and job.judged.job.trials.now is not None:
            self.session.record(TrialEnded(), station="test-run")

    def _abandon(self, text: str) -> None:
        if not text.strip():
            return
        job = self.session.open
        if job is None or job.judged.job.trials.now is None:
            raise BadValue(text, "an open sheet: there is none to abandon")
        self.session.record(TrialEnded(abandoned=text.strip()), station="test-run")
