"""One step of the Next card: the code of what is to be done, where, and what it asks."""

from dataclasses import dataclass, field

from careful_coil.core.ledger.asks.question import Question
from careful_coil.core.stations import Station


@dataclass(frozen=True, slots=True, kw_only=True)
class NextStep:
    """`act` tells the window what Enter does; `ends`, `also` and `sense` are what the probes are on.

    `also` is clipped together with the second end; `lines` and `joints` are the hookup of a run. `asks` is
    what it wants to know, by the fields it fills.
    """

    code: str
    title: str
    why: str
    station: Station
    act: str = "go"  # or the kind of a probe
    ends: tuple[str, ...] = ()
    sense: tuple[str, ...] = ()
    also: tuple[str, ...] = ()
    lines: tuple[tuple[str, ...], ...] = ()
    joints: tuple[tuple[str, ...], ...] = ()
    focus: str = ""  # the field Enter puts the cursor in
    words: str = field(default="")  # what the key says
    volt: float = 0.0  # at which a run is read
    state: str = ""  # in which it is read: 10 min
    asks: tuple[Question, ...] = ()
