"""What every Next asks: its fields as declared, its part of the motor."""

from careful_coil.core.ledger.asks.question import Question
from careful_coil.core.ledger.asks.table import asks_of

__all__ = ["Question", "asks_of"]
