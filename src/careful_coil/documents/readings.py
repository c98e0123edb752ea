"""`careful-coil/readings` version 1."""

from typing import Annotated, Any, Literal

from pydantic import Field

from careful_coil.core.identify import Evidence
from careful_coil.core.identify.extras import earthy
from careful_coil.core.readings import (
    DEFAULT_ACCURACY_PERCENT,
    DEFAULT_OPEN_ABOVE_OHM,
    AnyReading,
    Meter,
    Tag,
)
from careful_coil.documents.base import Document, check_format, read_model

FORMAT = "careful-coil/readings"


class MeterDocument(Document):
    """What the meter can do; `lead_ohm` absent: unknown, between 0 and 0.5 Ω."""

    accuracy_percent: Annotated[float, Field(gt=0, le=50)] = DEFAULT_ACCURACY_PERCENT
    resolution_ohm: Annotated[float, Field(gt=0, le=1000)] | None = None
    open_above_ohm: Annotated[float, Field(gt=0)] = DEFAULT_OPEN_ABOVE_OHM
    lead_ohm: Annotated[float, Field(ge=0, le=100)] | None = None


class LeadDocument(Document):
    """A lead with what is seen on it."""

    tag: Tag
    colour: str = ""
    tracer: str = ""
    pin: str = ""
    mark: Annotated[str, Field(max_length=20)] = ""


class ReadingsDocument(Document):
    """Leads and readings, with the meter and the winding's temperature where known."""

    format: Literal["careful-coil/readings"]
    version: Literal[1]
    leads: Annotated[tuple[Tag | LeadDocument, ...], Field(min_length=1, max_length=16)]
    meter: MeterDocument = MeterDocument()
    temperature_c: Annotated[float, Field(ge=-50, le=200)] | None = None
    readings: tuple[AnyReading, ...]

    def evidence(self) -> Evidence:
        """Return the readings digested. Raises: BadDocument."""
        leads = [LeadDocument(tag=x) if isinstance(x, str) else x for x in self.leads]
        return Evidence.of(
            [x.tag for x in leads],
            self.readings,
            Meter(**self.meter.model_dump()),
            marks={x.tag: x.mark for x in leads},
            uses={x.tag: "earth" for x in leads if earthy(x.colour, x.tracer)},
        )


def read_readings(found: dict[str, Any]) -> ReadingsDocument:
    """Return a readings document. Raises: BadDocument."""
    check_format(found, FORMAT)
    return read_model(ReadingsDocument, found)
