"""A value typed or taken, as the entry it becomes: read, then held against what may be recorded now."""

from dataclasses import dataclass, replace

from pydantic import TypeAdapter

from careful_coil.core.condition.bond import places_left
from careful_coil.core.connect.low_run import unclamped
from careful_coil.core.connect.present import stand_joined
from careful_coil.core.errors import BadValue
from careful_coil.core.figures import of_each
from careful_coil.core.job import AnyBody
from careful_coil.core.job.at_trial import TrialStart, TrialStep
from careful_coil.core.ledger.entry_line import Typed
from careful_coil.core.ledger.judgement import Judgement
from careful_coil.core.probes import PLAIN_SETTING, PROBES, TestSetting, Typing
from careful_coil.core.probes.probe import Request
from careful_coil.core.readings import Resistance, ohm_value
from careful_coil.core.settings import Settings
from careful_coil.core.trial.begin import check_step
from careful_coil.core.trial.stall import check_pause

BODY: TypeAdapter[AnyBody] = TypeAdapter(AnyBody)


@dataclass(frozen=True, slots=True, kw_only=True)
class Taking:
    """Under what a value is taken: the motor's judgement, the setting, the time, the shop's limits."""

    judged: Judgement | None
    settings: Settings
    setting: TestSetting = PLAIN_SETTING
    now: str = ""
    instrument: str = "typed"


def taken(typed: Typed, at: Taking) -> AnyBody:
    """Return the entry of a value. Raises: BadValue, AmbiguousValue."""
    near = neighbours(at.judged) if at.judged is not None else ()
    told = Typing(
        text=typed.value,
        request=typed.target,
        setting=at.setting,
        instrument=at.instrument,
        neighbours=near,
    )
    read = PROBES[typed.target.kind].read(told)
    if typed.target.kind == "resistance" and at.judged is not None:
        stood = stand_joined(at.judged.job)
        read = {**read, "reading": {**read["reading"], "joints": stood}} if stood else read
    body = BODY.validate_python(read)
    if at.judged is not None and isinstance(body, TrialStep):
        check_step(at.judged.job, at.judged.facts.start_way, body, typed.value)
    if at.judged is not None and isinstance(body, TrialStart):
        check_pause(at.judged.job, at.now, at.settings)
    return body


def taken_each(typed: Typed, at: Taking) -> tuple[AnyBody, ...]:
    """Return the entries of what was typed: values of all that is left may be typed at once, 0.03/0.04/0.03.

    So with bonds of several places, ohms of several line pairs, amps of leads in parallel.
    Raises: BadValue, AmbiguousValue.
    """
    parts = of_each(typed.value)
    left = _left(typed.target, at.judged) if at.judged is not None and len(parts) > 1 else ()
    if not left:
        return (taken(typed, at),)
    if len(parts) != len(left):
        said = (ends[1:] if typed.target.kind == "bond" else ends for ends in left)
        wanted = ", ".join(" to ".join(ends) for ends in said)
        raise BadValue(typed.value, f"one for each: {wanted}")
    targets = (replace(typed.target, ends=ends) for ends in left)
    return tuple(
        taken(Typed(target, part), at) for target, part in zip(targets, parts, strict=True)
    )


def _left(target: Request, judged: Judgement) -> tuple[tuple[str, ...], ...]:
    """Return where the probes would be put in turn for what is still to be read of this kind."""
    job, state = judged.job, judged.facts.connecting
    if target.kind == "bond":
        return tuple((*target.ends[:-1], p) for p in places_left(job))
    if target.kind == "line":
        return tuple(tuple(pair.split("-")) for pair in state.unread)
    if target.kind == "clamp" and state.plan is not None:
        leads = unclamped(state.plan, state.by_name(job.joined.clamps))
        return tuple((tag,) for tag in state.by_tag(leads))
    return ()


def neighbours(judged: Judgement) -> tuple[float, ...]:
    """Return the ohms read between leads so far, Ω."""
    read = [t.reading for t in judged.job.readings if isinstance(t.reading, Resistance)]
    found = [ohm_value(r.value).value for r in read]
    return tuple(v for v in found if 0 < v < float("inf"))
