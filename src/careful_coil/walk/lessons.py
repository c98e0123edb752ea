"""The learner's chapter: ten motors from the counter to the tag, as the walk does them: run it as a module.

What Next asked and what was answered stand as they are logged, so that the pages cannot grow old.
"""

import re
from collections.abc import Iterator
from pathlib import Path

from careful_coil.core.settings import Settings
from careful_coil.core.stations import TITLES
from careful_coil.demo.cast import cast_motor
from careful_coil.documents.walk import WalkDocument, WalkStep
from careful_coil.walk.tell import walk

FOLDER = Path("docs/handbook")
SEED = 1
MOTORS: dict[str, tuple[str, str]] = {  # motor of the cast: what it is, what to learn from it
    "shaded-taps": (
        "A shaded pole with two speeds",
        "three leads, one coil with a tap; nothing to switch",
    ),
    "split-3": ("A split phase", "run, start and the lead they share; a switch that opens"),
    "cap-start-weak": (
        "A capacitor start with a weak can",
        "what the print must be, and what is fitted",
    ),
    "permanent-split": ("A permanent split capacitor", "a can that stays in, its volts and its µF"),
    "cap-start-run": (
        "Two capacitors and a relay",
        "which can stays, and what takes the other one out",
    ),
    "universal-plain": (
        "A universal motor",
        "brushes, bars, and a run that never sees full volts unloaded",
    ),
    "three-3": (
        "Three leads, three phases",
        "joined inside: what ohms can tell and what they cannot",
    ),
    "six-marked": (
        "Six leads with their marks",
        "the fewest readings that bear marks, then star or delta",
    ),
    "nine-wye-wrong": (
        "Nine leads, two of them marked wrongly",
        "what ohms cannot say of a mark, and the run that does",
    ),
    "two-speed-one": ("Two speeds in one winding", "two fields, each with its own run"),
}
DONE = "done"
HEAD = "Played by `python -m careful_coil.walk.lessons`: what *Next* asked, and what the bench answered."


def lesson(name: str) -> str:
    """Return the page of a motor of the cast."""
    title, learn = MOTORS[name]
    told = walk(cast_motor(name), SEED, Settings())
    lines = [f"# {title}", "", f"*To learn*: {learn}.", "", HEAD, "", *_steps(told), *_end(told)]
    return "\n".join(lines).rstrip() + "\n"


def _steps(told: WalkDocument) -> Iterator[str]:
    """Yield a heading where the station changes, and a line for each step."""
    station = ""
    for number, step in enumerate(told.steps, 1):
        if step.station != station:
            station = step.station
            yield from ("", f"## {_title(station)}", "")
        yield f"{number}. **{step.title}**: {_answer(step)}"


def _title(station: str) -> str:
    return next(t for s, t in TITLES.items() if s == station)


def _answer(step: WalkStep) -> str:
    if step.skip:
        return f"skipped, {step.skip}"
    ask = step.asks[0] if step.asks else None
    if step.answer == "all" or ask is None:
        return DONE
    if ask.choices and step.answer.isdecimal() and 0 < int(step.answer) <= len(ask.choices):
        return f"`{step.answer}`, {ask.choices[int(step.answer) - 1].replace('-', ' ')}"
    unit = f" {ask.unit}" if ask.unit and re.fullmatch(r"[\d.,]+", step.answer) else ""
    return f"`{step.answer}`{unit}"


def _end(told: WalkDocument) -> Iterator[str]:
    yield from ("", "## The end", "")
    kicks = f", {told.kicks} kicks" if told.kicks else ""
    yield (
        f"Signed after {len(told.steps)} steps: {told.readings} readings of leads{kicks}, "
        f"about {told.minutes:.0f} minutes of work."
        if told.end == "released"
        else f"It ended {told.end}."
    )


def page_of(name: str) -> str:
    """Return the name of a lesson's page."""
    return f"learn-{name}.md"


def write() -> None:
    """Write every page."""
    for name in MOTORS:
        (FOLDER / page_of(name)).write_text(lesson(name), encoding="utf-8")


if __name__ == "__main__":
    write()
