"""What must be proven again after what: the rows of the void table, as data.

Writing down, naming and judging good void nothing; hands and volts do. Every fold and every rule asks
`core/job/deeds.py`, which reads nothing but these rows. Source: shop practice; limits as noted.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from careful_coil.core.sheets import SHEETS

STALL_SECONDS = 5.0  # at standstill under volts: longer is harm (trade practice, a start device)
STORED_DAYS = 365.0  # an electrolytic capacitor loses its oxide and dries: µF is measured again (shop practice)
STOOD_DAYS = 30.0  # without a hand on it: damp and standing marks (shop practice)

# what can be proven of a motor, as the gate and the handbook call it
FACTS: Mapping[str, str] = {
    "readings": "what each lead is",
    "marks": "marks on the leads",
    "coil-ohms": "ohms of every coil",
    "insulation": "insulation to the frame",
    "apart": "insulation between windings",
    "high-potential": "high-potential test",
    "joints": "joints",
    "line-ohms": "ohms between the lines",
    "checks": "checks before power",
    "low-run": "reduced-voltage run",
    "timed-start": "timed start",
    "direction": "direction",
    "runs": "test run",
    "bond": "earth bond",
    "shaft": "shaft feel",
    "bearings": "bearings",
    "device": "start devices, each by its own test",
    "capacitor": "capacitors, each by its own test",
    "cause": "cause",
    "tags": "tags and installer's list",
}
WINDING = ("readings", "marks", "coil-ohms", "insulation", "apart", "high-potential")
HOOKUP = ("joints", "line-ohms", "checks", "low-run", "timed-start", "direction", "runs")


@dataclass(frozen=True, slots=True, kw_only=True)
class Row:
    """One row: how the deed is said, the facts it voids, those it voids for its own part alone.

    `minutes` the next run on the closed motor lasts at least (0: the usual ones).
    """

    words: str
    again: tuple[str, ...]
    own: tuple[str, ...] = ()
    minutes: str = ""  # the name of the setting, where the run is a longer one


VOIDS: Mapping[str, Row] = {
    "joint": Row(
        words="a joint parted or made",
        again=("line-ohms", "insulation", "checks", "low-run", "timed-start", "direction", "runs"),
    ),
    "lead": Row(
        words="a lead renewed, sleeved or mended",
        again=("insulation", "runs"),
        own=("coil-ohms", "marks", "joints"),
    ),
    "rewound": Row(words="rewound", again=(*WINDING, *HOOKUP), minutes="run_minutes_worked"),
    "washed": Row(words="washed", again=("marks", "insulation", "apart", "runs")),
    "dried": Row(words="dried", again=("insulation", "apart", "runs")),
    "varnished": Row(
        words="varnished",
        again=("shaft", "bond", "insulation", "apart", "runs"),
        minutes="run_minutes_worked",
    ),
    "flooded": Row(
        words="flooded",
        again=("bearings", "device", "capacitor", "insulation", "apart", "runs"),
    ),
    "damp": Row(words="found wet", again=("insulation", "apart", "shaft", "runs")),
    "stood": Row(words="stood for weeks", again=("insulation", "apart", "shaft", "runs")),
    "stored": Row(
        words="stood for a year",
        again=("insulation", "apart", "shaft", "capacitor", "runs"),
    ),
    "bearing": Row(
        words="a bearing renewed or greased", again=("shaft", "runs"), minutes="run_minutes_worked"
    ),
    "shaft": Row(words="work on shaft, fan or brushes", again=("shaft", "runs")),
    "rotor": Row(words="the rotor out", again=("shaft", "insulation", "runs")),
    "device": Row(
        words="a start device renewed or dressed", again=("timed-start", "runs"), own=("device",)
    ),
    "capacitor": Row(
        words="a capacitor renewed", again=("timed-start", "runs"), own=("capacitor",)
    ),
    "covers": Row(words="covers off or put back", again=("bond", "insulation", "runs")),
    "harm": Row(
        words="smoke, a burnt smell, a stall or a trip under volts",
        again=("cause", "insulation", "coil-ohms", "device", "capacitor", "timed-start", "runs"),
    ),
    "earth": Row(words="the earth made good", again=("bond",)),
    "supply": Row(words="another supply named", again=("runs", "tags")),
    "temporary": Row(words="a temporary taken off", again=("timed-start", "runs")),
}

# kinds of entries that prove something: one that is older than what voids it is history and no more
PROVES: Mapping[str, tuple[str, ...]] = {
    "reading": ("readings",),
    "role-known": ("readings",),
    "winding-ohm": ("coil-ohms",),
    "insulation": ("insulation",),
    "step-voltage": ("high-potential",),
    "surge": ("high-potential",),
    "joint": ("joints",),
    "line-ohm": ("line-ohms",),
    "step-ohm": ("line-ohms",),
    "step-ticked": ("checks",),
    "low-run": ("low-run",),
    "lead-clamped": ("low-run",),
    "turn-seen": ("direction",),
    "trial-begun": ("runs",),
    "trial-step": ("runs",),
    "trial-start": ("timed-start",),
    "trial-ended": ("runs",),
    "earth-bond": ("bond",),
    "device-read": ("device",),
    **{s.name: (s.proves,) for s in SHEETS.values() if s.proves},
}
