"""What is logged at Winding: the data of the winding as it is taken apart, field by field."""

from typing import Annotated, Literal

from pydantic import Field

from careful_coil.core.job.body import Body

WindingField = Literal[
    "slots",
    "poles",
    "coils",
    "groups",
    "layers",
    "shape",
    "span",
    "turns",
    "wire",
    "metal",
    "circuits",
    "connection",
    "consequent",
    "jumpers",
    "core",
    "bore",
    "slot-depth",
    "tooth",
    "back-iron",
    "ducts",
    "slot-area",
    "mean-turn",
    "mass",
    "extension",
    "liner",
    "wedge",
    "exit",
    "phase-ohm",
    "main",
    "start",
    "start-at",
    "main-wire",
    "start-wire",
]


class WindingNoted(Body):
    """One datum of the winding as it was found; an empty text takes it back. Lengths in mm, mass in kg."""

    kind: Literal["winding-noted"] = "winding-noted"
    field: WindingField
    text: Annotated[str, Field(max_length=400)] = ""
