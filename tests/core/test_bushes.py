"""Sleeve bearings: said in place of a number, asked for wick, ports and oil; one that ran dry is oiled."""

import pytest

from careful_coil.core.errors import BadValue
from careful_coil.core.ledger.asks.table import asks_of
from careful_coil.core.ledger.next_mechanics import mechanics_steps
from careful_coil.core.ledger.written import written
from careful_coil.core.mechanics.parts import parts_wanted
from careful_coil.core.settings import Settings
from tests.core.logs import judged
from tests.core.test_bearings import TICKET, bearing, of


def test_a_bush_is_said_in_place_of_a_number_and_asked_for_what_it_has() -> None:
    """No number, no callipers: how it runs, its wick, ports where it has one, the oil that was put in."""
    job = judged(*TICKET).job
    (sort,) = written("bearing", "number", "Bush", job, "drive")
    assert (sort.field, sort.text) == ("sort", "sleeve")
    asked: list[str] = []
    known: dict[str, str] = {"sort": "sleeve"}
    for field, word in (
        ("state", "dry"), ("done", "oiled"), ("wick", "soaks"), ("ports", "2 of 2"), ("oil", "32"),
    ):  # fmt: skip
        facts = judged(*TICKET, *bearing(**known)).facts
        step = next(s for s in mechanics_steps(facts) if s.code == "bearing-drive")
        asked.append(step.focus)
        known |= {n.field: n.text for n in written("bearing", field, word, job, "drive")}
    assert asked == [f"drive-{f}" for f in ("state", "done", "wick", "ports", "oil")]
    assert known["oil"] == "ISO VG 32"
    oiled = judged(*TICKET, *bearing(**known))
    assert of(oiled, "bearing-drive").verdict == "good"
    assert parts_wanted(oiled.job, Settings()) == ()  # it wanted oil, no part
    loose = judged(*TICKET, *bearing(sort="sleeve", state="loose"))
    assert "sleeve bearing" in parts_wanted(loose.job, Settings())[0].words
    with pytest.raises(BadValue, match="which oil"):
        list(written("bearing", "oil", "=", job, "other"))


def test_a_dry_wick_is_wetted_and_not_asked_for_as_a_look_again() -> None:
    told = {"sort": "sleeve", "state": "good", "wick": "dry"}
    found = judged(*TICKET, *bearing(**told))
    step = next(s for s in mechanics_steps(found.facts) if s.code == "bearing-drive")
    (asked,) = asks_of(found, step)
    assert (step.focus, asked.quantity, asked.state) == ("drive-wick", "work", "soaks")
