"""The shop's own words for a thing that has two names in the trade."""

import re

from careful_coil.core.settings import Settings

STAR = "star"
_WYE = re.compile(r"\b(w)ye(s?)\b", re.IGNORECASE)


def in_terms(text: str, settings: Settings) -> str:
    """Return a text with wye called star, where this shop says so: series wye is series star."""
    if settings.school("star") != STAR or "wye" not in text.lower():
        return text
    return _WYE.sub(lambda m: f"{'S' if m[1] == 'W' else 's'}tar{m[2]}", text)
