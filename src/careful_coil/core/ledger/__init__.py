"""The ledger: all findings, what stands before the motor can go, and the one next thing to do."""

from careful_coil.core.ledger.judge import Judgement, judge
from careful_coil.core.ledger.next_card import NextStep

__all__ = ["Judgement", "NextStep", "judge"]
