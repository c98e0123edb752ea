"""Days as people type them: 2026-03-10, 10.3.2026, 10 March 2026 by its number; kept as ISO 8601 writes them."""

import re
from calendar import monthrange

from careful_coil.core.errors import AmbiguousValue, BadValue

WANTED = "a day, such as 2026-03-10 or 10.3.2026"
MONTHS = 12
_ISO = re.compile(r"(\d{4})-(\d{1,2})-(\d{1,2})")
_POINTS = re.compile(
    r"(\d{1,2})\.(\d{1,2})\.(\d{4})"
)  # the day stands first wherever points are written
_STROKES = re.compile(r"(\d{1,2})/(\d{1,2})/(\d{4})")  # day or month may stand first


def read_day(text: str) -> str:
    """Return a day as kept, `2026-03-10`. Raises: BadValue, AmbiguousValue where strokes leave it open."""
    told = text.strip()
    if found := _ISO.fullmatch(told):
        return _day(text, *map(int, found.groups()))
    if found := _POINTS.fullmatch(told):
        day, month, year = map(int, found.groups())
        return _day(text, year, month, day)
    if found := _STROKES.fullmatch(told):
        first, second, year = map(int, found.groups())
        ways = {(m, d) for m, d in ((first, second), (second, first)) if m <= MONTHS}
        if len(ways) > 1:
            one, other = (_day(text, year, m, d) for m, d in sorted(ways))
            raise AmbiguousValue(text, one, other)
        for month, day in ways:
            return _day(text, year, month, day)
    raise BadValue(text, WANTED)


def _day(text: str, year: int, month: int, day: int) -> str:
    if not (year and 1 <= month <= MONTHS and 1 <= day <= monthrange(year, month)[1]):
        raise BadValue(text, WANTED, "The calendar has no such day.")
    return f"{year:04}-{month:02}-{day:02}"
