"""What nobody said of a hookup, taken as usual: what cannot hurt first, the other once a run has shown it."""

from dataclasses import replace
from statistics import mean

from careful_coil.core.connect.plans import HIGHEST, LOWEST, Wish
from careful_coil.core.errors import CannotConnect
from careful_coil.core.job import Job

FASTEST = "high"
WYE_FIRST = (
    "Wye or delta inside is not known: joined as wye, which wrong gives 58 % of the volts, never 173 %. "
    "Idle amps in their band prove it; a third of that or less: join it as delta."
)
FASTEST_FIRST = "Which speed it is wanted for nobody said: joined for the fastest; say another."


HIGHEST_FIRST = (
    "The plate's one rating is taken for the highest connection: wrong, its coils get half their volts, never "
    "twice. Idle amps in their band prove it; a third of that or less: the lowest."
)
RAN_LOW = "It ran on so joined with a third of its idle amps or less: it is joined for fewer volts."
LOW_SHARE = 0.16  # of plate amps, without load, three-phase: no motor idles so low at its own volts
NEAR_RATED = 0.85  # of the supply's volts: a step from here on tells


def ran_low(job: Job) -> bool:
    """Whether it ran at the supply's volts with idle amps that only half its volts or less explain."""
    supply, amps = job.supply, job.plate.amps
    if supply is None or not amps or supply.phases != 3:
        return False
    return any(
        min(s.amp) > 0 and max(s.amp) < LOW_SHARE * min(amps)
        for sheet in job.trials.sheets
        if sheet.begun.load == "none"
        for s in sheet.steps
        if len(s.amp) == 3 and s.turns == "smooth" and mean(s.volt) >= NEAR_RATED * supply.volt
    )


def as_usual(asked: Wish, error: CannotConnect, low: bool = False) -> tuple[Wish, str]:
    """Return a wish with what nobody said taken as usual, and that in words. Raises: the error again.

    `low`: it was joined so and drew too little.
    """
    if error.asks == "family" and "delta" in error.choices and low and not asked.family:
        return replace(asked, family="delta"), RAN_LOW
    if error.asks == "rated" and not asked.one:
        if low:
            return replace(asked, one=LOWEST), RAN_LOW
        return replace(asked, one=HIGHEST), HIGHEST_FIRST
    if error.asks == "family" and asked.start == "wye-delta":
        raise CannotConnect(
            "A wye-delta start runs in delta: at the plate's volts only where its internal connection is "
            f"delta. {error}",
            asks="family",
            choices=error.choices,
        )
    if error.asks == "family" and "wye" in error.choices and not asked.family:
        return replace(asked, family="wye"), WYE_FIRST
    if error.asks == "speed" and error.choices and not asked.speed:
        speed = FASTEST if FASTEST in error.choices else error.choices[0]
        return replace(asked, speed=speed), FASTEST_FIRST
    raise error
