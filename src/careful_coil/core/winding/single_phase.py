"""Single-phase and universal windings as networks with 1 Ω coils.

The start (auxiliary) winding stands 90 electrical degrees from the main; T numbers are those of
NEMA MG 1 part 2.
"""

import itertools

from careful_coil.core.winding.network import Coil, Network

AUXILIARY = 90.0
START_COILS = ("auxiliary", "start")  # what coils of a start winding are like
SPEEDS = {2: ("high", "low"), 3: ("high", "medium", "low")}


def _coil(start: str, finish: str, like: str, angle: float = 0.0, half: int = 0) -> Coil:
    return Coil(
        name=f"{start}-{finish}", start=start, finish=finish, like=like, angle=angle, half=half
    )


def two_leads() -> Network:
    """Return the main winding alone: what its start circuit has inside lies in parallel, unseen."""
    return Network(coils=(_coil("line-1", "line-2", "main"),), leads=("line-1", "line-2"))


def common_run_start() -> Network:
    """Return main and start winding with one end of each joined to the common lead."""
    return Network(
        coils=(
            _coil("run", "common", "run"),
            _coil("start", "common", "start", AUXILIARY),
        ),
        leads=("common", "run", "start"),
    )


def main_and_auxiliary() -> Network:
    """Return two separate pairs."""
    return Network(
        coils=(
            _coil("main-1", "main-2", "main"),
            _coil("aux-1", "aux-2", "auxiliary", AUXILIARY),
        ),
        leads=("main-1", "main-2", "aux-1", "aux-2"),
    )


def tap_names(speeds: int) -> tuple[str, ...]:
    """Return the leads of 2 to 5 speeds, fastest first."""
    return SPEEDS.get(speeds, ("high", *(f"tap-{k}" for k in range(1, speeds - 1)), "low"))


def speed_taps(speeds: int = 3) -> Network:
    """Return main and start winding meeting at the fastest tap, the slower taps in a chain after it."""
    taps = tap_names(speeds)
    chain = tuple(_coil(a, b, b) for a, b in itertools.pairwise(taps))
    return Network(
        coils=(
            _coil("run", "high", "main"),
            _coil("start", "high", "auxiliary", AUXILIARY),
            *chain,
        ),
        leads=("run", "start", *taps),
    )


def speed_taps_in_main(speeds: int = 3) -> Network:
    """Return a main winding with taps and a start winding of its own pair."""
    taps = tap_names(speeds)
    chain = tuple(_coil(a, b, b) for a, b in itertools.pairwise(taps))
    return Network(
        coils=(
            _coil("run", "high", "main"),
            *chain,
            _coil("aux-1", "aux-2", "auxiliary", AUXILIARY),
        ),
        leads=("run", *taps, "aux-1", "aux-2"),
    )


def two_speed_coil() -> Network:
    """Return one coil with a tap."""
    return Network(
        coils=(_coil("common", "high", "main"), _coil("high", "low", "tail")),
        leads=("common", "high", "low"),
    )


def dual_voltage_six() -> Network:
    """Return two main halves and one start winding."""
    return Network(
        coils=(
            _coil("T1", "T2", "main", half=1),
            _coil("T3", "T4", "main", half=2),
            _coil("T5", "T8", "auxiliary", AUXILIARY),
        ),
        leads=("T1", "T2", "T3", "T4", "T5", "T8"),
    )


def single_voltage_four() -> Network:
    """Return main 1–4 and start 5–8."""
    return Network(
        coils=(_coil("T1", "T4", "main"), _coil("T5", "T8", "auxiliary", AUXILIARY)),
        leads=("T1", "T4", "T5", "T8"),
    )


def dual_voltage_eight() -> Network:
    """Return two main halves and two start halves."""
    return Network(
        coils=(
            _coil("T1", "T2", "main", half=1),
            _coil("T3", "T4", "main", half=2),
            _coil("T5", "T6", "auxiliary", AUXILIARY, 1),
            _coil("T7", "T8", "auxiliary", AUXILIARY, 2),
        ),
        leads=tuple(f"T{k}" for k in range(1, 9)),
    )


def universal_four() -> Network:
    """Return a series field and an armature; the brushes stand a quarter turn from the field."""
    return Network(
        coils=(
            _coil("field-1", "field-2", "field"),
            _coil("armature-1", "armature-2", "armature", AUXILIARY),
        ),
        leads=("field-1", "field-2", "armature-1", "armature-2"),
    )


def universal_five() -> Network:
    """Return a field with a middle lead and an armature."""
    return Network(
        coils=(
            _coil("field-1", "field-tap", "field-1"),
            _coil("field-tap", "field-2", "field-2"),
            _coil("armature-1", "armature-2", "armature", AUXILIARY),
        ),
        leads=("field-1", "field-tap", "field-2", "armature-1", "armature-2"),
    )
