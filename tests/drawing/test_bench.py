"""What stands on the bench as drawings: every lead once, what is asked in copper, nothing outside its room."""

from collections import Counter

import pytest

from careful_coil.core.kind.balance import balance_of
from careful_coil.drawing.balance import draw_balance
from careful_coil.drawing.bench import draw_bond, draw_clips, draw_load, draw_posts, draw_run
from careful_coil.drawing.shapes import Area, Drawing, Stroke, Words
from careful_coil.drawing.svg import svg_of


def words(drawing: Drawing) -> Counter[str]:
    return Counter(s.text for s in drawing.shapes if isinstance(s, Words))


def tokens(drawing: Drawing) -> set[str]:
    return {s.token for s in drawing.shapes}


def inside(drawing: Drawing) -> bool:
    points = [
        p for s in drawing.shapes for p in (s.points if isinstance(s, Stroke | Area) else (s.at,))
    ]
    return all(
        -0.1 <= x <= drawing.width + 0.1 and -0.1 <= y <= drawing.height + 0.1 for x, y in points
    )


EVERY = [
    draw_posts(3, (401, 398, 403), (231, 230, 232), True),
    draw_posts(3, None, None, True),
    draw_posts(1, None, None, False),
    *(draw_clips(list("ABCDEF")[:k], list("GHJ")[:e], 500) for k in (1, 3, 6) for e in (0, 1, 3)),
    draw_bond({"frame": "0.03 Ω", "drive end bell": "", "other end bell": ""}, "drive end bell"),
    *(
        draw_run(
            dict(zip(("L1", "L2", "L3", "N")[:k], "ABCD", strict=False)), "off", True, "no load"
        )
        for k in (2, 3, 4)
    ),
    *(draw_load(t, e) for t in ("cw", "ccw", "") for e in ("drive-end", "opposite", "")),
    draw_balance(balance_of({"parts": 40, "replacement": 300}, 0.6), 0.6, "{:.0f}".format, 160.0),
    draw_balance(balance_of({}, 0.6), 0.6, "{:.0f}".format, 90.0),
]


@pytest.mark.parametrize("drawing", EVERY)
def test_nothing_lies_outside_and_it_can_be_written_as_svg(drawing: Drawing) -> None:
    assert inside(drawing)
    assert svg_of(drawing).startswith("<svg")


def test_the_six_volts_of_a_supply_stand_between_its_posts() -> None:
    read = words(draw_posts(3, (401, 398, 403), (231, 230, 232), True))
    assert {"401 V", "398 V", "403 V", "231 V", "230 V", "232 V", "L1", "L2", "L3", "N"} == set(
        read
    )
    assert "copper" not in tokens(draw_posts(3, (401, 398, 403), (231, 230, 232), True))
    assert "copper" in tokens(draw_posts(3, None, None, True))  # still to be read


def test_every_lead_stands_once_at_the_tester() -> None:
    told = words(draw_clips(["A", "B"], ["C"], 500))
    assert all(told[n] == 1 for n in "ABC")
    assert told["500 V DC"] == 1


def test_the_clip_goes_where_the_bond_is_read_next() -> None:
    both = {"frame": "0.03 Ω", "drive end bell": "", "other end bell": ""}
    drawn = draw_bond(both, "drive end bell")
    copper = [s.text for s in drawn.shapes if isinstance(s, Words) and s.token == "copper"]
    assert copper == ["drive end bell"]
    assert "copper" not in tokens(draw_bond(dict.fromkeys(both, "0.03 Ω"), ""))


def test_the_heavier_side_hangs_lower() -> None:
    def beam(**told: float) -> tuple[float, float]:
        drawn = draw_balance(balance_of(told, 0.6), 0.6, "{:.0f}".format, 160.0)
        first = drawn.shapes[0]
        assert isinstance(first, Stroke)
        (_, left), (_, right) = first.points
        return left, right

    dear = beam(labour=400, replacement=300)
    assert dear[0] > dear[1]
    cheap = beam(labour=40, replacement=300)
    assert cheap[0] < cheap[1]
    assert beam(labour=180, replacement=300)[0] == pytest.approx(
        beam(labour=180, replacement=300)[1]
    )
