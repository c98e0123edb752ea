"""Instruments: the port they are asked through, and the simulated meter that ships."""

from careful_coil.bench.port import Instrument

__all__ = ["Instrument"]
