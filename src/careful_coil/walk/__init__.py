"""Whole motors played by what Next says: truth, player and referee, three rooms that do not know each other."""
