"""How long each act takes one person, in minutes: a bench's experience in round figures."""

MINUTES = {
    "ohm": 0.5,
    "kick": 1.0,
    "series": 2.0,
    "run": 4.0,
    "switch": 2.0,
    "turn": 0.5,
    "spin": 0.5,
    "insulation": 2.0,
    "bond": 1.0,
    "volt": 1.0,
    "amp": 0.5,
    "microfarad": 1.0,
    "size": 2.0,
    "look": 1.0,
    "feel": 0.5,
    "plate": 0.3,
    "print": 0.5,
    "inventory": 2.0,
    "direction": 0.3,
    "step": 1.0,
    "start": 0.5,
    "turning": 1.0,
    "heard": 0.3,
    "tick": 0.5,
    "work": 3.0,
    "cause": 1.0,
    "word": 0.3,
}
WORK = {
    "dried": 600.0,
    "cleaned": 30.0,
    "renewed": 25.0,
    "closed": 6.0,
    "opened": 8.0,
    "earthed": 4.0,
}


def minutes_of(quantity: str, state: str = "") -> float:
    """Return the minutes an act takes."""
    return WORK.get(state, MINUTES.get(quantity, 1.0))
