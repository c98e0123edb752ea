"""What every kind of entry has in common: frozen, versioned, unknown keys kept."""

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

ShortText = Annotated[str, Field(max_length=200)]
LongText = Annotated[str, Field(max_length=4000)]


class Body(BaseModel):
    """Common to all kinds: frozen; unknown extra keys are kept and handed on."""

    model_config = ConfigDict(frozen=True, extra="allow")
    v: Literal[1] = 1
