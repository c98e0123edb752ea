"""What callipers said of a bearing, as typed."""

from careful_coil.core.mechanics.fields import BEARING
from careful_coil.core.mechanics.lengths import read_three

SIZES = ("bore", "outside", "width")


def bearing_size(text: str) -> dict[str, str]:
    """Return bore, outside and width in mm as kept: all three, the bore alone, or nothing. Raises: BadValue."""
    figures: tuple[float, ...] = ()
    if text.strip():
        alone = "x" not in text.lower() and "×" not in text and len(text.split()) == 1
        figures = (float(BEARING["bore"](text)),) if alone else read_three(text)
    kept = {n: f"{v:.6g}" for n, v in zip(SIZES, figures, strict=False)}
    return {n: kept.get(n, "") for n in SIZES}
