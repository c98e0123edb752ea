"""The meter itself: which it is, when it was checked, the ohms its leads add."""

from collections.abc import Sequence

from careful_coil.core.errors import BadValue
from careful_coil.core.job.entries import AnyBody, MeterUsed
from careful_coil.core.job.fold import Job
from careful_coil.core.readings import LEAD_OHM_HIGHEST, Meter, ohm_value

MEASURED = ("reading", "winding-ohm", "line-ohm", "insulation", "earth-bond")  # by a meter
WANTED = f"ohms of the test leads, 0 to {LEAD_OHM_HIGHEST:g}: 0.2, or 0 when they are nulled"


def meter_line(used: MeterUsed | None) -> str:
    """Return which meter it was, when it was checked, what its leads add; empty where none is logged."""
    if used is None:
        return ""
    name = used.name or "a meter that nobody named"
    checked = f"checked {used.checked}" if used.checked else "nobody says when it was checked"
    leads = "test leads not nulled"
    if used.lead_ohm is not None:
        leads = (
            f"test leads {used.lead_ohm:g} Ω, taken off" if used.lead_ohm else "test leads nulled"
        )
    return f"{name}, {checked}; {leads}"


def meter_before(
    job: Job, meters: Sequence[tuple[str, str]], bodies: Sequence[AnyBody]
) -> tuple[MeterUsed, ...]:
    """Return the shop's meter to log before what is measured, where it is not the one logged last.

    `meters` each with the day it was checked, the daily one first; an instrument that is one of them is it.
    """
    if not meters or not any(b.kind in MEASURED for b in bodies):
        return ()
    names = {str(getattr(b, "instrument", "")) for b in bodies}
    name, checked = next((m for m in meters if m[0] in names), meters[0])
    used = job.meter_used
    if used is not None and (used.name, used.checked) == (name, checked):
        return ()
    return (_logged(job.meter, job.meter.lead_ohm, name, checked),)


def _logged(meter: Meter, lead_ohm: float | None, name: str, checked: str) -> MeterUsed:
    return MeterUsed(
        accuracy_percent=meter.accuracy_percent,
        resolution_ohm=meter.resolution_ohm,
        open_above_ohm=meter.open_above_ohm,
        lead_ohm=lead_ohm,
        name=name,
        checked=checked,
    )


def leads_clipped(text: str, job: Job) -> MeterUsed:
    """Return the meter with what its leads read clipped together. Raises: BadValue, AmbiguousValue."""
    if text.strip().lower() in ("nulled", "null", "zero"):
        text = "0"
    ohm = ohm_value(text.strip()).value
    if not 0 <= ohm <= LEAD_OHM_HIGHEST:
        raise BadValue(text, WANTED, "More is a bad clip: clean it, clip them together again.")
    used = job.meter_used
    name, checked = (used.name, used.checked) if used is not None else ("", "")
    return _logged(job.meter, ohm, name, checked)
