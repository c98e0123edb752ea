"""What is heard, seen and felt on a run: sound, sparks, the start device out and in, warmth."""

import math

import pytest

from careful_coil.core.job import Finding
from careful_coil.core.settings import Settings
from careful_coil.core.trial.idle import idle
from careful_coil.core.trial.typed import read_step
from tests.core.logs import judged, plate, ticket
from tests.core.played import Body
from tests.core.test_trial import LOG, begun, findings, step


def heard(what: str, text: str) -> Body:
    return {"kind": "trial-heard", "what": what, "text": text}


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("growls at the drive end", "Bearings"),
        ("a scraping on run-down", "touches"),
        ("humming, stops when switched off", "Magnetic"),
        ("squeals", "seal"),
        ("knocks once a turn", "key"),
        ("rumble and hum", "Magnetic"),
    ],
)
def test_a_sound_is_told_with_what_makes_it(text: str, words: str) -> None:
    found = findings(*begun(), heard("sound", text))["trial-sound"]
    assert found.verdict == "watch"
    assert words in found.why
    assert "runs down with it is mechanical" in found.why
    for calm in ("quiet, even", "no hum", "runs without a rumble"):
        assert "trial-sound" not in findings(*begun(), heard("sound", calm))


@pytest.mark.parametrize(
    ("text", "bad"),
    [
        ("none", False),
        ("light, even", False),
        ("no sparks", False),
        ("lightly and evenly", False),
        ("not light", True),
        ("heavily", True),
        ("uneven", True),
        ("light but ragged", True),
        ("ring of fire", True),
        ("blue", True),
        ("ring", True),
        ("fine", False),
    ],
)
def test_sparks_are_read_by_whole_words(text: str, bad: bool) -> None:
    assert ("trial-spark" in findings(*begun(), heard("spark", text))) == bad


OUT = {"kind": "trial-start", "volt": 400, "outcome": "dropped out", "seconds": 1}


@pytest.mark.parametrize(
    ("rpm", "verdict", "subject"),
    [
        (1125, "good", "Start device out in time"),
        (900, "watch", "Start device out early"),
        (1350, "watch", "Start device out late"),
    ],
)
def test_the_start_device_lets_go_at_70_to_80_of_synchronous_speed(
    rpm: float, verdict: str, subject: str
) -> None:
    found = findings(*begun(), OUT | {"rpm": rpm})["trial-drop-out"]
    assert (found.verdict, found.subject) == (verdict, subject)
    by_ear = findings(*begun(), heard("drop-out", f"{rpm} rpm"))["trial-drop-out"]
    assert by_ear.figure == found.figure == pytest.approx(rpm / 15)


def test_a_start_device_that_stays_out_is_a_hold_and_one_back_too_early_a_watch() -> None:
    out = OUT | {"rpm": 1125}
    assert findings(*begun(), out, heard("drop-in", "never"))["trial-drop-in"].verdict == "hold"
    assert findings(*begun(), out, heard("drop-in", "0 rpm"))["trial-drop-in"].verdict == "hold"
    assert findings(*begun(), out, heard("drop-in", "1200 rpm"))["trial-drop-in"].verdict == "watch"
    assert "trial-drop-in" not in findings(*begun(), out, heard("drop-in", "640 rpm"))


def test_a_motor_that_ends_near_its_class_without_load_is_watched() -> None:
    def warm(end: float, where: str = "winding") -> dict[str, Finding]:
        steps = [
            step(f"400 V 2.6 A {end - (end - 20) * math.exp(-t / 12):.2f} °C {t} min {where}")
            for t in (0, 5, 10, 20, 30)
        ]
        return findings({"kind": "winding-made", "field": "class", "text": "F"}, *begun(), *steps)

    hot = warm(150)["trial-warm"]
    assert (hot.verdict, hot.limit) == ("watch", 135)
    assert hot.figure == pytest.approx(150, abs=2)
    assert "trial-warm" not in warm(70)
    frame = warm(128, "frame")["trial-warm"]  # its winding is some 15 K hotter
    assert (frame.limit, "The frame ends near" in frame.why) == (120, True)
    assert "trial-warm" not in warm(128)


def test_sparks_along_the_edge_are_watched_as_on_the_brushes_own_scale() -> None:
    even = findings(*begun(), heard("spark", "even"))["trial-spark"]
    assert (even.verdict, even.why) == (
        "watch",
        "Even: even along the edge: neutral, spring, grade or load.",
    )


def test_a_shaft_that_turns_only_beyond_half_the_volts_is_held_by_something() -> None:
    late = findings(*begun(), heard("starts-turning", "230 V"))["trial-turning"]
    assert (late.verdict, late.figure) == ("watch", 57.5)
    assert "Stiff" in late.why
    for text in ("48 V", "early"):
        assert "trial-turning" not in findings(*begun(), heard("starts-turning", text))


@pytest.mark.parametrize(
    ("kind", "name", "verdict"),
    [
        ("three-phase", "Mill", "hold"),
        ("three-phase", "Stage fan", "watch"),
        ("three-phase", "Infant school, pump", "hold"),
        ("permanent-capacitor", "Mill", "watch"),
        ("shaded-pole", "Mill", "watch"),
    ],
)
def test_kinds_that_idle_near_plate_amps_and_fans_off_their_fan_are_watched_only(
    kind: str, name: str, verdict: str
) -> None:
    job = judged(*LOG, *ticket(name=name)).job
    found = {f.code: f for f in idle(read_step("400 V 7.7 A", 3), job, Settings(), kind)}
    assert found["trial-amps"].verdict == verdict


def test_joints_that_were_a_guess_are_made_anew_where_it_idles_low_and_held_where_it_still_does() -> (
    None
):
    one_rating = [*LOG, *plate(volt="400", amp="6.4")]
    low = [*begun(), step("400 V 0.8/0.8/0.8 A smooth")]
    guessed = findings(*low, log=one_rating)
    assert (guessed["trial-amps"].verdict, guessed["trial-amps"].gate) == ("unproven", True)
    assert (guessed["hookup"].verdict, guessed["hookup"].gate) == ("unproven", True)
    chosen = findings(*low, log=[*one_rating, {"kind": "wished", "field": "family", "text": "wye"}])
    assert (chosen["trial-amps"].verdict, chosen["trial-amps"].gate) == ("hold", True)
    delta: list[Body] = [
        {"kind": "parted", "leads": ["D", "E", "F"]},
        *({"kind": "joint", "joint": j} for j in (["A", "F"], ["B", "D"], ["C", "E"])),
    ]
    anew = findings(*low, {"kind": "trial-ended"}, *delta, *low, log=one_rating)
    assert anew["trial-amps"].verdict == "hold"
