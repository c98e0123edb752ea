"""The plate's amps against the winding's ohms: what would be lost in copper, of what is taken in."""

import math

from careful_coil.core.connect.coil_ohms import coil_ohms
from careful_coil.core.connect.plans import Plate, plan
from careful_coil.core.errors import CoilError
from careful_coil.core.identify import Identification, Naming
from careful_coil.core.job import Finding, Job
from careful_coil.core.settings import Settings

FROM_W = 740.0  # three-phase, about 0.75 kW: smaller ones lose more
USUAL_PF = 0.85  # where the plate does not say
THREE = 3


def copper_share(line_ohm: float, amp: float, volt: float, power_factor: float) -> float:
    """Return the copper loss of a three-phase winding in per cent of what it takes in.

    100·(3/2)·I²·R_line/(√3·V·I·pf): I in A, V line to line, R_line in Ω between two lines (twice a wye's
    phase, two thirds of a delta's). Source: IEEE 112 (stator I²R loss from line ohms).
    """
    return 100.0 * 1.5 * amp * amp * line_ohm / (math.sqrt(3) * volt * amp * power_factor)


def plate_ohm_findings(
    job: Job, found: Identification | None, naming: Naming, settings: Settings
) -> list[Finding]:
    """Return whether ohms and plate can belong together; nothing where too little is known."""
    plate = job.plate
    if (
        found is None
        or naming.arrangement is None
        or not naming.known
        or naming.arrangement.phases != THREE
        or not (plate.volts and plate.amps and plate.hertz and (plate.power_w or 0) >= FROM_W)
    ):
        return []
    ohms = coil_ohms(found, naming)
    volt, amp = plate.volts[-1][1], plate.amps[-1]
    if ohms is None or len(plate.amps) != len(plate.volts):
        return []
    try:
        wanted = plan(naming.arrangement.slug, Plate(plate.volts, plate.hertz), volt, plate.hertz)
        lines = [x for x in wanted.line_ohm(ohms).values() if math.isfinite(x)]
    except CoilError:
        return []
    if not lines:
        return []
    pf = plate.power_factor or USUAL_PF
    share = copper_share(sum(lines) / len(lines), amp, volt, pf)
    low, high = settings.copper_low, settings.copper_high
    if low.value <= share <= high.value:
        return []
    little = share < low.value
    limit = low if little else high
    return [
        Finding(
            code="plate-ohms",
            verdict="watch",
            subject="Ohms and plate do not belong together",
            why=f"At {amp:g} A and {volt:g} V {share:.2g} % would be lost in copper; {low.value:g} to "
            f"{high.value:g} % is usual. Unit of the ohms, test leads not nulled, or another motor's plate?",
            station="insulation",
            figure=share,
            limit=limit.value,
            unit="%",
            source=limit.source,
        )
    ]
