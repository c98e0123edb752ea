"""The learner's chapter: ten motors from the counter to the tag, as the walk does them: run it as a module.

What Next asked and what was answered stand as they are logged, so that the pages cannot grow old.
"""

import re
from collections.abc import Iterator, Mapping
from pathlib import Path

from careful_coil.core.ledger import Judgement
from careful_coil.core.settings import Settings
from careful_coil.core.stations import TITLES
from careful_coil.demo.cast import cast_motor
from careful_coil.documents.walk import WalkDocument, WalkStep
from careful_coil.drawing.card import draw_card
from careful_coil.drawing.scene import winding_now
from careful_coil.drawing.svg import svg_of
from careful_coil.walk.play import play_headless
from careful_coil.walk.tell import told

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
WINDING, CARD = "The winding as it was read", "The hookup card as it went with the motor"
WINDING_COLUMNS, NUMBER, DAY = 3, 1, 10  # of the drawing; of the job; letters of a day
HEAD = "Played by `python -m careful_coil.walk.lessons`: what *Next* asked, and what the bench answered."


def lesson(name: str) -> dict[str, str]:
    """Return the page of a motor of the cast and its pictures, by the names of their files."""
    title, learn = MOTORS[name]
    document = cast_motor(name)
    played, world = play_headless(document, SEED, Settings())
    walked, judged = told(document, SEED, played, world), played.judged
    pictures = dict(_pictures(name, judged, played.entries[0].at[:DAY])) if judged else {}
    shown = {station: picture for picture, (station, _) in pictures.items()}
    steps = _steps(walked, shown)
    lines = [f"# {title}", "", f"*To learn*: {learn}.", "", HEAD, "", *steps, *_end(walked)]
    page = "\n".join(lines).rstrip() + "\n"
    return {page_of(name): page, **{file: svg for file, (_, svg) in pictures.items()}}


def _pictures(name: str, judged: Judgement, day: str) -> Iterator[tuple[str, tuple[str, str]]]:
    """Yield each picture's file with the station it belongs to and its text: the winding, the hookup card."""
    if winding_now(judged).shapes:
        drawn = winding_now(judged, WINDING_COLUMNS)
        yield f"learn-{name}-winding.svg", ("leads", svg_of(drawn, title=WINDING))
    card = draw_card(NUMBER, judged, day)
    yield f"learn-{name}-card.svg", ("connect", svg_of(card, title=CARD))


def _steps(walked: WalkDocument, pictures: Mapping[str, str]) -> Iterator[str]:
    """Yield a heading where the station changes, a line for each step, a picture where a station is left last."""
    station = ""
    last = {step.station: k for k, step in enumerate(walked.steps)}
    for k, step in enumerate(walked.steps):
        if step.station != station:
            station = step.station
            yield from ("", f"## {_title(station)}", "")
        yield f"{k + 1}. **{step.title}**: {_answer(step)}"
        if last[station] == k and station in pictures:
            words = WINDING if station == "leads" else CARD
            yield from ("", f"![{words}]({pictures[station]})")


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


def _end(walked: WalkDocument) -> Iterator[str]:
    yield from ("", "## The end", "")
    kicks = f", {walked.kicks} kicks" if walked.kicks else ""
    yield (
        f"Signed after {len(walked.steps)} steps: {walked.readings} readings of leads{kicks}, "
        f"about {walked.minutes:.0f} minutes of work."
        if walked.end == "released"
        else f"It ended {walked.end}."
    )


def page_of(name: str) -> str:
    """Return the name of a lesson's page."""
    return f"learn-{name}.md"


def write() -> None:
    """Write every page."""
    for name in MOTORS:
        for file, text in lesson(name).items():
            (FOLDER / file).write_text(text, encoding="utf-8")


if __name__ == "__main__":
    write()
