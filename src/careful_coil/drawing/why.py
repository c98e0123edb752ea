"""Drawings of why: each follows one figure, worked out by the core, in millimetres."""

import cmath
import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cache

from careful_coil.core.machine.heating import heating_rate
from careful_coil.core.winding.arrangements import ARRANGEMENTS
from careful_coil.core.winding.turning import run_shown
from careful_coil.drawing.curve import draw_test
from careful_coil.drawing.shapes import Area, Dot, Drawing, Point, Shape, Stroke, Words

WIDE, HIGH = 150.0, 52.0
COIL_VOLT = 133.0  # of a coil of a 230/460 V motor of nine leads, wye
BURNS = 1.15  # times its volts: a coil that will not last
POLES, HERTZ = 4, 50.0
STARTS_AT_C, BEARS_C, CHARS_C = 40.0, 155.0, 250.0
START_J = 60.0  # A/mm² of a start winding that stands
RUN_OHM, START_OHM = complex(3.0, 6.0), complex(8.0, 9.0)  # of an ordinary split motor, standing
SUPPLY_VOLT = 230.0
LOOK_PERCENT = 25.0  # of its volts, at most, in the reduced-voltage run
HUMS, WEAK = 0.1, 0.25  # of a circle: no turn worth the name; a weak one


@dataclass(frozen=True, slots=True, kw_only=True)
class Why:
    """What follows a slider: its name, from `low` to `high` times a `usual` figure, `draw` and `says` of it."""

    name: str
    unit: str
    usual: float
    low: float
    high: float
    draw: Callable[[float], Drawing]
    says: Callable[[float], str]

    def told(self, factor: float) -> str:
        """Return the figure as it stands beside the slider."""
        value = self.usual * factor
        return f"{value:.0f} {self.unit}" if value >= 20 else f"{value:.1f} {self.unit}"


def coil_volts(supply: float) -> tuple[float, float]:
    """Return the volts on each coil in series wye and in parallel wye. Source: √3 between lines and phases."""
    phase = supply / math.sqrt(3)
    return phase / 2, phase


def _bars(
    rows: Mapping[str, float], limit: float, unit: str, most: float, digits: int = 0
) -> Drawing:
    """Return a bar for each row with a line at the limit; what is over it is bad."""
    left, right = 44.0, WIDE - 22.0
    shapes: list[Shape] = []
    for k, (name, value) in enumerate(rows.items()):
        y = 12.0 + 16.0 * k
        end = left + (right - left) * min(value / most, 1.0)
        bad = value > limit * BURNS
        token = "hold" if bad else "good" if value > limit / BURNS else "watch"
        bar = ((left, y - 4.0), (end, y - 4.0), (end, y + 4.0), (left, y + 4.0))
        shapes += [
            Area(points=bar, token=token),
            Words(at=(left - 2.0, y), text=name, anchor=1, size=3.4, token="ink"),
            Words(
                at=(end + 2.0, y),
                text=f"{value:.{digits}f} {unit}",
                anchor=-1,
                size=3.4,
                token="ink",
                bold=True,
            ),
        ]
    x = left + (right - left) * limit / most
    shapes.append(Stroke(points=((x, 4.0), (x, 12.0 + 16.0 * len(rows) - 6.0)), dashed=True))
    shapes.append(
        Words(at=(x, 12.0 + 16.0 * len(rows) - 2.0), text=f"{limit:.0f} {unit}", size=3.1)
    )
    return Drawing(tuple(shapes), WIDE, max(HIGH, 12.0 + 16.0 * len(rows) + 2.0))


def draw_series_parallel(supply: float) -> Drawing:
    """Return the volts a coil gets both ways at a supply."""
    series, parallel = coil_volts(supply)
    return _bars(
        {"halves in series": series, "halves in parallel": parallel}, COIL_VOLT, "V", 290.0
    )


def says_series_parallel(supply: float) -> str:
    """Return which way is right."""
    series, parallel = coil_volts(supply)
    if abs(series / COIL_VOLT - 1) < BURNS - 1:
        return f"In series a coil gets {series:.0f} V, its own; in parallel {parallel:.0f} V: it burns."
    if abs(parallel / COIL_VOLT - 1) < BURNS - 1:
        return f"In parallel a coil gets {parallel:.0f} V, its own; in series {series:.0f} V: it stalls."
    return f"Neither: {series:.0f} V in series, {parallel:.0f} V in parallel; a coil wants {COIL_VOLT:.0f} V."


def currents(microfarad: float) -> tuple[complex, complex]:
    """Return the amps of run and start winding, standing, as phasors; 0 µF: no capacitor."""
    reactance = -1 / (2 * math.pi * HERTZ * microfarad * 1e-6) if microfarad > 0 else 0.0
    return SUPPLY_VOLT / RUN_OHM, SUPPLY_VOLT / (START_OHM + complex(0, reactance))


def turning(microfarad: float) -> float:
    """Return how round the field turns: 1 a circle, 0 a line; by the angle between the amps and their sizes."""
    run, start = currents(microfarad)
    sizes = sorted((abs(run), abs(start)))
    return sizes[0] / sizes[1] * abs(math.sin(cmath.phase(start) - cmath.phase(run)))


def draw_capacitor(microfarad: float) -> Drawing:
    """Return both amps as arrows and the path of the field they make."""
    run, start = currents(microfarad)
    most = max(abs(run), abs(start))
    shapes: list[Shape] = []
    middle = (34.0, 26.0)
    for amp, name, token in ((run, "run", "ink"), (start, "start", "copper")):
        tip = (middle[0] + 20.0 * amp.real / most, middle[1] - 20.0 * amp.imag / most)
        shapes += [
            Stroke(points=(middle, tip), token=token, width=1.0),
            Dot(at=tip, radius=1.2, token=token),
            Words(at=(tip[0] + 5.0, tip[1] - 2.0), text=name, size=3.2, token=token, bold=True),
        ]
    centre = (108.0, 26.0)
    path: list[Point] = []
    for k in range(73):
        turn = cmath.exp(1j * 2 * math.pi * k / 72)
        path.append(
            (
                centre[0] + 20.0 * (run * turn).real / most,
                centre[1] - 20.0 * (start * turn).real / most,
            )
        )
    shapes += [
        Stroke(points=tuple(path), token="copper", width=1.0),
        Words(at=(34.0, 50.0), text="amps, as they follow each other", size=3.1),
        Words(at=(centre[0], 50.0), text="the path of the field", size=3.1),
    ]
    return Drawing(tuple(shapes), WIDE, HIGH)


def says_capacitor(microfarad: float) -> str:
    """Return how far the amps stand apart, and what that does."""
    run, start = currents(microfarad)
    apart = math.degrees(cmath.phase(start) - cmath.phase(run))
    share = turning(microfarad)
    how = "hums and stands" if share < HUMS else "starts weakly" if share < WEAK else "starts well"
    return f"The amps are {abs(apart):.0f}° apart, the field {100 * share:.0f} % of a circle: it {how}."


def start_celsius(seconds: float) -> float:
    """Return the °C of a start winding that stands under volts so long, no heat carried away."""
    return STARTS_AT_C + heating_rate(START_J) * seconds


def draw_start_winding(seconds: float) -> Drawing:
    """Return how hot it is, against what its insulation bears."""
    return _bars({"start winding": start_celsius(seconds)}, BEARS_C, "°C", 420.0)


def says_start_winding(seconds: float) -> str:
    """Return what that means."""
    hot = start_celsius(seconds)
    rate = heating_rate(START_J)
    if hot > CHARS_C:
        return f"{seconds:.1f} s at {START_J:.0f} A/mm²: {hot:.0f} °C. It chars: {rate:.0f} K a second."
    if hot > BEARS_C:
        return f"{seconds:.1f} s: {hot:.0f} °C, over class F ({BEARS_C:.0f} °C). Every such start costs years."
    return (
        f"{seconds:.1f} s: {hot:.0f} °C. A start lasts under a second; the switch must open then."
    )


def slip_of(rpm: float) -> float:
    """Return the slip of a motor of four poles on 50 Hz, as a share of its synchronous speed."""
    return 1 - rpm / (120 * HERTZ / POLES)


def draw_slip(rpm: float) -> Drawing:
    """Return the field's turn and how far the rotor falls behind it in a second."""
    shapes: list[Shape] = []
    centre, behind = (52.0, 26.0), 2 * math.pi * slip_of(rpm)
    ring = tuple(
        (
            centre[0] + 20.0 * math.cos(k * math.pi / 24),
            centre[1] + 20.0 * math.sin(k * math.pi / 24),
        )
        for k in range(49)
    )
    shapes.append(Stroke(points=ring, token="hairline"))
    left = (
        -8.0 if math.sin(behind) >= 0.0 else 8.0
    )  # the rotor's name where it is: away from the field's
    for angle, token, name, aside in (
        (0.0, "copper", "field", 8.0),
        (behind, "ink", "rotor", left),
    ):
        tip = (centre[0] + 18.0 * math.sin(-angle), centre[1] - 18.0 * math.cos(angle))
        shapes += [
            Stroke(points=(centre, tip), token=token, width=1.2),
            Dot(at=tip, radius=1.3, token=token),
            Words(at=(tip[0] + aside, tip[1]), text=name, size=3.2, token=token, bold=True),
        ]
    shapes.append(Words(at=(centre[0], 50.0), text="after one turn of the field", size=3.1))
    return Drawing(tuple(shapes), WIDE, HIGH)


def says_slip(rpm: float) -> str:
    """Return slip, rotor hertz and what they tell."""
    slip = slip_of(rpm)
    if slip <= 0:
        return f"{rpm:.0f} rpm: at or over the field's 1500; without slip nothing pulls the rotor along."
    return f"{rpm:.0f} rpm: {100 * slip:.1f} % behind the field; the rotor feels {slip * HERTZ:.1f} Hz."


def draw_curve(index: float) -> Drawing:
    """Return ten minutes of insulation that grows by its polarization index, from 100 MΩ at one minute."""
    power = math.log10(max(index, 0.1))
    times = (15.0, 30.0, 45.0, 60.0, 120.0, 180.0, 240.0, 300.0, 420.0, 600.0)
    return draw_test(tuple((t, 100.0 * (t / 60.0) ** power) for t in times), None, (), WIDE, HIGH)


def says_curve(index: float) -> str:
    """Return what the curve says of the winding."""
    if index < 1.5:
        return f"Ten minutes over one: {index:.1f}. It does not climb: wet, dirty, or conducting. Dry it, read again."
    if index < 2.0:
        return f"{index:.1f}: it climbs little; 2 is wanted of class F and older. Warm and clean, then read again."
    return (
        f"{index:.1f}: it climbs as dry insulation does: its molecules turn slowly under the volts."
    )


def flux_of(hertz: float) -> float:
    """Return the flux of a 230 V 50 Hz motor kept on 230 V, as a share of its own."""
    return HERTZ / hertz


def draw_volts_hertz(hertz: float) -> Drawing:
    """Return flux and speed in per cent of what the motor was made for."""
    flux, speed = 100 * flux_of(hertz), 100 * hertz / HERTZ
    return _bars({"flux in the iron": flux, "speed of the field": speed}, 100.0, "%", 170.0)


def says_volts_hertz(hertz: float) -> str:
    """Return what to do about it."""
    flux, right = flux_of(hertz), SUPPLY_VOLT * hertz / HERTZ
    if flux > 1.1:
        return f"On {hertz:.0f} Hz the iron carries {100 * flux:.0f} %: idle amps soar. {right:.0f} V is right."
    if flux < 0.9:
        return f"On {hertz:.0f} Hz the iron carries {100 * flux:.0f} %: little torque. {right:.0f} V is right."
    return f"Volts over hertz as on the plate: the iron carries {100 * flux:.0f} %."


@cache
def _reversed_shares() -> tuple[float, ...]:
    """Return the amps of three lines with one phase reversed over those of the right motor, same volts, turning."""
    network, rest = ARRANGEMENTS["three-phase-6-lead"].network, (("T2",), ("T3",))
    right = run_shown(network, (("T1",), *rest), (("T4", "T5", "T6"),), "alternate")
    wrong = run_shown(network, (("T4",), *rest), (("T1", "T5", "T6"),), "alternate")
    own = right.likely()[1][0]
    return tuple(amp / own for amp in wrong.likely()[1])


def reversed_amps(percent: float) -> tuple[float, ...]:
    """Return the amps of three lines with one phase reversed, in times of a right motor's at all its volts.

    Six leads in wye; the volts in per cent. Source: its network solved, both fields of every coil.
    """
    return tuple(percent / 100 * share for share in _reversed_shares())


def draw_reversed(percent: float) -> Drawing:
    """Return the amps of the three lines beside what a right motor draws at all its volts."""
    amps = reversed_amps(percent)
    rows = {f"L{k}": amp for k, amp in enumerate(amps, 1)}
    return _bars(rows, 1.0, "×", 1.1 * max(reversed_amps(100.0)), digits=1)


def says_reversed(percent: float) -> str:
    """Return what these volts show and what they do to it."""
    amps = reversed_amps(percent)
    most, least = max(amps), min(amps)
    told = f"At {percent:.0f} % of its volts {most:.1f} times its amps in one line, {least:.1f} in another: "
    if percent <= LOOK_PERCENT:
        return f"{told}it shows at once, and a look of seconds hurts nothing."
    return f"{told}{most**2:.0f} times the heat of its load, with ohms that were right."


LIVE: Mapping[str, Why] = {
    "why-series-parallel.md": Why(
        name="Supply, between lines", unit="V", usual=460.0, low=0.45, high=1.1,
        draw=draw_series_parallel, says=says_series_parallel,
    ),
    "why-capacitor.md": Why(
        name="Capacitor", unit="µF", usual=120.0, low=0.05, high=4.0,
        draw=draw_capacitor, says=says_capacitor,
    ),
    "why-reversed-coil.md": Why(
        name="Volts, one phase reversed", unit="%", usual=25.0, low=0.4, high=4.0,
        draw=draw_reversed, says=says_reversed,
    ),
    "why-start-winding.md": Why(
        name="Under volts, standing", unit="s", usual=2.0, low=0.1, high=8.0,
        draw=draw_start_winding, says=says_start_winding,
    ),
    "why-curve.md": Why(
        name="Polarization index", unit="", usual=2.0, low=0.5, high=2.5,
        draw=draw_curve, says=says_curve,
    ),
    "why-slip.md": Why(
        name="Speed", unit="rpm", usual=1440.0, low=0.6, high=1.045,
        draw=draw_slip, says=says_slip,
    ),
    "why-volts-hertz.md": Why(
        name="Hertz, on 230 V", unit="Hz", usual=50.0, low=0.8, high=1.4,
        draw=draw_volts_hertz, says=says_volts_hertz,
    ),
}  # fmt: skip
