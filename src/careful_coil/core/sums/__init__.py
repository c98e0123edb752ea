"""Bench sums: every formula of the shop by name; the functions live in the subjects."""

from careful_coil.core.sums.model import Answer, Input, Sum
from careful_coil.core.sums.registry import SUMS, work_out

__all__ = ["SUMS", "Answer", "Input", "Sum", "work_out"]
