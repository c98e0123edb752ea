"""What every kind of entry has in common: frozen, versioned, unknown keys kept."""

from collections.abc import Mapping
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

ShortText = Annotated[str, Field(max_length=200)]
LongText = Annotated[str, Field(max_length=4000)]


class Body(BaseModel):
    """Common to all kinds: frozen; unknown extra keys are kept and handed on."""

    model_config = ConfigDict(frozen=True, extra="allow", defer_build=True)
    v: Literal[1] = 1

    @property
    def topic(self) -> str:
        """Return what it is called: its kind, or the sheet it is a field of."""
        return str(getattr(self, "kind", ""))


def put_text(known: Mapping[str, str], name: str, text: str) -> dict[str, str]:
    """Return a mapping with one more text in its place, or without it where the text is empty."""
    found = {k: v for k, v in known.items() if k != name or text}
    return found | {name: text} if text else found
