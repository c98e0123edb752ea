"""What cannot be true on a nameplate, with the figure that would be expected.

Bounds are wide: they find misreadings, not bad motors. Speeds: IEC 60034-1; volt-amperes of two
connections of one winding are equal; efficiency times power factor of common motors.
"""

import math
from collections.abc import Iterator

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.job import Finding
from careful_coil.core.job.plate import Nameplate
from careful_coil.core.machine.power import locked_rotor_amps, volt_amperes
from careful_coil.core.units import HORSEPOWER_W
from careful_coil.core.values import show_figure
from careful_coil.core.winding.speed import poles_of, slip_of

CONNECTIONS_APART = 0.05  # of volt-amperes
OUTPUT_OVER_VA = {3: (0.45, 0.93), 1: (0.25, 0.85)}  # efficiency times power factor
THREE, SMALL_W = 3, 370.0  # W: smaller ones have any efficiency
PLAUSIBLE = (0.6, 0.9)  # of VA: what the mistaken plate must give to be named
SLIP_MOST = 0.26
LOCKED_OVER_FULL = (3.0, 12.0)


def plate_checks(plate: Nameplate) -> list[Finding]:
    """Return a watch for each thing on the plate that does not fit the rest."""
    rules = (_speed, _poles, _counts, _connections, _swapped, _output, _factor, _code, _further)
    return [f for rule in rules for f in rule(plate)]


def plate_told(plate: Nameplate) -> tuple[str, ...]:
    """Return what the figures read so far imply, in words: poles, slip, kVA, efficiency × PF."""
    told: list[str] = []
    for hertz, rpm in dict.fromkeys((r.hertz or plate.hertz, r.rpm) for r in plate.ratings) or (
        (plate.hertz, plate.rpm),
    ):
        if hertz and rpm and rpm <= 60 * hertz:
            slip = 100 * slip_of(hertz, rpm)
            told.append(f"{poles_of(hertz, rpm)} poles, slip {slip:.1f} % at {hertz:g} Hz")
    if plate.volts and plate.amps and plate.phases and len(plate.volts) == len(plate.amps):
        va = volt_amperes(plate.volts[0][0], plate.amps[0], plate.phases)
        told.append(f"{show_figure(va / 1000)} kVA")
        if plate.output_w:
            told.append(f"efficiency × power factor {plate.output_w / va:.2f}")
        elif plate.power_w:
            told.append(f"power factor {min(plate.power_w / va, 9.99):.2f}, by the power taken in")
        if plate.code and plate.output_w:
            hp = plate.output_w / float(HORSEPOWER_W)
            low, high = locked_rotor_amps(plate.code, hp, plate.volts[0][0], plate.phases)
            upper = f" to {high:.0f}" if math.isfinite(high) else " or more"
            told.append(f"{low:.0f}{upper} A locked at {plate.volts[0][0]:g} V")
    return tuple(told)


def _watch(code: str, subject: str, why: str, source: str = "") -> Finding:
    return Finding(
        code=f"plate-{code}",
        verdict="watch",
        subject=subject,
        why=why,
        station="intake",
        source=source,
    )


COMMUTATOR_RPM = 4500.0  # single-phase, so fast: no misread induction motor, at 50 or 60 Hz


def _speed(plate: Nameplate) -> Iterator[Finding]:
    if not plate.rpm or not plate.hertz:
        return
    try:
        poles = poles_of(plate.hertz, plate.rpm)
    except ValueOutOfRange:
        if plate.phases == 1 and plate.rpm > COMMUTATOR_RPM:
            return  # a commutator motor's speed: it tells the kind, nothing is wrong with it
        yield _watch(
            "rpm",
            f"{plate.rpm:g} rpm is faster than two poles at {plate.hertz:g} Hz",
            f"At most {60 * plate.hertz:g} rpm without a commutator or a drive. Read both again.",
            "IEC 60034-1",
        )
        return
    slip = slip_of(plate.hertz, plate.rpm)
    if slip > SLIP_MOST:
        yield _watch(
            "slip",
            f"{plate.rpm:g} rpm is {100 * slip:.0f} % under {poles}-pole speed",
            f"{120 * plate.hertz / poles:g} rpm less a few per cent is usual; tapped fans reach 25 %.",
        )


def _poles(plate: Nameplate) -> Iterator[Finding]:
    if not (plate.poles and plate.rpm and plate.hertz) or plate.rpm > 60 * plate.hertz:
        return
    told = poles_of(plate.hertz, plate.rpm)
    if told != plate.poles:
        pairs = " The plate may mean pole pairs." if told == 2 * plate.poles else ""
        yield _watch(
            "poles",
            f"{plate.poles} poles do not make {plate.rpm:g} rpm at {plate.hertz:g} Hz",
            f"{told} poles are told by the speed.{pairs}",
        )


AS_CONNECTIONS = (
    0.03  # of 1: amps so near to 2 or √3 apart are of two connections, not of two speeds
)


def _counts(plate: Nameplate) -> Iterator[Finding]:
    ratio = max(plate.amps, default=1.0) / min(plate.amps, default=1.0)
    connections = any(abs(ratio / r - 1) <= AS_CONNECTIONS for r in (2.0, 3**0.5))
    speeds = len(plate.volts) == 1 and len(plate.amps) > 1 and not connections  # one for each speed
    if plate.volts and plate.amps and len(plate.volts) != len(plate.amps) and not speeds:
        yield _watch(
            "amps",
            f"{len(plate.volts)} voltage(s), {len(plate.amps)} figure(s) of amps",
            "Each voltage has its own amps: read both again.",
        )


def _connections(plate: Nameplate) -> Iterator[Finding]:
    if len(plate.volts) < 2 or len(plate.volts) != len(plate.amps):
        return
    # the larger amps of a range belong to the lower volts, one figure to any of them
    each = [v[0] * a for v, a in zip(plate.volts, plate.amps, strict=True)]
    most = [v[1] * a for v, a in zip(plate.volts, plate.amps, strict=True)]
    if min(max(each) / min(each), max(most) / min(most)) - 1 > CONNECTIONS_APART:
        first = each[0] / plate.volts[-1][0]
        yield _watch(
            "connections",
            "The two amps do not stand as the two volts",
            f"{plate.amps[0]:g} A at {plate.volts[0][0]:g} V makes {show_figure(first)} A at "
            f"{plate.volts[-1][0]:g} V; the plate says {plate.amps[-1]:g} A.",
        )


def _further(plate: Nameplate) -> Iterator[Finding]:
    for rating in plate.ratings:
        if rating.connection is None:
            yield _watch(
                "ratings",
                f"{rating.words()} belongs to no connection of this plate",
                "Volts per hertz stand as those of one connection. Read it again.",
                "E = 4.44·f·N·Φ: one connection has one flux",
            )


def _swapped(plate: Nameplate) -> Iterator[Finding]:
    """Yield volts that are those of another plate by the root of three: 400/690 read for 230/400."""
    if not (plate.output_w and plate.volts and plate.amps) or plate.phases != THREE:
        return
    if len(plate.volts) < 2 or plate.output_w < SMALL_W:
        return
    (first, _), (second, _) = plate.volts[0], plate.volts[-1]
    if abs(second / first / math.sqrt(3) - 1) > CONNECTIONS_APART or len(plate.amps) < 2:
        return
    if abs(first * plate.amps[0] / (second * plate.amps[-1]) - 1) > CONNECTIONS_APART:
        return  # the amps themselves are misread
    va = volt_amperes(first, plate.amps[0], THREE)
    share, (low, high) = plate.output_w / va, OUTPUT_OVER_VA[THREE]
    other = share * math.sqrt(3) if share < low else share / math.sqrt(3)
    if low <= share <= high or not PLAUSIBLE[0] <= other <= PLAUSIBLE[1]:
        return
    yield Finding(
        code="plate-volts",
        verdict="hold",
        subject="Volts and amps of two different plates",
        why=f"{plate.output_w:.0f} W of {va:.0f} VA cannot be; with volts √3 "
        f"{'lower' if share < low else 'higher'} it fits. 230/400 and 400/690 mistaken? Read it again.",
        station="intake",
        source="efficiency times power factor of common motors",
        gate=True,
        waivable=False,
    )


def _output(plate: Nameplate) -> Iterator[Finding]:
    if not (plate.power_w and plate.volts and plate.amps and plate.phases):
        return
    va = volt_amperes(plate.volts[0][0], plate.amps[0], plate.phases)
    low, high = OUTPUT_OVER_VA[plate.phases]
    share = plate.power_w / va
    if plate.power_side == "in":
        if share > 1.0 + CONNECTIONS_APART:
            yield _watch(
                "power",
                f"{plate.power_w:.0f} W taken in from {va:.0f} VA cannot be",
                f"At most {va:.0f} W go in. Read power, volts and amps again.",
            )
        return
    if share > high:
        ask = "" if plate.power_side else "Is the power taken in, not given out? Say in or out. "
        yield _watch(
            "power",
            f"{plate.power_w:.0f} W from {va:.0f} VA is too much to be true",
            f"{low * va:.0f} to {high * va:.0f} W would be usual. {ask}Else one figure is misread.",
        )
    elif share < low:
        expected = plate.power_w / (math.sqrt(low * high) * va / plate.amps[0])
        yield _watch(
            "amps-high",
            f"{plate.amps[0]:g} A is much for {plate.power_w:.0f} W",
            f"About {show_figure(expected)} A would be usual at {plate.volts[0][0]:g} V. "
            "Read power, volts and amps again.",
        )


def _factor(plate: Nameplate) -> Iterator[Finding]:
    if not (plate.power_factor and plate.output_w and plate.volts and plate.amps and plate.phases):
        return
    into = plate.power_factor * volt_amperes(plate.volts[0][0], plate.amps[0], plate.phases)
    if plate.output_w > 0.97 * into:
        yield _watch(
            "power-factor",
            f"More out than in: {plate.output_w:.0f} W of {into:.0f} W",
            "Power factor, volts, amps and power do not go together.",
        )


def _code(plate: Nameplate) -> Iterator[Finding]:
    if not (plate.code and plate.output_w and plate.volts and plate.amps and plate.phases):
        return
    hp = plate.output_w / float(HORSEPOWER_W)
    low, high = locked_rotor_amps(plate.code, hp, plate.volts[0][0], plate.phases)
    least, most = LOCKED_OVER_FULL
    if high < least * plate.amps[0] or low > most * plate.amps[0]:
        upper = f"{high:.0f}" if math.isfinite(high) else "more"
        yield _watch(
            "code",
            f"Code {plate.code} means {low:.0f} to {upper} A at standstill",
            f"Against {plate.amps[0]:g} A at full load; {least:g} to {most:g} times is usual.",
            "NEMA MG 1, 10.37.2",
        )
