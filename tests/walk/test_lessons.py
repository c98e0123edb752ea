"""The learner's chapter: its pages are the walks of today, each motor of another kind, all of them signed."""

from pathlib import Path

import pytest

from careful_coil.demo.cast import cast_motor, cast_names
from careful_coil.walk.lessons import FOLDER, MOTORS, lesson, page_of

ROOT = Path(__file__).parents[2]


@pytest.mark.parametrize("name", list(MOTORS)[::4])
def test_a_page_is_the_walk_of_today(name: str) -> None:
    for file, text in lesson(name).items():
        kept = (ROOT / FOLDER / file).read_text(encoding="utf-8")
        assert kept == text, "run: python -m careful_coil.walk.lessons"


@pytest.mark.parametrize("name", MOTORS)
def test_every_lesson_ends_with_a_signature_at_the_last_station(name: str) -> None:
    text = (ROOT / FOLDER / page_of(name)).read_text(encoding="utf-8")
    assert "Signed after" in text
    assert "**Sign and let it go**" in text
    assert text.count("## ") > 6
    assert name in cast_names()


def test_the_ten_are_of_ten_kinds() -> None:
    kinds = {(cast_motor(n)["kind"], cast_motor(n)["arrangement"]) for n in MOTORS}
    assert len(MOTORS) == len(kinds) == 10
