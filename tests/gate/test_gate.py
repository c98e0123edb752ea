"""The gate on whole logs: careful ones go, careless ones do not, and it says what stops them."""

import re
from collections.abc import Callable

import pytest

from careful_coil.core.job import fold
from careful_coil.core.ledger import Judgement, judge
from careful_coil.core.settings import Settings
from careful_coil.documents.job import read_job
from tests.gate import careful
from tests.gate.careful import Body, document
from tests.gate.careless import table
from tests.gate.careless_more import site_visit

CAREFUL: dict[str, Callable[[], list[Body]]] = {
    "three-phase": careful.three_phase,
    "capacitor-start": careful.capacitor_start,
    "rewound": careful.rewound,
    "bearing-renewed": careful.bearing_renewed,
    "site-visit": site_visit,
    "capacitor-renewed": careful.capacitor_renewed,
    "complaint-settled": careful.complaint_settled,
    "complaint-run-out": careful.complaint_run_out,
    "opened-again": careful.opened_again,
    "waived-by-another": careful.waived_by_another,
}
CARELESS = table()


def judged(bodies: list[Body]) -> Judgement:
    return judge(fold(read_job(document(bodies)).entries), Settings())


@pytest.mark.parametrize("name", CAREFUL)
def test_a_careful_log_is_released(name: str) -> None:
    found = judged(CAREFUL[name]())
    assert found.released, [(f.code, f.subject, f.why) for f in found.gate]


@pytest.mark.parametrize("name", CARELESS)
def test_a_careless_log_is_not_and_the_gate_says_why(name: str) -> None:
    make, stops = CARELESS[name]
    found = judged(make())
    assert not found.released
    lines = [f"{f.subject} {f.why}" for f in found.gate]
    assert any(re.search(stops, x, re.IGNORECASE) for x in lines), lines
