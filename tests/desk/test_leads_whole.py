"""Whole motors at the Leads station, through the window: played, mended, left undecided, explained."""

from pathlib import Path

import pytest

from careful_coil.core.job.entries import ReadingTaken
from careful_coil.core.probes import Request
from careful_coil.core.readings import Kick, Resistance, Run, Series, Spin
from careful_coil.desk.keeping import change_settings
from careful_coil.desk.shared.marks import marks_of
from careful_coil.desk.stations.leads import LeadsPage
from tests.desk.driver import Bench, Key


def page_of(bench: Bench) -> LeadsPage:
    page = bench.window.pages["leads"]
    assert isinstance(page, LeadsPage)
    return page


def loose(bench: Bench, count: int) -> Bench:
    """So many loose leads on the bench, proved dead, the meter on them."""
    bench.window.rack.who.setText("EF")
    bench.ctrl(Key.Key_L)
    bench.enter(str(count))
    bench.key(Key.Key_Return)
    bench.meter_here()
    return bench


def typed(bench: Bench, rows: str) -> None:
    """Type the first reading of rows like `AB 3.9`; the others and all other pairs, open, at once."""
    told = dict(row.split() for row in rows.split("\n"))
    first, *rest = told
    bench.enter(f"{first} {told[first]}")
    tags = bench.judged.job.tags
    pairs = [(a, b) for k, a in enumerate(tags) for b in tags[k + 1 :] if a + b != first]
    readings = [Resistance(between=p, value=told.get("".join(p), "open")) for p in pairs]
    assert len(rest) <= len(readings)
    bench.window.session.record(*(ReadingTaken(reading=r) for r in readings))
    bench.settle()


def play(bench: Bench, most: int = 60) -> None:
    """Take what Next asks for until it asks for no more at Leads."""
    for _ in range(most):
        step = bench.judged.next
        if step is None or step.act not in (
            "resistance",
            "switch",
            "shaft",
            "kick",
            "series",
            "run",
        ):
            return
        bench.key(Key.Key_Space)
    raise AssertionError("it never ends")


def test_six_leads_are_played_from_nothing_to_proven_markings(bench: Bench) -> None:
    loose(bench, 6)
    play(bench)
    assert bench.judged.facts.naming.word == "proven"
    kinds = [t.reading for t in bench.judged.job.readings]
    assert len([r for r in kinds if isinstance(r, Resistance)]) < 10
    assert sum(isinstance(r, Kick) for r in kinds) >= 2
    rows = page_of(bench).marks.rows
    assert {mark for _, mark, _ in rows} == {f"T{k}" for k in range(1, 7)}
    assert {word for _, _, word in rows} <= {"proven", "free to choose"}
    bench.ctrl(Key.Key_T)
    written = Path(bench.message.split("Written: ")[1])
    assert written.read_bytes().startswith(b"%PDF")


def test_the_ropewalks_bad_clip_is_mended_by_a_second_take(bench: Bench) -> None:
    bench.open("ropewalk")
    bench.ctrl(Key.Key_2)
    bench.meter_here()
    page = page_of(bench)
    assert bench.next == "Exchange the probes, read L to D"
    assert page.sheet.suspect_pairs() == {frozenset("DL")}
    assert "(open)" in page.sheet.shown("G", "L")
    assert page.sheet.shown("A", "D").startswith("1 of")
    bench.key(Key.Key_Space)
    assert page.sheet.suspect_pairs() == set()
    assert page.sheet.shown("D", "L") == "0.8294"  # by four wires


def test_a_broken_coil_is_a_hold_once_it_reads_open_twice(empty: Bench) -> None:
    loose(empty, 6)
    typed(empty, "AB 3.92\nCD 3.90")
    assert "F to E" in empty.next
    assert "broken coil" in empty.judged.next.why  # type: ignore[union-attr]
    empty.enter("open")
    assert any("A coil is open at E and F" in row for row in empty.ledger())
    assert any(f.code == "coil-open" and not f.waivable for f in empty.judged.gate)


def test_a_five_speed_chain_is_named_from_high_to_low(empty: Bench) -> None:
    loose(empty, 7)
    # run and start meet at the high lead B; taps C D E F follow it
    arms = {"A": 20.0, "G": 36.0}
    steps = {"B": 0.0, "C": 3.1, "D": 6.3, "E": 9.2, "F": 12.4}
    rows = []
    for k, a in enumerate("ABCDEFG"):
        for b in "ABCDEFG"[k + 1 :]:
            if a in arms and b in arms:
                ohm = arms[a] + arms[b]
            elif a in arms or b in arms:
                arm, tap = (a, b) if a in arms else (b, a)
                ohm = arms[arm] + steps[tap]
            else:
                ohm = steps[b] - steps[a]
            rows.append(f"{a}{b} {ohm:.2f}")
    typed(empty, "\n".join(rows))
    found = empty.judged.facts.identification
    assert found is not None
    assert found.best.arrangement == "single-phase-speed-taps"
    assert found.best.variant == "five"
    assert found.best.order == tuple("BCDEF")
    assert {"BC", "CD", "DE"} <= {a + b for a, b in found.never_energise}


def test_star_or_delta_of_three_leads_stays_a_note(empty: Bench) -> None:
    loose(empty, 3)
    typed(empty, "AB 4.02\nAC 4.00\nBC 4.01")
    found = empty.judged.facts.identification
    assert found is not None
    assert found.best.arrangement == "three-phase-3-lead"
    assert any("star" in n.lower() and "delta" in n.lower() for n in found.best.notes)


def test_a_row_is_swept_and_let_go(bench: Bench) -> None:
    loose(bench, 6)
    bench.enter("sweep c")
    for _ in range(5):
        assert bench.window.session.target is not None
        assert bench.window.session.target.ends[0] == "C"
        bench.key(Key.Key_Space)
    read = {
        t.reading.pair() for t in bench.judged.job.readings if isinstance(t.reading, Resistance)
    }
    assert {tuple(sorted(p)) for p in read if p} == {tuple(sorted(("C", t))) for t in "ABDEF"}
    bench.enter("sweep off")
    assert bench.window.session.sweep == ""
    bench.enter("sweep X")
    assert "sweep A" in bench.note


def test_what_somebody_knows_is_kept_under_initials_and_taken_back(bench: Bench) -> None:
    bench.open("bakery")
    bench.ctrl(Key.Key_2)
    bench.meter_here()
    page = page_of(bench)
    bench.enter("know b common")
    assert bench.judged.job.known == (("B", "common"),)
    assert "B common" in page.known.text()
    assert bench.job.entries[-1].by == "AB"
    assert page.put_cursor("known")
    bench.enter("B nothing")
    assert not bench.judged.job.known
    assert page.put_cursor("known")
    bench.enter("Q common")
    assert "C U2" in page.fields["known"].message.text()


def test_swapped_tags_take_what_is_known_with_them(bench: Bench) -> None:
    bench.open("bakery")
    bench.ctrl(Key.Key_2)
    bench.meter_here()
    bench.enter("know b common")
    bench.enter("swap B C")
    assert bench.judged.job.known == (("C", "common"),)


def test_a_kick_is_drawn_and_answered_by_number(bench: Bench) -> None:
    bench.open("boatyard")
    bench.ctrl(Key.Key_2)
    page = page_of(bench)
    bench.window.session.pick(Request(kind="kick", ends=("A", "D"), sense=("C", "F")))
    assert page.guide.isVisibleTo(page)
    assert "battery on A D" in page.guide.accessibleDescription()
    bench.ctrl(Key.Key_M)
    bench.meter_here()
    bench.window.session.pick(Request(kind="kick", ends=("A", "D"), sense=("C", "F")))
    bench.enter("4")
    last = bench.judged.job.readings[-1].reading
    assert isinstance(last, Kick)
    assert last.value == "down-small"
    assert not page.guide.isVisibleTo(page)


@pytest.mark.parametrize("words", ["60 0.41/0.40/0.41 smooth", "60 V 0.41/0,40/0.41 rough"])
def test_a_run_at_reduced_volts_is_typed_in_one_line(empty: Bench, words: str) -> None:
    loose(empty, 6)
    typed(empty, "AB 3.92\nCD 3.90\nEF 3.91")
    request = Request(
        kind="run", ends=(), lines=(("A",), ("D",), ("E",)), joints=(("B", "C", "F"),)
    )
    empty.window.session.pick(request)
    empty.enter(words)
    last = empty.judged.job.readings[-1].reading
    assert isinstance(last, Run)
    assert last.amp == pytest.approx((0.41, 0.40, 0.41))
    assert last.turns == words.rsplit(" ", 1)[1]


@pytest.mark.parametrize(
    "words", ["60", "60 0.4/0.4 smooth", "60 0.4/0.4/0.4 fast", "0 1/1/1 none"]
)
def test_a_run_that_says_too_little_is_refused(empty: Bench, words: str) -> None:
    loose(empty, 6)
    request = Request(
        kind="run", ends=(), lines=(("A",), ("D",), ("E",)), joints=(("B", "C", "F"),)
    )
    empty.window.session.pick(request)
    before = len(empty.job.entries)
    empty.enter(words)
    assert "60 V 0.41/0.40/0.41 smooth" in empty.note
    assert len(empty.job.entries) == before


def test_why_it_is_believed_unfolds_with_the_history(bench: Bench) -> None:
    bench.open("ropewalk")
    bench.ctrl(Key.Key_2)
    page = page_of(bench)
    assert not page.why.isVisibleTo(page)
    bench.ctrl(Key.Key_R)
    bench.settle(lambda: bool(page.why.moves.moments))
    assert "0.83" in page.why.favour.text()
    assert "D to L reads 1.47" in page.why.against.text()
    moments = page.why.moves.moments
    assert len(moments) == len(bench.judged.job.readings)
    assert moments[-1].groups > moments[0].groups
    bench.ctrl(Key.Key_R)
    assert not page.why.isVisibleTo(page)


def test_marks_are_told_in_the_shops_own_letters(bench: Bench) -> None:
    bench.open("boatyard")
    bench.ctrl(Key.Key_2)
    settings = bench.window.session.settings
    iec = settings.changed({"schools": {"marks": "IEC"}})
    plain = {t: m for t, m, _ in marks_of(bench.judged, settings)}
    told = {t: m for t, m, _ in marks_of(bench.judged, iec)}
    assert plain["A"] == "T1"
    assert told["A"] == "U1"
    assert set(told.values()) == {"U1", "U2", "V1", "V2", "W1", "W2"}


def test_a_shop_that_does_not_bunch_is_asked_for_pairs(bench: Bench) -> None:
    loose(bench, 12)
    assert bench.judged.next is not None
    assert bench.judged.next.also
    change_settings(bench.window.session, {"schools": {"bunching": "no"}})
    bench.settle()
    assert bench.judged.next is not None
    assert not bench.judged.next.also


def test_the_shops_odds_of_a_winding_are_seen_and_changed(bench: Bench) -> None:
    bench.ctrl(Key.Key_Comma)
    page = bench.window.settings_page
    at = next(k for k in range(page.odds.count()) if "armature" in page.odds.row_words(k))
    page.odds.current = at
    slug = page.odds.name()
    page.fields["odds"].cell.setFocus()
    bench.enter("4")
    assert bench.window.session.settings.arrangement_odds == {slug: 4.0}
    assert "4 × usual" in page.odds.row_words(at)
    page.fields["odds"].cell.setFocus()
    bench.enter("often")
    assert "1 is usual" in page.fields["odds"].message.text()
    page.fields["odds"].cell.setFocus()
    bench.enter("1")
    assert bench.window.session.settings.arrangement_odds == {}


def test_volts_of_a_shaft_spun_by_hand_are_typed(empty: Bench) -> None:
    loose(empty, 6)
    empty.window.session.pick(Request(kind="spin", ends=("A", "B")))
    empty.enter("12 Ω")
    assert "volts" in empty.note
    empty.enter("600 mV")
    last = empty.judged.job.readings[-1].reading
    assert isinstance(last, Spin)
    assert last.volt == pytest.approx(0.6)


def test_without_a_battery_a_series_test_is_drawn_and_typed(bench: Bench) -> None:
    loose(bench, 6)
    while bench.judged.next is not None and bench.judged.next.act == "resistance":
        bench.key(Key.Key_Space)
    assert bench.next.startswith("Kick")
    bench.enter("n")  # a letter here: an answer may be none
    assert bench.next.startswith("Tie ")
    assert "tied to" in page_of(bench).guide.accessibleDescription()
    bench.enter("12 V")
    assert "12 V 23.1" in bench.note
    bench.key(Key.Key_Escape)
    bench.key(Key.Key_Space)
    assert isinstance(bench.judged.job.readings[-1].reading, Series)
    play(bench)
    assert bench.judged.facts.naming.word == "proven"


@pytest.mark.parametrize(
    ("kind", "words"), [("kick", "fuse"), ("series", "transformer"), ("run", "quarter")]
)
def test_every_test_with_power_has_its_caution_where_the_hand_is(
    bench: Bench, kind: str, words: str
) -> None:
    bench.open("boatyard")
    bench.ctrl(Key.Key_2)
    page = page_of(bench)
    assert not page.answers.isVisibleTo(page)
    request = Request(
        kind=kind,
        ends=("A", "D"),
        sense=("C", "F"),
        lines=(("A",), ("B",), ("C",)),
        joints=(("D", "E", "F"),),
    )
    bench.window.session.pick(request)
    assert page.answers.isVisibleTo(page)
    assert words in page.answers.caution.words
    assert page.guide.isVisibleTo(page)
