"""What a motor's owner is told: every part of it from the log, nothing that was not done."""

import pytest

from careful_coil.core.ledger.for_customer import for_customer
from careful_coil.core.settings import Settings
from careful_coil.demo.cast import cast_motor
from careful_coil.walk.play import play_headless


@pytest.mark.parametrize(
    ("motor", "wrong", "done", "renewed", "not_tested"),
    [
        ("cap-start-weak", "You said: hums", "well insulated", "Capacitor C1: ", "Under load"),
        ("three-3-earth", "", "ran 30 minutes closed", "Bearing, drive end: ", "Under load"),
        ("two-speed-one", "", "ran 10 minutes closed", "", "The low speed"),
    ],
)
def test_the_owner_hears_what_was_done_and_what_was_not(
    motor: str, wrong: str, done: str, renewed: str, not_tested: str
) -> None:
    played, _ = play_headless(cast_motor(motor), 1, Settings())
    assert played.judged is not None
    told = dict(for_customer(played.judged).lines())
    for title, words in (
        ("What was wrong", wrong),
        ("What was done", done),
        ("What is new", renewed),
        ("Not tested, and why", not_tested),
    ):
        assert words in told.get(title, "")
        assert bool(words) or title not in told or title == "What was wrong"
