"""What kind of motor is it? Signs, kinds and their odds."""

from careful_coil.core.kind.kinds import KINDS, Kind, on_this_supply
from careful_coil.core.kind.sign_table import SIGNS
from careful_coil.core.kind.signs import Sign
from careful_coil.core.kind.weigh import Weighed, weigh_kinds

__all__ = ["KINDS", "SIGNS", "Kind", "Sign", "Weighed", "on_this_supply", "weigh_kinds"]
