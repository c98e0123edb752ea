"""The parts of Release."""
