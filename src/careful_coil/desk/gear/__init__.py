"""The parts of Start gear."""
