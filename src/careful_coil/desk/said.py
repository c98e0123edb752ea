"""How this window speaks: the program's own words pass through here before they are shown."""

from careful_coil.core import terms
from careful_coil.core.settings import Settings
from careful_coil.desk.tongue import speak_in, spoken, tr

_now = {"star": terms.WYE, "terms": terms.AS_WRITTEN}


def speak(settings: Settings) -> bool:
    """Take the language, the terms and the spelling a shop chose; True where the language is another."""
    _now.update({name: settings.school(name) for name in _now})
    return speak_in(settings.school("language"))


def said(words: str) -> str:
    """Return words of the program in that language, else in those terms."""
    other = spoken().found(words)
    return tr(terms.said(words, _now["star"], _now["terms"])) if other is None else tr(words)
