"""Careful Coil: bench companion of a motor rewind and repair shop."""
