"""The motor on its supply, turning: the tachometer."""
