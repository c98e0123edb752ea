"""The order in which things are asked, frozen: every demo job at several moments of its log.

`python -m tests.core.test_next_order` writes the table anew; a change of it is a change of the law of Next.
"""

import json
from collections.abc import Iterator
from importlib import resources
from pathlib import Path

from careful_coil.core.job import Entry, fold
from careful_coil.core.ledger import judge
from careful_coil.core.settings import Settings

TABLE = Path(__file__).with_name("next-order.tsv")
MOMENTS = 4  # of each log, besides its end


def rows() -> Iterator[str]:
    """Yield job, number of entries, and the codes of all that is asked then."""
    jobs = resources.files("careful_coil.demo.jobs")
    for path in sorted(p.name for p in jobs.iterdir() if p.name.endswith(".json")):
        document = json.loads((jobs / path).read_text(encoding="utf-8"))
        log = [Entry.model_validate(e) for e in document["entries"]]
        for count in sorted({len(log), *range(6, len(log), max(len(log) // MOMENTS, 1))}):
            asked = [s.code for s in judge(fold(log[:count]), Settings()).steps]
            yield "\t".join((path.removesuffix(".json"), str(count), " | ".join(asked)))


def test_the_order_of_next_is_as_written() -> None:
    """Whoever changes the order says so by changing the table."""
    wanted = TABLE.read_text(encoding="utf-8").splitlines()
    for was, now in zip(wanted, rows(), strict=True):
        assert now == was


if __name__ == "__main__":
    TABLE.write_text("\n".join(rows()) + "\n", encoding="utf-8")
