"""Noted fields folded: the newest text of each, by sheet and item, in the order they were said last."""

from collections.abc import Mapping

from careful_coil.core.job.body import put_text
from careful_coil.core.job.noted import Noted


class Notes:
    """Texts of every sheet while a log is folded; a blank takes its field back."""

    def __init__(self) -> None:
        self._told: dict[tuple[str, str], dict[str, str]] = {}

    def copy(self) -> "Notes":
        """Return the same, which later fields do not change."""
        found = Notes()
        found._told = dict(self._told)
        return found

    def put(self, body: Noted) -> None:
        """Take one more field."""
        key = body.sheet, body.of
        told = put_text(self._told.pop(key, {}), body.field, body.text)
        if told:
            self._told[key] = told

    def of(self, sheet: str, item: str = "") -> dict[str, str]:
        """Return the fields of a sheet."""
        return self._told.get((sheet, item), {})

    def items(self, sheet: str) -> Mapping[str, dict[str, str]]:
        """Return the fields of every item of a sheet."""
        return {of: told for (name, of), told in self._told.items() if name == sheet}

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Notes) and self._told == other._told

    __hash__ = None  # type: ignore[assignment]
