"""What of the work done cures what was complained of: a renewed part that explains every symptom is its cause."""

from collections.abc import Mapping, Sequence

from careful_coil.core.condition.causes import CAUSES
from careful_coil.core.job import Job
from careful_coil.core.ways.devices import START_DEVICES

# the work that ends a cause, by rows of the void table
CURES: Mapping[str, tuple[str, ...]] = {
    "bearing-seized": ("bearing", "shaft"),
    "bearing-worn": ("bearing", "shaft"),
    "start-capacitor": ("capacitor",),
    "switch-open": ("device",),
    "switch-stays": ("device",),
    "switch-weak": ("device",),
    "thermistor-hot": ("device",),
    "protector": ("device",),
    "start-winding": ("rewound",),
    "turn-short": ("rewound",),
    "open-winding": ("rewound",),
    "to-frame": ("rewound", "dried"),
    "damp": ("dried", "washed"),
    "cooling": ("shaft",),
    "brushes": ("shaft",),
    "loose": ("lead",),
}
OF_DEVICE = {"protector": ("protector",), "thermistor-hot": ("ptc",)}
SWITCHES = tuple(d for d in START_DEVICES if d != "ptc")
EXPLAINS = 0.25  # P(symptom | cause) from which a cause that was cured explains a symptom
ALIKE = {"smells": "turn-short"}  # a burnt smell is never explained by a part alone


def cured_by(job: Job, symptoms: Sequence[str]) -> tuple[str, str]:
    """Return the cause that work has cured and that work in words; empty where a symptom stays unexplained."""
    done: dict[str, str] = {}
    devices = set()
    for d in job.deeds.counted():
        done.setdefault(d.kind, d.words)
        if d.kind == "device":
            devices.add(job.gear.devices.get(d.part.partition(":")[2], ""))
    cured = {
        c: k
        for c, kinds in CURES.items()
        for k in kinds
        if k in done and (k != "device" or devices & set(OF_DEVICE.get(c, SWITCHES)))
    }
    named = [s for s in symptoms if s != "wet" or "damp" not in cured]
    for symptom in named:
        wanted = ALIKE.get(symptom, "")
        if wanted and wanted not in cured:
            return "", ""
        if not any(CAUSES[c].shows.get(symptom, 0.0) >= EXPLAINS for c in cured):
            return "", ""
    if not cured or not symptoms:
        return "", ""
    best = max(cured, key=lambda c: sum(CAUSES[c].shows.get(s, 0.0) for s in symptoms))
    return best, done[cured[best]]
