"""The parts of Test run."""
