"""Release by keys: other ways out, work on site, the foreman, the follow-up, the tag as a file."""

import json
from pathlib import Path

import pytest
from pypdf import PdfReader
from PySide6.QtCore import QMimeData, QPoint, QPointF, Qt, QUrl
from PySide6.QtGui import QDragEnterEvent, QDropEvent
from PySide6.QtWidgets import QLineEdit

from careful_coil.demo import demo_jobs
from careful_coil.desk.release.gate import GatePart
from careful_coil.desk.release.let_go import AsidePart
from careful_coil.desk.release.papers import PapersPart
from careful_coil.desk.release.site import SitePart
from careful_coil.desk.stations.release import ReleasePage
from careful_coil.documents.job import JobDocument
from tests.desk.driver import Bench, Key
from tests.desk.hands import log, part, station, typed


def release(bench: Bench, motor: str) -> ReleasePage:
    bench.open(motor)
    return station(bench, 9, ReleasePage)


SIGNED = {"kind": "released", "signed": "AB"}


def demo_document(name: str) -> JobDocument:
    return next(d for d in demo_jobs() if d.id == f"demo-{name}")


def paper(bench: Bench, key: str) -> str:
    """Have a paper written; return where it is said to be."""
    papers = part(bench, PapersPart)
    getattr(papers, key).setFocus()
    bench.key(Key.Key_Return)
    assert papers.said.words.startswith("Written:")
    return papers.said.words.removeprefix("Written: ")


def tag(bench: Bench, number: int, shop: Path) -> str:
    paper(bench, "tag")
    (only,) = PdfReader(shop / "sheets" / f"tag-{number}.pdf").pages
    return " ".join(str(only.extract_text()).split())


def test_a_motor_returned_unrepaired_gets_a_tag_and_no_signature(
    bench: Bench, tmp_path: Path
) -> None:
    page = release(bench, "boatyard")
    typed(bench, "let-go", "unrepaired costs more than a new one")
    assert part(bench, GatePart).gate.rows == [
        ("hold", "DO NOT CONNECT", "Returned unrepaired: costs more than a new one")
    ]
    assert all(page.fields[f].isHidden() for f in ("mechanics", "earth-bond", "sign"))
    number = bench.job.number
    assert any("do not connect" in row for row in bench.rack())
    words = tag(bench, number, tmp_path / "shop")
    assert words.startswith("DO NOT CONNECT")
    assert "costs more than a new one" in words
    assert "let it go" not in bench.next
    assert not page.put_cursor("sign")
    assert bench.judged.job.released is None
    assert page.put_cursor("let-go")
    bench.settle()
    bench.key(Key.Key_Delete)
    bench.key(Key.Key_Return)
    assert bench.judged.gate
    assert part(bench, GatePart).gate.rows[0][1] == bench.judged.gate[0].subject


@pytest.mark.parametrize("text", ["sold cheap", "unrepaired", "scrap "])
def test_another_way_out_wants_one_of_two_words_and_a_reason(bench: Bench, text: str) -> None:
    page = release(bench, "boatyard")
    typed(bench, "let-go", text)
    assert "unrepaired or scrap" in page.fields["let-go"].message.text()
    assert bench.judged.job.let_go is None


def test_a_motor_in_work_has_a_tag_that_says_do_not_connect(bench: Bench, tmp_path: Path) -> None:
    release(bench, "theatre")
    words = tag(bench, 214, tmp_path / "shop")
    assert words.startswith("DO NOT CONNECT")
    assert f"{len(bench.judged.gate)} lines of the gate are open" in words


def test_a_released_motor_has_volts_and_direction_on_its_tag_and_a_follow_up(
    bench: Bench, tmp_path: Path
) -> None:
    release(bench, "cider")
    assert part(bench, PapersPart).follow.isHidden()
    typed(bench, "sign", "CD")
    words = tag(bench, 206, tmp_path / "shop")
    assert words.startswith("400 V 50 Hz")
    card = part(bench, PapersPart).card
    assert card.head == "400 V 50 Hz"
    assert all(line.split()[0] in words for line in card.lines)
    assert "Turns clockwise seen from the drive end" in words
    assert "Reversible outside: exchange two lines." in words
    assert "Overload dial at 6.4 A." in words
    before, jobs = bench.job.id, len(bench.rack())
    part(bench, PapersPart).follow.setFocus()
    bench.key(Key.Key_Return)
    bench.settle(lambda: bench.job.id != before)
    assert bench.station == "intake"
    assert len(bench.rack()) == jobs + 1
    assert bench.judged.job.follows is not None
    assert bench.judged.job.follows.number == 206
    assert [e.number for e in bench.judged.job.tested.earlier] == [206]
    assert bench.judged.job.tags == tuple("ABCDEF")
    assert not bench.judged.released
    assert bench.judged.gate


def test_a_visit_is_entered_in_the_order_of_its_numbered_field_sheet(
    bench: Bench, tmp_path: Path
) -> None:
    release(bench, "cider")
    site = part(bench, SitePart)
    assert site.on.text().startswith("In the shop")
    assert site.paper.isHidden()
    site.on.setFocus()
    bench.key(Key.Key_Return)
    assert bench.judged.job.on_site
    open_now = {f.code for f in bench.judged.gate}
    assert {"site-phase-order", "site-amps", "site-volts"} <= open_now
    site.paper.setFocus()
    bench.key(Key.Key_Return)
    pages = PdfReader(tmp_path / "shop" / "sheets" / "field-206.pdf").pages
    words = " ".join(" ".join(p.extract_text() for p in pages).split())
    assert [w for w in (line.title for line in site.lines) if w not in words] == []
    numbers = [words.index(f"{k} {line.title}") for k, line in enumerate(site.lines, 1)]
    assert numbers == sorted(numbers)
    shown = [row.words for row in site.rows if not row.isHidden()]
    assert [(w.number, w.title) for w in shown] == [
        (k, line.title) for k, line in enumerate(site.lines, 1)
    ]
    typed(bench, "site-phase-order", "round and round")
    assert "L1 L2 L3" in site.fields["site-phase-order"].message.text()
    for field, told in (
        ("site-dead", "0 V"),
        ("site-ohms", "5.21/5.20/5.21"),
        ("site-megohm", "480 MΩ 18 °C 500 V"),
        ("site-drained", "4 min"),
        ("site-supply", "401/398/403"),
        ("site-phase-order", "l1 l2 l3"),
        ("site-amps", "6.1/6.2/0.0"),
    ):
        typed(bench, field, told)
    (dead,) = [f for f in bench.judged.gate if f.code == "site-amps"]
    assert (dead.verdict, dead.subject, dead.waivable) == ("hold", "No amps in L3", False)
    for field, told in (
        ("site-amps", "6.1/6.2/6.1"),
        ("site-volts", "398/399/400"),
        ("site-direction", "cw drive-end"),
    ):
        typed(bench, field, told)
    for name in [line.name for line in site.lines if not line.done]:
        typed(bench, name, "6.1/6.2/6.1 smooth" if name == "site-ran" else "set and told")
    assert [(k.name, site.fields[k.name].message.text()) for k in site.lines if not k.done] == []
    assert site.told(bench.judged) == ("good", f"{len(site.lines)} of {len(site.lines)} read")
    assert not {f.code for f in bench.judged.gate} & open_now
    site.on.setFocus()
    bench.key(Key.Key_Return)
    assert not bench.judged.job.on_site


def test_a_job_goes_out_as_a_bundle_and_comes_in_at_another_shop(
    bench: Bench, tmp_path: Path, template: Path
) -> None:
    release(bench, "theatre")
    file = Path(paper(bench, "bundle").rstrip("."))
    assert file.suffix == ".ccjob"
    entries, number = list(bench.job.entries), bench.job.number
    other = Bench(tmp_path / "other", demo=False)
    try:
        other.ctrl(Key.Key_O)
        assert "path of a bundle" in other.message
        other.enter(str(file))
        other.settle(lambda: other.window.session.open is not None)
        assert other.message.startswith(f"Job {number}: {len(entries)} entries, 1 files")
        assert other.job.entries == entries
        other.ctrl(Key.Key_K)
        other.enter(str(file))
        assert "nothing new in it" in other.message
        bad = tmp_path / "bad.ccjob"
        bad.write_bytes(file.read_bytes()[:-40])
        for wrong in (bad, tmp_path / "none.ccjob"):
            other.ctrl(Key.Key_K)
            other.enter(str(wrong))
            assert wrong.name in other.message
        assert len(other.rack()) == 1
    finally:
        other.close()


def test_a_signed_job_that_comes_in_with_a_hold_is_not_released(
    bench: Bench, tmp_path: Path
) -> None:
    job = json.loads(demo_document("boatyard").model_dump_json())
    for entry in job["entries"]:
        entry["id"] = f"other-{entry['id']}"
    signed = {"id": "f1", "at": "2026-03-05T09:00:00Z", "by": "AB", "station": "release"}
    job |= {"id": "forged", "entries": [*job["entries"], signed | {"body": SIGNED}]}
    file = tmp_path / "forged.json"
    file.write_text(json.dumps(job), encoding="utf-8")
    bench.ctrl(Key.Key_O)
    bench.enter(str(file))
    bench.settle(lambda: bench.job.id == "forged")
    assert "is taken here" in bench.message
    assert not bench.judged.released
    assert "open-again" in {f.code for f in bench.judged.gate}
    station(bench, 9, ReleasePage)
    assert tag(bench, bench.job.number, tmp_path / "shop").startswith("DO NOT CONNECT")


def test_a_bundle_is_dropped_on_the_window(bench: Bench, tmp_path: Path) -> None:
    release(bench, "theatre")
    file = paper(bench, "bundle").rstrip(".")
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(file)])
    none = (Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier)
    enter = QDragEnterEvent(QPoint(9, 9), Qt.DropAction.CopyAction, data, *none)
    bench.window.dragEnterEvent(enter)
    assert enter.isAccepted()
    drop = QDropEvent(QPointF(9, 9), Qt.DropAction.CopyAction, data, *none)
    bench.window.dropEvent(drop)
    bench.settle()
    assert "nothing new in it" in bench.message


def test_a_line_is_set_aside_by_a_second_person_and_the_hold_is_gone(bench: Bench) -> None:
    release(bench, "cider")
    log(
        bench,
        {"kind": "trial-begun"},
        {"kind": "trial-ready", "items": ["clamp"]},
        {"kind": "trial-heard", "what": "spark", "text": "ragged"},
        {"kind": "trial-ended"},
    )
    aside = part(bench, AsidePart)
    assert "trial-spark (brushes spark)" in aside.free.words
    hold = {f.code for f in bench.judged.gate if f.verdict == "hold"}
    assert {"trial-spark", "test-run"} & hold
    typed(bench, "waive", "trial-spark AB ran in")
    assert "second person" in aside.fields["waive"].message.text()
    for code in sorted(hold):
        typed(bench, "waive", f"{code} CD new brushes, bedded in")
    assert "waived by CD: new brushes" in aside.done.words
    assert not {f.code for f in bench.judged.gate} & hold
    assert "trial-spark" in {f.code for f in bench.judged.findings if f.verdict == "hold"}
    typed(bench, "sign", "AB")
    assert bench.judged.released


def test_only_the_foreman_sets_aside_where_one_is_named(bench: Bench) -> None:
    page = release(bench, "theatre")
    bench.window.session.settings = bench.window.session.settings.changed({"foreman": "EF"})
    assert "installer" in part(bench, AsidePart).free.words
    typed(bench, "waive", "installer CD told")
    assert "EF" in page.fields["waive"].message.text()
    assert not bench.judged.job.waived


def test_a_signature_as_long_as_a_story_is_refused_in_place(bench: Bench) -> None:
    page = release(bench, "cider")
    typed(bench, "sign", "signed by the whole night shift of the works")
    assert "at most 40" in page.fields["sign"].message.text()
    typed(bench, "waive", f"mechanics {'C' * 41} oiled")
    assert "initials" in page.fields["waive"].message.text()
    assert bench.judged.job.released is None


def test_a_released_job_is_frozen_but_for_its_signature(bench: Bench) -> None:
    release(bench, "cider")
    typed(bench, "sign", "CD")
    before = len(bench.job.entries)
    bench.meter_here()
    bench.enter("AD 2.6")
    assert len(bench.job.entries) == before
    assert bench.note.startswith("Released and frozen")
    page = release(bench, "cider")
    typed(bench, "let-go", "scrap fell off the lorry")
    assert bench.judged.job.let_go is None
    assert page.fields["let-go"].cell.text() == ""
    assert bench.judged.released
    bench.ctrl(Key.Key_Z)
    assert not bench.judged.released
    typed(bench, "let-go", "scrap fell off the lorry")
    assert bench.judged.job.let_go is not None


def test_the_customers_sheet_is_written_beside_the_shops(bench: Bench, tmp_path: Path) -> None:
    release(bench, "cider")
    paper(bench, "customers")
    pages = PdfReader(tmp_path / "shop" / "sheets" / "customer-206.pdf").pages
    words = " ".join(" ".join(p.extract_text() for p in pages).split())
    assert "Readings, ohms as read" not in words
    assert "400 V, 2.61/2.6/2.67 A, 188 W, 1497 rpm, 38 °C, 30 min, smooth." in words


def test_a_signature_wants_a_pin_where_the_shop_does(bench: Bench) -> None:
    page = release(bench, "cider")
    assert page.fields["pin"].isHidden()
    settings = bench.window
    settings.settings()
    field = settings.stack.currentWidget().fields["pin"]  # type: ignore[attr-defined]
    assert field.cell.echoMode() == QLineEdit.EchoMode.Password
    for text, words in (("AB", "such as AB 4711"), ("AB 4711", "")):
        field.cell.setText(text)
        field.cell.setModified(True)
        field.finish()
        assert words in field.message.text()
    release(bench, "cider")
    before = len(bench.job.entries)
    for pin, words in (("", "PIN of AB first"), ("4712", "not the PIN of AB")):
        if pin:
            typed(bench, "pin", pin)
        typed(bench, "sign", "AB")
        assert words in bench.message
        assert len(bench.job.entries) == before
    typed(bench, "pin", "4711")
    typed(bench, "sign", "AB")
    body = bench.job.entries[-1].body
    assert (body.kind, getattr(body, "by_pin", False)) == ("released", True)
    assert "4711" not in bench.job.entries[-1].model_dump_json()
