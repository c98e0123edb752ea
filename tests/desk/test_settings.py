"""Shop settings: limits and schools changed by keys, kept with the shop, everything judged anew."""

import json
from pathlib import Path

from careful_coil.core.schools import SCHOOLS
from careful_coil.desk.keeping import change_settings
from careful_coil.desk.said import said
from careful_coil.desk.settings_page import SettingsPage
from careful_coil.desk.stations.insulation import InsulationPage
from tests.desk.driver import Bench, Key
from tests.desk.hands import station


def settings(bench: Bench) -> SettingsPage:
    bench.ctrl(Key.Key_Comma)
    page = bench.window.stack.currentWidget()
    assert isinstance(page, SettingsPage)
    return page


def put(bench: Bench, page: SettingsPage, field: str, text: str) -> None:
    assert page.put_cursor(field)
    bench.settle()
    bench.enter(text)


def kept(bench: Bench) -> dict[str, object]:
    file = bench.window.session.shop / "settings.json"
    found = json.loads(file.read_text(encoding="utf-8"))
    assert isinstance(found, dict)
    return found


def test_a_limit_is_changed_and_everything_is_judged_by_it(bench: Bench) -> None:
    bench.open("boatyard")
    assert "insulation too low" in " ".join(bench.rack()).lower()
    page = settings(bench)
    while page.limits.name() != "insulation_minimum":
        bench.key(Key.Key_Down)
    assert "Insulation to frame" in page.fields["limit"].label.text()
    put(bench, page, "limit", "0,5")
    assert kept(bench) == {"insulation_minimum": 0.5}
    assert bench.judged.findings
    own = [row.lower() for row in bench.rack() if "Boatyard" in row]
    assert not any("too low" in row for row in own)
    put(bench, page, "limit", "none")
    assert "MΩ, or usual" in page.fields["limit"].message.text()
    put(bench, page, "limit", "-1")
    assert "below nothing" in page.fields["limit"].message.text()
    put(bench, page, "limit", "usual")
    assert kept(bench) == {}
    assert "IEEE 43" in page.limits.row_words(page.limits.current)
    assert any("too low" in row.lower() for row in bench.rack())


def test_schools_are_chosen_by_keys_with_their_reason(bench: Bench) -> None:
    bench.open("bakery")
    page = settings(bench)
    page.schools.setFocus()
    while "Wye or star?" not in page.schools.row_words(page.schools.current):
        bench.key(Key.Key_Down)
    bench.key(Key.Key_2)
    assert kept(bench) == {"schools": {"star": "star"}}
    assert "star: the word of the standards" in page.schools.row_words(page.schools.current)
    assert page.schools.row_words(page.schools.current).endswith("; at Connect")
    acting = page.schools.row_words(list(SCHOOLS).index("part-winding"))
    assert acting.endswith("; at Connect")
    bench.key(Key.Key_Left)
    assert kept(bench) == {}
    bench.key(Key.Key_Home)
    bench.key(Key.Key_Right)
    assert bench.window.session.settings.school("visits") == "no"
    assert len(page.schools.boxes()) == len(SCHOOLS)


def test_the_currency_stands_in_the_estimate_and_the_bench_comes_back(bench: Bench) -> None:
    bench.open("school")
    page = settings(bench)
    put(bench, page, "currency", "Kr")
    assert any("145 Kr" in row for row in bench.ledger())
    put(bench, page, "currency", "doubloons")
    assert "four letters" in page.fields["currency"].message.text()
    bench.ctrl(Key.Key_1)
    assert bench.window.stack.currentWidget() is bench.page


def test_settings_stay_with_the_shop(qtbot: object, tmp_path: Path) -> None:
    first = Bench(tmp_path / "shop", demo=False)
    put(first, settings(first), "currency", "Kr")
    first.close()
    second = Bench(tmp_path / "shop", demo=False)
    assert second.window.session.settings.currency == "Kr"
    second.close()
    (tmp_path / "shop" / "settings.json").write_text("{", encoding="utf-8")
    third = Bench(tmp_path / "shop", demo=False)
    assert third.window.session.settings.currency == ""
    assert "The usual limits stand." in third.message
    third.close()


def test_settings_that_cannot_be_kept_change_nothing(bench: Bench) -> None:
    page = settings(bench)
    (bench.window.session.shop / "settings.json").mkdir()
    put(bench, page, "currency", "Kr")
    assert "not written" in page.note.text()
    assert bench.window.session.settings.currency == ""


def test_a_rack_read_before_the_open_motor_was_judged_keeps_its_newer_tag(bench: Bench) -> None:
    bench.open("boatyard")
    session = bench.window.session
    before = list(session.summaries)
    change_settings(session, {"insulation_minimum": 0.5})
    bench.settle()
    session.filled(before)
    own = [row.lower() for row in bench.rack() if "Boatyard" in row]
    assert own
    assert not any("too low" in row for row in own)


def test_the_window_speaks_in_the_terms_the_shop_chose(bench: Bench) -> None:
    bench.open("theatre")
    session, page = bench.window.session, station(bench, 3, InsulationPage, "bond")
    assert any("Earth bond" in row for row in bench.ledger())
    try:
        change_settings(session, {"schools": {"terms": "american"}})
        bench.settle()
        assert any("Ground bond" in row for row in bench.ledger())
        label = page.fields["earth-done"].label
        assert said(label.text()) != label.text() or "arth" not in label.text()
        assert bench.judged.job.name == "Theatre, stage fan"
    finally:
        change_settings(session, {"schools": {"terms": "as written"}})
        bench.settle()
    assert any("Earth bond" in row for row in bench.ledger())
