"""What a motor does and when, in plain words and in a customer's, and the first questions' answers."""

import re

from careful_coil.core.errors import BadValue

YES, NO = "yes", "no"
BY_HAND, UNCOUPLED, WHEN_KEY = "by-hand", "uncoupled", "when"
HAND_ANSWERS = ("free", "stiff", "seized", "not tried")
RUN_ANSWERS = ("runs well", "runs badly", "does not start", "not tried")
REST = 0.06  # chance of a symptom that a cause does not usually show

# a symptom, its plain words, and what a customer calls it (parts of words)
SYMPTOMS: dict[str, tuple[str, tuple[str, ...]]] = {
    "hums": ("hums and does not start", ("hum", "buzz", "growl", "stands and")),
    "starts-pushed": (
        "starts when pushed, spun or tapped",
        ("push", "spun", "spin it", "by hand", "flick", "tap", "knock", "hit it"),
    ),
    "dead": ("dead, nothing at all", ("dead", "nothing", "no sound")),
    "trips-at-once": ("trips at once", ("at once", "immediately", "blows the fuse", "fuse goes")),
    "trips-later": ("trips after seconds or minutes", ("trips", "cuts out", "overload", "trip")),
    "slow": ("slow to run up, or runs slow", ("slow", "sluggish", "no speed")),
    "slow-taps": ("slow on every speed", ("every speed", "all speeds", "each speed")),
    "weak": ("weak under load", ("weak", "no power", "stalls", "stops under")),
    "hot": ("hot", ("hot", "warm", "heat", "burns the hand")),
    "smells": ("smells, smoke", ("smell", "smoke", "burnt", "stink")),
    "noisy": ("noisy", ("nois", "loud", "squeal", "grind", "rattle", "rumble", "scream")),
    "vibrates": ("vibrates", ("vibrat", "shak", "jump")),
    "sparks": ("sparks at the brushes", ("spark", "arcs")),
    "reversed": ("turns the wrong way", ("wrong way", "backward", "reverse", "wrong direction")),
    "clicks": ("clicks in and out", ("click", "chatter", "in and out")),
    "cycles": (
        "hums, goes silent, again and again",
        ("cycles", "on and off", "again and again", "goes silent"),
    ),
    "no-restart": (
        "runs, but does not start again",
        ("restart", "start again", "second time", "start twice"),
    ),
    "shock": (
        "gives a shock, trips the leakage breaker",
        ("shock", "tingle", "leakage", "earth trip"),
    ),
    "wet": (
        "was wet, flooded",
        ("wet", "flood", "under water", "in water", "water in", "water got", "rain", "damp"),
    ),
}

# what customers complain of, by the number a counter types for it; the first: nothing is wrong
SHORT: dict[str, str] = {
    "": "in for a check",
    "hums": "hums",
    "starts-pushed": "starts when pushed",
    "dead": "dead",
    "trips-at-once": "trips at once",
    "trips-later": "trips after a while",
    "slow": "slow",
    "slow-taps": "slow on every speed",
    "weak": "weak",
    "hot": "hot",
    "smells": "smells burnt",
    "noisy": "noisy",
    "vibrates": "vibrates",
    "sparks": "sparks",
    "reversed": "turns the wrong way",
    "clicks": "clicks in and out",
    "cycles": "on and off, again and again",
    "no-restart": "will not start twice",
    "shock": "gives a shock",
    "wet": "was wet",
}
COMPLAINTS = tuple(SHORT.values())
_NUMBERS = re.compile(r"\d{1,9}(?:[\s,;]+\d{1,9})*")


def complaint_of(text: str) -> str:
    """Return a complaint as kept: in the customer's words, or put in words where numbers are given.

    Numbers are those of `COMPLAINTS`, from 0. Raises: BadValue.
    """
    told = text.strip()
    if not _NUMBERS.fullmatch(told):
        return told
    numbers = list(dict.fromkeys(int(n) for n in re.findall(r"\d+", told)))
    strange = [n for n in numbers if n >= len(COMPLAINTS)]
    if strange:
        most = len(COMPLAINTS) - 1
        raise BadValue(told, f"numbers from 0 to {most}, or what is wrong in words")
    if 0 in numbers and len(numbers) > 1:
        raise BadValue(told, "0 alone, where nothing is wrong")
    return ", ".join(COMPLAINTS[n] for n in numbers)


# when it happens: plain words, what a customer calls it; "always" is only ever chosen
WHEN: dict[str, tuple[str, tuple[str, ...]]] = {
    "always": ("always", ()),
    "cold": ("only cold", ("when cold", "from cold", "in the cold", "in the morning")),
    "warm": (
        "only once warm",
        ("when warm", "when hot", "once warm", "once hot", "when it is hot", "when it is warm"),
    ),
    "loaded": ("only under load", ("under load", "when loaded", "only loaded", "with the load on")),
    "low-volts": (
        "at low volts",
        ("low volts", "lights dim", "long cord", "on an extension", "on the extension"),
    ),
}
USUAL_WHEN = (0.6, 0.08, 0.12, 0.15, 0.05)  # P(when | a cause that does not care)


def when_in(complaint: str) -> tuple[str, str]:
    """Return when it happens by a complaint, empty where it does not say, and the complaint without it."""
    words = complaint.lower()
    for name, (_, parts) in WHEN.items():
        for part in parts:
            if part in words:
                return name, words.replace(part, " ", 1)
    return "", words
