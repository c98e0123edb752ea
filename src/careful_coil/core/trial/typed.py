"""A step of a test run as it is typed: figures with their units in any order, words behind them."""

from collections.abc import Sequence
from typing import cast

from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_trial import Direction, TrialStep
from careful_coil.core.probes.kinds.trial import step_told


def read_step(text: str, lines: int, instrument: str = "typed") -> TrialStep:
    """Return a step as typed, with amps of so many lines or one for all. Raises: BadValue."""
    return TrialStep.model_validate(step_told(text, lines, instrument))


def step_words(step: TrialStep) -> str:
    """Return a step as it is listed and printed: V, A, W, rpm, °C, minutes, how it turned, the remark."""
    told = [f"{_figures(step.volt)} V", f"{_figures(step.amp)} A"]
    for value, unit in (
        (step.watt, "W"),
        (step.rpm, "rpm"),
        (step.celsius, "°C"),
        (step.minute, "min"),
        (step.newton_metre, "Nm"),
    ):
        if value is not None:
            told.append(f"{value:.6g} {unit}")
    return ", ".join([*told, *(t for t in (step.turns, step.remark) if t)])


def _figures(values: Sequence[float]) -> str:
    return "/".join(f"{v:g}" for v in values)


def sheet_of(text: str, speeds: Sequence[str]) -> tuple[str, Direction]:
    """Return speed and direction of a sheet as typed: one of its speeds, cw or ccw. Raises: BadValue."""
    speed, turns = "", ""
    for word in text.lower().split():
        if word in speeds and not speed:
            speed = word
        elif word in ("cw", "ccw") and not turns:
            turns = word
        else:
            raise BadValue(text, f"{', '.join([*speeds, 'cw or ccw'])}, or nothing")
    return speed, cast(Direction, turns)
