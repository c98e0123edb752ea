"""Bench sums: every formula of the shop by name; the functions live in their subjects."""

from careful_coil.core.sums.registry import SUMS, Answer, Input, Sum, work_out

__all__ = ["SUMS", "Answer", "Input", "Sum", "work_out"]
