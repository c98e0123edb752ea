"""Unknown leads: from any set of readings to what the winding is, and what to read next."""

from careful_coil.core.identify.engine import identify
from careful_coil.core.identify.evidence import Evidence, Meter
from careful_coil.core.identify.result import Candidate, Identification, Suspect

__all__ = ["Candidate", "Evidence", "Identification", "Meter", "Suspect", "identify"]
