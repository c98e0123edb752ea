"""The hookups of every winding, built by rule, and the devices that stand in them."""

from careful_coil.core.ways.book import plans_of, unlined
from careful_coil.core.ways.way import LINES, Joint, Plan, Stage

__all__ = ["LINES", "Joint", "Plan", "Stage", "plans_of", "unlined"]
