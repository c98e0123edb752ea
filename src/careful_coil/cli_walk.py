"""The verb `walk`: a hidden motor played by what Next says and nothing else."""

from collections.abc import Iterator

from careful_coil.core.settings import Settings
from careful_coil.documents.base import parse_json
from careful_coil.documents.walk import WalkDocument
from careful_coil.walk.play import Walker, play_headless
from careful_coil.walk.tell import walk

MOST_SHOWN = 6


def walked(
    text: str, seed: int, settings: Settings, walker: Walker | None
) -> tuple[WalkDocument, str, bool]:
    """Return a motor's walk, in words too, and whether it ended as it should. Raises: BadDocument."""
    document = walk(parse_json(text), seed, settings, walker or play_headless)
    return document, "\n".join(walk_words(document)), document.right


def walk_words(w: WalkDocument) -> Iterator[str]:
    """Yield a walk in a few lines."""
    at = f" at {w.at}" if w.at else ""
    yield f"{w.name}: {w.end}{at}, {'right' if w.right else 'not right'}"
    keys = "" if w.keys is None else f", {w.keys} keys"
    yield (
        f"  {len(w.steps)} steps, {w.readings} readings, {w.kicks} kicks, {w.entries} entries, "
        f"{w.minutes:g} min{keys}"
    )
    for title, lines in (
        ("skipped", [f"{s.code}: {s.why}" for s in w.skips]),
        ("false holds", w.false_holds),
        ("false watches", w.false_watches),
        ("not named", w.unnamed),
        ("asked twice", w.asked_twice),
        ("out of order", w.out_of_order),
        ("harm", [h.what for h in w.harm]),
    ):
        if lines:
            more = f" … {len(lines)} in all" if len(lines) > MOST_SHOWN else ""
            yield f"  {title}: {'; '.join(lines[:MOST_SHOWN])}{more}"
