"""Mechanics: shaft and what the hands feel, cord."""

from careful_coil.core.choices import table
from careful_coil.core.sheets.field import FIGURE, Field, Sheet
from careful_coil.core.units import Quantity

NO_LOAD = "Expect more no-load watts and amps at the test run."


def length_mm(name: str, label: str, hint: str, asked: str = "", least: float = 0.001) -> Field:
    """Return a field of a length in mm, from `least`."""
    return Field(
        name,
        f"{label}, mm",
        hint,
        quantity=Quantity.LENGTH,
        unit="mm",
        least=least,
        most=5000.0,
        wanted="millimetres such as 17 or 17.05, or inches such as 5/8 in",
        ask="size",
        asked=asked,
    )


_BOLTS = table(
    """
    turns free | good | Drawn down crosswise, spun after each bolt. = free, good, ok
    binds | hold | Slacken, draw down crosswise a little at a time, spin after each bolt.
     = tight, binding, stiff
    """
)


def _bolts(end: str, label: str) -> Field:
    return Field(
        f"bolts-{end}",
        label,
        "turns free",
        part=f"bolts:{end}",
        comes_to="free",
        choices=_BOLTS,
        judged=True,
        ask="feel",
    )


def _volts(name: str, label: str, hint: str, prints: str) -> Field:
    return Field(
        name,
        label,
        hint,
        prints=prints,
        quantity=Quantity.VOLTAGE,
        least=0.001,
        most=1e5,
        wanted="volts such as 62 V",
        ask="volt",
    )


FELT = Sheet(
    name="felt",
    title="Shaft",
    station="mechanics",
    prefix="felt-",
    part="shaft",
    proves="shaft",
    bad=True,
    fields=(
        Field(
            "feel",
            "Shaft feel",
            comes_to="free",
            prints="by hand {}",
            asked="shaft feel",
            ask="feel",
            choices=table(
                """
    free | good | Turns freely and evenly, load off.
     = turns free, turns freely, easy, smooth, good, ok
    rough | watch | Worn bearing: renew it. {NO_LOAD} = gritty, notchy, grinding, grumbles, noisy
    binding | hold | It makes electrical faults: slow run-up, switch chatter, overload trips. Ease it. {NO_LOAD}
     = binds, tight, stiff, hard to turn, drags
    rubbing | hold | Rotor on stator: worn bearing or bent shaft. Look for bright iron.
     = rubs, scrapes, scraping, touches
    seized | hold | No volts on it before it turns: it would stand at locked-rotor amps.
     = stuck, locked, does not turn, will not turn, solid
    """,
                NO_LOAD=NO_LOAD,
            ),
        ),
        Field(
            "coast-down",
            "Coast-down time, s",
            "6",
            prints="runs on {} s",
            quantity=Quantity.TIME,
            least=0.001,
            most=600,
            wanted="seconds such as 4.5",
            ask="feel",
        ),
        length_mm("end-float", "End float", "0.4", least=0.0),
        length_mm("radial-play", "Radial play", "0.02", least=0.0),
        Field(
            "rub",
            "Rub marks",
            "none",
            judged=True,
            choices=table(
                """
    none | good | No bright iron on rotor or stator. = no, clean, nothing
    rotor | watch | Bright on one side of the rotor: bent shaft or out of true.
     = on the rotor, on rotor
    stator | watch | Bright at one place of the stator: worn bearing or loose seat.
     = on the stator, on stator, bore
    """
            ),
        ),
        _volts("start-before", "Starts turning at, V, before", "48", "starts turning at {} V"),
        _volts("start-after", "… after easing, V", "31", "after easing at {} V"),
        _bolts("drive", "Drive end bolted down"),
        _bolts("other", "Other end bolted down"),
        Field(
            "fan",
            "Fan and guard",
            "good",
            part="fan",
            comes_to="good",
            judged=True,
            choices=table(
                """
    good | good | Fan and guard whole, air ways clear. = ok, fine, whole, sound, both there, clean
    broken | hold | No cooling: the ends of the winding burn first.
     = cracked, blade off, blades off, loose, damaged
    missing | hold | A fan or guard is missing: not fit to run.
     = gone, none, not there, no guard, no fan
    built without | good | Built without a fan of its own: air over it, or a hermetic shell.
     = has none, air over, open frame
    """
            ),
        ),
        Field(
            "seals",
            "Seals",
            "good",
            part="seals",
            comes_to="good",
            judged=True,
            choices=table(
                """
    renewed | good | Seals and grommets renewed; a leak probe proved where there is one.
     = new, replaced
    good | good | Seals and grommets looked at. = ok, fine, sound, dry, tight
    leaking | hold | Water gets in: renew seals and grommets, dry, test over days.
     = leaks, torn, hard, perished, split, bad
    """
            ),
        ),
        Field(
            "temporary",
            "Anything temporary left on it",
            "nothing",
            part="temporary",
            prints="temporaries: {}",
            asked="a jumper, a clip, a tape-only joint, a bypass; or nothing",
        ),
        Field("ends", "Shaft ends, which load", "one, pulley", prints="shaft ends: {}"),
        Field(
            "hours-week",
            "It runs, hours a week",
            "20",
            quantity=Quantity.TIME,
            unit="h",
            least=0.001,
            most=168,
            wanted="running hours a week, at most 168",
            ask="word",
        ),
        Field(
            "bars-shaft",
            "Bars to shaft, MΩ or open",
            "12",
            part="commutator",
            prints="bars to shaft, MΩ: {}",
            quantity=Quantity.INSULATION,
            unit="MΩ",
            special="megohm",
            shape=rf"{FIGURE}( at {FIGURE} °C)?|open",
            wanted="MΩ such as 12, or 12 at 25 °C, or open",
            asked="megohms",
            ask="insulation",
        ),
        Field(
            "cord",
            "Cord",
            "good",
            part="cord",
            choices=table(
                """
    good | good = ok, fine, sound
    frayed | hold | frayed = worn, chafed
    cracked | hold | cracked = split, brittle, stiff, hard
    short | hold | too short: a head that swings wants room = too short
    none = no cord, no, wired in
    """
            ),
        ),
        Field(
            "cord-done",
            "Cord: done",
            "renewed",
            part="cord",
            comes_to="renewed",
            ask="work",
            choices=table(
                """
    renewed = new, replaced
    spliced = joined
    """
            ),
        ),
        Field(
            "relief",
            "Strain relief",
            "holds",
            part="cord",
            comes_to="fast",
            choices=table(
                """
    holds | good = good, ok, tight, fast, fine
    slips | hold | clamp it again = loose, slack
    missing | hold | fit one: the joints must not be pulled = none, gone, not there
    """
            ),
        ),
    ),
)

SHEETS = (FELT,)
