"""Insulation: how the winding is made, as far as limits hang on it."""

from careful_coil.core.choices import choice, words
from careful_coil.core.sheets.field import Field, Sheet
from careful_coil.core.units import Quantity

MADE = Sheet(
    name="winding-made",
    title="How it is made",
    station="insulation",
    prefix="made-",
    part="winding",
    fields=(
        Field(
            name="construction",
            label="Construction",
            hint="random",
            choices=(
                choice("random", also="random wound/mush/wire"),
                choice("form", also="form wound/formed/bars"),
                choice("old", also="before 1970"),
                choice("armature", also="dc/rotor"),
            ),
        ),
        Field(name="class", label="Insulation class", hint="F", choices=words(*"AEBFH")),
        Field(
            name="material",
            label="Varnish",
            hint="thermosetting",
            choices=(
                choice("thermosetting", also="resin/epoxy/polyester"),
                choice("thermoplastic", also="asphalt/bitumen/shellac"),
            ),
        ),
        Field(
            name="metal",
            label="Wire",
            hint="copper",
            choices=(choice("copper", also="cu"), choice("aluminium", also="aluminum/al/alu")),
        ),
        Field(
            name="design-ohm",
            label="Design ohms of a coil at 20 °C",
            hint="2.60",
            quantity=Quantity.RESISTANCE,
            least=1e-6,
            most=1e7,
            wanted="ohms in figures, for example 2.60",
        ),
    ),
)
SHEETS = (MADE,)
