"""The one seam between the bench and any instrument, real or simulated."""

from dataclasses import dataclass
from typing import Protocol

from careful_coil.core.probes import Request
from careful_coil.core.readings import Meter


@dataclass(frozen=True, slots=True, kw_only=True)
class Shown:
    """What the instrument shows: `text` in the bench-value grammar or a test's word."""

    text: str
    unit: str
    steady: bool = True


class Instrument(Protocol):
    """Anything that can be asked for what it shows now.

    Raises: InstrumentError when there is no usable answer.
    """

    @property
    def name(self) -> str:
        """Name shown on the strip; a simulated one says so."""

    @property
    def meter(self) -> Meter:
        """What the instrument can tell."""

    def show(self, request: Request) -> Shown:
        """Return what it shows for the probes as they are."""
