"""How it turned, as people type it."""

TURNS = ("smooth", "rough", "none")
LEAST = 2  # letters that name a word by its beginning: s alone is seconds


def turning(word: str) -> str:
    """Return smooth, rough or none for a word or its beginning, sm, ro, no; empty for any other."""
    told = word.lower()
    return next((t for t in TURNS if len(told) >= LEAST and t.startswith(told)), "")
