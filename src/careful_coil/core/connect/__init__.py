"""From a motor and a supply to joints, and from joints to a verdict; figures from the network."""

from careful_coil.core.connect.check import Check, check
from careful_coil.core.connect.hookup import Hookup, Supplied
from careful_coil.core.connect.plans import Plate, Wish, plan
from careful_coil.core.ways.way import Plan

__all__ = ["Check", "Hookup", "Plan", "Plate", "Supplied", "Wish", "check", "plan"]
