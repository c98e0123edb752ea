"""What is noted in a declared field: one kind of entry; kinds of before are lifted to it on reading."""

import re
from collections.abc import Mapping
from functools import cached_property
from typing import Annotated, Any, Literal, Self

from pydantic import Field, model_validator

from careful_coil.core.errors import BadValue
from careful_coil.core.job.body import Body, LongText, ShortText
from careful_coil.core.sheets import SHEETS, Sheet

_NAME = re.compile(r"[A-Za-z][\w-]{0,19}")
# kinds as they were first published: what names the item, the field and the text in them
LIFTED: Mapping[str, tuple[str, str, str]] = {
    "ticket": ("", "field", "text"),
    "plate": ("", "field", "text"),
    "look": ("", "sign", "answer"),
    "estimate": ("", "field", "value"),
    "card": ("side", "field", "text"),
    "voltage-tag": ("", "place", "words"),
    "condition": ("", "item", "answer"),
    "symptom": ("", "symptom", "answer"),
    "winding-made": ("", "field", "text"),
    "cause-tested": ("", "test", "outcome"),
    "cause-found": ("", "", "cause"),
    "capacitor": ("name", "field", "text"),
    "device-noted": ("name", "field", "text"),
    "felt": ("", "field", "text"),
    "bearing": ("end", "field", "text"),
    "brush": ("name", "field", "text"),
    "winding-noted": ("", "field", "text"),
    "wished": ("", "field", "text"),
    "site-checked": ("", "item", "words"),
}


OUTCOMES: Mapping[str, str] = {"lets go": "opens"}  # of tests, as they were called first


class Noted(Body):
    """One field of a sheet: `of` which item of it, the text as kept; an empty text takes it back.

    `words` what was said beside it.
    """

    kind: Literal["noted"] = "noted"
    sheet: Annotated[str, Field(max_length=40)]
    of: Annotated[str, Field(max_length=20)] = ""
    field: Annotated[str, Field(min_length=1, max_length=200)]
    text: LongText = ""
    words: LongText = ""

    @model_validator(mode="after")
    def _declared(self) -> Self:
        sheet = SHEETS.get(self.sheet)
        if sheet is None:
            raise ValueError(f"sheet “{self.sheet}”: wanted one of {', '.join(SHEETS)}")
        _check_of(sheet, self.of)
        if sheet.free:
            return self
        if not sheet.knows(self.field):
            known = ", ".join(f.name for f in sheet.fields)
            raise ValueError(f"{self.sheet} “{self.field}”: wanted one of {known}")
        field = sheet.field(self.field)
        if len(self.text) > max(field.longest, 200):
            raise ValueError(f"{self.field}: at most {max(field.longest, 200)} characters")
        try:
            field.check(self.text)
        except BadValue as error:
            raise ValueError(f"{self.field} “{self.text}”: wanted {error.accepted}") from None
        return self

    @property
    def topic(self) -> str:
        """Return the sheet."""
        return self.sheet


def _check_of(sheet: Sheet, of: str) -> None:
    if sheet.of and of not in sheet.of:
        raise ValueError(f"{sheet.name} of “{of}”: wanted {' or '.join(sheet.of)}")
    if sheet.example and not _NAME.fullmatch(of):
        raise ValueError(f"{sheet.name} of “{of}”: wanted a name such as {sheet.example}")
    if not sheet.of and not sheet.example and of:
        raise ValueError(f"{sheet.name}: there is only one, read “{of}”")


class Old(Body):
    """A noted field as one of the kinds before: kept and exported as written, read as `Noted`."""

    kind: Literal[
        "ticket",
        "plate",
        "look",
        "estimate",
        "card",
        "voltage-tag",
        "condition",
        "symptom",
        "winding-made",
        "cause-tested",
        "cause-found",
        "capacitor",
        "device-noted",
        "felt",
        "bearing",
        "brush",
        "winding-noted",
        "wished",
        "site-checked",
    ]

    @model_validator(mode="after")
    def _reads(self) -> Self:
        _ = self.lifted  # refused here, not in the middle of a fold
        return self

    @property
    def topic(self) -> str:
        """Return the sheet."""
        return self.kind

    @cached_property
    def lifted(self) -> Noted:
        """Return it as it is read. Raises: ValueError with what is missing or cannot be."""
        of, field, text = LIFTED[self.kind]
        told: dict[str, Any] = self.model_extra or {}
        missing = [k for k in (of, field) if k and k not in told]
        if missing:
            raise ValueError(f"{self.kind}: wanted {missing[0]}")
        value = told.get(text, "")
        if self.kind == "estimate":
            value = _figure(str(told[field]), value)
        if self.kind == "capacitor" and told[field] == "loss":
            value = _percent(value)
        if self.kind == "cause-tested":
            value = OUTCOMES.get(value, value) if isinstance(value, str) else value
        if not isinstance(value, str):
            raise ValueError(f"{self.kind}, {text}: wanted a text")
        return Noted(
            sheet=self.kind,
            of=told[of] if of else "",
            field=told[field] if field else "cause",
            text=value,
            words=told.get("words", "") if self.kind == "condition" else "",
        )


def _figure(field: str, value: object) -> str:
    """Return a figure of an estimate as text; flags were 1 and 0."""
    if isinstance(value, bool) or not isinstance(value, int | float) or not 0 <= value <= 1e9:
        raise ValueError(f"{field}: wanted a figure from 0 to 1e9")
    if SHEETS["estimate"].knows(field) and SHEETS["estimate"].field(field).choices:
        return "yes" if value else "no"
    return f"{value:.6g}"


def _percent(value: object) -> object:
    """Return a loss in %; it was a share of 1."""
    try:
        return f"{100 * float(str(value)):.4g} %" if value else value
    except ValueError:
        return value


def note(sheet: str, field: str, text: str = "", of: str = "", words: ShortText = "") -> Noted:
    """Return the entry of one field."""
    return Noted(sheet=sheet, of=of, field=field, text=text, words=words)
