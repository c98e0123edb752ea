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
TITLES: dict[Station, str] = {
    "intake": "Intake",
    "leads": "Leads",
    "insulation": "Insulation",
    "start-gear": "Start gear",
    "mechanics": "Mechanics",
    "winding": "Winding",
    "connect": "Connect",
    "test-run": "Test run",
    "release": "Release",
}
