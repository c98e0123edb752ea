"""The nine stations of the bench, in the order a motor passes them."""

from typing import Literal, get_args

Station = Literal[
    "intake",
    "leads",
    "insulation",
    "start-gear",
    "mechanics",
    "winding",
    "connect",
    "test-run",
    "release",
]
STATIONS: tuple[Station, ...] = get_args(Station)
