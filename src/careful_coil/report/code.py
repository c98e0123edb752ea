"""A text as a code any reader shows: squares dark or light, with the white that must stand round them."""

import segno

QUIET = 4  # modules of white round the code (ISO/IEC 18004)


def code_rows(text: str) -> list[list[bool]]:
    """Return the modules of a code of a text, dark ones true, row by row, without the white round it."""
    return [[bool(m) for m in row] for row in segno.make(text, error="m", micro=False).matrix]
