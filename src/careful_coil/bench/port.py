"""The one seam between the bench and any instrument, real or simulated."""

from typing import Protocol

from careful_coil.core.probes import Request, Shown
from careful_coil.core.readings import Meter


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
