"""What leads are called: T numbers, IEC letters, the old letters, both ways.

NEMA MG 1 part 2; IEC 60034-8:2007 (letters, and 1U, 2U for two speeds); the old letters are those of
national practice before it. A lead with no conventional mark has none here.
"""

from collections.abc import Mapping
from typing import Literal

System = Literal["T", "IEC", "letters", "C"]

_PHASES = ("U", "V", "W")
_IEC = {
    f"T{k + 3 * block}": f"{_PHASES[k - 1]}{mark}"
    for block, mark in enumerate((1, 2, 5, 6))
    for k in (1, 2, 3)
}
_OLD = dict(zip((f"T{k}" for k in range(1, 7)), "UVWXYZ", strict=True))
_OLDER = dict(zip((f"T{k}" for k in range(1, 7)), "ABCXYZ", strict=True))
_C = {f"T{k}": f"C{k}" for k in range(1, 7)}
_STAR = {"T1": "U", "T2": "V", "T3": "W", "neutral": "N"}
_TWO_SPEEDS = {"T1": "1U", "T2": "1V", "T3": "1W", "T6": "2U", "T4": "2V", "T5": "2W"}
_TWO_WINDINGS = {"T1": "1U", "T2": "1V", "T3": "1W", "T11": "2U", "T12": "2V", "T13": "2W"}
_MAIN_AUX = {"main-1": "U1", "main-2": "U2", "aux-1": "Z1", "aux-2": "Z2"}
_MAIN_AUX_T = {"main-1": "T1", "main-2": "T4", "aux-1": "T5", "aux-2": "T8"}
_COMMON = {"common": "C", "run": "R", "start": "S"}
_TAPS = {"high": "H", "medium": "M", "low": "L"}
_SPEEDS_WORDS = {"high": "HI", "medium": "MED", "low": "LO"}
_DUAL = {
    **{"T1": "U1", "T2": "U2", "T3": "U5", "T4": "U6"},
    **{"T5": "Z1", "T6": "Z2", "T7": "Z5", "T8": "Z6"},
}
_SERIES = {
    **{"field-1": "D1", "field-2": "D2", "field-tap": "D3"},
    **{"armature-1": "A1", "armature-2": "A2"},
}
_SERIES_S = {**_SERIES, "field-1": "S1", "field-2": "S2", "field-tap": "S3"}

_BY_ARRANGEMENT: dict[str, dict[System, Mapping[str, str]]] = {
    "three-phase-3-lead": {"IEC": _STAR, "letters": _OLDER, "C": _C},
    "three-phase-4-lead": {"IEC": _STAR, "letters": _OLDER, "C": _C},
    "three-phase-6-lead": {"IEC": _IEC, "letters": _OLDER, "C": _C},
    "three-phase-9-lead-wye": {"IEC": _IEC},
    "three-phase-9-lead-delta": {"IEC": _IEC},
    "three-phase-12-lead": {"IEC": _IEC},
    "three-phase-two-speed-6-lead": {"IEC": _TWO_SPEEDS},
    "three-phase-part-winding-6-lead": {"IEC": {**_IEC, **_TWO_WINDINGS}},
    "single-phase-4-lead": {"IEC": _MAIN_AUX, "T": _MAIN_AUX_T},
    "single-phase-dual-voltage-6-lead": {"IEC": {**_DUAL, "T8": "Z2"}},
    "single-phase-dual-voltage-8-lead": {"IEC": _DUAL},
    "single-phase-3-lead": {"letters": _COMMON},
    "universal-4-lead": {"IEC": _SERIES, "letters": _SERIES_S},
    "universal-5-lead": {"IEC": _SERIES, "letters": _SERIES_S},
}
# what is met on leads besides: one map of leads to marks for each usage
_MET: dict[str, tuple[Mapping[str, str], ...]] = {
    "three-phase-6-lead": (_OLD,),
    "three-phase-3-lead": ({"T1": "U1", "T2": "V1", "T3": "W1"},),
    "three-phase-4-lead": ({"T1": "U1", "T2": "V1", "T3": "W1", "neutral": "O"},),
    "single-phase-3-lead": (
        {"common": "COM", "run": "RUN", "start": "START"},
        {"common": "T1", "run": "T4", "start": "T5"},
        {"common": "COM", "run": "MAIN", "start": "AUX"},
        {"run": "M"},
        {"run": "U1", "common": "U2", "start": "Z1"},
    ),
    "single-phase-4-lead": (
        {"main-1": "U1", "main-2": "U2", "aux-1": "V1", "aux-2": "V2"},
        {"main-1": "U", "main-2": "X", "aux-1": "W", "aux-2": "Z"},
        {"main-1": "R1", "main-2": "R2", "aux-1": "S1", "aux-2": "S2"},
    ),
    "single-phase-speed-taps": (
        _TAPS,
        _SPEEDS_WORDS,
        {"high": "HIGH", "medium": "MEDIUM", "low": "LOW", "run": "COM", "start": "CAP"},
        {"run": "R", "start": "S"},
        {"run": "C", "start": "AUX"},
        {"aux-1": "Z1", "aux-2": "Z2"},
    ),
    "single-phase-2-lead": (
        {"line-1": "L", "line-2": "N"},
        {"line-1": "L1", "line-2": "L2"},
        {"line-1": "T1", "line-2": "T2"},
        {"line-1": "U1", "line-2": "U2"},
        {"line-1": "1", "line-2": "2"},
    ),
    "single-phase-two-speed-coil": (_TAPS, _SPEEDS_WORDS, {"common": "C"}, {"common": "COM"}),
}


def mark_of(slug: str, lead: str, system: System) -> str | None:
    """Return what a lead of an arrangement is called in a system, None where nothing is usual."""
    found = _BY_ARRANGEMENT.get(slug, {}).get(system, {}).get(lead)
    if found is None and system == "T" and lead[:1] == "T" and lead[1:].isdecimal():
        return lead
    return found


def windings_in(slug: str) -> tuple[Mapping[str, str], ...]:
    """Return every marking of an arrangement, lead to mark, the usual ones first."""
    return (*_BY_ARRANGEMENT.get(slug, {}).values(), *_MET.get(slug, ()))


def leads_of(slug: str, mark: str, leads: tuple[str, ...]) -> tuple[str, ...]:
    """Return the leads a printed mark may mean in an arrangement, in the order of `leads`.

    Old three-phase letters count too: U V W X Y Z and A B C X Y Z, C1 to C6. More than one lead
    means that the mark has two readings (Z: the finish of W, or an auxiliary).
    """
    wanted = plain(mark)
    systems = windings_in(slug)
    return tuple(
        lead
        for lead in leads
        if wanted == plain(lead) or any(s.get(lead, "").upper() == wanted for s in systems)
    )


def plain(mark: str) -> str:
    """Return a mark as it is compared: capitals, no blanks or points; a bare number is a T number."""
    bare = "".join(c for c in mark.upper() if c not in " .-_")
    return f"T{int(bare)}" if bare.isdecimal() and len(bare) <= 2 else bare


def in_marking(slug: str, lead: str, like: str) -> str:
    """Return what a lead would be marked in the marking that a print is in, else in a usual one."""
    wanted = plain(like)
    systems = windings_in(slug)
    own = [s for s in systems if lead in s]
    same = [s for s in own if any(m.upper() == wanted for m in s.values())]
    t_number = lead[:1] == "T" and wanted[:1] == "T"
    return lead if t_number or not own else (same or own)[0][lead]
