"""One window a shop: a second start raises the first and hands its files over."""

from pathlib import Path

import pytest

from careful_coil.desk.bundles import write_out
from careful_coil.desk.single import files_in, hand_over, meeting_place
from careful_coil.desk.start import at_the_door
from tests.desk.driver import Bench


@pytest.fixture(autouse=True)
def runtime(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("XDG_RUNTIME_DIR", str(tmp_path))


def test_a_second_start_raises_the_first_window(empty: Bench) -> None:
    window = empty.window
    shop = window.session.shop
    assert not hand_over(shop, [])  # nobody is there yet
    door = at_the_door(window)
    assert door.there
    window.showMinimized()
    assert hand_over(shop, [])
    empty.settle(lambda: not window.isMinimized())
    assert window.isVisible()
    assert not hand_over(shop / "another", [])
    door.close()
    assert not hand_over(shop, [])


def test_a_job_that_is_double_clicked_comes_into_the_open_window(
    empty: Bench, tmp_path: Path, template: Path
) -> None:
    from_demo = Bench(tmp_path / "demo", demo=True, template=template)
    from_demo.open("theatre")
    said: list[str] = []
    write_out(from_demo.window.session, said.append)
    from_demo.settle(lambda: bool(said))
    file = next((tmp_path / "demo" / "bundles").glob("*.ccjob"))
    from_demo.close()
    door = at_the_door(empty.window)
    assert hand_over(empty.window.session.shop, [str(file)])
    empty.settle(lambda: empty.window.session.open is not None)
    assert empty.judged.job.name == "Theatre, stage fan"
    door.close()


def test_a_window_that_ended_without_leaving_is_no_hindrance(empty: Bench) -> None:
    shop = empty.window.session.shop
    meeting_place(shop).write_text("")
    assert not hand_over(shop, [])
    assert not meeting_place(shop).exists()


@pytest.mark.parametrize("said", [b"", b"\xff\x00", b"[1]", b'{"open": 3}', b'{"open": [3, null]}'])
def test_what_is_no_message_names_no_file(said: bytes) -> None:
    assert files_in(said) == []
