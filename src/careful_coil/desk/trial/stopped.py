"""After the run has stopped: the rise by resistance of the line pair that Connect has read cold."""

import math

from careful_coil.core.ledger import Judgement
from careful_coil.desk.shared.heat_run import RisePart


class StoppedPart(RisePart):
    """The part of the ohms while it cools."""

    name, title = "stopped", "After stopping"
    remark = "rise by resistance, L1 to L2, within seconds of standing still"

    def cold(self, judged: Judgement) -> str:
        """Return the cold ohms of the first line pair."""
        read = next(
            (v for v in (judged.facts.connecting.read or {}).values() if math.isfinite(v)), None
        )
        return f"{read:g}" if read is not None else ""
