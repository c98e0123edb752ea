"""`careful-coil/winding` version 1, out: the data of a winding, what is worked out, each coil; CSV of the coils."""

import csv
import io
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from careful_coil.core.ledger import Judgement
from careful_coil.core.rewind.rules import plate_of
from careful_coil.core.rewind.worked import work_out
from careful_coil.core.settings import Settings
from careful_coil.documents.base import Document

COLUMNS = ("coil", "phase", "group", "start", "finish", "way", "turns")


class WorkedFigure(BaseModel):
    """One figure that the record gives; `value` null while something is missing."""

    model_config = ConfigDict(frozen=True)
    name: str
    value: float | None
    unit: str
    usual_low: float | None = None
    usual_high: float | None = None
    wants: tuple[str, ...] = ()


class WoundCoil(BaseModel):
    """One coil: its slots from 1 on, `way` −1 where its current goes the other way."""

    model_config = ConfigDict(frozen=True)
    coil: int
    phase: str
    group: int
    start: int
    finish: int
    way: Literal[-1, 1]
    turns: float


class WindingDocument(Document):
    """The winding of one motor."""

    format: Literal["careful-coil/winding"] = "careful-coil/winding"
    version: Literal[1] = 1
    number: Annotated[int, Field(ge=0)]
    name: str
    data: dict[str, str]
    worked: tuple[WorkedFigure, ...]
    coils: tuple[WoundCoil, ...]


def winding_document(number: int, judged: Judgement, settings: Settings) -> WindingDocument:
    """Return the winding of a job as a document."""
    worked = work_out(judged.facts.winding, plate_of(judged.job), settings)
    return WindingDocument(
        number=number,
        name=judged.job.name,
        data=dict(judged.job.winding),
        worked=tuple(
            WorkedFigure(
                name=f.name,
                value=f.value,
                unit=f.unit,
                usual_low=f.low.value if f.low else None,
                usual_high=f.high.value if f.high else None,
                wants=f.wants if f.value is None else (),
            )
            for f in worked.figures
        ),
        coils=tuple(
            WoundCoil(
                coil=c.number,
                phase=c.phase,
                group=c.group,
                start=c.start,
                finish=c.finish,
                way=1 if c.sense > 0 else -1,
                turns=c.turns,
            )
            for c in (worked.layout.coils if worked.layout is not None else ())
        ),
    )


def coils_csv(document: WindingDocument) -> str:
    """Return the coils as CSV, one a line."""
    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\n")
    rows.writerow(COLUMNS)
    for c in document.coils:
        rows.writerow([getattr(c, name) if name != "turns" else f"{c.turns:g}" for name in COLUMNS])
    return out.getvalue()
