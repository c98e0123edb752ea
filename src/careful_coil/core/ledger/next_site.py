"""What comes next where the motor stands: the field sheet's lines in their order."""

from collections.abc import Iterator, Sequence

from careful_coil.core.connect.beyond import Line
from careful_coil.core.connect.work import Connecting
from careful_coil.core.job import Job
from careful_coil.core.ledger.site import LATER, field_sheet
from careful_coil.core.ledger.step import NextStep


def site_steps(job: Job, state: Connecting, installer: Sequence[Line]) -> Iterator[NextStep]:
    """Yield the lines not read yet; none for a motor that is in the shop."""
    if not job.on_site:
        return
    for number, line in enumerate(field_sheet(job, state, installer), 1):
        if not line.done and line.name != LATER:
            yield NextStep(
                code=line.name,
                title=f"{number}  {line.title}",
                why=line.how,
                station="release",
                focus=line.name,
            )
