"""A tachometer's readings: rpm to hertz and back by poles; what several readings say together."""

from collections.abc import Sequence
from dataclasses import dataclass

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.winding.speed import poles_of

STEADY = 0.01  # of the mean: wider apart and the mark was missed, or the load moves


@dataclass(frozen=True, slots=True, kw_only=True)
class Speeds:
    """Several readings in rev/min, and what they mean at a frequency; slip of 1."""

    least: float
    mean: float
    most: float
    poles: int | None = None
    sync_rpm: float | None = None
    slip: float | None = None
    hertz: float | None = None  # that this speed would be synchronous at, for `poles`

    @property
    def steady(self) -> bool:
        """Whether the readings agree."""
        return self.most - self.least <= STEADY * self.mean


def speeds_of(rpm: Sequence[float], hertz: float | None, poles: int | None = None) -> Speeds:
    """Return what tachometer readings say; `poles` are told by the speed where not given.

    n_sync = 120·f/poles (IEC 60034-1). Raises: ValueOutOfRange for no reading, one below nothing, an
    odd number of poles, or a speed no number of poles gives.
    """
    if not rpm or min(rpm) <= 0:
        raise ValueOutOfRange("no speed" if not rpm else f"{min(rpm):g} rpm", "a speed above 0")
    mean = sum(rpm) / len(rpm)
    least, most = min(rpm), max(rpm)
    if hertz is None:
        return Speeds(least=least, mean=mean, most=most)
    count = poles_of(hertz, mean) if poles is None else poles
    sync = sync_rpm(hertz, count)
    slip = 1.0 - mean / sync
    return Speeds(
        least=least,
        mean=mean,
        most=most,
        poles=count,
        sync_rpm=sync,
        slip=slip,
        hertz=hertz_of(mean, count),
    )


def sync_rpm(hertz: float, poles: int) -> float:
    """Return 120·f/poles in rev/min. Raises: ValueOutOfRange for an odd number of poles."""
    if poles < 2 or poles % 2:
        raise ValueOutOfRange(f"{poles} poles", "an even number of poles (poles, not pairs)")
    return 120.0 * hertz / poles


def hertz_of(rpm: float, poles: int) -> float:
    """Return poles·n/120, the frequency at which a speed is synchronous, in Hz.

    Raises: ValueOutOfRange for a speed of nothing or an odd number of poles.
    """
    if rpm <= 0:
        raise ValueOutOfRange(f"{rpm:g} rpm", "a speed above 0")
    return rpm / sync_rpm(1.0, poles)


def speed_words(found: Speeds, plate_poles: int | None = None) -> tuple[str, ...]:
    """Return readings in words, with the poles and pole-pairs trap where it gapes."""
    spread = f"{found.least:g} to {found.most:g}, mean {found.mean:.0f} rev/min"
    words = [spread if found.most > found.least else f"{found.mean:g} rev/min"]
    if not found.steady:
        words.append("The readings wander: is the mark in the beam, is the load steady?")
    if found.poles and found.sync_rpm and found.slip is not None:
        words.append(
            f"{found.poles} poles ({found.poles // 2} pairs): {found.sync_rpm:g} rev/min less "
            f"{100 * found.slip:.1f} % slip; without slip it would be {found.hertz:.2f} Hz"
        )
        if found.slip < 0:
            words.append("Faster than synchronous: driven, on a drive, or the poles are wrong.")
        if plate_poles and found.poles == 2 * plate_poles:
            words.append(
                f"The plate's {plate_poles} would be pole pairs: f = pairs·n/60, not poles·n/60."
            )
    return tuple(words)
