"""What is typed of the meter itself: the ohms its leads add."""

from careful_coil.core.errors import BadValue
from careful_coil.core.job.entries import MeterUsed
from careful_coil.core.readings import LEAD_OHM_HIGHEST, Meter, ohm_value

WANTED = f"ohms of the test leads, 0 to {LEAD_OHM_HIGHEST:g}: 0.2, or 0 when they are nulled"


def leads_clipped(text: str, meter: Meter) -> MeterUsed:
    """Return the meter with what its leads read clipped together. Raises: BadValue, AmbiguousValue."""
    if text.strip().lower() in ("nulled", "null", "zero"):
        text = "0"
    ohm = ohm_value(text.strip()).value
    if not 0 <= ohm <= LEAD_OHM_HIGHEST:
        raise BadValue(text, WANTED, "More is a bad clip: clean it, clip them together again.")
    return MeterUsed(
        accuracy_percent=meter.accuracy_percent,
        resolution_ohm=meter.resolution_ohm,
        open_above_ohm=meter.open_above_ohm,
        lead_ohm=ohm,
    )
