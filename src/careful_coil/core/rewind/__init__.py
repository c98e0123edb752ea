"""Winding data and what is worked out of them: wire, layout, factors, magnetics, conversions."""
