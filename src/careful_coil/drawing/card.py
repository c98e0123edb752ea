"""The hookup card as a drawing: what goes on the half sheet, the tag and the screen alike."""

from collections.abc import Sequence

from careful_coil.core.connect.rotation import turns_words
from careful_coil.core.job import Job
from careful_coil.core.ledger import Judgement
from careful_coil.core.values import show_ohm
from careful_coil.drawing.scene import hookup_drawing
from careful_coil.drawing.shapes import Drawing, Shape, Stroke, Words, moved, scaled

WIDE, HIGH = 210.0, 148.5  # half of A4, across
TAG_WIDE, TAG_HIGH = 105.0, 74.0  # a sixteenth of A3, across
MARGIN = 9.0
ROOM = 100.0  # for the drawing, left
LINE = 5.4


def card_lines(judged: Judgement) -> list[tuple[str, str]]:
    """Return what the card says beside its drawing: what it is, the words."""
    job, state = judged.job, judged.facts.connecting
    if state.plan is None:
        return [("Hookup", state.why)]
    made = [frozenset(j) for j in state.made]
    lines = [("Connection", judged.facts.connection), ("Supply", _supply(job))]
    starter = state.starter
    joints = [j for j in (starter.boxed if starter else state.plan.joints) if len(j) > 1]
    for k, joint in enumerate(joints):
        sign = "" if any(set(joint) <= j for j in made) else "  (not made)"
        lines.append(("Joints" if k == 0 else "", f"{state.said(joint)}{sign}"))
    for k, (contactors, outs) in enumerate(starter.outlets if starter else ()):
        apart = "; ".join(state.marks(out, "–") for out in outs)
        lines.append(("Starter" if k == 0 else "", f"{contactors}: {apart}"))
    alone = [n for n in state.plan.network().leads if not any(n in j for j in joints)]
    if alone and starter is None:
        lines.append(("On its own", f"{state.said(alone, ', ')}, each insulated"))
    for k, (pair, ohm) in enumerate((state.expected or {}).items()):
        lines.append(("Must read" if k == 0 else "", f"{pair.replace('-', ' to ')} {_ohm(ohm)}"))
    lines.append(("Turns", turns_words(job, state.view)))
    return lines


def _ohm(ohm: float) -> str:
    return "open" if ohm == float("inf") else show_ohm(ohm)


def _supply(job: Job) -> str:
    supply = job.supply
    if supply is None:
        return "not named"
    sure = supply.measured or job.joined.read is not None
    return (
        f"{supply.volt:g} V, {supply.hertz:g} Hz, {supply.phases}-phase, "
        f"{'measured' if sure else 'assumed'}"
    )


def proved(judged: Judgement) -> str:
    """Return in words what has been proved of the hookup: on the card nothing looks surer than it is."""
    state, run = judged.facts.connecting, judged.job.joined.run
    if not state.joined:
        return "NOT FINISHED: do not connect"
    told = ["joints made"]
    told.append("ohms read" if not state.unread else "ohms not read")
    good = next((f for f in judged.findings if f.code == "low-run"), None)
    told.append(
        "reduced-voltage run good"
        if run and good and good.verdict == "good"
        else "no good reduced-voltage run yet"
    )
    return ", ".join(told)


def draw_card(number: int, judged: Judgement, day: str) -> Drawing:
    """Return the card, half an A4 across; `day` is printed as it is."""
    job, state = judged.job, judged.facts.connecting
    shapes: list[Shape] = [
        Words(
            at=(MARGIN, 11.0),
            text=f"{number}  {job.name}",
            size=6.2,
            anchor=-1,
            token="ink",
            bold=True,
        ),
        Words(at=(WIDE - MARGIN, 11.0), text=day, size=3.6, anchor=1),
        Stroke(points=((MARGIN, 17.0), (WIDE - MARGIN, 17.0)), token="hairline"),
    ]
    drawing = hookup_drawing(judged, state.drawn) if state.drawn else None
    if drawing is not None:
        shapes += _fitted(drawing, MARGIN, 22.0, ROOM, HIGH - 42.0)
    shapes += _rows(card_lines(judged), MARGIN + ROOM + 6.0, 24.0, WIDE - MARGIN, HIGH - 26.0)
    shapes.append(
        Stroke(points=((MARGIN, HIGH - 17.0), (WIDE - MARGIN, HIGH - 17.0)), token="hairline")
    )
    foot = f"{proved(judged)}. Local code and the maker's diagram win."
    shapes.append(Words(at=(MARGIN, HIGH - 11.0), text=foot, size=3.6, anchor=-1, token="ink"))
    return Drawing(tuple(shapes), WIDE, HIGH)


def draw_tag(number: int, judged: Judgement, day: str) -> Drawing:
    """Return the same as a tag to hang in the lead box: volts large, joints, direction."""
    job, state = judged.job, judged.facts.connecting
    volt = f"{job.supply.volt:g} V" if job.supply else "no supply"
    head = volt if state.joined else "NOT FINISHED"
    shapes: list[Shape] = [
        Stroke(points=_frame(TAG_WIDE, TAG_HIGH), token="note"),
        Words(
            at=(7.0, 11.0),
            text=head,
            size=9.0 if state.joined else 7.0,
            anchor=-1,
            token="ink",
            bold=True,
        ),
        Words(at=(TAG_WIDE - 7.0, 8.0), text=f"{number}  {day}", size=3.2, anchor=1),
        Words(at=(TAG_WIDE - 7.0, 16.0), text=job.name[:34], size=3.2, anchor=1),
    ]
    rows = [line for line in card_lines(judged) if line[0] not in ("Supply",)]
    shapes += _rows(rows, 7.0, 21.0, TAG_WIDE - 7.0, TAG_HIGH - 4.0, small=True)
    return Drawing(tuple(shapes), TAG_WIDE, TAG_HIGH)


def _frame(wide: float, high: float) -> tuple[tuple[float, float], ...]:
    return ((1.0, 1.0), (wide - 1, 1.0), (wide - 1, high - 1), (1.0, high - 1), (1.0, 1.0))


def _rows(
    lines: Sequence[tuple[str, str]],
    left: float,
    top: float,
    right: float,
    bottom: float,
    small: bool = False,
) -> list[Shape]:
    """Return label and words a line, closer where there are many; long words are broken."""
    size, label = (3.0, 23.0) if small else (3.5, 25.0)
    told: list[tuple[str, str]] = []
    room = int((right - left - label) / (0.62 * size))
    for name, words in lines:
        for k, part in enumerate(_broken(words, room)):
            told.append((name if k == 0 else "", part))
    step = min(LINE if not small else 4.2, (bottom - top) / max(len(told), 1))
    found: list[Shape] = []
    for k, (name, words) in enumerate(told):
        y = top + step * k
        if name:
            found.append(Words(at=(left, y), text=name, size=size, anchor=-1))
        found.append(Words(at=(left + label, y), text=words, size=size, anchor=-1, token="ink"))
    return found


def _broken(words: str, room: int) -> list[str]:
    lines = [""]
    for word in words.split():
        if lines[-1] and len(lines[-1]) + 1 + len(word) > room:
            lines.append(word)
        else:
            lines[-1] = f"{lines[-1]} {word}".strip()
    return lines


def _fitted(
    drawing: Drawing, left: float, top: float, wide: float, high: float
) -> tuple[Shape, ...]:
    """Return a drawing's shapes where they fit, centred; never drawn larger than it is."""
    share = min(1.0, wide / drawing.width, high / drawing.height)
    if share < 1.0:
        drawing = scaled(drawing, share)
    return moved(drawing.shapes, left + (wide - drawing.width) / 2, top)
