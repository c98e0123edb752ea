"""The ledger: all findings, what stands before the motor can go, and the one next thing to do."""

from careful_coil.core.ledger.judge import judge
from careful_coil.core.ledger.judgement import Judgement
from careful_coil.core.ledger.step import NextStep

__all__ = ["Judgement", "NextStep", "judge"]
