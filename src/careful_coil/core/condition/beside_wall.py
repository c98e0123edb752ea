"""Insulation of what lies beside the winding: sensors, heaters, a brake, against winding and frame.

Its own line: the sensor's leads go out to a control, and a winding that reaches them puts its volts there.
"""

from collections.abc import Iterator

from careful_coil.core.condition.insulation import corrected
from careful_coil.core.condition.wall import Wall, made_since
from careful_coil.core.identify.naming import uses_of
from careful_coil.core.job import Finding, Job
from careful_coil.core.values import show_figure

MOST_VOLT = (
    500.0  # V DC, both ends tied: more breaks a thermistor's own insulation (IEC 60034-11 practice)
)


def sensor_findings(job: Job, wall: Wall) -> Iterator[Finding]:
    """Yield how the insulation of each part beside the winding was measured, the newest of each."""
    uses = {**wall.extras, **{t: u for t, u in uses_of(job).items() if u and u != "earth"}}
    newest = {
        t.body.parts: t.body
        for t in made_since(job, "apart")
        if t.body.parts and set(t.body.parts) <= set(uses)
    }
    for parts, test in newest.items():
        got = corrected(test.megohm, test.at_c, "thermosetting")
        megohm = test.megohm if got.megohm is None else got.megohm
        kind = str(uses[parts[0]])
        to = f"to {' '.join(test.against)}" if test.against else "to winding and frame"
        low = megohm < wall.minimum and not test.above
        why = f"{show_figure(megohm)} MΩ at 40 °C {to}; at least {wall.minimum:g} MΩ."
        if low:
            why += " The winding's volts would stand on the control: find where they touch."
        if test.test_volt > MOST_VOLT:
            why += f" {MOST_VOLT:g} V, both ends tied, is the most for it."
        yield Finding(
            code="insulation-sensors",
            verdict="hold" if low else "good",
            subject=f"{kind.capitalize()} {' '.join(parts)} {'not insulated' if low else 'insulated'}",
            why=why,
            station="insulation",
            figure=megohm,
            limit=wall.minimum,
            unit="MΩ",
            source=wall.minimum_source,
            gate=low,
            waivable=False,
        )
