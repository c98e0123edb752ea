"""The parts of Connect."""
