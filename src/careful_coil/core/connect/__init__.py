"""From a motor and a supply to joints: found by rule, figures taken from the network."""

from careful_coil.core.connect.plans import Plan, Plate, plan, plans_of

__all__ = ["Plan", "Plate", "plan", "plans_of"]
