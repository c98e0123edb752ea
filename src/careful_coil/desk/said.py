"""The terms this window speaks in: the program's own words pass through here before they are shown."""

from careful_coil.core import terms
from careful_coil.core.settings import Settings

_now = {"star": terms.WYE, "terms": terms.AS_WRITTEN}


def speak(settings: Settings) -> None:
    """Take the terms and the spelling a shop chose."""
    _now.update({name: settings.school(name) for name in _now})


def said(words: str) -> str:
    """Return words of the program in those terms."""
    return terms.said(words, _now["star"], _now["terms"])
