"""The motor in section: each kind has its own places, and no line or word lies over another's words."""

from itertools import combinations, product

import pytest

from careful_coil.core.mechanics.places import Shell
from careful_coil.desk.shared.section_view import SIDES
from careful_coil.drawing.callouts import GAP, ROW, Callout, callouts
from careful_coil.drawing.section import HIGH, WIDE, draw_section
from careful_coil.drawing.shapes import Point

SHELLS = [
    Shell(
        brushes=brushes != "none",
        commutator=brushes == "commutator",
        rings=brushes == "rings",
        poles=brushes == "commutator",
        switch=switch,
        box=box,
        flange=not box,
        two_ends=switch,
        sleeve=("drive",) if box else (),
    )
    for brushes, switch, box in product(
        ("none", "commutator", "rings"), (False, True), (False, True)
    )
]
WORDS = (
    3.6,
    7.6,
)  # middle lines of a title and of the words below it, mm from the top of their box


def places(shell: Shell) -> dict[str, Point]:
    return dict(draw_section(shell, {}).targets)


def laid_out(shell: Shell, wide: float) -> list[Callout]:
    beside = (wide - WIDE - 2 * GAP) / 2
    left = (wide - WIDE) / 2
    own = {n: (x + left, y + ROW * 0.62) for n, (x, y) in places(shell).items()}
    return callouts(own, SIDES, wide, HIGH + ROW * 1.35, beside)


def boxes_apart(a: Callout, b: Callout) -> bool:
    across = a.x + a.wide <= b.x + 0.01 or b.x + b.wide <= a.x + 0.01
    return across or a.y + ROW <= b.y + 0.01 or b.y + ROW <= a.y + 0.01


def enters(line: tuple[Point, Point], box: Callout) -> bool:
    """Whether a line has a point inside a box, looked at along its whole length."""
    (x, y), (ex, ey) = line
    steps = [k / 200 for k in range(201)]
    return any(
        box.x < x + (ex - x) * s < box.x + box.wide and box.y < y + (ey - y) * s < box.y + ROW
        for s in steps
    )


@pytest.mark.parametrize("wide", [140.0, 160.0, 190.0])
@pytest.mark.parametrize("shell", SHELLS)
def test_no_line_and_no_words_lie_over_words(shell: Shell, wide: float) -> None:
    found = laid_out(shell, wide)
    assert {c.name for c in found} == set(places(shell))
    for a, b in combinations(found, 2):
        assert boxes_apart(a, b), (a, b)
    for a, b in product(found, found):
        assert not enters(a.line, b), (a, b)
    for c in found:
        assert c.x >= -0.01
        assert c.x + c.wide <= wide + 0.01


def test_a_kind_has_its_own_places() -> None:
    assert {"brushes", "commutator"} <= set(places(Shell(brushes=True, commutator=True)))
    plain = places(Shell())
    assert not {"brushes", "commutator", "switch"} & set(plain)
    assert "switch" in places(Shell(switch=True))
    assert set(places(Shell(sealed=True))) == {"leads"}
    for x, y in plain.values():
        assert 0 <= x <= WIDE
        assert 0 <= y <= HIGH


def test_a_place_has_its_colour_and_the_chosen_one_stands_bold() -> None:
    plain, told = draw_section(Shell(), {}), draw_section(Shell(), {"fan": "hold"}, "fan")
    changed = [b for a, b in zip(plain.shapes, told.shapes, strict=True) if a != b]
    assert changed
    assert {s.token for s in changed} == {"hold"}
