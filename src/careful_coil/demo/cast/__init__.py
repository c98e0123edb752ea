"""The cast: invented hidden motors that are played whole by what Next says."""

from collections.abc import Mapping
from importlib.resources import files
from typing import Any

from careful_coil.documents.base import parse_json


def cast_names() -> tuple[str, ...]:
    """Return the motors' names, in order."""
    found = (f.name for f in files(__name__).iterdir() if f.name.endswith(".json"))
    return tuple(sorted(n.removesuffix(".json") for n in found))


def cast_motor(name: str) -> Mapping[str, Any]:
    """Return a motor's document as it is written."""
    return parse_json((files(__name__) / f"{name}.json").read_text(encoding="utf-8"))
