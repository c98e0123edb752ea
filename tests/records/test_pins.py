"""PINs of those who sign: kept as hashes, wanted of all once one has one, changed only by who knows the old."""

from pathlib import Path

import pytest

from careful_coil.core.errors import BadValue, RecordsRefused
from careful_coil.records.pins import FILE, change_pin, read_pins, why_not


def test_a_pin_is_wanted_of_all_once_one_has_one(tmp_path: Path) -> None:
    assert why_not(tmp_path, "AB", "") == ""
    assert "signs with a PIN" in change_pin(tmp_path, "ab 4711")
    assert "4711" not in (tmp_path / FILE).read_text()
    assert why_not(tmp_path, "A.B.", "4711") == ""
    assert "not the PIN" in why_not(tmp_path, "AB", "4712")
    assert "first" in why_not(tmp_path, "AB", "")
    assert "has no PIN here" in why_not(tmp_path, "CD", "4711")


def test_only_who_knows_it_changes_or_ends_it(tmp_path: Path) -> None:
    change_pin(tmp_path, "AB 4711")
    for text in ("AB 8822", "AB 1111 8822", "AB 1111 none"):
        with pytest.raises(BadValue, match="has now, then the new"):
            change_pin(tmp_path, text)
    change_pin(tmp_path, "AB 4711 8822")
    assert why_not(tmp_path, "AB", "8822") == ""
    change_pin(tmp_path, "AB 8822 none")
    assert read_pins(tmp_path) == {}


@pytest.mark.parametrize("text", ["AB", "AB 12", "4711", "AB forty", "AB 1 2 3", ""])
def test_what_is_no_pin_is_refused_and_not_repeated(tmp_path: Path, text: str) -> None:
    with pytest.raises(BadValue, match="such as AB 4711"):
        change_pin(tmp_path, text)
    assert not (tmp_path / FILE).exists()


def test_a_file_that_cannot_be_read_lets_nobody_sign(tmp_path: Path) -> None:
    (tmp_path / FILE).write_text("{")
    with pytest.raises(RecordsRefused, match="nobody can sign"):
        why_not(tmp_path, "AB", "4711")
