"""The gate's line of the test run: what one sheet found bad, and what lifts it."""

from tests.core.test_trial import END, WHOLE, begun, findings, step


def test_what_one_sheet_found_bad_is_not_lifted_by_another_of_its_kind_only() -> None:
    bad = step("400 V 2.6/2.6/0.01 A smooth")
    worked = {"kind": "supply-read", "line": [400, 401, 399]}  # the supply was what was dead
    for load in ("load", "locked"):
        odd = [*begun("on", load=load), bad, END]
        held = findings(*odd, *WHOLE)["test-run"]
        assert (held.verdict, held.waivable) == ("hold", False), load
        assert "No amps in L3, sheet of 2026-03-01" in held.why
        assert findings(*odd, worked, *WHOLE)["test-run"].verdict == "hold"
        again = [*begun("on", load=load), step("400 V 5/5/5 A 1445 rpm smooth"), END]
        assert findings(*odd, worked, *again, *WHOLE)["test-run"].verdict == "good", load
