"""The handbook's page of shop practices, made from where they are declared: run it as a module."""

from pathlib import Path

from careful_coil.core.schools import SCHOOLS
from careful_coil.core.stations import STATIONS, TITLES

PAGE = Path("docs/handbook/practices.md")
HEAD = """# Shop practices

Where practitioners differ the shop chooses once (Ctrl+,): each way with its reason, the usual one first.
What can hurt is no practice: it is a hold everywhere.
Made by `python -m careful_coil.documents.practices_page`; a test makes it again and compares.
"""


def page() -> str:
    """Return the page: by station, each question with its ways and their reasons."""
    parts = [HEAD]
    for station in STATIONS:
        own = [s for s in SCHOOLS.values() if s.station == station]
        if not own:
            continue
        parts += [f"## At {TITLES[station]}", ""]
        for practice in own:
            ways = [practice.usual, *(c for c in practice.choices if c != practice.usual)]
            parts += [f"**{practice.question}**", ""]
            parts += [f"- *{way}*: {practice.choices[way]}." for way in ways]
            parts.append("")
    return "\n".join(parts).rstrip() + "\n"


if __name__ == "__main__":
    PAGE.write_text(page(), encoding="utf-8")
