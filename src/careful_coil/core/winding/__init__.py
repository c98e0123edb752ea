"""The winding network: what every question about a motor is asked of."""

from careful_coil.core.winding.arrangements import ARRANGEMENTS, Arrangement, arrangement
from careful_coil.core.winding.network import Coil, Network

__all__ = ["ARRANGEMENTS", "Arrangement", "Coil", "Network", "arrangement"]
