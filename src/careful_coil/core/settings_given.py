"""What a shop sets besides its limits, as given: practices, odds of windings, initials, currency."""

from collections.abc import Mapping

from careful_coil.core.errors import BadDocument
from careful_coil.core.schools import SCHOOLS

LONGEST_CURRENCY = 4
LONGEST_INITIALS = 8
LEAST_ODDS, MOST_ODDS = 0.01, 100.0  # of a winding over how often shops usually meet it


def schools_given(wanted: object) -> dict[str, str]:
    """Return shop practices as given, choice by name. Raises: BadDocument."""
    if not isinstance(wanted, Mapping):
        raise BadDocument("settings, schools", str(wanted), "a map of school and choice")
    for name, choice in wanted.items():
        if name not in SCHOOLS:
            raise BadDocument("settings, schools", str(name), "one of " + ", ".join(SCHOOLS))
        if choice not in SCHOOLS[name].choices:
            raise BadDocument(
                f"settings, schools, {name}",
                str(choice),
                "one of " + ", ".join(SCHOOLS[name].choices),
            )
    return {str(n): str(c) for n, c in wanted.items()}


def odds_given(wanted: object) -> dict[str, float]:
    """Return odds of windings as given, factor by slug. Raises: BadDocument."""
    # it loads NumPy: a shop without odds needs none
    from careful_coil.core.winding.arrangements import ARRANGEMENTS

    where = "settings, arrangement_odds"
    if not isinstance(wanted, Mapping):
        raise BadDocument(where, str(wanted), "a map of winding and factor")
    for slug, factor in wanted.items():
        if slug not in ARRANGEMENTS:
            raise BadDocument(where, str(slug), "one of " + ", ".join(ARRANGEMENTS))
        plain = isinstance(factor, int | float) and not isinstance(factor, bool)
        if not plain or not LEAST_ODDS <= float(factor) <= MOST_ODDS:
            wants = f"a number from {LEAST_ODDS:g} to {MOST_ODDS:g}; 1 is usual"
            raise BadDocument(f"{where}, {slug}", str(factor), wants)
    return {str(s): float(f) for s, f in wanted.items()}


def initials_given(wanted: object) -> str:
    """Return initials as given. Raises: BadDocument."""
    if not isinstance(wanted, str) or len(wanted.strip()) > LONGEST_INITIALS:
        raise BadDocument("settings, foreman", str(wanted), "initials, such as CD, or nothing")
    return wanted.strip()


def currency_given(wanted: object) -> str:
    """Return a currency as given. Raises: BadDocument."""
    if not isinstance(wanted, str) or len(wanted.strip()) > LONGEST_CURRENCY:
        raise BadDocument(
            "settings, currency", str(wanted), "a sign or code of four letters at most"
        )
    return wanted.strip()
