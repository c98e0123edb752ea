"""What starting loads: a window paints, and a short verb answers, without what is heavy."""

import subprocess
import sys

import pytest

RULES = (
    "careful_coil.core.ledger.judge",
    "careful_coil.core.job.fold",
    "careful_coil.core.identify",
)
RECORDS = ("sqlalchemy", "alembic", "careful_coil.records.store")
PAPERS = ("reportlab", "PIL", "segno", "careful_coil.report")
LATE = {
    "careful_coil.desk.start": (
        *("scipy", "numpy", "pydantic", "click", "pyqtgraph", "pyvisa", "argon2"),
        *("careful_coil.desk.stations", "careful_coil.demo", "careful_coil.core.sums"),
        *("careful_coil.cli", *RULES, *RECORDS, *PAPERS),
    ),
    "careful_coil.cli": (
        *("scipy", "numpy", "PySide6", "careful_coil.walk", "careful_coil.demo"),
        *("careful_coil.core.sums", "careful_coil.core.connect", *RULES, *RECORDS, *PAPERS),
    ),
    "careful_coil.cli_sums": ("scipy", "PySide6", "pydantic", *RULES, *RECORDS, *PAPERS),
    "careful_coil.cli_connect": ("scipy", "PySide6", RULES[0], RULES[2], *RECORDS, *PAPERS),
    "careful_coil.cli_identify": ("scipy", "PySide6", RULES[0], *RECORDS, *PAPERS),
    "careful_coil.cli_judge": ("scipy", "PySide6", *RECORDS, *PAPERS),
    "careful_coil.records.look": ("sqlalchemy", "alembic", "scipy", "PySide6", RULES[0]),
    "careful_coil.records.shop": ("alembic", "scipy", "PySide6", *RULES),
}


@pytest.mark.parametrize("module", LATE)
def test_what_is_heavy_loads_when_it_is_first_used(module: str) -> None:
    code = f"import sys; import {module}; print(*sys.modules)"
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    loaded = set(done.stdout.split())
    assert module in loaded
    assert sorted(loaded & set(LATE[module])) == []
