"""A value typed or taken, as the entry it becomes: read, then held against what may be recorded now."""

from careful_coil.core.job import AnyBody
from careful_coil.core.job.at_trial import TrialStart, TrialStep
from careful_coil.core.job.entries import Station
from careful_coil.core.ledger.entry_line import TestSetting, Typed, body_of
from careful_coil.core.ledger.judgement import Judgement
from careful_coil.core.settings import Settings
from careful_coil.core.trial.begin import check_step
from careful_coil.core.trial.stall import check_pause

# where a probe's value is logged; all others at Leads
STATION_OF: dict[str, Station] = {
    "insulation": "insulation",
    "line": "connect",
    "step": "connect",
    "low-run": "connect",
    "clamp": "connect",
    **dict.fromkeys(("trial", "start", "turning", "drop-in"), "test-run"),
    "bond": "insulation",
    "bar": "mechanics",
}


def taken(
    typed: Typed,
    judged: Judgement | None,
    setting: TestSetting,
    now: str,
    settings: Settings,
    instrument: str = "typed",
) -> AnyBody:
    """Return the entry of a value; `now` the time. Raises: BadValue, AmbiguousValue."""
    body = body_of(typed, instrument=instrument, setting=setting)
    if judged is not None and isinstance(body, TrialStep):
        check_step(judged.job, judged.start_way, body, typed.value)
    if judged is not None and isinstance(body, TrialStart):
        check_pause(judged.job.trials, now, settings)
    return body
