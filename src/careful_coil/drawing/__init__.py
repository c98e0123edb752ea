"""Windings and hookups as plain shapes in millimetres; the window and the sheet only render them."""
