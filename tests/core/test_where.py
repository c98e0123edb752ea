"""Where somebody was who comes back to a motor."""

import pytest

from careful_coil.core.ledger.where import where_was_i
from careful_coil.core.settings import Settings
from careful_coil.demo.cast import cast_motor
from careful_coil.walk.bench import CoreBench
from careful_coil.walk.play import play
from careful_coil.walk.truth import World


class Stops(CoreBench):
    """A bench that stops before a step: the hand is taken off there."""

    stop = ""

    def put(self, step, question, text):  # type: ignore[no-untyped-def]
        """Answer, unless it is where the hand is taken off."""
        if step.code.startswith(self.stop):
            raise KeyboardInterrupt
        super().put(step, question, text)


@pytest.mark.parametrize(
    ("motor", "stop", "words"),
    [
        ("cap-start-weak", "discharge", "CHARGED by the tester"),
        ("six-marked", "joint-L2", "joints half made"),
        ("six-marked", "trial-run", "a test sheet is open"),
        ("six-marked", "resistance", "probes go to A and D"),
    ],
)
def test_it_says_what_was_left_and_what_comes_next(motor: str, stop: str, words: str) -> None:
    bench = Stops(Settings())
    bench.stop = stop
    with pytest.raises(KeyboardInterrupt):
        play(World(cast_motor(motor), 1), 1, bench)
    judged = bench.judged()
    told = where_was_i(judged)
    assert words in told
    assert judged.next is not None
    assert told.endswith(f"Next: {judged.next.title}.")
    last = judged.job.log[-1].at
    assert where_was_i(judged, last) == ""  # nobody was away
    assert "3 days ago" in where_was_i(judged, last.replace("-02T", "-05T"))
