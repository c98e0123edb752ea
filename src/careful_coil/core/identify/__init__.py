"""Unknown leads: from any set of readings to what the winding is, and what to read next."""

from careful_coil.core.identify.engine import identify
from careful_coil.core.identify.evidence import Evidence
from careful_coil.core.identify.naming import Naming, evidence_of, name_leads
from careful_coil.core.identify.result import Candidate, Identification, Suspect

__all__ = [
    "Candidate",
    "Evidence",
    "Identification",
    "Naming",
    "Suspect",
    "evidence_of",
    "identify",
    "name_leads",
]
