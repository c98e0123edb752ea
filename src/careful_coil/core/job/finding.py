"""One finding: what a rule concluded, with its figure, limit, reason and source."""

from dataclasses import dataclass
from typing import Literal

Verdict = Literal["good", "note", "watch", "hold", "unproven"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Finding:
    """A verdict on one subject. `gate` says whether it must be good before the motor can go;
    `waivable` whether a second person may set it aside."""

    code: str
    verdict: Verdict
    subject: str
    why: str
    station: str
    figure: float | None = None
    limit: float | None = None
    unit: str = ""
    source: str = ""
    gate: bool = False
    waivable: bool = True
    part: str = (
        ""  # of the motor: winding, lead:A, device:S1; the ledger names it by the code where empty
    )
