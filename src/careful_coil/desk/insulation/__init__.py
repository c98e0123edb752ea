"""The parts of Insulation, and the clocks of its tests."""
