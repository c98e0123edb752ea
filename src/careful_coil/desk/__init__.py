"""The window. Only app.py imports it."""
