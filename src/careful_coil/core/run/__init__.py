"""The motor on its supply: power, starting current, flux."""
