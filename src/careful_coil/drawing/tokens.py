"""The colours of the drawings and the window, by token; light for paper and bright benches, dim."""

LIGHT = {
    "ground": "#E4E9E1",
    "surface": "#F4F6F0",
    "ink": "#1F2C34",
    "quiet": "#4C5B63",
    "hairline": "#BAC5BA",
    "copper": "#A2480F",
    "good": "#0B6A63",
    "watch": "#855400",
    "hold": "#9A281F",
    "unproven": "#5A479C",
    "note": "#4F5F6B",
    "phase-1": "#2B3A42",
    "phase-2": "#41698A",
    "phase-3": "#B9ACC4",
    "on-phase-1": "#F4F6F0",
    "on-phase-2": "#F4F6F0",
    "on-phase-3": "#1F2C34",
    "iron": "#D2DCD1",
    "rotor": "#E6D9C6",
    "strip": "#1E2A2F",
    "strip-text": "#F3F5EE",
    "strip-key": "#F0965A",
}
DIM = {
    "ground": "#1B1916",
    "surface": "#25221E",
    "ink": "#EFEAE0",
    "quiet": "#B5ADA0",
    "hairline": "#4A443C",
    "copper": "#F0965A",
    "good": "#5CC7BB",
    "watch": "#E4B04A",
    "hold": "#F08A7C",
    "unproven": "#B5A3F2",
    "note": "#A9B8C2",
    "phase-1": "#DDD6C9",
    "phase-2": "#7FA6C4",
    "phase-3": "#75618D",
    "on-phase-1": "#1B1916",
    "on-phase-2": "#1B1916",
    "on-phase-3": "#EFEAE0",
    "iron": "#37332D",
    "rotor": "#463A2C",
    "strip": "#100F0D",
    "strip-text": "#EFEAE0",
    "strip-key": "#F0965A",
}
STRIP_QUIET = "#A9B8B2"  # second voice on the strip, on both grounds

WIRES = {
    "black": "#17191A",
    "white": "#F7F7F2",
    "red": "#B3231D",
    "blue": "#1F57A8",
    "yellow": "#D6A31B",
    "green": "#2E7D4A",
    "brown": "#7A4B23",
    "orange": "#D56A12",
    "grey": "#8B8F92",
    "purple": "#7A3F94",
    "pink": "#D58AA0",
    "turquoise": "#2AA3A0",
}
LIGHT_WIRES = ("white", "yellow", "pink")
SAME_WIRE = {"gray": "grey", "violet": "purple", "lilac": "purple"}


def wire(colour: str) -> str:
    """Return the token of a wire colour as typed; ink when it is not a colour we paint."""
    plain = colour.strip().lower().rpartition("-")[2]  # a light blue is painted as a blue
    name = SAME_WIRE.get(plain, plain)
    return f"wire:{name}" if name in WIRES else "ink"


def colour_of(token: str, theme: dict[str, str]) -> str:
    """Return the paint of a token as #RRGGBB."""
    if token.startswith("wire:"):
        return WIRES[token.removeprefix("wire:")]
    return theme[token]
