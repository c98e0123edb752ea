"""Winding: the data that are read while it is taken apart, in the order the hands work."""

from careful_coil.core.choices import table
from careful_coil.core.sheets.field import Field, Sheet
from careful_coil.core.units import Quantity

MOST_SLOTS, MOST_POLES = 360, 60
LARGEST = 20000.0


def _mm(name: str, label: str, hint: str, title: str) -> Field:
    return Field(
        name,
        f"{label}, mm",
        hint,
        quantity=Quantity.LENGTH,
        least=0.001,
        most=LARGEST,
        wanted=f"{title} in mm, such as 110",
        unread=True,
    )


def _count(name: str, label: str, hint: str, most: int, wanted: str, least: int = 1) -> Field:
    return Field(name, label, hint, whole=(least, most), wanted=wanted, unread=True)


WINDING = Sheet(
    name="winding-noted",
    title="Record",
    station="winding",
    prefix="winding-",
    part="winding",
    fields=(
        _count("slots", "Slots", "36", MOST_SLOTS, f"slots, 3 to {MOST_SLOTS}", 3),
        Field("poles", "Poles", "4", special="poles", unread=True),
        Field("exit", "Lead exit end", "drive end, 2 o'clock"),
        Field(
            "connection",
            "Connection",
            "wye",
            choices=table(
                """
    wye = star, y
    delta = mesh, triangle, d
    """
            ),
        ),
        Field(
            "layers", "Layers", "2", whole=(1, 2), wanted="1 or 2 coil sides in a slot", unread=True
        ),
        Field(
            "shape",
            "Coils",
            "lap",
            choices=table(
                """
    lap = diamond, equal
    concentric
    """
            ),
        ),
        _count("groups", "Groups", "12", MOST_SLOTS, "groups in all"),
        _count("coils", "Coils in all", "36", MOST_SLOTS, "coils in all"),
        Field(
            "consequent",
            "Consequent poles",
            "no",
            choices=table(
                """
    no = n
    yes = y
    """
            ),
        ),
        Field(
            "jumpers",
            "Jumpers",
            "adjacent",
            choices=table(
                """
    adjacent = 1-4, short
    skip = 1-7, long
    """
            ),
        ),
        Field("span", "Span", "1-8", special="span", unread=True),
        Field("turns", "Turns per coil", "28", special="turns", unread=True),
        Field("wire", "Wires, bare mm", "2 x 0.75", special="wire", unread=True),
        _count("circuits", "Circuits", "1", 60, "circuits in parallel"),
        Field("main", "Main, one pole", "1-6:40 2-5:30", special="pole", unread=True, longest=400),
        Field("main-wire", "Main wire", "0.8", special="wire", unread=True),
        Field(
            "start", "Start, one pole", "1-6:22 2-5:14", special="pole", unread=True, longest=400
        ),
        Field("start-wire", "Start wire", "0.45", special="wire", unread=True),
        _count("start-at", "Start's slot 1 is", "4", MOST_SLOTS, "a slot"),
        Field(
            "metal",
            "Metal",
            "copper",
            choices=table(
                """
    copper = cu
    aluminium = aluminum, al, alu
    """
            ),
        ),
        Field(
            "mass",
            "Copper weight, kg",
            "3.8",
            quantity=Quantity.MASS,
            least=0.001,
            most=LARGEST,
            wanted="kg of wire that came out, such as 3.8",
            unread=True,
        ),
        _mm("mean-turn", "Mean turn", "480", "mean turn"),
        _mm("extension", "End turns", "38", "end turns beyond the core"),
        _mm("core", "Core length", "110", "core length"),
        _mm("bore", "Bore", "98", "bore"),
        _mm("slot-depth", "Slot depth", "16", "slot depth"),
        _mm("tooth", "Tooth", "4.1", "tooth width"),
        _mm("back-iron", "Back iron", "17", "back iron behind the slots"),
        Field("ducts", "Ducts", "none"),
        Field(
            "slot-area",
            "Slot area, mm²",
            "105",
            quantity=Quantity.AREA,
            least=0.001,
            most=LARGEST,
            wanted="the slot's area for wire in mm², such as 95",
            unread=True,
        ),
        Field("liner", "Slot liner", "0.25 polyester"),
        Field("wedge", "Wedge", "glass"),
        Field("phase-ohm", "Phase ohms at °C", "3.35 at 22", special="phase-ohm", unread=True),
    ),
)
# for windings of how many phases a datum is asked
ONLY_THREE = frozenset(
    (
        *("connection", "layers", "shape", "groups", "coils", "consequent", "jumpers"),
        *("span", "turns", "wire", "circuits", "phase-ohm"),
    )
)
ONLY_ONE = frozenset(("main", "main-wire", "start", "start-wire", "start-at"))
SHEETS = (WINDING,)


def asked_of(datum: str, phases: int) -> bool:
    """Whether a winding of so many phases has a datum."""
    return datum not in (ONLY_ONE if phases == 3 else ONLY_THREE)


def title_of(datum: str) -> str:
    """Return what a datum is called within a sentence."""
    return WINDING.field(datum).title
